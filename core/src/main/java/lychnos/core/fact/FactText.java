package lychnos.core.fact;

import lychnos.core.text.Message;

/** Texts about what is wrong with a value or a list of values. */
enum FactText implements Message {
    CELL_MISSING("The {column} is missing."),
    CELL_TWICE("Line {earlier} has the same {column}."),
    CHANGE_WINDOW_REVERSED("“{text}” ends before it begins."),
    COLUMNS_MISSING("The heading has no column for: {columns}."),
    CONTROL_CHARACTER("The value contains a control character."),
    DATE_OF_SPREADSHEET("A spreadsheet has turned “{text}” into a date. Format the column as text and enter it again."),
    EMPTY("The value is empty."),
    LIST_EMPTY("The list is empty."),
    LIST_TOO_LONG("The list has {length} characters, at most {longest} are read. Is it the right file?"),
    LIST_TOO_MANY_LINES("The list has more than {lines} lines; the rest was not read."),
    LOGIN_TOO_LONG("A factory login has at most {longest} characters."),
    MAC_DIGITS("“{text}” has {digits} hexadecimal digits; a MAC address has 12."),
    MAC_OF_A_GROUP("“{text}” is not the address of a single interface."),
    MAC_ZEROS("“{text}” has {digits} digits; a MAC address has 12. A spreadsheet drops leading zeros: "
            + "format the column as text and enter it again."),
    MODEL_TOO_LONG("A model name has at most 80 characters."),
    NOT_A_CHANGE_WINDOW("“{text}” is not a change window. Write its begin and end with their offsets as "
            + "2026-12-05T22:00Z/2026-12-06T04:00Z."),
    NOT_A_CHOICE("“{value}” is not one of: {choices}."),
    NOT_A_DATE("“{text}” is not a date. Write it as 2026-12-31."),
    NOT_A_DIGEST("A SHA-256 digest has 64 hexadecimal digits; this text has {length} characters."),
    NOT_A_MAC("“{text}” is not a MAC address. Write it as 02:4c:59:a1:00:01."),
    NOT_A_MAIL_ADDRESS("“{text}” is not a mail address. Write it as arrays@ardal.example."),
    NOT_A_LINE("“{text}” is not a console line. Enter a port of a console server (1 to 65535), a device such as "
            + "/dev/ttyUSB0 or /dev/ttyUSB0@hall-3, or {browser} for a serial port of your own computer."),
    NOT_A_NUMBER("“{text}” is not a number from {least} to {most}."),
    NOT_A_RACK_POSITION("“{text}” is not a rack position. Write it as R1 u7."),
    NOT_A_SERIAL("A serial has 1 to 64 printable ASCII characters."),
    NOT_A_SERIAL_PORT("“{text}” is not a serial port of this server. Write it as /dev/ttyS0 or /dev/ttyUSB0, or as "
            + "/dev/ttyUSB0@hall-3 for a port of a vantage point."),
    NOT_A_SIZE("“{text}” is not a size. Write it as 16 GiB."),
    NOT_A_TIME_ZONE("“{text}” is not a time zone. Write it as Europe/Oslo or UTC."),
    NOT_A_VERSION("“{text}” is not a version. A version begins with a digit: 4.2.1."),
    NOT_UTF_8("The text is not UTF-8. Save the sheet as CSV (UTF-8), or paste its columns."),
    NOT_YES_OR_NO("“{text}” is neither yes nor no."),
    NO_PORT("“{text}” has no port. Write it as activate.ardal.example:443."),
    NUMBER_OF_SPREADSHEET("A spreadsheet has turned “{text}” into a number, and digits are lost. Format the column as "
            + "text and enter it again."),
    OPEN_QUOTE("A quotation mark opens here and is never closed; the rest was not read."),
    TOO_LONG("The value has {length} characters, at most {longest} are allowed.");

    private final String pattern;

    FactText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
