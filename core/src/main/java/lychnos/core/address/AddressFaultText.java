package lychnos.core.address;

import lychnos.core.text.Message;

/** Texts about what is wrong with an address, a range or a prefix. */
enum AddressFaultText implements Message {
    HOST_BITS("{network}/{length} has host bits set. The network is {masked}/{length}."),
    LEADING_ZERO("{address} has a leading zero in “{number}”. Some programs read that as octal: write it "
            + "without the zero."),
    LENGTH_NOT_A_NUMBER("“/{length}” is not a prefix length. Write the prefix as 10.40.8.0/24."),
    MISSING("An address is missing."),
    NOT_A_GROUP("{address} is not an address: “{group}” is not a group of one to four hexadecimal digits."),
    NOT_A_NUMBER("{address} is not an address: “{part}” is not a number from 0 to 255."),
    NOT_DOTTED("{address} is not an address: expected four numbers with dots."),
    NO_LENGTH("{address} has no prefix length. Write it as 10.40.8.0/24."),
    NUMBER_TOO_LARGE("{address} is not an address: {value} is more than 255."),
    PREFIX_LENGTH("/{length} is not a prefix length. Lengths go from /0 to /{bits}."),
    REVERSED("The range is reversed: {first} comes after {last}."),
    TOO_LONG("The text is too long for an address."),
    TWO_FAMILIES("{first} and {last} belong to different address families."),
    TWO_GAPS("{address} has “::” twice."),
    WRONG_GROUPS("{address} has {count} {count|group|groups}. An IPv6 address has 8."),
    ZONE("{address} has a zone. Write the address without it.");

    private final String pattern;

    AddressFaultText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
