package lychnos.core.export;

import java.io.IOException;

/** Where the management ports and consoles of machines are plugged in, as CSV. */
public final class Cabling {

    private Cabling() {}

    /**
     * The cables of one machine. Empty texts stand for what is unknown.
     *
     * @param unit the name of its unit
     * @param member its label; empty where the unit is one machine
     * @param place where it is mounted, such as {@code R1 u14}
     * @param switchPort the switch and its port, as labelled
     * @param cable the label of the cable
     * @param consoleLine the port of the console server, or the serial device
     */
    public record Cable(
            String unit,
            String member,
            String kind,
            String place,
            String switchPort,
            String cable,
            String consoleLine) {

        /** Whether anything is known of its cables. */
        public boolean known() {
            return !(switchPort + cable + consoleLine).isEmpty();
        }
    }

    public static void write(Appendable out, Iterable<Cable> cables) throws IOException {
        try (Csv csv = new Csv(out, "unit", "member", "kind", "place", "switch_port", "cable", "console_line")) {
            for (Cable each : cables) {
                csv.line(
                        each.unit(),
                        each.member(),
                        each.kind(),
                        each.place(),
                        each.switchPort(),
                        each.cable(),
                        each.consoleLine());
            }
        }
    }
}
