package lychnos.server.configure.bench;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.function.Consumer;
import java.util.function.LongConsumer;
import java.util.stream.Stream;
import lychnos.core.fact.Mac;
import lychnos.core.sheet.MemberValues;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.configure.line.Cables;
import lychnos.server.configure.line.LineSurroundings;
import lychnos.server.configure.line.MemberLine;
import lychnos.server.configure.line.OpenLine;
import lychnos.server.configure.line.StepQueue;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.model.LineKeys;
import lychnos.server.configure.model.SetupLogs;
import lychnos.server.configure.model.StepWriter;
import lychnos.server.configure.network.PageSurroundings;
import lychnos.server.configure.network.RemoteWork;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;

/**
 * A unit whose setup this server carries on: its members by the ids of their dialogues, those on a line and those on
 * whose pages is worked, and what these work with.
 */
final class Bench implements LineSurroundings, PageSurroundings {

    private final Held held;
    private final With with;
    private final InOrder inOrder;
    private final Map<Long, OpenLine> members = new ConcurrentHashMap<>();
    private final Map<Long, RemoteWork> pages = new ConcurrentHashMap<>();
    private boolean closed;

    /**
     * What all benches of a server share.
     *
     * @param changed is told the bring-up of which something was kept
     * @param goOn ends the run of a bench, or opens what may be opened next
     * @param letGo closes a bench whose unit this server does not have any more
     */
    record With(
            StepQueue queue,
            ConsoleStore store,
            SetupLogs logs,
            LineKeys keys,
            Openings openings,
            FirstAddress firstAddress,
            Vantage vantage,
            Cables cables,
            LongConsumer changed,
            Consumer<Bench> goOn,
            Consumer<Bench> letGo) {}

    Bench(Held held, With with, Executor pool) {
        this.held = held;
        this.with = with;
        this.inOrder = new InOrder(pool);
    }

    Held held() {
        return held;
    }

    /** Members with a line, by dialogue. */
    Map<Long, OpenLine> members() {
        return members;
    }

    /** Members on whose pages is worked, by dialogue. */
    Map<Long, RemoteWork> pages() {
        return pages;
    }

    /** Takes a line; false, if the bench was closed meanwhile and the line must not be opened. */
    synchronized boolean add(OpenLine line) {
        if (!closed) {
            members.put(line.dialogueId(), line);
        }
        return !closed;
    }

    /** Takes a member's pages; false, if they are here already or the bench was closed meanwhile. */
    synchronized boolean add(RemoteWork work) {
        return !closed && pages.putIfAbsent(work.dialogueId(), work) == null;
    }

    /** Closes all lines and pages; what comes later is not taken any more. */
    synchronized void close() {
        closed = true;
        all().forEach(AtWork::close);
    }

    /** What opens and closes lines of this unit is done one after the other. */
    InOrder inOrder() {
        return inOrder;
    }

    AtWork atWork(long dialogueId) {
        return pages.containsKey(dialogueId) ? pages.get(dialogueId) : members.get(dialogueId);
    }

    Stream<AtWork> all() {
        return Stream.concat(members.values().stream(), pages.values().stream());
    }

    @Override
    public void save(Held held, Change change, List<Change.RecordingPiece> pieces) throws HoldLost {
        OpenLine line = members.get(change.dialogueId());
        boolean byHand = line != null && line.dialogue().byHand();
        if (byHand) {
            with.logs().keep(pieces);
        }
        with.queue().save(new StepWriter.Step(held, change, byHand ? List.of() : pieces));
        with.changed().accept(held.bringUpId());
    }

    @Override
    public void save(Held held, List<Change.RecordingPiece> pieces) {
        with.store().keep(pieces, Set.of());
    }

    @Override
    public void save(Held held, Change change) throws HoldLost {
        save(held, change, List.of());
    }

    @Override
    public void byHand(RemoteWork work) throws HoldLost {
        pages.remove(work.dialogueId());
        with.store().byHand(held, work.dialogueId());
    }

    @Override
    public void told(String member, String name, String value) {
        all().forEach(other -> other.known(member.replace(' ', '-') + "." + name, value));
    }

    @Override
    public MemberValues values(String member) {
        return with.openings().values(held.runId(), held.unitId()).get(member);
    }

    @Override
    public void done(RemoteWork work) {
        pages.remove(work.dialogueId());
        with.goOn().accept(this);
    }

    @Override
    public void lost(RemoteWork work) {
        with.letGo().accept(this);
    }

    @Override
    public void consented(RemoteWork work, String login, String title, String reason) throws HoldLost {
        with.store().consented(held, work.dialogueId(), login, title, reason);
    }

    @Override
    public boolean proven(Held held, String name) {
        return with.store().proven(held.unitId(), name);
    }

    @Override
    public Optional<FirstAddress.FoundAddress> find(Held held, Mac mac, int port) throws WireFault {
        return with.firstAddress().of(held.unitId(), mac, port);
    }

    @Override
    public ConsoleLine open(MemberLine line) throws WireFault {
        LineAddress at = line.address().address();
        return at.protocol() == LineAddress.Protocol.BROWSER
                ? with.cables().open(line.dialogueId(), line.dialogue().line(), line)
                : with.vantage().line(at, line.dialogue().line(), line);
    }

    @Override
    public void told(OpenLine from, String name, String value) {
        members.values().stream()
                .filter(other -> other != from)
                .forEach(other -> other.known(from.member().replace(' ', '-') + "." + name, value));
    }

    @Override
    public void identified(OpenLine from) {
        members.values().stream().filter(other -> other != from).forEach(OpenLine::otherIsActive);
    }

    @Override
    public void done(OpenLine line) {
        with.goOn().accept(this);
    }

    @Override
    public void lost(OpenLine line) {
        with.letGo().accept(this);
    }

    @Override
    public boolean trusts(String server, String fingerprint) {
        return with.keys().keyIsAsRemembered(server, fingerprint);
    }
}
