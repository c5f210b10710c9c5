package lychnos.server.console;

import java.time.Clock;
import java.time.Instant;
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
import java.util.stream.Collectors;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Dialogue.PageInterface;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Page;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.PageFill;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.MemberValues;
import lychnos.server.run.Held;
import lychnos.server.run.HoldLost;
import lychnos.wire.Vantage;
import lychnos.wire.WireFault;
import lychnos.wire.pages.MachinePages;
import lychnos.wire.pages.MachinePages.Login;
import lychnos.wire.pages.PageFault;
import org.jboss.logging.Logger;

/**
 * Fills a member's pages in over the machine's documented interface, one after the other: reads what a page came with, writes what
 * was planned, reads it back. To write a page a second time does no harm, so that after an interruption it is simply done again.
 */
final class PageWork implements AtWork {

    private static final Logger LOG = Logger.getLogger(PageWork.class);
    private static final String TOOL = "Lychnos";
    private static final long RETRY_SECONDS = 3;
    private static final int MOST_RETRIES = 10;
    private static final long LOOK_MILLIS = 700;
    private static final int NONE = -1;

    /** What it works with. */
    interface Surroundings {
        void save(Held held, Change change) throws HoldLost;

        /** A person fills the rest in. */
        void byHand(PageWork work) throws HoldLost;

        void told(String member, String name, String value);

        void done(PageWork work);

        void lost(PageWork work);

        boolean trusts(String server, String fingerprint);

        /** What a member is answered with, as it is known now. */
        MemberValues values(String member);

        /** Whether our password of this name has logged in. */
        boolean proven(Held held, String name);
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
    private State state = State.FOLLOWING;
    private Hold hold;
    private String note = "";
    private final boolean identified;
    private final boolean wiped;
    private int approved = NONE;
    private int retries;
    private boolean gone;
    private boolean known;
    private Instant deadline;
    private String stretch = "";
    private volatile List<String> lacking = List.of();

    PageWork(Held held, Openings.Opening opening, Vantage vantage, Surroundings around, Executor pool, ScheduledExecutorService clockwork, Clock clock) {
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
        if (opening.kept().dialogue().state == lychnos.server.store.MemberDialogue.State.STOPPED) {
            state = State.STOPPED;
        }
    }

    long dialogueId() {
        return dialogueId;
    }

    Held held() {
        return held;
    }

    void begin() {
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
            if (open && steps.get(i) instanceof Page page && page.driven()) {
                return i;
            }
        }
        return NONE;
    }

    private void work() {
        if (gone || state == State.HELD || state == State.STOPPED || state == State.DONE) {
            return;
        }
        int step = next();
        if (step < 0) {
            state = State.DONE;
            if (keep(Map.of(), Map.of(), List.of(), List.of(), Map.of())) {
                around.done(this);
            }
            return;
        }
        Page page = (Page) steps.get(step);
        PageFill fill = new PageFill(page, own);
        try {
            if (deadline != null) {
                look(step, page, fill);
            } else if (mayBegin(step, page, fill)) {
                fillIn(step, page, fill);
            }
        } catch (WireFault e) {
            unreached(step, page, e);
        } catch (PageFault e) {
            refused(step, page, e);
        } catch (IllegalArgumentException | ClassCastException | IndexOutOfBoundsException e) {
            // what the machine shows has another shape than its description says; nothing may end this line of work without a word
            LOG.warnf(e, "the page “%s” of run %d", page.title(), held.runId());
            deadline = null;
            hold(new Hold(Why.PAGE, step, "“" + page.title() + "” shows another form than its description says, so that it was not filled in. Do it by hand, or correct the description.", "", ""));
        }
    }

    private boolean mayBegin(int step, Page page, PageFill fill) {
        lacking = fill.lacking();
        if (!lacking.isEmpty()) {
            hold(new Hold(Why.GATE, step, "“" + page.title() + "” waits until " + String.join(", ", lacking) + " is known.", "", ""));
            return false;
        }
        Optional<Hold> stops = approved == step || progress.get(step) == Progress.SENT ? Optional.empty() : fill.stops(step, mode);
        stops.ifPresent(this::hold);
        return stops.isEmpty();
    }

