package lychnos.server.configure.network;

import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.core.sheet.MemberValues;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.model.MemberDialogue.DialogueState;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.InOrder;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/** Works at what is set of a member over the network, one step after the other, and saves how far it has come. */
final class StepLoop implements RemoteKeeping.Owner {

    private static final Logger LOG = Logger.getLogger(StepLoop.class);
    private static final long RETRY_SECONDS = 3;
    private static final int MOST_RETRIES = 10;
    private static final long LOOK_MILLIS = 700;

    private final RemoteWork work;
    private final Held held;
    private final long dialogueId;
    private final boolean identified;
    private final boolean wiped;
    private final String member;
    private final PageSurroundings around;
    private final InOrder inOrder;
    private final ScheduledExecutorService clockwork;
    private final Clock clock;
    private final StepMaker maker;
    private final StepsLeft steps;
    private final RemoteKeeping keeping;
    private final WireSteps wire;
    private final Map<String, String> read = new HashMap<>();
    private MemberValues values;
    private RemoteState at = RemoteState.FOLLOWING;
    private int retries;
    private boolean gone;
    /** Another server has it now. */
    private boolean lost;

    private volatile List<String> lacking = List.of();
    Mode mode;
    String note = "";
    /** The step that a person has agreed to. */
    int approved = StepsLeft.NONE;

    StepLoop(
            RemoteWork work,
            Openings.LineOpening opening,
            Vantage vantage,
            PageSurroundings around,
            StepMaker maker,
            InOrder inOrder,
            ScheduledExecutorService clockwork,
            Clock clock) {
        this.work = work;
        this.held = work.held();
        MemberDialogue kept = opening.kept().dialogue();
        dialogueId = kept.id;
        identified = kept.identified;
        wiped = kept.wiped;
        member = kept.member;
        this.values = opening.values();
        this.around = around;
        this.maker = maker;
        this.inOrder = inOrder;
        this.clockwork = clockwork;
        this.clock = clock;
        mode = kept.mode;
        steps = new StepsLeft(
                opening.dialogue().withPages(member, kept.wiped), opening.kept().progress());
        read.putAll(opening.kept().told());
        ToldValues own = new ToldValues(read, () -> values);
        wire = new WireSteps(held, opening, own, vantage, around, clock, steps.steps(), steps.progress());
        keeping = new RemoteKeeping(this, held, around, clock, inOrder, clockwork);
        if (kept.state == DialogueState.STOPPED) {
            at = RemoteState.STOPPED;
        }
    }

    WireSteps wire() {
        return wire;
    }

    Hold hold() {
        return at.hold();
    }

    State state() {
        return at.state();
    }

    Remote step(int place) {
        return steps.step(place);
    }

    List<String> lacking() {
        return lacking;
    }

    boolean isLost() {
        return lost;
    }

    void end() {
        gone = true;
    }

    /** What another member or a person has told. */
    void known(String name, String value) {
        read.put(name, value);
        if (!gone && at.hold() != null && at.hold().why().endsWhenKnown()) {
            goOn();
        }
    }

    /** Waits once more as long as the step may take. */
    void waitLonger(int step) {
        become(new RemoteState.Waiting(clock.instant().plus(steps.step(step).longest())));
        keep(RemoteChange.NOTHING);
        lookLater();
    }

    @Override
    public long dialogueId() {
        return dialogueId;
    }

    @Override
    public boolean wiped() {
        return wiped;
    }

    @Override
    public boolean identified() {
        return identified;
    }

    /** Does what is next, unless a person is waited for. */
    void work() {
        if (gone || !at.works()) {
            return;
        }
        try {
            workAtNext();
        } catch (RuntimeException e) {
            workAgainAfter(e);
        }
    }

    private void workAtNext() {
        int step = steps.next();
        if (step == StepsLeft.NONE) {
            become(RemoteState.DONE);
            if (keep(RemoteChange.NOTHING)) {
                around.done(work);
            }
            return;
        }
        Remote remote = steps.step(step);
        RemoteStep doing = steps.doing(work, maker, step);
        try {
            if (at instanceof RemoteState.Waiting) {
                took(step, remote, doing.look());
            } else if (mayBegin(step, remote, doing)) {
                took(step, remote, doing.carryOut(steps.begun(step), (sent, tries) -> sends(step, sent, tries)));
            }
        } catch (WireFault e) {
            unreached(step, remote, doing, e);
        } catch (IllegalArgumentException | ClassCastException | IndexOutOfBoundsException e) {
            // what the machine shows has another shape than its description says; nothing may end this line of work
            // without a word
            LOG.warnf(e, "“%s” of run %d", remote.title(), held.runId());
            hold(RemoteHolds.otherForm(step, remote));
        }
    }

    /** Repeats what failed for a reason of our own, such as a database that does not answer. */
    private void workAgainAfter(RuntimeException e) {
        LOG.warnf(e, "The pages of run %d cannot be worked at now; trying again.", held.runId());
        clockwork.schedule(() -> inOrder.add(this::work), RETRY_SECONDS, TimeUnit.SECONDS);
    }

