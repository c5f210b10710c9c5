package lychnos.server.configure.network;

import java.time.Clock;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Controller;
import lychnos.core.dialogue.DialogueStep.Page;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.MemberValues;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/**
 * Sets what of a member is set over the network, one step after the other: its controller, its pages. To carry a step
 * out a second time does no harm, so that after an interruption it is simply done again.
 */
public final class RemoteWork implements AtWork {

    private static final Logger LOG = Logger.getLogger(RemoteWork.class);
    private static final String TOOL = "Lychnos";
    private static final long RETRY_SECONDS = 3;
    private static final int MOST_RETRIES = 10;
    private static final long LOOK_MILLIS = 700;
    private static final int NONE = -1;

    /** What it works with. */
    public interface Surroundings {
        void save(Held held, Change change) throws HoldLost;

        /** A person fills the rest in. */
        void byHand(RemoteWork work) throws HoldLost;

        void told(String member, String name, String value);

        void done(RemoteWork work);

        void lost(RemoteWork work);

        boolean trusts(String server, String fingerprint);

        /** What a member is answered with, as it is known now. */
        MemberValues values(String member);

        /** Whether our password of this name has logged in. */
        boolean proven(Held held, String name);

        /** Where a machine answers that was never set up. */
        Optional<FirstAddress.Found> find(Held held, Mac mac, int port) throws WireFault;
    }

    /**
     * What is saved with a change, besides how the work stands.
     *
     * @param moved by place, how far steps are now
     * @param sends by place, what is written; no password
     * @param tries names of passwords that are tried
     * @param proven names of passwords that have logged in
     * @param told what the machine has told, by name
     */
    private record Kept(
            Map<Integer, Change.Moved> moved,
            Map<Integer, String> sends,
            List<String> tries,
            List<String> proven,
            Map<String, String> told) {

        static final Kept NOTHING = new Kept(Map.of(), Map.of(), List.of(), List.of(), Map.of());

        static Kept moved(int step, Progress to, String evidence) {
            return new Kept(Map.of(step, new Change.Moved(to, evidence)), Map.of(), List.of(), List.of(), Map.of());
        }

        static Kept sent(int step, String text, List<String> tries) {
            return new Kept(
                    Map.of(step, new Change.Moved(Progress.SENT, "")), Map.of(step, text), tries, List.of(), Map.of());
        }

        static Kept done(int step, RemoteStep.Outcome.Done done) {
            return new Kept(
                    Map.of(step, new Change.Moved(Progress.DONE, done.evidence())),
                    Map.of(),
                    List.of(),
                    done.proven(),
                    done.told());
        }
    }

    private final Held held;
    private final long dialogueId;
    private final String member;
    private final Dialogue dialogue;
    private MemberValues values;
    private final int usualPort;
    private final Vantage vantage;
    private final Surroundings around;
    private final InOrder inOrder;
    private final ScheduledExecutorService clockwork;
    private final Clock clock;
    private final List<DialogueStep> steps;
    private final List<Progress> progress;
    private final Map<String, String> read = new HashMap<>();
    private Mode mode;
    private RemoteState at = RemoteState.FOLLOWING;
    private String note = "";
    private final boolean identified;
    private final boolean wiped;
    private int approved = NONE;
    private int retries;
    private boolean gone;
    /** Another server has it now. */
    private boolean lost;

    private String stretch = "";
    private RemoteStep doing;
    private int doingStep = NONE;
    private final PageSteps pages;
    private final Maker maker;
    private volatile List<String> lacking = List.of();

    /** Makes what carries a step out. */
    @FunctionalInterface
    public interface Maker {
        RemoteStep make(RemoteWork work, int place, Remote step);
    }

