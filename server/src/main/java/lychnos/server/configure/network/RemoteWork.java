package lychnos.server.configure.network;

import java.time.Clock;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.core.sheet.MemberValues;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.LastStretch;
import lychnos.server.configure.model.MemberDialogue.DialogueState;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import lychnos.server.text.ConfigureText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/**
 * Sets what of a member is set over the network, one step after the other: its controller, its pages. To carry a step
 * out a second time does no harm, so that after an interruption it is simply done again.
 */
public final class RemoteWork implements AtWork {

    private static final Logger LOG = Logger.getLogger(RemoteWork.class);
    private static final long RETRY_SECONDS = 3;
    private static final int MOST_RETRIES = 10;
    private static final long LOOK_MILLIS = 700;

    private final Held held;
    private final long dialogueId;
    private final String member;
    private MemberValues values;
    private final PageSurroundings around;
    private final InOrder inOrder;
    private final ScheduledExecutorService clockwork;
    private final Clock clock;
    private final StepsLeft steps;
    private final Map<String, String> read = new HashMap<>();
    private Mode mode;
    private RemoteState at = RemoteState.FOLLOWING;
    private String note = "";
    private final boolean identified;
    private final boolean wiped;
    private int approved = StepsLeft.NONE;
    private int retries;
    private boolean gone;
    /** Another server has it now. */
    private boolean lost;

    private final LastStretch stretch = new LastStretch();
    private final WireSteps wire;
    private final StepMaker maker;
    private volatile List<String> lacking = List.of();

    public RemoteWork(
            Held held,
            Openings.LineOpening opening,
            Vantage vantage,
            PageSurroundings around,
            StepMaker maker,
            Executor pool,
            ScheduledExecutorService clockwork,
            Clock clock) {
        this.maker = maker;
        this.held = held;
        this.dialogueId = opening.kept().dialogue().id;
        this.member = opening.kept().dialogue().member;
        this.values = opening.values();
        this.around = around;
        this.inOrder = new InOrder(pool);
        this.clockwork = clockwork;
        this.clock = clock;
        mode = opening.kept().dialogue().mode;
        identified = opening.kept().dialogue().identified;
        wiped = opening.kept().dialogue().wiped;
        steps = new StepsLeft(
                opening.dialogue().withPages(member, wiped), opening.kept().progress());
        read.putAll(opening.kept().told());
        ToldValues own = new ToldValues(read, () -> values);
        wire = new WireSteps(held, opening, own, vantage, around, clock, steps.steps(), steps.progress());
        if (opening.kept().dialogue().state == DialogueState.STOPPED) {
            at = RemoteState.STOPPED;
        }
    }

    public long dialogueId() {
        return dialogueId;
    }

    Held held() {
        return held;
    }

    boolean wiped() {
        return wiped;
    }

    boolean identified() {
        return identified;
    }

    public void begin() {
        inOrder.add(this::work);
    }

    /** Over the page's documented interface, or over Redfish. */
    public RemoteStep overTheWire(int place, Remote step) {
        return wire.step(place, step);
    }

    @Override
    public void close() {
        inOrder.addFirst(() -> gone = true);
    }

