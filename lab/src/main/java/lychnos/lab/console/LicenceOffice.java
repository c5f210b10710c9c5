package lychnos.lab.console;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.Locale;
import java.util.Map;

/**
 * The licence office of a maker: it answers a machine's request with a text that only fits that request and says how
 * much was ordered. Machines check an answer with the same rule.
 */
public final class LicenceOffice {

    private static final int LETTERS = 20;

    private static final Map<String, String> MAKERS = Map.of("ask-lw-", "Loweswater", "ask-bm-", "Buttermere");

    private final String maker;

    public LicenceOffice(String maker) {
        this.maker = maker;
    }

    /** What a machine asks with. */
    String request(String serial, String name) {
        return "ask-" + serial.toLowerCase(Locale.ROOT) + "-" + word("request", serial, name);
    }

    /** The answer to a request. */
    public String answer(String request, int limit) {
        return "grant-" + limit + "-" + word("answer", request, String.valueOf(limit));
    }

    /** How much an answer grants; 0 if it does not fit the request. */
    int limit(String request, String answer) {
        String[] part = answer.split("-");
        if (part.length != 3 || !part[1].matches("[1-9]\\d{0,5}")) {
            return 0;
        }
        int limit = Integer.parseInt(part[1]);
        return answer.equals(answer(request, limit)) ? limit : 0;
    }

    /**
     * Answers a request on the command line, for a person who plays the maker's office.
     *
     * @param args the request, and how much was ordered
     */
    public static void main(String[] args) {
        String request = args.length == 2 ? args[0].strip() : "";
        String maker = MAKERS.entrySet().stream()
                .filter(each -> request.startsWith(each.getKey()))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse("");
        if (maker.isEmpty() || !args[1].matches("[1-9][0-9]{0,5}")) {
            System.err.println("That is no request of a machine in this hall with a number behind it, such as "
                    + "ask-lw-4410-1bc0c98d419520161a2f 2000.");
            System.exit(2);
        }
        System.out.println(new LicenceOffice(maker).answer(request, Integer.parseInt(args[1])));
    }

    private String word(String... parts) {
        try {
            byte[] digest = MessageDigest.getInstance("SHA-256")
                    .digest((maker + "\n" + String.join("\n", parts)).getBytes(StandardCharsets.UTF_8));
            return HexFormat.of().formatHex(digest).substring(0, LETTERS);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException(e); // every Java platform has it
        }
    }
}