    public RemoteWork(
            Held held,
            Openings.Opening opening,
            Vantage vantage,
            Surroundings around,
            Maker maker,
            Executor pool,
            ScheduledExecutorService clockwork,
            Clock clock) {
        this.maker = maker;
        this.held = held;
        this.dialogueId = opening.kept().dialogue().id;
        this.member = opening.kept().dialogue().member;
        this.dialogue = opening.dialogue();
        this.values = opening.values();
        this.usualPort = opening.values().known().kind().port();
        this.vantage = vantage;
        this.around = around;
        this.inOrder = new InOrder(pool);
        this.clockwork = clockwork;
        this.clock = clock;
        mode = opening.kept().dialogue().mode;
        identified = opening.kept().dialogue().identified;
        wiped = opening.kept().dialogue().wiped;
        steps = dialogue.withPages(member, wiped);
        progress = new ArrayList<>(opening.kept().progress());
        read.putAll(opening.kept().told());
        pages = new PageSteps(dialogue.over(), own, vantage, usualPort, this::trusts);
        if (opening.kept().dialogue().state == lychnos.server.configure.model.MemberDialogue.State.STOPPED) {
            at = RemoteState.STOPPED;
        }
    }

    public long dialogueId() {
        return dialogueId;
    }

    Held held() {
        return held;
    }

    public void begin() {
        inOrder.add(this::work);
    }

    @Override
    public void close() {
        inOrder.addFirst(() -> gone = true);
    }

    /** What is known with what the pages themselves have told. */
    private final Values own = new Values() {
        @Override
        public Optional<String> text(String name) {
            return Optional.ofNullable(read.get(name)).or(() -> values.text(name));
        }

        @Override
        public Optional<Secret> secret(String name) {
            return values.secret(name);
        }

        @Override
        public Collection<Secret> secrets() {
            return values.secrets();
        }

        @Override
        public String unitName() {
            return values.unitName();
        }

        @Override
        public boolean termsAgreed() {
            return values.termsAgreed();
        }
    };

    // --- the work ---

    private int next() {
        for (int i = 0; i < steps.size(); i++) {
            boolean open = progress.get(i) == Progress.OPEN || progress.get(i) == Progress.SENT;
            if (open && steps.get(i) instanceof Remote remote && remote.driven() && !remote.first()) {
                return i;
            }
        }
        return NONE;
    }

    private void work() {
        if (gone || !at.works()) {
            return;
        }
        int step = next();
        if (step < 0) {
            become(RemoteState.DONE);
            if (keep(Kept.NOTHING)) {
                around.done(this);
            }
            return;
        }
        Remote remote = (Remote) steps.get(step);
        RemoteStep doing = doing(step, remote);
        try {
            if (at instanceof RemoteState.Waiting) {
                took(step, remote, doing.look());
            } else if (mayBegin(step, remote, doing)) {
                boolean begun = progress.get(step) == Progress.SENT;
                took(step, remote, doing.carryOut(begun, (sent, tries) -> sends(step, sent, tries)));
            }
        } catch (WireFault e) {
            unreached(step, remote, doing, e);
        } catch (IllegalArgumentException | ClassCastException | IndexOutOfBoundsException e) {
            // what the machine shows has another shape than its description says; nothing may end this line of work
            // without a word
            LOG.warnf(e, "“%s” of run %d", remote.title(), held.runId());
            hold(new Hold(
                    Why.PAGE,
                    step,
                    "“" + remote.title()
                            + "” shows another form than its description says, so that it was not set. Do it by "
                            + "hand, or correct the description.",
                    "",
                    ""));
        }
    }

    /** The step in hand; it knows what it has seen so far. */
    private RemoteStep doing(int step, Remote remote) {
        if (doing == null || doingStep != step) {
            doingStep = step;
            doing = maker.make(this, step, remote);
        }
        return doing;
    }

    /** Over the page's documented interface, or over Redfish. */
    public RemoteStep overTheWire(int place, Remote step) {
        return step instanceof Page page
                ? pages.step(place, page, phrase())
                : new ControllerStep(
                        place,
                        (Controller) step,
                        own,
                        vantage,
                        usualPort,
                        (mac, port) -> around.find(held, mac, port),
                        this::trusts,
                        clock);
    }