    private void work() {
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
                around.done(this);
            }
            return;
        }
        Remote remote = steps.step(step);
        RemoteStep doing = steps.doing(this, maker, step);
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

    private void lookLater() {
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

    private void hold(Hold why) {
        become(new RemoteState.Held(why));
        note = "";
        keep(RemoteChange.NOTHING);
    }

    private void become(RemoteState next) {
        at = at.become(next);
    }

    /** Gives back whether it is kept and ours still. */
    private boolean keep(RemoteChange kept) {
        try {
            Change.Stretch now = RemoteChange.stretch(at, () -> steps.step(steps.next()));
            Change change = kept.of(this, clock.instant(), at, mode, note, stretch.ifNew(now));
            around.save(held, change);
            stretch.kept(change.stretch());
            return true;
        } catch (HoldLost e) {
            LOG.infof("let go of the pages of run %d: %s", held.runId(), e.getMessage());
            gone = true;
            lost = true;
            around.lost(this);
        } catch (RuntimeException e) {
            // nothing goes on before it is kept: it is tried again until the database takes it
            LOG.warnf("What was done on pages cannot be kept now (%s); trying again.", e.getMessage());
            clockwork.schedule(() -> inOrder.addFirst(() -> keepAgain(kept)), RETRY_SECONDS, TimeUnit.SECONDS);
        }
        return false;
    }

    private void keepAgain(RemoteChange kept) {
        if (gone || !keep(kept)) {
            return;
        }
        kept.told().forEach((name, value) -> around.told(member, name, value));
        if (at.state() == State.DONE) {
            around.done(this);
        } else {
            work();
        }
    }

    private CompletableFuture<Optional<String>> decide(Supplier<Optional<String>> act) {
        CompletableFuture<Optional<String>> answer = new CompletableFuture<>();
        inOrder.add(() -> {
            try {
                Optional<String> refused =
                        gone ? Optional.of(ConfigureText.PAGES_ARE_NO_LONGER_FILLED.text()) : act.get();
                answer.complete(lost ? Optional.of(TAKEN_OVER) : refused);
            } catch (RuntimeException e) {
                answer.completeExceptionally(e); // the person is told, and decides again
            }
        });
        return answer;
    }

    private Optional<String> goOn() {
        values = around.values(member); // something may have been fixed in Prepare meanwhile
        steps.forgetDoing();
        lacking = List.of();
        become(RemoteState.FOLLOWING);
        if (keep(RemoteChange.NOTHING)) {
            inOrder.add(this::work);
        }
        return Optional.empty();
    }

    @Override
    public CompletableFuture<Optional<String>> mode(Mode next, String login) {
        return decide(() -> {
            mode = next;
            if (next == Mode.WATCH) {
                return byHand();
            }
            if (at.hold() != null && at.hold().why() == Why.NEXT && next == Mode.RUN) {
                return goOn();
            }
            keep(RemoteChange.NOTHING);
            return Optional.empty();
        });
    }

    private Optional<String> byHand() {
        try {
            gone = true;
            around.byHand(this);
            return Optional.empty();
        } catch (HoldLost e) {
            around.lost(this);
            return Optional.of(ConfigureText.PAGES_ARE_NO_LONGER_FILLED.text());
        }
    }

    @Override
    public CompletableFuture<Optional<String>> goOn(String typed, String login) {
        return decide(() -> {
            Hold hold = at.hold();
            Optional<String> refused = RemoteHolds.refusal(hold, typed);
            if (refused.isPresent()) {
                return refused;
            }
            if (hold.why() == Why.CONSENT) {
                try {
                    around.consented(this, login, steps.step(hold.step()).title(), typed.strip());
                } catch (HoldLost e) {
                    gone = true;
                    lost = true;
                    around.lost(this);
                    return Optional.of(TAKEN_OVER);
                }
            }
            approved = hold.step();
            if (hold.why() == Why.OVERDUE) {
                become(new RemoteState.Waiting(
                        clock.instant().plus(steps.step(hold.step()).longest())));
                keep(RemoteChange.NOTHING);
                lookLater();
                return Optional.empty();
            }
            return goOn();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> again(String login) {
        return decide(() -> {
            if (at.state() != State.STOPPED) {
                return Optional.of(ConfigureText.MEMBER_IS_NOT_STOPPED.text());
            }
            note = "";
            return goOn();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> fetchLog(String login) {
        return decide(() -> {
            try {
                String log = wire.log();
                if (log.isBlank()) {
                    return Optional.of(ConfigureText.MACHINE_SHOWS_AN_EMPTY_LOG.text());
                }
                keep(RemoteChange.logged(log));
                return Optional.empty();
            } catch (WireFault e) {
                return Optional.of(ConfigureText.LOG_CANNOT_BE_FETCHED.text(e.getMessage()));
            }
        });
    }

    @Override
    public void halt(String login) {
        inOrder.addFirst(() -> {
            if (at.state() == State.DONE) {
                return;
            }
            become(RemoteState.STOPPED);
            note = ConfigureText.STOPPED.text(login);
            keep(RemoteChange.NOTHING);
        });
    }

    @Override
    public List<String> lacks() {
        return lacking;
    }

    @Override
    public void known(String name, String value) {
        inOrder.add(() -> {
            read.put(name, value);
            if (!gone && at.hold() != null && at.hold().why().endsWhenKnown()) {
                goOn();
            }
        });
    }
}
