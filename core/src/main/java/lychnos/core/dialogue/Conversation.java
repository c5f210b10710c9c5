package lychnos.core.dialogue;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.LineView.Question;
import lychnos.core.fact.Secret;

/**
 * One member's dialogue on one line.
 *
 * <p>It is told what happens, each with its moment, and answers with what is to be done. What the line asks is read
 * only once it has stood there for {@link #SETTLE}, so that no answer goes to half a question. Log lines between a
 * question and its answer do not hide it. Of questions that look alike the first that is still open is meant. Nothing
 * but a declared nudge and log-in is sent before the machine was identified. Not safe for use by several threads.
 */
public final class Conversation {

    /** How long a question must stand before it counts as asked. */
    public static final Duration SETTLE = Duration.ofMillis(200);

    /** The same where other lines came after it, which may have been its end. */
    static final Duration SETTLE_WITH_CHATTER = Duration.ofMillis(900);

    /** How long something that nobody knows must stand at the cursor before a person is called. */
    static final Duration UNFORESEEN = Duration.ofSeconds(3);

    private static final String DOWN = "\033[B";

    /** How long a line may say nothing before it is nudged, or a person is called. */
    static final Duration SILENCE = Duration.ofSeconds(4);

    /** The same after a break, where a machine that was heard since may be slow in saying more. */
    static final Duration SILENCE_AFTER_BREAK = Duration.ofSeconds(15);

    private static final int MOST_SHOWN = 400;
    private static final int NONE = -1;

    /** The ways to be. */
    public enum State {
        /** What is on the line is not known yet. */
        UNSURE,
        FOLLOWING,
        /** The machine works. */
        WAITING,
        /** Nothing is sent until a person has decided. */
        HELD,
        /** The line is down. */
        CUT,
        /** A person has stopped it. */
        STOPPED,
        DONE
    }

    private static final Map<State, Set<State>> TRANSITIONS = new EnumMap<>(Map.of(
            State.UNSURE, EnumSet.of(State.FOLLOWING, State.WAITING, State.HELD, State.CUT, State.STOPPED, State.DONE),
            State.FOLLOWING, EnumSet.of(State.WAITING, State.HELD, State.CUT, State.STOPPED, State.DONE),
            State.WAITING, EnumSet.of(State.FOLLOWING, State.HELD, State.CUT, State.STOPPED, State.DONE),
            State.HELD, EnumSet.of(State.UNSURE, State.FOLLOWING, State.WAITING, State.CUT, State.STOPPED, State.DONE),
            State.CUT, EnumSet.of(State.HELD, State.UNSURE, State.WAITING, State.STOPPED),
            State.STOPPED, EnumSet.of(State.UNSURE),
            State.DONE, EnumSet.noneOf(State.class)));

    /** How far a step is. */
    public enum Progress {
        OPEN,
        /** Its answer was sent; the machine has not said anything to it yet. */
        SENT,
        DONE,
        /** The machine did not ask it, and need not. */
        LEFT_OUT
    }

    private final Dialogue dialogue;
    private final Values values;
    private final Map<String, String> read = new LinkedHashMap<>();
    private final Steps steps;
    private final LineView line;
    private State state = State.UNSURE;
    private State behindHold = State.UNSURE;
    private State beforeCut = State.UNSURE;
    private Hold hold;
    private Mode mode;
    private boolean identified;
    /** An earlier conversation was broken off here; the machine had been identified in it. */
    private boolean brokenOff;
    /** What stands before this was shown before the break, and tells nothing of who is on the line now. */
    private Screen.Place newFrom;
    /** The step whose answer was sent right before that, and may never have arrived. */
    private int sentBefore = NONE;

    private boolean nudged;
    /** A person has said that it is the same machine as before the break, and it has said nothing since. */
    private boolean unheard;

    private boolean probed;
    /** The other one of the two has told that it is the one that takes setup. */
    private boolean otherIsActive;
    /** The line was not looked at for a time: the end of a wait may have been shown meanwhile. */
    private boolean mayHaveMissed;
    /**
     * Something may have been shown in a break, and nothing was answered since: what is missing on the screen is not a
     * difference.
     */
    private boolean unseen;
    /** A page is worked on again only once it was drawn whole after the break, or a person has looked at it. */
    private boolean pageAwaited;

    private boolean redrawAsked;
    /**
     * How often the window had been erased when the break ended, and when the decision now waited for was asked for.
     */
    private int erasuresAtBreak;

    private int erasuresAtHold;
    private final RowSearch rows = new RowSearch(UNFORESEEN);
    private int erasuresAtAnswer;
    private Screen.Place pagedAt;
    private Instant deadline;
    /** The step whose answer a person has said may go; it lets no other one through. */
    private int approved = NONE;

    private final Typing typing = new Typing();
    private List<Effect> effects = new ArrayList<>();

    public Conversation(Dialogue dialogue, String member, Values values, Mode mode, Instant now) {
        this.dialogue = dialogue;
        this.values = values;
        this.mode = mode;
        steps = new Steps(dialogue, member);
        line = new LineView(dialogue.chatter(), steps::asking, steps::isRow, now);
    }

    /**
     * Where an earlier conversation was left.
     *
     * @param wiped whether the machine is wiped first
     * @param identified whether the machine had been identified
     * @param progress of each step
     * @param read what the line had told
     * @param shown what the line had shown since the last answer
     */
    public record Left(
            boolean wiped, boolean identified, List<Progress> progress, Map<String, String> read, String shown) {

        public Left {
            progress = List.copyOf(progress);
            read = Map.copyOf(read);
        }
    }

