package lychnos.core.dialogue;

import java.util.Locale;
import java.util.Optional;
import java.util.function.Function;
import java.util.regex.Pattern;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;

/** One value in several notations. Machines seldom show what they were told as it was typed. */
final class Notation {

    private static final Pattern LENGTH = Pattern.compile("/?(\\d{1,3})");
    private static final Pattern HOST_NAME = Pattern.compile("[a-z0-9-]+(\\.[a-z0-9-]+)*");

    private Notation() {}

    /**
     * Whether two texts stand for one value: a MAC address with other separators or letters, an IPv6 address in another
     * form (RFC 5952), a mask and its prefix length, a host name in capitals or with its domain and the final dot
     * (RFC 1034, section 3.1). Anything else must be the same letter by letter.
     *
     * @param domain that of the machine, if it has one
     */
    static boolean same(String wanted, String shown, Optional<String> domain) {
        return wanted.equals(shown)
                || equal(wanted, shown, Notation::mac)
                || equal(wanted, shown, Address::tryParse)
                || equal(wanted, shown, Notation::length)
                || equal(wanted, shown, Notation::interfaceAddress)
                || equal(wanted, shown, text -> hostName(text, domain));
    }

    private static <T> boolean equal(String one, String other, Function<String, Optional<T>> read) {
        Optional<T> value = read.apply(one);
        return value.isPresent() && value.equals(read.apply(other));
    }

    private static Optional<Mac> mac(String text) {
        try {
            return Optional.of(Mac.parse(text));
        } catch (IllegalArgumentException e) {
            return Optional.empty();
        }
    }

    /** The prefix length of a mask, or of a text that is one. */
    private static Optional<Integer> length(String text) {
        if (LENGTH.matcher(text).matches()) {
            return Optional.of(Integer.parseInt(text.replace("/", "")));
        }
        return Address.tryParse(text).flatMap(Prefix::lengthOfMask);
    }

    /** An address with its prefix length, as {@code 10.40.8.7/24} and {@code 10.40.8.7/255.255.255.0} both have it. */
    private static Optional<String> interfaceAddress(String text) {
        int slash = text.indexOf('/');
        return slash <= 0
                ? Optional.empty()
                : Address.tryParse(text.substring(0, slash))
                        .flatMap(address -> length(text.substring(slash + 1)).map(length -> address + "/" + length));
    }

    /** A name with the machine's domain; a single label without a letter is none. */
    private static Optional<String> hostName(String text, Optional<String> domain) {
        String name = text.toLowerCase(Locale.ROOT).replaceFirst("\\.$", "");
        if (!HOST_NAME.matcher(name).matches() || name.chars().noneMatch(Character::isLetter)) {
            return Optional.empty();
        }
        return Optional.of(
                name.contains(".") || domain.isEmpty()
                        ? name
                        : name + "." + domain.get().toLowerCase(Locale.ROOT));
    }
}
