package lychnos.server.configure.bench;

import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.ScheduledExecutorService;
import lychnos.core.dialogue.Mode;
import lychnos.server.configure.line.LineOrder;
import lychnos.server.configure.line.MemberLine;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.configure.line.VantageLine;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.network.RemoteWork;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.HoldLost;
import lychnos.server.vantage.Vantages;
import lychnos.wire.far.FarVantage;
import lychnos.wire.vantage.Vantage;

/** Opens the lines and pages of a unit that may be opened: here, or at the vantage point that reaches them. */
final class LineOpener {

    private final ConsoleStore store;
    private final ConsoleReader consoleReader;
    private final Openings openings;
    private final Vantage vantage;
    private final Vantages vantages;
    private final Clock clock;
    private final ExecutorService pool;
    private final ScheduledExecutorService clockwork;

    LineOpener(
            ConsoleStore store,
            ConsoleReader consoleReader,
            Openings openings,
            Vantage vantage,
            Vantages vantages,
            Clock clock,
            ExecutorService pool,
            ScheduledExecutorService clockwork) {
        this.store = store;
        this.consoleReader = consoleReader;
        this.openings = openings;
        this.vantage = vantage;
        this.vantages = vantages;
        this.clock = clock;
        this.pool = pool;
        this.clockwork = clockwork;
    }

    /** Opens every line of a unit whose prerequisite holds and that is not open yet. */
    void openWhatMay(Bench bench) throws HoldLost {
        if (consoleReader.members(bench.held().runId()) == bench.members().size()
                && bench.members().values().stream()
                        .noneMatch(line -> line.dialogue().drivesPages(line.member()))) {
            return; // every line is open already, and nothing comes after them
        }
        List<Openings.LineOpening> all =
                openings.of(bench.held().runId(), bench.held().unitId());
        // nothing counts as open before the database knows it: what fails here is tried again as a whole
        List<OpenLine> prepared = new ArrayList<>();
        for (Openings.LineOpening opening : all) {
            MemberDialogue row = opening.kept().dialogue();
            if (!row.prerequisite.isEmpty() || row.state == MemberDialogue.DialogueState.DONE) {
                continue;
            }
            if (opening.pagesAreNext()) {
                workAtPages(bench, opening, row);
            } else if (row.state != MemberDialogue.DialogueState.BY_HAND
                    && !bench.members().containsKey(row.id)) {
                prepare(bench, opening, row).ifPresent(prepared::add);
            }
        }
        List<Long> shut = all.stream()
                .map(opening -> opening.kept().dialogue())
                .filter(row -> row.state == MemberDialogue.DialogueState.SHUT)
                .map(row -> row.id)
                .filter(id -> prepared.stream().anyMatch(line -> line.dialogueId() == id))
                .toList();
        if (!shut.isEmpty()) {
            store.opened(bench.held(), shut, false);
        }
        prepared.removeIf(line -> !bench.add(line));
        for (OpenLine line : prepared) {
            line.open();
            if (all.stream()
                    .anyMatch(other -> other.kept().dialogue().id != line.dialogueId()
                            && other.kept().dialogue().identified)) {
                line.otherIsActive();
            }
        }
    }

    /** A member's line, not open yet; nothing where it has none and a person ticks its steps. */
    private Optional<OpenLine> prepare(Bench bench, Openings.LineOpening opening, MemberDialogue row) throws HoldLost {
        if (opening.line().isEmpty()) {
            store.opened(bench.held(), List.of(row.id), true);
            return Optional.empty();
        }
        // a vantage point that carries the dialogue on keeps in a file what it cannot hand in; of a setup by hand it
        // passes the bytes on and keeps nothing
        Optional<FarVantage> far = opening.dialogue().byHand()
                ? Optional.empty()
                : vantages.farOf(opening.line().get().address());
        OpenLine line = far.isPresent()
                ? new VantageLine(
                        bench.held(),
                        opening,
                        () -> orderOf(bench, row.id),
                        far.get(),
                        vantages.codec(),
                        bench,
                        pool,
                        clockwork)
                : new MemberLine(
                        bench.held(),
                        opening.kept(),
                        opening.line().get(),
                        opening.dialogue(),
                        opening.values(),
                        bench,
                        pool,
                        clockwork,
                        clock);
        return Optional.of(line);
    }

    /** How far a dialogue is now, for a vantage that is to carry it on. */
    private LineOrder orderOf(Bench bench, long dialogueId) {
        return openings.of(bench.held().runId(), bench.held().unitId()).stream()
                .filter(each -> each.kept().dialogue().id == dialogueId)
                .findFirst()
                .map(each -> LineOrder.of(bench.held(), each))
                .orElseThrow();
    }

    /** Begins with a member's pages where nobody wants to fill them in by hand. */
    private void workAtPages(Bench bench, Openings.LineOpening opening, MemberDialogue row) throws HoldLost {
        if (row.mode == Mode.WATCH) {
            if (row.state != MemberDialogue.DialogueState.BY_HAND) {
                store.opened(bench.held(), List.of(row.id), true);
            }
            return;
        }
        RemoteWork work =
                new RemoteWork(bench.held(), opening, vantage, bench, RemoteWork::overTheWire, pool, clockwork, clock);
        if (bench.add(work)) {
            if (row.openedAt == null) {
                store.opened(bench.held(), List.of(row.id), false);
            }
            work.begin();
        }
    }
}