    /**
     * Goes on where an earlier conversation was left: what was done stays done, and what was sent without an answer
     * counts as sent, so that it is not sent again unless the machine asks again. What is on the line must be told
     * anew; where the line stays silent and may not be woken, a person is asked whether it is still the same machine.
     * One that worked by itself and does not wake up is waited for as before; where it may not be woken, for as long as
     * is usual.
     */
    public void resume(Left left, Instant now) {
        steps.plan(left.wiped);
        steps.resume(left.progress);
        read.putAll(left.read);
        brokenOff = left.identified;
        mayHaveMissed = true;
        line.write(left.shown, now);
        newFrom = screen().cursor();
        broken();
    }

    /**
     * From here on the line was not watched: what it showed meanwhile is lost, and what was sent last may not have
     * arrived.
     */
    private void broken() {
        sentBefore = steps.sent();
        unseen = true;
        pageAwaited = true;
        redrawAsked = false;
        erasuresAtBreak = screen().erasures();
    }

    public State state() {
        return state;
    }

    /** Why nothing is sent, while that is so. */
    public Optional<Hold> hold() {
        return Optional.ofNullable(hold);
    }

    public List<DialogueStep> steps() {
        return steps.all();
    }

    /** The step whose question stands on the line now, if it is still to be answered; or -1. */
    public int asking() {
        return line.question()
                .map(Question::step)
                .filter(step -> steps.progress(step) == Progress.OPEN)
                .orElse(NONE);
    }

    public Progress progress(int step) {
        return steps.progress(step);
    }

    public Screen screen() {
        return line.screen();
    }

    /** When {@link #tick} is wanted next, if nothing else happens before; empty where nothing is waited for. */
    public Optional<Instant> wakeAt(Instant now) {
        if (quietForGood()) {
            return Optional.empty();
        }
        Instant usuallyBack = state == State.WAITING && !identified
                ? line.quietSince().plus(steps.waits().about())
                : null;
        return Stream.of(
                        deadline,
                        usuallyBack,
                        line.since().plus(SETTLE),
                        line.since().plus(SETTLE_WITH_CHATTER),
                        line.since().plus(UNFORESEEN),
                        line.quietSince().plus(SETTLE),
                        line.quietSince().plus(UNFORESEEN),
                        line.quietSince().plus(SILENCE),
                        unseen ? line.quietSince().plus(SILENCE_AFTER_BREAK) : null)
                .filter(at -> at != null && at.isAfter(now))
                .min(Instant::compareTo);
    }

    private boolean quietForGood() {
        return state == State.STOPPED || state == State.DONE || state == State.CUT;
    }

    private void become(State next) {
        if (state == next) {
            return;
        }
        if (!TRANSITIONS.get(state).contains(next)) {
            throw new IllegalStateException(state + " does not become " + next);
        }
        state = next;
    }

    private List<Effect> effects() {
        List<Effect> done = effects;
        effects = new ArrayList<>();
        return done;
    }

    // --- what happens ---

    /** Bytes came from the line, in pieces of any size. */
    public List<Effect> output(String bytes, Instant now) {
        line.write(bytes, now);
        unheard &= bytes.isBlank();
        if (!quietForGood()) {
            look(now);
        }
        return effects();
    }

    /** Time went by. */
    public List<Effect> tick(Instant now) {
        if (quietForGood()) {
            return effects();
        }
        look(now);
        if (state == State.WAITING && deadline != null && !now.isBefore(deadline)) {
            Waits waits = steps.waits();
            hold(
                    Why.OVERDUE,
                    steps.waitingFor(),
                    "“" + waits.title() + "” takes longer than " + text(waits.atMost()) + "; " + text(waits.about())
                            + " is usual. Look at the machine, or go on waiting.",
                    "");
        } else if (state == State.UNSURE && line.quiet(now).compareTo(SILENCE) >= 0 && !mayLogIn()) {
            boolean mayNotWake = dialogue.nudge().isEmpty() || mode == Mode.WATCH;
            if (brokenOff && (nudged || mayNotWake) && mayWork()) {
                beginWait(now); // one that restarts does not wake up; who it is it tells when it is back
            } else if (brokenOff && (nudged || mayNotWake)) {
                askWhetherTheSame();
            } else if (line.shown().isBlank() || brokenOff && !nudged) {
                wake(now);
            } else {
                hold(
                        Why.UNFORESEEN,
                        NONE,
                        "The line shows something, but not which machine it is. Bring it to where it tells its "
                                + "serial, or look whether the cable is in the right port.",
                        lastOf(line.shown()));
            }
        } else if (state == State.WAITING && !identified && mayBeBack(now)) {
            askWhetherTheSame();
        } else if ((state == State.FOLLOWING || state == State.WAITING && mayHaveMissed)
                && unseen
                && line.question().isEmpty()
                && mayPress()
                && line.quiet(now).compareTo(SILENCE) >= 0
                && redraws(now)) {
            return effects(); // what it draws again tells how far it is
        } else if (state == State.FOLLOWING
                && unseen
                && line.question().isEmpty()
                && line.quiet(now).compareTo(unheard ? SILENCE : SILENCE_AFTER_BREAK) >= 0) {
            hold(
                    Why.SILENT,
                    NONE,
                    "What the machine asked last was lost in the break, and it says nothing by itself. Press a key "
                            + "that answers nothing there, such as the one that draws its question again, or type "
                            + "the answer yourself; it goes on once the line speaks.",
                    lastOf(line.shown()));
        }
        return effects();
    }

    /**
     * Whether the machine may have been left at work: nothing came since the break, a wait is next, and no answer that
     * it owes was lost.
     */
    private boolean mayWork() {
        int sent = steps.sent();
        boolean owes = sent >= 0
                && (steps.asked(sent).read() != null
                        || !steps.asked(sent).expects().isEmpty());
        return told(line.shown()).isBlank() && steps.beginning().isPresent() && !owes;
    }

