package lychnos.core.learn;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Screen;
import lychnos.core.fact.Secret;

/**
 * How far what is learnt from one machine carries: machines from seeds, of each the first set up by hand and the second
 * with what was learnt; and how long a long log takes, against showing it on a screen once.
 */
public final class LearnBench {

    private static final int ROUNDS = 5;

    private LearnBench() {}

    public static void main(String[] args) {
        boolean small = Boolean.getBoolean("lychnos.bench.small");
        System.out.println();
        carries(small ? 3 : 200);
        longLog(small ? 50 : 5_000);
    }

    private static void carries(int machines) {
        int unattended = 0;
        int wrong = 0;
        int leaked = 0;
        int[] asked = new int[machines];
        for (int i = 0; i < machines; i++) {
            Learnt learnt = new Learnt(i + 1).learn();
            asked[i] = learnt.asked;
            Learnt.Run run = learnt.run(2);
            unattended += run.unattended() ? 1 : 0;
            wrong += run.machine().wrong.size();
            leaked += run.machine().leaked.size();
        }
        Arrays.sort(asked);
        System.out.printf(
                Locale.ROOT,
                "%d machines from seeds: the second one set up without a person %d, answers to a wrong question %d, "
                        + "passwords where they are shown %d, questions asked %d (median), %d (most)%n",
                machines,
                unattended,
                wrong,
                leaked,
                asked[machines / 2],
                asked[machines - 1]);
    }

    private static void longLog(int lines) {
        List<SetupLog.Piece> pieces = new ArrayList<>();
        pieces.add(new SetupLog.Shown(Duration.ZERO, "node MM-7001\r\n"));
        int perEntry = 10;
        for (int i = 0; i < lines / perEntry; i++) {
            Duration at = Duration.ofSeconds(i);
            StringBuilder listing = new StringBuilder();
            for (int line = 1; line < perEntry; line++) {
                listing.append("  item ")
                        .append(line)
                        .append(" is set to 10.40.8.")
                        .append(line)
                        .append("\r\n");
            }
            pieces.add(new SetupLog.Shown(at, listing + "node> "));
            pieces.add(new SetupLog.Typed(at, Secret.of("show item " + i % 50 + "\r")));
            pieces.add(new SetupLog.Shown(at, "show item " + i % 50 + "\r\n"));
        }
        SetupLog log = SetupLog.of(pieces);
        Planned planned = new Planned(Map.of("address", "10.40.8.5", "gateway", "10.40.8.1", "length", "24"), Map.of());
        double[] learns = new double[ROUNDS];
        double[] shows = new double[ROUNDS];
        for (int round = 0; round < ROUNDS; round++) {
            long start = System.nanoTime();
            new Learner(log, planned, "MM-7001", Set.of(), Decisions.NONE).draft();
            learns[round] = (System.nanoTime() - start) / 1e6;
            start = System.nanoTime();
            Screen screen = new Screen();
            log.pieces().forEach(piece -> {
                if (piece instanceof SetupLog.Shown shown) {
                    screen.write(shown.text());
                }
            });
            shows[round] = (System.nanoTime() - start) / 1e6;
        }
        Arrays.sort(learns);
        Arrays.sort(shows);
        double ours = learns[ROUNDS / 2];
        double plain = shows[ROUNDS / 2];
        System.out.printf(
                Locale.ROOT,
                "a log of %,d lines is learnt %29.1f ms %8.1f ms %7.2f×%n",
                lines,
                ours,
                plain,
                ours / plain);
    }
}
