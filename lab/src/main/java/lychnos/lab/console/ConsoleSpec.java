package lychnos.lab.console;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import lychnos.lab.MachineSpec;

/**
 * One console machine of a hall file.
 *
 * @param model orrel, sallow, greenup, brathay, skeggle, wythop, ullock, mungris, bannisdale, harrop, rossett,
 *     rosthwaite, loweswater, ennerdale, crummock, buttermere, ullscarf or seathwaite
 * @param serial printed on its label
 * @param mac MAC address of its management port, or of its controller where it has one
 * @param host the virtualisation host whose line port it is on; empty for a machine on the line server
 * @param port the port that its console is plugged into, of the line server or of that host; 0 for a machine without a
 * console
 * @param group machines of one group know each other
 * @param place which one of its group it is: left or right, or a number from 1
 * @param first the address that DHCP has given it, or that of its service port, or the password on its tag, or a hyphen
 * @param habits how it departs from the plain path
 */
public record ConsoleSpec(
        String model,
        String serial,
        String mac,
        String host,
        int port,
        String group,
        String place,
        String first,
        Set<Habit> habits) {

    public ConsoleSpec {
        habits = Set.copyOf(habits);
    }

    /** A machine on the line server. */
    public ConsoleSpec(
            String model,
            String serial,
            String mac,
            int port,
            String group,
            String place,
            String first,
            Set<Habit> habits) {
        this(model, serial, mac, "", port, group, place, first, habits);
    }

    boolean has(Habit habit) {
        return habits.contains(habit);
    }

    MachineSpec plugged() {
        return new MachineSpec(serial, mac, first, Set.of());
    }

    /** What it plugs in beside its controller: the next MAC address. */
    MachineSpec beside() {
        int colon = mac.lastIndexOf(':');
        return new MachineSpec(
                serial,
                mac.substring(0, colon)
                        + String.format(":%02x", Integer.parseInt(mac.substring(colon + 1), 16) + 1 & 255),
                "-",
                Set.of());
    }

    /**
     * Reads a hall file: the eight words of each machine, separated by blanks; {@code #} begins a comment. A line port
     * is {@code host:port}.
     */
    public static List<ConsoleSpec> read(Path file) throws IOException {
        List<ConsoleSpec> specs = new ArrayList<>();
        for (String line : Files.readAllLines(file)) {
            String text = line.replaceFirst("#.*", "").strip();
            if (!text.isEmpty()) {
                String[] word = text.split("\\s+");
                if (word.length != 8) {
                    throw new IOException("eight words are wanted: " + line);
                }
                int colon = word[3].indexOf(':');
                specs.add(new ConsoleSpec(
                        word[0],
                        word[1],
                        word[2],
                        word[3].substring(0, Math.max(0, colon)),
                        Integer.parseInt(word[3].substring(colon + 1)),
                        word[4],
                        word[5],
                        word[6],
                        Habit.parse(word[7])));
            }
        }
        return specs;
    }
}