    /**
     * Whether a machine that was not heard since the break may be back: it shows what was waited for, or may have shown
     * it before anybody listened.
     */
    private boolean mayBeBack(Instant now) {
        Waits waits = steps.waits();
        return line.quiet(now).compareTo(SILENCE) >= 0 && waits.until().in(line.shown())
                || !nudged && line.quiet(now).compareTo(waits.about()) >= 0;
    }

    private void askWhetherTheSame() {
        boolean works = state == State.WAITING || steps.beginning().isPresent() && steps.sent() < 0;
        hold(
                Why.CUT,
                NONE,
                "The work was broken off here and nothing new came since. Is it still the same machine? Say so, and "
                        + "it goes on at what the line showed last.",
                lastOf(line.shown()));
        behindHold = works ? State.WAITING : State.FOLLOWING;
    }

    private void wake(Instant now) {
        if (nudged || dialogue.nudge().isEmpty() || mode == Mode.WATCH) {
            String may = dialogue.nudge().isEmpty()
                    ? "Nothing is sent to wake it: on this machine that would answer a question. Is it on, is the "
                            + "cable in the right port?"
                    : "It did not wake up either. Is it on, is the cable in the right port?";
            hold(Why.SILENT, -1, "The line says nothing. " + may, "");
            return;
        }
        nudged = true;
        redrawAsked = true;
        press(dialogue.nudge(), now);
    }

    public List<Effect> mode(Mode next, Instant now) {
        mode = next;
        if (hold != null
                && (hold.why() == Why.NEXT || next == Mode.WATCH && hold.why().passable() && !identityHold())) {
            release(now);
        }
        return effects();
    }

    private boolean identityHold() {
        return switch (hold.why()) {
            case USED, CUT, WRONG_MACHINE, STANDBY -> true;
            default -> false;
        };
    }

    /** A person stops everything here. */
    public List<Effect> halt() {
        if (state != State.DONE) {
            hold = null;
            become(State.STOPPED);
        }
        return effects();
    }

    /** A person lets it begin anew after {@link #halt}: what is on the line is to be told again. */
    public List<Effect> again(Instant now) {
        become(State.UNSURE);
        identified = false;
        line.fresh(now);
        return effects();
    }

    /** The line is gone. */
    public List<Effect> lineDown() {
        if (state != State.STOPPED && state != State.DONE) {
            if (state != State.CUT) {
                beforeCut = state == State.HELD ? behindHold : state;
            }
            hold = null;
            become(State.CUT);
        }
        return effects();
    }

    /** The line is back. It may be another machine's. */
    public List<Effect> lineUp(Instant now) {
        if (state != State.CUT) {
            return effects();
        }
        line.fresh(now);
        nudged = false;
        probed = false;
        mayHaveMissed = true;
        if (identified && beforeCut == State.WAITING) {
            become(State.WAITING); // it tells who it is when it has restarted
        } else {
            brokenOff |= identified;
            identified = false;
            become(State.UNSURE);
        }
        broken();
        return effects();
    }

    /** A value became known, such as what the other member shows; what waited for it goes on. */
    public List<Effect> known(String name, String value, Instant now) {
        read.put(name, value);
        if (hold != null && hold.why().endsWhenKnown()) {
            release(now);
        }
        return effects();
    }

    /**
     * A person decides to go on.
     *
     * @param typed what the person typed to confirm
     * @return nothing where that is not enough; {@link #hold} still says what is wanted
     */
    public List<Effect> goOn(String typed, Instant now) {
        if (hold == null
                || !hold.why().passable()
                || !hold.typed().isEmpty() && !hold.typed().equals(typed.strip())) {
            return effects();
        }
        Why why = hold.why();
        if (why == Why.USED) {
            steps.plan(true);
            identified = true;
            behindHold = State.FOLLOWING;
        } else if (why == Why.CUT) {
            identified = true;
            unheard = true;
            if (behindHold == State.WAITING && deadline == null) {
                deadline = now.plus(steps.waits().atMost());
            }
        } else if (why == Why.OVERDUE) {
            deadline = now.plus(steps.waits().atMost());
            mayHaveMissed = true;
        } else if (why == Why.WRONG_ANSWER || why == Why.NOT_KNOWN) {
            identified |= why == Why.NOT_KNOWN;
            effects.add(new Effect.Send(hold.step(), "\r"));
            enterTyped(hold.step(), now);
            return effects();
        } else {
            pageAwaited &= why != Why.NOT_SEEN;
            approved = hold.step();
        }
        release(now);
        return effects();
    }

    private void release(Instant now) {
        hold = null;
        become(behindHold);
        line.quietFrom(now);
        look(now);
    }

    /** A person types at the line; gives back what of it may pass. */
    public List<Effect> typed(String keys, Instant now) {
        if (state == State.CUT) {
            return effects();
        }
        if (quietForGood()) {
            // whoever stopped the tool has the line to himself
            effects.add(new Effect.Send(-1, keys));
            return effects();
        }
        try {
            type(keys, now);
        } catch (Look.TooHard e) {
            hold(Why.DESCRIPTION, NONE, e.getMessage(), "");
        }
        return effects();
    }

    private void type(String keys, Instant now) {
        for (int i = 0; i < keys.length(); i++) {
            char key = keys.charAt(i);
            if (key == '\r') {
                int asked = line.question().map(Question::step).orElse(NONE);
                if (notYetKnown(asked, now)) {
                    return;
                }
                if (confirmsWrongly(asked)) {
                    hold(
                            Why.WRONG_ANSWER,
                            asked,
                            "That is not what was planned for “"
                                    + steps.get(asked).title() + "”: " + planned(asked)
                                    + ". Enter was kept back; correct it, or send it all the same.",
                            "");
                    return;
                }
                effects.add(new Effect.Send(asked, "\r"));
                enterTyped(asked, now);
            } else {
                typing.key(key);
                if (hold != null && hold.why() == Why.WRONG_ANSWER) {
                    hold = null;
                    become(behindHold);
                }
                effects.add(new Effect.Send(-1, String.valueOf(key)));
            }
        }
    }

