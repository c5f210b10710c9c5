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
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.fact.Secret;

/**
 * What the parts of a conversation share: what is known, the line, the steps, how the conversation stands, and what is
 * to be done about it.
 */
final class Course {

    static final int NONE = -1;
    private static final int MOST_SHOWN = 400;

    private static final Map<State, Set<State>> TRANSITIONS = new EnumMap<>(Map.of(
            State.MANUAL, EnumSet.of(State.CUT, State.STOPPED, State.DONE),
            State.UNSURE, EnumSet.of(State.FOLLOWING, State.WAITING, State.HELD, State.CUT, State.STOPPED, State.DONE),
            State.FOLLOWING, EnumSet.of(State.WAITING, State.HELD, State.CUT, State.STOPPED, State.DONE),
            State.WAITING, EnumSet.of(State.FOLLOWING, State.HELD, State.CUT, State.STOPPED, State.DONE),
            State.HELD, EnumSet.of(State.UNSURE, State.FOLLOWING, State.WAITING, State.CUT, State.STOPPED, State.DONE),
            State.CUT, EnumSet.of(State.HELD, State.UNSURE, State.WAITING, State.STOPPED, State.MANUAL, State.DONE),
            State.STOPPED, EnumSet.of(State.UNSURE, State.MANUAL, State.DONE),
            State.DONE, EnumSet.noneOf(State.class)));

    final Dialogue dialogue;
    final Values values;
    /** What the line itself has told, by name. */
    final Map<String, String> read = new LinkedHashMap<>();

    final Steps steps;
    final LineView line;
    final RowSearch rows = new RowSearch(Conversation.UNFORESEEN);
    Mode mode;
    boolean identified;
    /** The step whose answer a person has said may go; it lets no other one through. */
    int approved = NONE;
    /** When the answer was sent that the machine has not said anything to yet. */
    private Instant sentAt;

    private Standing standing;
    /** How often the window had been erased when the decision now waited for was asked for. */
    private int erasuresAtHold;

    private List<Effect> effects = new ArrayList<>();

    Course(Dialogue dialogue, String member, Values values, Mode mode, Instant now) {
        this.dialogue = dialogue.filled(values::text);
        this.values = values;
        this.mode = mode;
        steps = new Steps(this.dialogue, member, this::value);
        line = new LineView(this.dialogue.chatter(), steps::asking, steps::isRow, now);
        standing = new Standing.Plain(begins());
    }

    // --- how it stands ---

    State state() {
        return standing.state();
    }

    /** How it stands where nothing is known of the line. */
    State begins() {
        return dialogue.byHand() ? State.MANUAL : State.UNSURE;
    }

    boolean quietForGood() {
        return switch (state()) {
            case STOPPED, DONE, CUT, MANUAL -> true;
            default -> false;
        };
    }

    /** What a person is called for, or null. */
    Hold held() {
        return standing instanceof Standing.Held held ? held.hold() : null;
    }

    /** Until when the machine is waited for, or null. */
    Instant deadline() {
        return standing instanceof Standing.Waiting waiting ? waiting.until() : null;
    }

    /** Whether the window was erased since a person was called. */
    boolean erasedSinceHold() {
        return line.screen().erasures() != erasuresAtHold;
    }

    void become(State next) {
        if (state() != next) {
            become(new Standing.Plain(next));
        }
    }

    void become(Standing next) {
        if (state() != next.state() && !TRANSITIONS.get(state()).contains(next.state())) {
            throw new IllegalStateException(state() + " does not become " + next.state());
        }
        standing = next;
    }

    /** Calls a person: nothing is sent before that person has decided. */
    void hold(Hold next) {
        Standing behind = standing instanceof Standing.Held held ? held.behind() : standing;
        Hold clean = new Hold(next.why(), next.step(), redacted(next.sentence()), redacted(next.shown()), next.typed());
        erasuresAtHold = line.screen().erasures();
        become(new Standing.Held(clean, behind));
    }

    /** Goes on as it was before a person was called. */
    void letGo() {
        become(((Standing.Held) standing).behind());
    }

    /** How it goes on once the person has decided, if not as before. */
    void behind(State next) {
        Standing.Held held = (Standing.Held) standing;
        boolean waitsAlready = next == State.WAITING && held.behind() instanceof Standing.Waiting;
        Standing behind = next == State.WAITING ? new Standing.Waiting(null) : new Standing.Plain(next);
        standing = new Standing.Held(held.hold(), waitsAlready ? held.behind() : behind);
    }

    /** Waits from now on for as long as the step at hand may take, once the person has decided. */
    void waitFrom(Instant now) {
        standing = new Standing.Held(
                held(), new Standing.Waiting(now.plus(steps.waits().atMost())));
    }

