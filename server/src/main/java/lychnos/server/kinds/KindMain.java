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
import java.util.SortedMap;
import java.util.TreeMap;
import lychnos.core.dialogue.DryRun;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindPackage;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;

/**
 * Descriptions of kinds at the command line, for those who keep them in files: no server and no database are asked.
 *
 * <pre>
 * KindMain check FILE …
 * KindMain dry-run FILE RECORDING …
 * KindMain export FILE PACKAGE [RECORDING …]
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
            if (args.size() >= 3 && args.get(0).equals("export")) {
                return export(args.get(1), args.get(2), args.subList(3, args.size()));
            }
        } catch (Unreadable e) {
            out.println(e.getMessage());
            return FAULTS;
        }
        out.println("Wanted is: kind check FILE …, kind dry-run FILE RECORDING …, or kind export FILE PACKAGE "
                + "[RECORDING …]");
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

    /** Faults as compilers write them, so that an editor leads to their places; of a package its recordings too. */
    private int check(String file) {
        return file.endsWith(".zip") ? checkPackage(file) : checkText(file);
    }

    private int checkPackage(String file) {
        KindPackage read;
        Kind kind;
        try {
            read = KindPackage.read(Files.readAllBytes(Path.of(file)));
            kind = KindReader.read(read.description());
        } catch (KindFaults e) {
            tell(file + " kind.yaml", e);
            return FAULTS;
        } catch (IOException e) {
            throw new Unreadable(file + ": it cannot be read (" + e.getMessage() + ").");
        } catch (IllegalArgumentException e) {
            out.println(file + ": " + e.getMessage());
            return FAULTS;
        }
        out.println(file + ": " + kind.title() + ", no faults");
        return read.recordings().entrySet().stream()
                .mapToInt(each -> play(kind, file + " " + each.getKey(), each.getValue()))
                .max()
                .orElse(WELL);
    }

    private int checkText(String file) {
        try {
            Kind kind = KindReader.read(text(file));
            out.println(file + ": " + kind.title() + ", no faults");
            return WELL;
        } catch (KindFaults e) {
            tell(file, e);
            return FAULTS;
        }
    }

    private void tell(String file, KindFaults faults) {
        for (KindFault fault : faults.faults()) {
            out.println(file + ":" + fault.line() + ":" + fault.column() + ": "
                    + (fault.path().isEmpty() ? "" : fault.path() + ": ") + fault.reason());
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
            worst = Math.max(worst, play(kind, recording, text(recording)));
        }
        return worst;
    }

    private int play(Kind kind, String name, String text) {
        try {
            DryRun.Report report = Recording.read(text)
                    .tryOn(kind.dialogue()
                            .orElseThrow(() -> new IllegalArgumentException("the kind asks nothing on a console.")));
            tell(name, report);
            return report.agrees() ? WELL : FAULTS;
        } catch (IllegalArgumentException e) {
            out.println(name + ": " + e.getMessage());
            return FAULTS;
        }
    }

    /** Writes a package; one whose recordings do not agree is written too, and said. */
    private int export(String file, String target, List<String> recordings) {
        if (!target.endsWith(".zip")) {
            out.println(target + ": a package ends with .zip.");
            return USAGE;
        }
        if (checkText(file) != WELL) {
            return FAULTS;
        }
        SortedMap<String, String> texts = new TreeMap<>();
        for (String recording : recordings) {
            String name =
                    KindPackage.name(Path.of(recording).getFileName().toString().replaceFirst("\\.cast$", ""));
            if (texts.put(name, text(recording)) != null) {
                out.println(recording + ": another recording is called “" + name + "” too.");
                return FAULTS;
            }
        }
        try {
            Files.write(Path.of(target), new KindPackage(text(file), texts).write());
        } catch (IOException e) {
            throw new Unreadable(target + ": it cannot be written (" + e.getMessage() + ").");
        }
        return checkPackage(target);
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