    /** What a person typed before Enter the last time; nothing of a password. */
    public String lastTyped() {
        return typing.last();
    }

    private void enterTyped(int asked, Instant now) {
        boolean secret = asked >= 0 && steps.asked(asked).is(Mark.SECRET);
        if (asked >= 0) {
            confirmSent();
            steps.set(asked, Progress.SENT);
        }
        if (hold != null && !identityHold()) {
            hold = null;
            become(behindHold);
        }
        sentNow(typing.enter(secret), now);
    }

    /** What was sent is echoed, and what stood there is no question any more. */
    private void sentNow(String text, Instant now) {
        pagedAt = null;
        unseen = false;
        pageAwaited = false;
        redrawAsked = false;
        rows.anew();
        erasuresAtAnswer = screen().erasures();
        sentBefore = NONE;
        mayHaveMissed = false;
        unheard = false;
        line.answered(text, now);
        if (state == State.FOLLOWING) {
            beginWait(now);
        }
    }

    /**
     * Whether Enter is kept back because nobody knows which machine would take the answer; a log-in tells nothing to
     * it.
     */
    private boolean notYetKnown(int asked, Instant now) {
        if (identified || asked < 0 || steps.logsIn(asked)) {
            return false;
        }
        if (hold == null || !identityHold()) {
            identify(line.shown(), now);
        }
        if (!identified && (hold == null || !identityHold())) {
            hold(
                    Why.NOT_KNOWN,
                    asked,
                    "Nothing on the line has told which machine this is. Enter was kept back: bring it to where it "
                            + "tells its serial, or send it all the same.",
                    "");
        }
        return !identified;
    }

    /** A password is not compared: it is not to be shown, and the machine says itself when it is wrong. */
    private boolean confirmsWrongly(int step) {
        if (step < 0 || !(steps.get(step) instanceof Asked asked) || asked.is(Mark.SECRET)) {
            return false;
        }
        Optional<String> planned = asked.answer().fill(this::value);
        boolean accepted = typing.isEmpty() && planned.equals(line.question().flatMap(Question::suggestion));
        return planned.isPresent() && !accepted && !planned.get().equals(typing.text());
    }

    private String planned(int step) {
        return steps.asked(step).answer().fill(this::value).orElse("not known");
    }

    // --- what the line shows ---

    private String redacted(String text) {
        String clean = text;
        for (Secret secret : values.secrets()) {
            String before = clean;
            clean = secret.use(word -> before.replace(word, "•••"));
        }
        return clean.length() > MOST_SHOWN ? clean.substring(clean.length() - MOST_SHOWN) : clean;
    }

    private void look(Instant now) {
        try {
            if (state == State.HELD && !tellsWhatWasMissing()) {
                return;
            }
            Duration stands = line.stands(now);
            if (stands.compareTo(SETTLE) >= 0) {
                settled(line.shown(), stands, now);
            }
        } catch (Look.TooHard e) {
            hold(Why.DESCRIPTION, -1, e.getMessage(), "");
        }
    }

    /**
     * Whether the line has ended by itself what a person was called for: it was silent, did not tell which machine it
     * is, asked something that nobody knows and now asks something that is known, or has drawn the page that was judged
     * a second time.
     */
    private boolean tellsWhatWasMissing() {
        Why why = hold.why();
        boolean speaks = why == Why.SILENT && !unheard && !line.shown().isBlank();
        boolean tells = !identified
                && (why == Why.CUT || why == Why.UNFORESEEN || why == Why.NOT_KNOWN)
                && dialogue.identify().see().in(told(line.shown()));
        boolean judgedByItsPage = why == Why.DIFFERS || why == Why.NOT_SEEN || why == Why.UNFORESEEN;
        boolean drawn = identified && judgedByItsPage && screen().erasures() != erasuresAtHold;
        boolean asks = line.question().filter(Question::last).isPresent() && (identified || logInStands());
        boolean known = why == Why.UNFORESEEN
                && (asks || identified && dialogue.pagingKey(line.openLine()).isPresent());
        if (speaks || tells) {
            hold = null;
            become(identified ? State.FOLLOWING : State.UNSURE);
        } else if (drawn || known) {
            hold = null;
            rows.anew();
            become(behindHold);
        }
        return hold == null;
    }

    /** What tells which machine is on the line now. */
    private String told(String shown) {
        return identified || newFrom == null ? shown : String.join("\n", screen().since(newFrom));
    }

    private void settled(String shown, Duration stands, Instant now) {
        if (!identify(shown, now)) {
            return;
        }
        if (state == State.WAITING && steps.waits().until().in(shown)) {
            over(shown, now);
        }
        if (state == State.DONE || pageTurned()) {
            return;
        }
        Optional<Question> question = line.question();
        if (question.isEmpty()
                && line.quiet(now).compareTo(SETTLE) >= 0
                && state == State.FOLLOWING
                && mode != Mode.WATCH
                && typing.isEmpty()
                && (steps.nextRow().isPresent() || steps.pageOpens())) {
            pageStands(shown, stands, now);
        } else if (question.isEmpty()) {
            nothingKnownStands(shown, stands);
        } else if (question.get().last() || stands.compareTo(SETTLE_WITH_CHATTER) >= 0) {
            asked(question.get(), shown, now);
        }
    }

    /** Whether the line wants a key before it shows more; what it showed so far still counts. */
    private boolean pageTurned() {
        Optional<String> key = dialogue.pagingKey(line.openLine());
        if (key.isEmpty() || mode == Mode.WATCH) {
            return false;
        }
        if (!screen().cursor().equals(pagedAt)) {
            pagedAt = screen().cursor();
            effects.add(new Effect.Send(-1, key.get()));
        }
        return true;
    }