    private MachinePages pages() throws WireFault {
        PageInterface over = dialogue.over();
        MachinePages pages = new MachinePages(vantage, over.at().fill(own::text).orElseThrow(() -> new WireFault(WireFault.Kind.NOT_DECLARED, "its address is not known")), usualPort);
        String shown = pages.see();
        // for as long as this setup goes on: whoever has the address afterwards is another matter
        if (!around.trusts("run " + held.runId() + " " + pages.peer(), shown)) {
            throw new WireFault(WireFault.Kind.OTHER_CERTIFICATE, "it shows another certificate than before, " + shown + "; where that was replaced on purpose, put this setup away and begin it anew");
        }
        return pages;
    }

    /** What logs in now: ours once it has, until then what the machine came with, and after an interruption ours first. */
    private Login login(MachinePages pages) throws WireFault, PageFault {
        PageInterface over = dialogue.over();
        Login ours = login(over.phrase());
        if (around.proven(held, over.phrase())) {
            return ours;
        }
        if (wasSent(over.phrase())) {
            try {
                pages.read(over.about(), ours);
                return ours;
            } catch (PageFault e) {
                if (!e.refusesLogin()) {
                    throw e;
                }
            }
        }
        return login(over.first());
    }

    private Login login(String phrase) throws WireFault {
        String user = dialogue.over().user().fill(own::text).orElse("");
        return new Login(user, own.secret(phrase).orElseThrow(() -> new WireFault(WireFault.Kind.NOT_DECLARED, "its password is not known")));
    }

    /** Whether the page that sets our password was begun before. */
    private boolean wasSent(String phrase) {
        for (int i = 0; i < steps.size(); i++) {
            if (steps.get(i) instanceof Page page && page.driven() && setsPhrase(page, phrase) && progress.get(i) != Progress.OPEN) {
                return true;
            }
        }
        return false;
    }

    private static boolean setsPhrase(Page page, String phrase) {
        return page.fields().values().stream().anyMatch(field -> field.value().names().contains(phrase));
    }

    /** Which machine this is; told once, before anything is written. */
    private boolean isTheOne(int step, MachinePages pages, Login login) throws WireFault, PageFault {
        if (known) {
            return true;
        }
        Map<String, String> about = pages.read(dialogue.over().about(), login);
        for (Map.Entry<String, lychnos.core.dialogue.Template> must : dialogue.over().must().entrySet()) {
            String wanted = must.getValue().fill(own::text).orElse("one that nobody knows");
            String is = about.getOrDefault(must.getKey(), "");
            if (!is.equals(wanted)) {
                hold(new Hold(Why.WRONG_MACHINE, step, "The pages at " + pages.peer() + " are another machine's: it shows " + (is.isEmpty() ? "nothing" : is) + ", wanted is " + wanted + ". Nothing was written to it. Look who has that address.", "", ""));
                return false;
            }
        }
        known = true;
        return true;
    }

    private void fillIn(int step, Page page, PageFill fill) throws WireFault, PageFault {
        MachinePages pages = pages();
        String phrase = dialogue.over().phrase();
        Login login = login(pages);
        if (!isTheOne(step, pages, login)) {
            return;
        }
        List<PageFill.Difference> came = fill.differences(pages.read(page.resource(), login));
        boolean setsPhrase = setsPhrase(page, phrase);
        progress.set(step, Progress.SENT);
        if (!keep(Map.of(step, new Change.Moved(Progress.SENT, "")), sends(step, page), setsPhrase ? List.of(phrase) : List.of(), List.of(), Map.of())) {
            return;
        }
        pages.write(page.resource(), login, fill.entry());
        Login now = setsPhrase ? login(phrase) : login;
        Map<String, String> shown = pages.read(page.resource(), now);
        List<String> off = new ArrayList<>(fill.differences(shown).stream().map(Object::toString).toList());
        off.addAll(fill.missing(shown));
        if (!off.isEmpty()) {
            hold(new Hold(Why.PAGE, step, "“" + page.title() + "” was written, and " + String.join("; ", off) + ". Mend it there or in Prepare; going on fills the page in again.", "", ""));
            return;
        }
        approved = NONE;
        retries = 0;
        if (page.waits() != null && !fill.over(shown)) {
            deadline = clock.instant().plus(page.waits().atMost());
            state = State.WAITING;
            keep(Map.of(step, new Change.Moved(Progress.SENT, evidence(fill, came))), Map.of(), List.of(), List.of(), Map.of());
            lookLater();
            return;
        }
        done(step, fill, shown, evidence(fill, came), setsPhrase && page.is(Mark.PROVES) ? List.of(phrase) : List.of());
    }

