package lychnos.lab;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * One machine of a hall file.
 *
 * @param serial printed on its label
 * @param mac MAC address of its management port
 * @param firstAddress where it answers before it is set up, as DHCP would have given it
 * @param user its account as delivered
 * @param phrase its password as delivered
 * @param quirks how it departs from the plain path
 */
public record MachineSpec(
        String serial, String mac, String firstAddress, String user, String phrase, Set<Quirk> quirks) {

    /** One with the account that is the same on all of them, and a password of its own. */
    public MachineSpec(String serial, String mac, String firstAddress, String phrase, Set<Quirk> quirks) {
        this(serial, mac, firstAddress, Controller.FACTORY_USER, phrase, quirks);
    }

    /** One with the password that is the same on all of them. */
    public MachineSpec(String serial, String mac, String firstAddress, Set<Quirk> quirks) {
        this(serial, mac, firstAddress, Controller.FACTORY_PHRASE, quirks);
    }

    public static MachineSpec of(String serial, String mac, String firstAddress, Quirk... quirks) {
        return new MachineSpec(serial, mac, firstAddress, Set.of(quirks));
    }

    /**
     * Reads a hall file: serial, MAC address, first address and quirks, separated by blanks; {@code #} begins a
     * comment. A fifth word, {@code user:password}, is the login of this one machine as delivered.
     */
    public static List<MachineSpec> read(Path file) throws IOException {
        List<MachineSpec> specs = new ArrayList<>();
        for (String line : Files.readAllLines(file)) {
            String text = line.replaceFirst("#.*", "").strip();
            if (!text.isEmpty()) {
                String[] words = text.split("\\s+");
                if (words.length < 4 || words.length > 5) {
                    throw new IOException("four or five words expected: " + line);
                }
                String[] login = words.length == 5
                        ? words[4].split(":", 2)
                        : new String[] {Controller.FACTORY_USER, Controller.FACTORY_PHRASE};
                specs.add(new MachineSpec(words[0], words[1], words[2], login[0], login[1], Quirk.parse(words[3])));
            }
        }
        return specs;
    }
}
