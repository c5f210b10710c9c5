package lychnos.server.kinds;

import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.MalformedInputException;
import java.nio.file.Files;
import java.nio.file.NoSuchFileException;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import lychnos.core.dialogue.DryRun;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;

/**
 * Descriptions of kinds at the command line, for those who keep them in files: no server and no database are asked.
 *
 * <pre>
 * KindMain check FILE …
 * KindMain dry-run FILE RECORDING …
 * </pre>
 *
 * Ends with 0 where everything is well, 1 where there are faults or differences, 2 where it was called in another way.
 */
public final class KindMain {

    private static final int WELL = 0;
    private static final int FAULTS = 1;
    private static final int USAGE = 2;

    private final PrintStream out;

    KindMain(PrintStream out) {
        this.out = out;
    }

    public static void main(String[] args) {
        System.exit(new KindMain(System.out).run(List.of(args)));
    }

    int run(List<String> args) {
        try {
            if (args.size() >= 2 && args.get(0).equals("check")) {
                return args.stream().skip(1).mapToInt(this::check).max().orElse(WELL);
            }
            if (args.size() >= 3 && args.get(0).equals("dry-run")) {
                return dryRun(args.get(1), args.subList(2, args.size()));
            }
        } catch (Unreadable e) {
            out.println(e.getMessage());
            return FAULTS;
        }
        out.println("Wanted is: kind check FILE …, or kind dry-run FILE RECORDING …");
        return USAGE;
    }

    /** A file that cannot be read. */
    private static final class Unreadable extends RuntimeException {
        private static final long serialVersionUID = 1;

        Unreadable(String message) {
            super(message);
        }
    }

    private static String text(String file) {
        try {
            return Files.readString(Path.of(file));
        } catch (NoSuchFileException e) {
            throw new Unreadable(file + ": there is no such file.");
        } catch (MalformedInputException e) {
            throw new Unreadable(file + ": this is no text in UTF-8.");
        } catch (IOException e) {
            throw new Unreadable(file + ": it cannot be read (" + e.getMessage() + ").");
        }
    }

    /** Faults as compilers write them, so that an editor leads to their places. */
    private int check(String file) {
        try {
            Kind kind = KindReader.read(text(file));
            out.println(file + ": " + kind.title() + ", no faults");
            return WELL;
        } catch (KindFaults e) {
            for (KindFault fault : e.faults()) {
                out.println(file + ":" + fault.line() + ":" + fault.column() + ": "
                        + (fault.path().isEmpty() ? "" : fault.path() + ": ") + fault.reason());
            }
            return FAULTS;
        }
    }

    private int dryRun(String file, List<String> recordings) {
        if (check(file) != WELL) {
            return FAULTS;
        }
        Kind kind = KindReader.read(text(file));
        if (kind.dialogue().isEmpty()) {
            out.println(file + ": the kind asks nothing on a console, so that there is nothing to play.");
            return FAULTS;
        }
        int worst = WELL;
        for (String recording : recordings) {
            try {
                DryRun.Report report =
                        Recording.read(text(recording)).tryOn(kind.dialogue().get());
                tell(recording, report);
                worst = report.agrees() ? worst : FAULTS;
            } catch (IllegalArgumentException e) {
                out.println(recording + ": " + e.getMessage());
                worst = FAULTS;
            }
        }
        return worst;
    }

    private void tell(String recording, DryRun.Report report) {
        if (report.agrees()) {
            out.println(recording + ": " + report.steps().size() + " steps, no differences");
            return;
        }
        out.println(recording + ": differs");
        for (DryRun.Moment moment : report.moments()) {
            if (moment.event() == DryRun.Event.DIFFERED) {
                out.println("  " + clock(moment.at()) + "  " + moment.text());
            }
        }
        report.open().forEach(title -> out.println("  not reached: " + title));
    }

    private static String clock(Duration at) {
        return String.format(Locale.ROOT, "%d:%04.1f", at.toMinutes(), at.toMillis() % 60_000 / 1000.0);
    }
}