    /** As long as this setup runs; a machine that has the address later must not be trusted for it. */
    private boolean trusts(String place, String fingerprint) {
        return around.trusts("run " + held.runId() + " " + place, fingerprint);
    }

    /** Where the password of this member's pages stands. */
    private PageSteps.Phrase phrase() {
        String phrase = dialogue.over().phrase();
        List<Progress> setting = IntStream.range(0, steps.size())
                .filter(i -> steps.get(i) instanceof Page page
                        && PageSteps.setting(phrase).test(page))
                .mapToObj(progress::get)
                .toList();
        if (setting.contains(Progress.DONE)) {
            return PageSteps.Phrase.OURS;
        }
        if (setting.contains(Progress.SENT)) {
            return PageSteps.Phrase.BEING_CHANGED;
        }
        return around.proven(held, phrase) ? PageSteps.Phrase.PERHAPS_OURS : PageSteps.Phrase.AS_DELIVERED;
    }

    private boolean mayBegin(int step, Remote remote, RemoteStep doing) {
        lacking = doing.lacking();
        if (!lacking.isEmpty()) {
            hold(Hold.until(step, remote.title(), lacking, ""));
            return false;
        }
        Optional<Hold> stops =
                approved == step || progress.get(step) == Progress.SENT ? Optional.empty() : doing.stops(mode);
        stops.ifPresent(this::hold);
        return stops.isEmpty();
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
        approved = NONE;
        retries = 0;
        become(new RemoteState.Waiting(clock.instant().plus(remote.longest())));
        keep(Kept.moved(step, Progress.SENT, works.evidence()));
        lookLater();
    }

    private void lookOrCall(int step, Remote remote, RemoteState.Waiting waiting) {
        if (clock.instant().isBefore(waiting.until())) {
            lookLater();
            return;
        }
        hold(new Hold(
                Why.OVERDUE,
                step,
                "“" + remote.title() + "” takes longer than " + remote.longest().toMinutes() + " min; "
                        + remote.usually().toMinutes() + " min is usual. Look at the machine, or keep waiting.",
                "",
                ""));
    }

    private boolean sends(int step, String sent, List<String> tries) {
        progress.set(step, Progress.SENT);
        return keep(Kept.sent(step, sent, tries));
    }

    private void lookLater() {
        clockwork.schedule(() -> inOrder.add(this::work), LOOK_MILLIS, TimeUnit.MILLISECONDS);
    }

    private void done(int step, RemoteStep.Outcome.Done done) {
        note = "";
        approved = NONE;
        retries = 0;
        become(RemoteState.FOLLOWING);
        progress.set(step, Progress.DONE);
        read.putAll(done.told());
        if (keep(Kept.done(step, done))) {
            done.told().forEach((name, value) -> around.told(member, name, value));
            inOrder.add(this::work);
        }
    }

    private void unreached(int step, Remote remote, RemoteStep doing, WireFault fault) {
        if (at instanceof RemoteState.Waiting waiting && fault.kind() != WireFault.Kind.OTHER_CERTIFICATE) {
            lookOrCall(step, remote, waiting); // it may restart while it works
        } else if (fault.passing() && retries++ < MOST_RETRIES) {
            note = "“" + remote.title() + "”: " + doing.what() + " cannot be reached now: " + fault.getMessage()
                    + ". Trying again.";
            if (keep(Kept.NOTHING)) {
                clockwork.schedule(() -> inOrder.add(this::work), RETRY_SECONDS, TimeUnit.SECONDS);
            }
        } else {
            retries = 0;
            hold(new Hold(
                    Why.UNREACHED,
                    step,
                    "For “" + remote.title() + "” " + doing.what() + " cannot be reached: " + fault.getMessage()
                            + ". Going on tries it again.",
                    "",
                    ""));
        }
    }

    private void hold(Hold why) {
        become(new RemoteState.Held(why));
        note = "";
        keep(Kept.NOTHING);
    }

