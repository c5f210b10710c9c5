package lychnos.core.fact;

import java.time.DateTimeException;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.Locale;
import java.util.Optional;
import java.util.function.UnaryOperator;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;
import lychnos.core.name.Hostname;

/**
 * What a fact must be. Each type reads the notations that people use and gives back one canonical text, so that two
 * spellings of one value compare equal.
 */
public enum FactType {
    TEXT("text", "a text", FactType::text),
    HOST_PORT("host-port", "activate.ardal.example:443", FactType::hostAndPort),
    SERIAL("serial", "BK-40718", FactType::serial),
    MAC("mac-address", "02:4c:59:a1:00:01", text -> Mac.parse(text).toString()),
    ADDRESS("address", "10.40.8.20", text -> Address.parse(text).toString()),
    PREFIX("prefix", "10.44.0.0/21", text -> Prefix.parse(text).toString()),
    RANGE("range", "10.40.8.10-10.40.8.31", text -> AddressRun.parse(text).toString()),
    HOST_NAME("host-name", "ard-blk-1", text -> Hostname.require(text.toLowerCase(Locale.ROOT))),
    DOMAIN("domain", "ardal.example", text -> Hostname.requireDomain(text.toLowerCase(Locale.ROOT))),
    SERVER("server", "10.40.8.6 or time.ardal.example", FactType::server),
    MAIL("mail-address", "arrays@ardal.example", FactType::mail),
    NUMBER("number", "4", text -> number(text, 0, 1_000_000_000)),
    PORT("port", "443", text -> number(text, 1, 65535)),
    VLAN("vlan", "408", text -> number(text, 1, 4094)),
    MTU("mtu", "9000", text -> number(text, 576, 9216)),
    SIZE("size", "16 GiB", text -> DataSize.parse(text).toString()),
    DATE("date", "2026-12-31", FactType::date),
    WINDOW("change-window", "2026-12-05T22:00Z/2026-12-06T04:00Z", text -> ChangeWindow.parse(text)
            .toString()),
    VERSION("version", "4.2.1", text -> Version.parse(text).text()),
    TIME_ZONE("time-zone", "Europe/Oslo", FactType::zone),
    POSITION("rack-position", "R1 u7", text -> RackPosition.parse(text).toString()),
    LINE("console-line", "2007", FactType::line),
    DIGEST("digest", "64 hexadecimal digits of SHA-256", FactType::digest),
    YES_NO("yes-no", "yes or no", FactType::yesNo),
    CHOICE("choice", "one of the choices", FactType::text),
    /** Refers to a resource of the site by its name: a virtualisation host, a fabric. */
    SITE_RESOURCE("site-resource", "a name under Networks and services", FactType::text),
    /** A value that is sealed and never shown in the sheet. */
    SECRET("secret", "kept sealed", FactType::text);

    /** The longest value of any fact; a licence key file fits. */
    public static final int LONGEST = 4000;

    /** As a console line: the serial port of whichever browser a person has at the machine. */
    public static final String BROWSER = "browser";

    private final String word;
    private final String example;
    private final UnaryOperator<String> reader;

    FactType(String word, String example, UnaryOperator<String> reader) {
        this.word = word;
        this.example = example;
        this.reader = reader;
    }

    /** The word for the type in a description of a kind. */
    public String word() {
        return word;
    }

    /** How such a value looks. */
    public String example() {
        return example;
    }

    /** What a site resource was called in descriptions of kinds that were published before. */
    private static final String EARLIER_SITE_RESOURCE = "thing";

    public static Optional<FactType> named(String word) {
        if (word.equals(EARLIER_SITE_RESOURCE)) {
            return Optional.of(SITE_RESOURCE);
        }
        for (FactType type : values()) {
            if (type.word.equals(word)) {
                return Optional.of(type);
            }
        }
        return Optional.empty();
    }

    /**
     * Reads a value as typed or pasted.
     *
     * @return its canonical text
     * @throws IllegalArgumentException with a sentence that says what is wrong
     */
    public String read(String typed) {
        String text = typed.strip();
        if (text.isEmpty()) {
            throw new IllegalArgumentException(FactText.EMPTY.text());
        }
        if (text.length() > LONGEST) {
            throw new IllegalArgumentException(FactText.TOO_LONG.text(text.length(), LONGEST));
        }
        return reader.apply(text);
    }