    private void nothingKnownStands(String shown, Duration stands) {
        int sent = steps.sent();
        boolean commandRuns = sent >= 0 && steps.asked(sent).command();
        String open = line.openLine();
        if (sent >= 0 && refusal(shown).isPresent()) {
            refused(sent, shown);
        } else if (state == State.FOLLOWING && steps.allDone() && !shown.isBlank() && !commandRuns) {
            confirmSent();
            finishIfDone();
        } else if (state != State.WAITING && !open.isBlank() && stands.compareTo(UNFORESEEN) >= 0) {
            String what = state == State.UNSURE
                    ? "The line shows something, but not which machine it is. Bring it to where it tells its serial, "
                            + "or look whether the cable is in the right port."
                    : "The line asks something that is not in the description. Answer it yourself; it goes on by "
                            + "itself at the next question that it knows.";
            hold(Why.UNFORESEEN, -1, what, open);
        }
    }

    /** A page that is drawn anew after an answer has taken it, unless it says that it has not. */
    private void pageStands(String shown, Duration stands, Instant now) {
        int sent = steps.sent();
        if (sent >= 0 && screen().erasures() == erasuresAtAnswer) {
            nothingKnownStands(shown, stands);
        } else if (pageAwaited && screen().erasures() == erasuresAtBreak) {
            askForThePage(now);
        } else if (sent >= 0 && refusal(shown).isPresent()) {
            refused(sent, shown);
        } else if (sent >= 0 && sent == sentBefore && stillChosen(sent, shown)) {
            sentBefore = NONE;
            steps.set(sent, Progress.OPEN); // the key that opens the page was lost in the break
        } else if (sent < 0 || accepted(sent, shown)) {
            steps.nextRow().filter(next -> pageAgrees(next, shown)).ifPresent(next -> goTo(next, now));
            finishIfDone();
        }
    }

    /**
     * Where only parts of a page were drawn since the break, the machine is asked for all of it; where it has no key
     * for that, a person.
     */
    private void askForThePage(Instant now) {
        if (redraws(now) || line.quiet(now).compareTo(SILENCE) < 0) {
            return;
        }
        hold(
                Why.NOT_SEEN,
                NONE,
                "The page was not seen whole since the work was broken off. Press the key that draws it again, such "
                        + "as Ctrl+L, or say that it is the page that was open before.",
                lastOf(String.join("\n", screen().window())));
    }

    /** Whether the tool may press a key now: nobody works at the line by hand. */
    private boolean mayPress() {
        return mode != Mode.WATCH && typing.isEmpty();
    }

    /**
     * Sends the key that draws the page again, once, where the description has one; it changes nothing on the machine.
     */
    private boolean redraws(Instant now) {
        if (redrawAsked || dialogue.nudge().isEmpty()) {
            return false;
        }
        redrawAsked = true;
        rows.anew();
        press(dialogue.nudge(), now);
        return true;
    }

    /** What a page shows is compared before another one is opened. */
    private boolean pageAgrees(int next, String shown) {
        return !steps.asked(next).opensPage()
                || steps.summariesBefore(next).stream()
                        .allMatch(summary -> agrees(summary, (Summary) steps.get(summary), shown));
    }

    /** Presses cursor keys until the wanted row of a page is marked, and enters it. Nothing is changed by that. */
    private void goTo(int step, Instant now) {
        if (hasNothingFor(step)) {
            steps.set(step, Progress.LEFT_OUT);
            steps.nextRow().ifPresent(next -> goTo(next, now));
            return;
        }
        switch (rows.look(steps.asked(step).row(), screen().markedText(), line.quiet(now))) {
            case HERE -> enterRow(step, now);
            case FURTHER -> press(DOWN, now);
            case STUCK -> stuck(step, now);
            case NOWHERE ->
                hold(
                        Why.UNFORESEEN,
                        step,
                        "No row for “" + steps.get(step).title() + "” was found on this page. Bring it there yourself.",
                        lastOf(String.join("\n", screen().window())));
            case NOT_MOVED -> {
                // the page is still being drawn
            }
        }
    }

    /** Whether the row that opens another page is still the one that is chosen, and that page does not stand there. */
    private boolean stillChosen(int step, String shown) {
        Asked row = steps.asked(step);
        List<String> marked = screen().markedText();
        // the row's own label may read like the title of the page that it opens
        String others = shown.lines()
                .filter(text -> marked.stream().noneMatch(text::contains))
                .collect(Collectors.joining("\n"));
        boolean opened = !row.expects().isEmpty()
                && row.expects().stream().allMatch(each -> each.look().in(others));
        return row.opensPage() && !opened && marked.stream().anyMatch(row.row()::in);
    }

    private void stuck(int step, Instant now) {
        if (!redraws(now)) {
            hold(
                    Why.UNFORESEEN,
                    step,
                    "The page shows no row that moves with the cursor keys. Bring it to “"
                            + steps.get(step).title() + "” yourself.",
                    lastOf(String.join("\n", screen().window())));
        }
    }

    /**
     * Whether a step need not be done and nothing was planned for it, such as an address of version 6 in a hall
     * without.
     */
    private boolean hasNothingFor(int step) {
        Asked asked = steps.asked(step);
        return asked.is(Mark.OPTIONAL)
                && !asked.is(Mark.SECRET)
                && asked.answer().fill(this::value).isEmpty();
    }

    private void enterRow(int step, Instant now) {
        if (steps.asked(step).opensPage()) {
            steps.set(step, Progress.SENT);
            effects.add(new Effect.Send(step, "\r"));
            sentNow("", now);
        } else {
            press("\r", now);
        }
    }

    private void press(String key, Instant now) {
        line.quietFrom(now);
        effects.add(new Effect.Send(NONE, key));
    }