    /** Whether it waits for the machine once the person has decided, and for how long is not known. */
    boolean waitsWithoutEnd() {
        return standing instanceof Standing.Held held
                && held.behind() instanceof Standing.Waiting waiting
                && waiting.until() == null;
    }

    void cut() {
        if (state() != State.CUT) {
            become(new Standing.Cut(standing instanceof Standing.Held held ? held.behind() : standing));
        }
    }

    /**
     * The line is back. A machine that was known and worked is waited for as before: it tells which one it is when it
     * has restarted.
     *
     * @return whether that is so
     */
    boolean waitsOn() {
        boolean worked = standing instanceof Standing.Cut cut && cut.before() instanceof Standing.Waiting;
        if (worked && identified) {
            become(((Standing.Cut) standing).before());
        }
        return worked && identified;
    }

    /** Begins to wait where the next thing is that the machine works. */
    void beginWait(Instant now) {
        steps.beginning().ifPresent(waits -> become(new Standing.Waiting(now.plus(waits.atMost()))));
    }

    // --- what is to be done ---

    void emit(Effect effect) {
        effects.add(effect);
    }

    List<Effect> effects() {
        List<Effect> done = effects;
        effects = new ArrayList<>();
        return done;
    }

    void hold(Why why, int step, String sentence, String shown) {
        hold(why, step, sentence, shown, "");
    }

    void hold(Why why, int step, String sentence, String shown, String typed) {
        hold(new Hold(why, step, sentence, shown, typed));
    }

    String blanked(String text) {
        String clean = text;
        for (Secret secret : values.secrets()) {
            String before = clean;
            clean = secret.use(word -> before.replace(word, "•••"));
        }
        return clean;
    }

    private String redacted(String text) {
        String clean = blanked(text);
        return clean.length() > MOST_SHOWN ? clean.substring(clean.length() - MOST_SHOWN) : clean;
    }

    static String lastOf(String shown) {
        String[] lines = shown.strip().split("\n");
        return lines[lines.length - 1];
    }

    /** An answer was sent now, or a person has decided to wait for what follows it once more. */
    void waitsForTheNext(Instant now) {
        sentAt = now;
    }

    /** Until when the next thing must be asked, if the answer that was sent says so. */
    Optional<Instant> nextBy() {
        int sent = steps.sent();
        return sent < 0 || sentAt == null
                ? Optional.empty()
                : Optional.ofNullable(steps.asked(sent).within()).map(sentAt::plus);
    }

    /** How long the machine may be silent now before a person looks at it. */
    Duration longestSilence() {
        int sent = steps.sent();
        Duration within = sent < 0 ? null : steps.asked(sent).within();
        return within == null || within.compareTo(Conversation.LONGEST_SILENCE) < 0
                ? Conversation.LONGEST_SILENCE
                : within.plus(Conversation.LONGEST_SILENCE);
    }

    void confirmSent() {
        int sent = steps.sent();
        if (sent >= 0 && steps.asked(sent).is(Mark.MUST_BE_REFUSED)) {
            steps.set(sent, Progress.LEFT_OUT); // only the machine can tell that it was refused
        } else if (sent >= 0) {
            done(sent, lastOf(line.shown()));
        }
    }

    void done(int step, String evidence) {
        steps.set(step, Progress.DONE);
        emit(new Effect.Done(step, redacted(evidence)));
    }

    Optional<String> value(String name) {
        return Optional.ofNullable(read.get(name)).or(() -> values.text(name));
    }

    static String text(Duration duration) {
        return duration.toSeconds() % 60 == 0
                ? DialogueText.MINUTES.text(duration.toMinutes())
                : duration.toSeconds() + " s";
    }

    /** The terms that a question is about; on a page of rows everything else is about the machine itself. */
    TermsText terms(LineView.Question question) {
        return steps.isRow(question.step())
                ? TermsText.of(List.of(question.line()), List.of())
                : TermsText.of(
                        line.shown().lines().toList(),
                        dialogue.identify().must().values().stream()
                                .flatMap(must -> must.fill(this::value).stream())
                                .toList());
    }

    void press(String key, Instant now) {
        line.quietFrom(now);
        emit(new Effect.Send(NONE, key));
    }

    void finishIfDone() {
        if (steps.allDone() && steps.sent() < 0) {
            steps.leaveOutLogIn();
            steps.leaveOutWhatDoesNotApply();
            become(State.DONE);
        }
    }

    /**
     * Whether a step need not be done and nothing was planned for it, such as an address of version 6 in a hall
     * without.
     */
    boolean hasNothingFor(int step) {
        Asked asked = steps.asked(step);
        return asked.is(Mark.OPTIONAL)
                && !asked.is(Mark.SECRET)
                && asked.answer().fill(this::value).isEmpty();
    }
}