    private static String evidence(PageFill fill, List<PageFill.Difference> came) {
        String before = came.stream().filter(each -> !each.shown().isEmpty() && !each.shown().equals("0")).map(each -> each.field() + " came as “" + each.shown() + "”").collect(Collectors.joining("; "));
        int fields = fill.entry().texts().size();
        return (before.isEmpty() ? "" : before + "; ") + (fields == 0 ? "taken" : fields + " of " + fields + " read back");
    }

    /** What is kept of what was written; no password. */
    private Map<Integer, String> sends(int step, Page page) {
        PageFill.Entry entry = new PageFill(page, own).entry();
        return Map.of(step, entry.texts().isEmpty() ? "" : String.join(", ", entry.texts().values()));
    }

    /** The machine works: is it over? */
    private void look(int step, Page page, PageFill fill) throws WireFault, PageFault {
        MachinePages pages = pages();
        Map<String, String> shown = pages.read(page.resource(), login(pages));
        note = "";
        if (fill.over(shown)) {
            deadline = null;
            state = State.FOLLOWING;
            done(step, fill, shown, "", List.of());
        } else {
            lookOrCall(step, page);
        }
    }

    private void lookOrCall(int step, Page page) {
        if (clock.instant().isBefore(deadline)) {
            lookLater();
            return;
        }
        deadline = null;
        hold(new Hold(Why.OVERDUE, step, "“" + page.title() + "” takes longer than " + page.waits().atMost().toMinutes() + " min; " + page.waits().about().toMinutes() + " min is usual. Look at the machine, or go on waiting.", "", ""));
    }

    private void lookLater() {
        clockwork.schedule(() -> inOrder.add(this::work), LOOK_MILLIS, TimeUnit.MILLISECONDS);
    }

    private void done(int step, PageFill fill, Map<String, String> shown, String evidence, List<String> proven) {
        progress.set(step, Progress.DONE);
        Map<String, String> told = fill.told(shown);
        read.putAll(told);
        if (keep(Map.of(step, new Change.Moved(Progress.DONE, evidence)), Map.of(), List.of(), proven, told)) {
            told.forEach((name, value) -> around.told(member, name, value));
            inOrder.add(this::work);
        }
    }

    private void unreached(int step, Page page, WireFault fault) {
        if (deadline != null) {
            lookOrCall(step, page); // it may restart while it works
        } else if (fault.passing() && retries++ < MOST_RETRIES) {
            note = "Its pages cannot be reached now: " + fault.getMessage() + ". Trying again.";
            if (keep(Map.of(), Map.of(), List.of(), List.of(), Map.of())) {
                clockwork.schedule(() -> inOrder.add(this::work), RETRY_SECONDS, TimeUnit.SECONDS);
            }
        } else {
            retries = 0;
            hold(new Hold(Why.UNREACHED, step, "For “" + page.title() + "” its pages cannot be reached: " + fault.getMessage() + ". Nothing was written. Going on tries it again.", "", ""));
        }
    }

    private void refused(int step, Page page, PageFault fault) {
        String sentence = fault.refusesLogin()
                ? "Its pages refuse the log-in. It was not tried again, so that no account is locked. Look which password they have; going on tries once more."
                : "It did not take “" + page.title() + "”. It says: " + fault.getMessage() + ". Mend it there or in Prepare; going on fills the page in again.";
        deadline = null;
        hold(new Hold(Why.PAGE, step, sentence, fault.getMessage(), ""));
    }

    private void hold(Hold why) {
        hold = why;
        state = State.HELD;
        note = "";
        keep(Map.of(), Map.of(), List.of(), List.of(), Map.of());
    }

    // --- keeping ---