    private void become(RemoteState next) {
        at = at.become(next);
    }

    // --- keeping ---

    /** Gives back whether it is kept and ours still. */
    private boolean keep(Kept kept) {
        try {
            around.save(
                    held,
                    new Change(
                            dialogueId,
                            clock.instant(),
                            at.state(),
                            at.hold(),
                            mode,
                            wiped,
                            identified,
                            note,
                            null,
                            kept.moved(),
                            kept.sends(),
                            TOOL,
                            "web",
                            kept.tries(),
                            kept.proven(),
                            kept.told(),
                            stretch(),
                            0));
            return true;
        } catch (HoldLost e) {
            LOG.infof("let go of the pages of run %d: %s", held.runId(), e.getMessage());
            gone = true;
            lost = true;
            around.lost(this);
        } catch (RuntimeException e) {
            // nothing goes on before it is kept: it is tried again until the database takes it
            LOG.warnf("What was done on pages cannot be kept now (%s); trying again.", e.getMessage());
            stretch = "";
            clockwork.schedule(() -> inOrder.addFirst(() -> keepAgain(kept)), RETRY_SECONDS, TimeUnit.SECONDS);
        }
        return false;
    }

    private void keepAgain(Kept kept) {
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

    private Change.Stretch stretch() {
        Change.Stretch now =
                switch (at.state()) {
                    case WAITING -> waiting((Remote) steps.get(next()));
                    case HELD, STOPPED ->
                        Change.Stretch.held(Optional.ofNullable(at.hold()).map(Hold::why), at.state());
                    case DONE -> new Change.Stretch("", "", 0, 0);
                    default -> new Change.Stretch("hands", "", 0, 0);
                };
        String key = now.kind() + now.title();
        if (key.equals(stretch)) {
            return null;
        }
        stretch = key;
        return now;
    }

    private static Change.Stretch waiting(Remote remote) {
        return new Change.Stretch(
                "wait",
                remote.title(),
                remote.usually().toSeconds(),
                remote.longest().toSeconds());
    }

    // --- those who decide ---

    private CompletableFuture<Optional<String>> decide(Supplier<Optional<String>> act) {
        CompletableFuture<Optional<String>> answer = new CompletableFuture<>();
        inOrder.add(() -> {
            Optional<String> refused = gone ? Optional.of("These pages are no longer filled in here.") : act.get();
            answer.complete(lost ? Optional.of(TAKEN_OVER) : refused);
        });
        return answer;
    }

    private Optional<String> goOn() {
        values = around.values(member); // something may have been fixed in Prepare meanwhile
        doing = null;
        lacking = List.of();
        become(RemoteState.FOLLOWING);
        if (keep(Kept.NOTHING)) {
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
            keep(Kept.NOTHING);
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
            return Optional.of("These pages are no longer filled in here.");
        }
    }

    @Override
    public CompletableFuture<Optional<String>> goOn(String typed, String login) {
        return decide(() -> {
            Hold hold = at.hold();
            if (hold == null) {
                return Optional.of("No decision is needed here now.");
            }
            if (!hold.why().passable()) {
                return Optional.of("This cannot be skipped. " + hold.sentence());
            }
            if (!hold.typed().isEmpty() && !hold.typed().equals(typed.strip())) {
                return Optional.of("Wanted is “" + hold.typed() + "”, typed letter by letter. Nothing was written.");
            }
            approved = hold.step();
            if (hold.why() == Why.OVERDUE) {
                Remote remote = (Remote) steps.get(hold.step());
                become(new RemoteState.Waiting(clock.instant().plus(remote.longest())));
                keep(Kept.NOTHING);
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
                return Optional.of("This member is not stopped.");
            }
            note = "";
            return goOn();
        });
    }

    @Override
    public void halt(String login) {
        inOrder.addFirst(() -> {
            if (at.state() == State.DONE) {
                return;
            }
            become(RemoteState.STOPPED);
            note = "Stopped by " + login + ".";
            keep(Kept.NOTHING);
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