    private void finishIfDone() {
        if (steps.allDone() && steps.sent() < 0) {
            steps.leaveOutLogIn();
            become(State.DONE);
        }
    }

    // --- which machine it is ---

    /** Tells the machine by what it shows. False where nothing more is to be done with what stands there. */
    private boolean identify(String shown, Instant now) {
        Optional<Look.Seen> seen = dialogue.identify().see().last(told(shown));
        if (seen.isEmpty()) {
            return identified || mayLogIn() || probe();
        }
        Map<String, String> found = seen.get().values();
        for (Map.Entry<String, Template> must : dialogue.identify().must().entrySet()) {
            Optional<String> wanted = must.getValue().fill(this::value);
            String is = found.getOrDefault(must.getKey(), "");
            if (wanted.isEmpty() || !wanted.get().equals(is)) {
                identified = false;
                hold(
                        Why.WRONG_MACHINE,
                        -1,
                        "This is another machine: its " + must.getKey() + " is " + is + ", wanted is "
                                + wanted.orElse("one that nobody knows")
                                + ". Nothing was written to it. Move the cable, or correct the label.",
                        seen.get().text());
                return false;
            }
        }
        String kept = found.getOrDefault("state", "");
        if (dialogue.identify().standby().contains(kept)) {
            standsBy(kept, seen.get().text());
            return false;
        }
        if (!identified) {
            if (!brokenOff && !kept.isEmpty() && !dialogue.identify().unused().contains(kept)) {
                String going = dialogue.wipe().isEmpty()
                        ? "Its description says nothing of how it is made blank: going on sets it anew over what is "
                                + "on it"
                        : "Going on wipes what is on it";
                hold(
                        Why.USED,
                        -1,
                        "This machine was set up before (" + kept + "). " + going + "; type the unit's name for that.",
                        seen.get().text(),
                        values.unitName());
                behindHold = State.UNSURE;
                return false;
            }
            identified = true;
            effects.add(new Effect.Identified(found));
        }
        if (state == State.UNSURE) {
            become(State.FOLLOWING);
            if (brokenOff && steps.sent() < 0) {
                beginWait(now);
            }
        }
        return true;
    }

    /** The other one of the pair is the one that takes setup: this one needs none where it stands by. */
    public List<Effect> otherIsActive(Instant now) {
        otherIsActive = true;
        if (hold != null && hold.why() == Why.STANDBY) {
            hold = null;
            become(State.UNSURE);
            look(now);
        }
        return effects();
    }

    private void standsBy(String how, String shown) {
        if (otherIsActive) {
            effects.add(new Effect.Note("This one stands by; it takes its settings from the other."));
            steps.leaveAllOut();
            become(State.DONE);
        } else {
            hold(
                    Why.STANDBY,
                    NONE,
                    "This one says that it is " + how
                            + "; setup goes through the other one. Nothing was written to it. It is left out by "
                            + "itself once the other has said on its own line that it is the one; where only "
                            + "one cable is plugged in, move it.",
                    shown);
        }
    }

    /** Presses the key that makes the machine say who it is, once. Nothing else is done with what stands there. */
    private boolean probe() {
        if (!dialogue.identify().probe().isEmpty()
                && !probed
                && mode != Mode.WATCH
                && typing.isEmpty()
                && logInStands()) {
            probed = true;
            effects.add(new Effect.Send(NONE, dialogue.identify().probe()));
        }
        return false;
    }

    /** Where a probe tells which machine it is, nobody logs in before that. */
    private boolean mayLogIn() {
        return dialogue.identify().probe().isEmpty() && logInStands();
    }

    /** Logging in changes nothing on a machine, and some show who they are only then. */
    private boolean logInStands() {
        return line.question().filter(question -> steps.logsIn(question.step())).isPresent();
    }

    // --- a question stands ---

    private void asked(Question question, String shown, Instant now) {
        int step = question.step();
        int sent = steps.sent();
        boolean again = steps.progress(step) == Progress.DONE && !steps.logsIn(step);
        if (sent >= 0
                && sent == step
                && sent == sentBefore
                && refusal(shown).isEmpty()
                && !steps.asked(step).command()) {
            sentBefore = NONE;
            steps.set(step, Progress.OPEN);
            hold(
                    Why.SENT_BEFORE,
                    step,
                    "“" + steps.get(step).title()
                            + "” was answered right before the work was broken off, and it is asked still. Say so, "
                            + "and the answer is sent again.",
                    question.line());
            return;
        }
        if (sent >= 0
                && (refusal(shown).isPresent()
                        || step == sent && !steps.asked(step).command())) {
            refused(sent, shown);
            return;
        }
        if (sent >= 0) {
            if (!accepted(sent, shown)) {
                return;
            }
            if (step == sent) {
                finishIfDone();
                return;
            }
            if (state == State.FOLLOWING) {
                beginWait(now); // its answer went out right before the work was broken off
            }
        }
        if (state == State.WAITING) {
            if (again || steps.asked(step).command()) {
                askForTheEnd(step, now);
                return; // the prompt of before still stands there while it works
            }
            over(shown, now);
        }
        if (again) {
            hold(
                    Why.AGAIN,
                    step,
                    "It asks “" + steps.get(step).title()
                            + "” again, which was answered already. Did it begin anew? Look at it, and go on by hand.",
                    question.line());
        } else if (steps.logsIn(step) || leftBehind(step, shown)) {
            answer(step, steps.asked(step), question, now);
        }
    }

    /** Asks once whether what is waited for has happened already, where that can be asked without changing anything. */
    private void askForTheEnd(int prompt, Instant now) {
        String asks = steps.waits().asks();
        if (mayHaveMissed
                && !asks.isEmpty()
                && mode != Mode.WATCH
                && typing.isEmpty()
                && steps.asked(prompt).command()
                && line.quiet(now).compareTo(SILENCE) >= 0) {
            mayHaveMissed = false;
            effects.add(new Effect.Send(NONE, asks + "\r"));
            line.answered(asks, now);
        }
    }