    /** Gives back whether it is kept and ours still. */
    private boolean keep(Map<Integer, Change.Moved> moved, Map<Integer, String> sends, List<String> tries, List<String> proven, Map<String, String> told) {
        try {
            around.save(held, new Change(dialogueId, clock.instant(), state, hold, mode, wiped, identified, note, null, moved, sends, TOOL, "web", tries, proven, told, stretch()));
            return true;
        } catch (HoldLost e) {
            LOG.infof("let go of the pages of run %d: %s", held.runId(), e.getMessage());
            gone = true;
            around.lost(this);
        } catch (RuntimeException e) {
            // nothing goes on before it is kept: it is tried again until the database takes it
            LOG.warnf("What was done on pages cannot be kept now (%s); trying again.", e.getMessage());
            stretch = "";
            clockwork.schedule(() -> inOrder.addFirst(() -> keepAgain(moved, sends, tries, proven, told)), RETRY_SECONDS, TimeUnit.SECONDS);
        }
        return false;
    }

    private void keepAgain(Map<Integer, Change.Moved> moved, Map<Integer, String> sends, List<String> tries, List<String> proven, Map<String, String> told) {
        if (gone || !keep(moved, sends, tries, proven, told)) {
            return;
        }
        told.forEach((name, value) -> around.told(member, name, value));
        if (state == State.DONE) {
            around.done(this);
        } else {
            work();
        }
    }

    private Change.Stretch stretch() {
        Change.Stretch now = switch (state) {
            case WAITING -> waiting((Page) steps.get(next()));
            case HELD, STOPPED -> new Change.Stretch("held", hold == null ? state.name() : hold.why().name(), 0, 0);
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

    private static Change.Stretch waiting(Page page) {
        return new Change.Stretch("wait", page.title(), page.waits().about().toSeconds(), page.waits().atMost().toSeconds());
    }

    // --- those who decide ---

    private CompletableFuture<Optional<String>> decide(Supplier<Optional<String>> act) {
        CompletableFuture<Optional<String>> answer = new CompletableFuture<>();
        inOrder.add(() -> answer.complete(gone ? Optional.of("These pages are not worked at here any more.") : act.get()));
        return answer;
    }

    private Optional<String> goOn() {
        values = around.values(member); // something may have been mended in Prepare meanwhile
        hold = null;
        lacking = List.of();
        state = State.FOLLOWING;
        if (keep(Map.of(), Map.of(), List.of(), List.of(), Map.of())) {
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
            if (hold != null && hold.why() == Why.NEXT && next == Mode.RUN) {
                return goOn();
            }
            keep(Map.of(), Map.of(), List.of(), List.of(), Map.of());
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
            return Optional.of("These pages are not worked at here any more.");
        }
    }

    @Override
    public CompletableFuture<Optional<String>> goOn(String typed, String login) {
        return decide(() -> {
            if (hold == null) {
                return Optional.of("Nothing waits for you here now.");
            }
            if (!hold.why().passable()) {
                return Optional.of("This cannot be passed by saying so. " + hold.sentence());
            }
            if (!hold.typed().isEmpty() && !hold.typed().equals(typed.strip())) {
                return Optional.of("Wanted is “" + hold.typed() + "”, typed letter by letter. Nothing was written.");
            }
            approved = hold.step();
            if (hold.why() == Why.OVERDUE) {
                deadline = clock.instant().plus(((Page) steps.get(hold.step())).waits().atMost());
                hold = null;
                state = State.WAITING;
                keep(Map.of(), Map.of(), List.of(), List.of(), Map.of());
                lookLater();
                return Optional.empty();
            }
            return goOn();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> again(String login) {
        return decide(() -> {
            if (state != State.STOPPED) {
                return Optional.of("It is not stopped.");
            }
            note = "";
            return goOn();
        });
    }

    @Override
    public void halt(String login) {
        inOrder.addFirst(() -> {
            state = State.STOPPED;
            hold = null;
            deadline = null;
            note = "Stopped by " + login + ".";
            keep(Map.of(), Map.of(), List.of(), List.of(), Map.of());
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
            if (!gone && hold != null && hold.why() == Why.GATE) {
                goOn();
            }
        });
    }
}