    private static String text(String text) {
        if (text.chars().anyMatch(c -> Character.isISOControl(c) && c != '\n' && c != '\t')) {
            throw new IllegalArgumentException(FactText.CONTROL_CHARACTER.text());
        }
        return text;
    }

    private static String serial(String text) {
        if (!text.matches("[\\x21-\\x7e]([\\x20-\\x7e]{0,62}[\\x21-\\x7e])?")) {
            throw new IllegalArgumentException(FactText.NOT_A_SERIAL.text());
        }
        return text;
    }

    /** What a proxy is asked to connect to goes into a line of a protocol: nothing else may stand in it. */
    private static String hostAndPort(String text) {
        int colon = text.lastIndexOf(':');
        if (colon < 1) {
            throw new IllegalArgumentException(FactText.NO_PORT.text(text));
        }
        String host = text.substring(0, colon);
        boolean six = host.startsWith("[") && host.endsWith("]");
        return (six ? "[" + Address.parse(host.substring(1, host.length() - 1)) + "]" : server(host)) + ":"
                + number(text.substring(colon + 1), 1, 65535);
    }

    private static String server(String text) {
        return Address.tryParse(text)
                .map(Address::toString)
                .orElseGet(() -> Hostname.requireDomain(text.toLowerCase(Locale.ROOT)));
    }

    /** The plain form of RFC 5321 section 4.1.2; quoted local parts are refused, since machines seldom take them. */
    private static String mail(String text) {
        int at = text.lastIndexOf('@');
        if (at < 1 || !text.substring(0, at).matches("[A-Za-z0-9.!#$%&'*+/=?^_`{|}~-]{1,64}")) {
            throw new IllegalArgumentException(FactText.NOT_A_MAIL_ADDRESS.text(text));
        }
        return text.substring(0, at) + "@"
                + Hostname.requireDomain(text.substring(at + 1).toLowerCase(Locale.ROOT));
    }

    private static String device(String text) {
        if (!text.matches("/dev/(tty[A-Z]+[0-9]{1,3}|pts/[0-9]{1,5})(@[a-z0-9][a-z0-9-]{0,39})?")) {
            throw new IllegalArgumentException(FactText.NOT_A_SERIAL_PORT.text(text));
        }
        return text;
    }

    private static String line(String text) {
        if (text.equalsIgnoreCase(BROWSER)) {
            return BROWSER;
        }
        if (text.startsWith("/dev/")) {
            return device(text);
        }
        try {
            return number(text, 1, 65535);
        } catch (IllegalArgumentException e) {
            throw new IllegalArgumentException(FactText.NOT_A_LINE.text(text, BROWSER), e);
        }
    }

    private static String number(String text, int least, int most) {
        if (text.matches("[0-9]{1,9}")) {
            int value = Integer.parseInt(text);
            if (value >= least && value <= most) {
                return String.valueOf(value);
            }
        }
        throw new IllegalArgumentException(FactText.NOT_A_NUMBER.text(text, least, most));
    }

    private static String date(String text) {
        try {
            return LocalDate.parse(text).toString();
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(FactText.NOT_A_DATE.text(text), e);
        }
    }

    private static String zone(String text) {
        try {
            return ZoneId.of(text).getId();
        } catch (DateTimeException e) {
            throw new IllegalArgumentException(FactText.NOT_A_TIME_ZONE.text(text), e);
        }
    }

    private static String digest(String text) {
        String hex = text.toLowerCase(Locale.ROOT).replaceFirst("^sha-?256[:= ]", "");
        if (!hex.matches("[0-9a-f]{64}")) {
            throw new IllegalArgumentException(FactText.NOT_A_DIGEST.text(hex.length()));
        }
        return hex;
    }

    private static String yesNo(String text) {
        String plain = text.toLowerCase(Locale.ROOT);
        if (plain.matches("y|yes|on|true|1")) {
            return "yes";
        }
        if (plain.matches("n|no|off|false|0")) {
            return "no";
        }
        throw new IllegalArgumentException(FactText.NOT_YES_OR_NO.text(text));
    }
}