    private boolean mayBegin(int step, Remote remote, RemoteStep doing) {
        lacking = doing.lacking();
        if (!lacking.isEmpty() && remote instanceof DialogueStep.Page page && page.is(Mark.LATER)) {
            later(step);
            return false;
        }
        if (!lacking.isEmpty()) {
            hold(Hold.until(step, remote.title(), lacking, "", values::text));
            return false;
        }
        Optional<Hold> stops = approved == step || steps.begun(step) ? Optional.empty() : doing.stops(mode);
        stops.ifPresent(this::hold);
        return stops.isEmpty();
    }

    /** The setup ends without this page; {@code FollowUps} takes it up again once the value is known. */
    private void later(int step) {
        steps.moved(step, Progress.LATER);
        lacking = List.of();
        if (keep(RemoteChange.moved(step, Progress.LATER, ""))) {
            inOrder.add(this::work);
        }
    }

    private void took(int step, Remote remote, RemoteStep.Outcome outcome) {
        if (outcome instanceof RemoteStep.Outcome.Done done) {
            done(step, done);
        } else if (outcome instanceof RemoteStep.Outcome.Works works) {
            works(step, remote, works);
        } else if (outcome instanceof RemoteStep.Outcome.Stands stands) {
            hold(stands.hold());
        } // what was not kept was not written either: saving is repeated automatically, or the unit is no longer ours
    }

    private void works(int step, Remote remote, RemoteStep.Outcome.Works works) {
        note = "";
        if (at instanceof RemoteState.Waiting waiting) {
            lookOrCall(step, remote, waiting);
            return;
        }
        approved = StepsLeft.NONE;
        retries = 0;
        become(new RemoteState.Waiting(clock.instant().plus(remote.longest())));
        keep(RemoteChange.moved(step, Progress.SENT, works.evidence()));
        lookLater();
    }

    private void lookOrCall(int step, Remote remote, RemoteState.Waiting waiting) {
        if (clock.instant().isBefore(waiting.until())) {
            lookLater();
            return;
        }
        hold(RemoteHolds.overdue(step, remote));
    }

    private boolean sends(int step, String sent, List<String> tries) {
        steps.moved(step, Progress.SENT);
        return keep(RemoteChange.sent(step, sent, tries));
    }

    void lookLater() {
        clockwork.schedule(() -> inOrder.add(this::work), LOOK_MILLIS, TimeUnit.MILLISECONDS);
    }

    private void done(int step, RemoteStep.Outcome.Done done) {
        note = "";
        approved = StepsLeft.NONE;
        retries = 0;
        become(RemoteState.FOLLOWING);
        steps.moved(step, Progress.DONE);
        read.putAll(done.told());
        if (keep(RemoteChange.done(step, done))) {
            done.told().forEach((name, value) -> around.told(member, name, value));
            inOrder.add(this::work);
        }
    }

    private void unreached(int step, Remote remote, RemoteStep doing, WireFault fault) {
        if (at instanceof RemoteState.Waiting waiting && fault.kind() != WireFault.Kind.OTHER_CERTIFICATE) {
            lookOrCall(step, remote, waiting); // it may restart while it works
        } else if (fault.passing() && retries++ < MOST_RETRIES) {
            note = RemoteHolds.tryingAgain(remote, doing.what(), fault);
            if (keep(RemoteChange.NOTHING)) {
                clockwork.schedule(() -> inOrder.add(this::work), RETRY_SECONDS, TimeUnit.SECONDS);
            }
        } else {
            retries = 0;
            hold(RemoteHolds.unreached(step, remote, doing.what(), fault));
        }
    }

    void hold(Hold why) {
        become(new RemoteState.Held(why));
        note = "";
        keep(RemoteChange.NOTHING);
    }

    void become(RemoteState next) {
        at = at.become(next);
    }

    /** Gives back whether it is kept and ours still. */
    boolean keep(RemoteChange kept) {
        return keeping.keep(new RemoteKeeping.Standing(at, mode, note), kept);
    }

    @Override
    public Remote next() {
        return steps.step(steps.next());
    }

    @Override
    public boolean gone() {
        return gone;
    }

    @Override
    public void lost() {
        gone = true;
        lost = true;
        around.lost(work);
    }

    @Override
    public void keptLate(RemoteChange kept) {
        kept.told().forEach((name, value) -> around.told(member, name, value));
        if (at.state() == State.DONE) {
            around.done(work);
        } else {
            work();
        }
    }

    /** A person has decided: works on from here. */
    Optional<String> goOn() {
        values = around.values(member); // something may have been fixed in Prepare meanwhile
        steps.forgetDoing();
        lacking = List.of();
        become(RemoteState.FOLLOWING);
        if (keep(RemoteChange.NOTHING)) {
            inOrder.add(this::work);
        }
        return Optional.empty();
    }
}