    private Optional<String> refusal(String shown) {
        return dialogue.refused() == null
                ? Optional.empty()
                : dialogue.refused().last(shown).map(seen -> seen.values().getOrDefault("why", seen.text()));
    }

    private void refused(int step, String shown) {
        steps.set(step, Progress.OPEN);
        String why = refusal(shown).map(reason -> " It says: " + reason + ".").orElse("");
        hold(
                Why.REFUSED,
                step,
                "It did not take the answer to “" + steps.get(step).title() + "” and asks again." + why
                        + " The same answer is not sent twice; correct it, or type it yourself.",
                lastOf(shown));
    }

    private static String lastOf(String shown) {
        String[] lines = shown.strip().split("\n");
        return lines[lines.length - 1];
    }

    /** False where a command's output lacks what it must show. */
    private boolean accepted(int step, String shown) {
        boolean looked = approved == step;
        approved = looked ? NONE : approved;
        List<String> missing = looked
                ? List.of()
                : steps.asked(step).expects().stream()
                        .filter(each -> each.required() && !each.look().in(shown))
                        .map(each -> "“" + each.look() + "”")
                        .toList();
        if (!looked && sentAgain(step, !missing.isEmpty(), shown)) {
            return false;
        }
        if (step == sentBefore
                && told(step, shown).isEmpty()
                && steps.asked(step).read() != null) {
            sentBefore = NONE;
            steps.set(step, Progress.OPEN);
            hold(
                    Why.SENT_BEFORE,
                    step,
                    "“" + steps.get(step).title()
                            + "” was sent right before the work was broken off, and what it showed was lost. Say so, "
                            + "and it is sent again.",
                    shown);
            return false;
        }
        if (!missing.isEmpty()) {
            if (step == sentBefore) {
                notSeen(step, shown);
                return false;
            }
            steps.set(step, Progress.OPEN);
            hold(
                    Why.DIFFERS,
                    step,
                    "“" + steps.get(step).title() + "” does not show " + String.join(", ", missing)
                            + ". See what it shows instead; ask it again by hand once it is mended.",
                    shown);
            return false;
        }
        told(step, shown).forEach((name, value) -> {
            read.put(name, value);
            effects.add(new Effect.Read(name, value));
        });
        confirmSent();
        if (steps.asked(step).command()) {
            for (int summary : steps.summariesAfter(step)) {
                if (!agrees(summary, (Summary) steps.get(summary), shown)) {
                    return false;
                }
            }
        }
        return true;
    }

    /** By name, what a command's output tells; empty where it is to tell nothing, or does not. */
    private Map<String, String> told(int step, String shown) {
        Look tells = steps.asked(step).read();
        return tells == null
                ? Map.of()
                : tells.last(shown).map(Look.Seen::values).orElse(Map.of());
    }

    /** A command that changes nothing is sent a second time where what it showed was lost in a break. */
    private boolean sentAgain(int step, boolean missing, String shown) {
        if (step != sentBefore || !steps.asked(step).is(Mark.AGAIN) || !mayPress()) {
            return false;
        }
        boolean lost = missing
                || steps.asked(step).read() != null && told(step, shown).isEmpty()
                || steps.summariesAfter(step).stream().anyMatch(summary -> ((Summary) steps.get(summary))
                        .fields().keySet().stream().anyMatch(look -> !look.in(shown)));
        if (lost) {
            sentBefore = NONE;
            steps.set(step, Progress.OPEN);
        }
        return lost;
    }

    private void confirmSent() {
        int sent = steps.sent();
        if (sent >= 0) {
            done(sent, lastOf(line.shown()));
        }
    }

    private void done(int step, String evidence) {
        steps.set(step, Progress.DONE);
        effects.add(new Effect.Done(step, redacted(evidence)));
    }

    /** The machine has worked. */
    private void over(String shown, Instant now) {
        confirmSent();
        Look until = steps.waits().until();
        done(steps.waitingFor(), lastOf(shown));
        // prompts that stood there before it worked are no questions any more
        line.from(until);
        deadline = null;
        become(State.FOLLOWING);
        finishIfDone();
        if (state == State.FOLLOWING) {
            beginWait(now);
        }
    }

    /** What lies before the step that is asked now: nothing is passed over for good, and what is shown must agree. */
    private boolean leftBehind(int step, String shown) {
        List<String> passed = steps.passedOver(step);
        if (!passed.isEmpty()) {
            hold(
                    Why.SKIPPED,
                    step,
                    "It asks “" + steps.get(step).title() + "”, but never asked: " + String.join(", ", passed)
                            + ". Look at the machine before anything is agreed to.",
                    lastOf(shown));
            return false;
        }
        for (int summary : steps.summariesBefore(step)) {
            if (!agrees(summary, (Summary) steps.get(summary), shown)) {
                return false;
            }
        }
        steps.closeBefore(step);
        return true;
    }

    /** What came while the work was broken off is lost: a person has seen it, or can make the machine show it again. */
    private void notSeen(int step, String shown) {
        hold(
                Why.NOT_SEEN,
                step,
                "What it showed for “" + steps.get(step).title()
                        + "” came while the work was broken off, and was not seen here. Make the machine show it "
                        + "again, or compare it by eye; say so if it agrees.",
                shown);
    }

    private boolean agrees(int step, Summary summary, String shown) {
        if (approved == step) {
            approved = NONE;
            done(step, "compared by a person after the work was broken off");
            return true;
        }
        List<String> differences = new ArrayList<>();
        boolean shownOtherwise = false;
        for (Map.Entry<Look, Template> field : summary.fields().entrySet()) {
            String wanted = field.getValue().fill(this::value).orElse("?");
            Optional<String> is = field.getKey().last(shown).map(Look.Seen::value);
            if (is.isEmpty()) {
                differences.add(wanted + " is not shown");
            } else if (!is.get().equals(wanted)) {
                // in a break the end of a line may be lost
                shownOtherwise |= !unseen || !wanted.startsWith(is.get());
                differences.add("it shows " + is.get() + ", planned is " + wanted);
            }
        }
        if (!differences.isEmpty() && !shownOtherwise && unseen) {
            notSeen(step, shown);
            return false;
        }
        if (!differences.isEmpty()) {
            hold(
                    Why.DIFFERS,
                    step,
                    "What it shows is not what was planned: " + String.join("; ", differences)
                            + ". Do not agree to it; go back on the machine and correct it.",
                    shown);
            return false;
        }
        done(step, summary.fields().size() + " of " + summary.fields().size() + " agree");
        return true;
    }

    private void answer(int step, Asked asked, Question question, Instant now) {
        if (mode == Mode.WATCH || !typing.isEmpty()) {
            return; // a person has begun the line; two never write into one answer
        }
        if (asked.is(Mark.SECRET) && !question.last() && approved != step) {
            // a password goes to no question that something came after, unless a person has looked
            if (line.stands(now).compareTo(UNFORESEEN) >= 0) {
                hold(
                        Why.CAME_BETWEEN,
                        step,
                        "It asked “" + asked.title()
                                + "”, and then something else came. Does it still ask? Say so, and the password is "
                                + "sent.",
                        lastOf(line.shown()));
            }
            return;
        }
        if (!asked.after().isEmpty() && value(asked.after()).isEmpty()) {
            hold(Hold.until(step, asked.title(), List.of(asked.after()), question.line()));
            return;
        }
        Optional<String> text =
                asked.is(Mark.SECRET) ? Optional.of("") : asked.answer().fill(this::value);
        Optional<Secret> secret = asked.is(Mark.SECRET)
                ? asked.answer().names().stream().findFirst().flatMap(values::secret)
                : Optional.empty();
        if (asked.command() && hasNothingFor(step)) {
            steps.set(step, Progress.LEFT_OUT);
            look(now);
            return;
        }
        if (text.isEmpty() || asked.is(Mark.SECRET) && secret.isEmpty()) {
            hold(
                    Why.GATE,
                    step,
                    "What “" + asked.title() + "” wants is not known: "
                            + String.join(", ", asked.answer().names()) + ".",
                    question.line());
            return;
        }
        if (approved != step && stops(step, asked, text.get(), question)) {
            return;
        }
        approved = NONE;
        steps.set(step, Progress.SENT);
        boolean suggested = asked.suggested() && question.suggestion().equals(text);
        if (asked.suggested() && !suggested) {
            effects.add(new Effect.Note("“" + asked.title() + "”: it suggests "
                    + question.suggestion().orElse("nothing") + ", planned is " + text.get()
                    + ". The planned value is typed."));
        }
        effects.add(secret.<Effect>map(each -> new Effect.SendSecret(step, each))
                .orElseGet(() -> new Effect.Send(step, (suggested ? "" : text.get()) + "\r")));
        sentNow(suggested ? "" : text.get(), now);
    }

    /** Whether a person is wanted before this answer. */
    private boolean stops(int step, Asked asked, String text, Question question) {
        if (asked.is(Mark.DESTROYS)) {
            hold(
                    Why.DESTROYS,
                    step,
                    "“" + asked.title() + "” destroys what is on the machine. Type the unit's name.",
                    question.line(),
                    values.unitName());
        } else if (asked.is(Mark.PERMANENT)) {
            hold(
                    Why.PERMANENT,
                    step,
                    "“" + asked.title() + "” can never be changed afterwards. Type the value: " + text + ".",
                    question.line(),
                    text);
        } else if (asked.is(Mark.TERMS) && !values.termsAgreed()) {
            hold(
                    Why.TERMS,
                    step,
                    "It wants its terms agreed to, and the site has recorded no consent. Read them, and agree for "
                            + "yourself or not at all.",
                    question.line());
        } else if (asked.is(Mark.RESTARTS)) {
            hold(
                    Why.RESTARTS,
                    step,
                    asked.warning().isEmpty() ? "After “" + asked.title() + "” it restarts." : asked.warning(),
                    question.line());
        } else if (mode == Mode.ASK) {
            hold(
                    Why.NEXT,
                    step,
                    asked.title() + ": " + (asked.is(Mark.SECRET) ? "the sealed one" : text.isEmpty() ? "Enter" : text),
                    question.line());
        } else {
            return false;
        }
        return true;
    }

    /** Begins to wait where the next thing is that the machine works. */
    private void beginWait(Instant now) {
        steps.beginning().ifPresent(waits -> {
            deadline = now.plus(waits.atMost());
            become(State.WAITING);
        });
    }

    private Optional<String> value(String name) {
        return Optional.ofNullable(read.get(name)).or(() -> values.text(name));
    }

    private void hold(Why why, int step, String sentence, String shown) {
        hold(why, step, sentence, shown, "");
    }

    private void hold(Why why, int step, String sentence, String shown, String typed) {
        hold(new Hold(why, step, sentence, shown, typed));
    }

    private void hold(Hold next) {
        behindHold = state == State.HELD ? behindHold : state;
        hold = new Hold(next.why(), next.step(), redacted(next.sentence()), redacted(next.shown()), next.typed());
        erasuresAtHold = screen().erasures();
        become(State.HELD);
    }

    private static String text(Duration duration) {
        return duration.toSeconds() % 60 == 0 ? duration.toMinutes() + " min" : duration.toSeconds() + " s";
    }
}
