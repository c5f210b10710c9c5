package lychnos.core.dialogue;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.LineView.Question;

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

    /** How long something unknown must be at the cursor before a person is called. */
    static final Duration UNFORESEEN = Duration.ofSeconds(3);

    /** How long a line may say nothing before it is nudged, or a person is called. */
    static final Duration SILENCE = Duration.ofSeconds(4);

    /** The same after a break, where a machine that was heard since may be slow in saying more. */
    static final Duration SILENCE_AFTER_BREAK = Duration.ofSeconds(15);

    /** A machine that is asked nothing, asks nothing and shows nothing for so long is looked at by a person. */
    static final Duration LONGEST_SILENCE = Duration.ofMinutes(2);

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
        /** A person does the whole setup; what is on the line is for that person alone. */
        MANUAL,
        DONE
    }

    /** How far a step is. */
    public enum Progress {
        OPEN,
        /** Its answer was sent; the machine has not said anything to it yet. */
        SENT,
        DONE,
        /** The machine did not ask it, and need not. */
        LEFT_OUT,
        /** A page whose value is not known yet; the setup ends without it and continues once the value is known. */
        LATER
    }

    private final Course course;
    private final Typing typing = new Typing();
    private final Gap gap;
    private final Identification identification;
    private final Answering answers;
    private final PageWalk pages;
    private final HumanInput input;
    private final LogFetching log;
    private final Patience patience;
    private final Decision decision;
    private Instant lookedAt;

    public Conversation(Dialogue dialogue, String member, Values values, Mode mode, Instant now) {
        course = new Course(dialogue, member, values, mode, now);
        gap = new Gap(course, typing);
        identification = new Identification(course, gap, typing);
        answers = new Answering(course, gap, typing, this::sentNow, this::look);
        pages = new PageWalk(course, gap, answers, this::sentNow);
        input = new HumanInput(course, identification, typing, this::sentNow);
        log = new LogFetching(course, typing);
        patience = new Patience(course, gap, identification);
        decision = new Decision(course, gap, identification, input);
        lookedAt = now;
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

    public State state() {
        return course.state();
    }

    /**
     * Goes on where an earlier conversation was left: what was done stays done, and what was sent without an answer
     * counts as sent, so that it is not sent again unless the machine asks again. What is on the line must be told
     * again; where the line stays silent and may not be woken, a person is asked whether it is still the same machine.
     * One that was working and does not wake up is waited for as before; where it may not be woken, for as long as
     * is usual.
     */
    public void resume(Left left, Instant now) {
        course.steps.plan(left.wiped);
        course.steps.resume(left.progress);
        course.read.putAll(left.read);
        gap.brokenOff = left.identified;
        gap.mayHaveMissed = true;
        course.line.write(left.shown, now);
        gap.newFrom = course.line.screen().cursor();
        gap.broken();
        course.waitsForTheNext(now);
    }

    /** Why nothing is sent, while that is so. */
    public Optional<Hold> hold() {
        return Optional.ofNullable(course.held());
    }

    public List<DialogueStep> steps() {
        return course.steps.all();
    }

    /** The step whose question stands on the line now, if it is still to be answered; or -1. */
    public int asking() {
        return course.line
                .question()
                .map(Question::step)
                .filter(step -> course.steps.progress(step) == Progress.OPEN)
                .orElse(Course.NONE);
    }

    public Progress progress(int step) {
        return course.steps.progress(step);
    }

    public Screen screen() {
        return course.line.screen();
    }

    /**
     * When {@link #tick} is wanted next, if nothing else happens before; empty where nothing is waited for. A moment
     * that has gone by since the last tick is told too: what was to be done then is still to be done.
     */
    public Optional<Instant> wakeAt() {
        return patience.wakeAt(lookedAt, log.until());
    }

    /** Bytes came from the line, in pieces of any size. */
    public List<Effect> output(String bytes, Instant now) {
        course.line.write(bytes, now);
        log.heard(bytes);
        gap.unheard &= bytes.isBlank();
        if (!course.quietForGood()) {
            look(now);
        }
        return course.effects();
    }

    /** Time went by. */
    public List<Effect> tick(Instant now) {
        lookedAt = now;
        if (course.quietForGood()) {
            return course.effects();
        }
        look(now);
        if (!log.isFetched()) {
            patience.tick(now);
        }
        return course.effects();
    }

    public List<Effect> mode(Mode next, Instant now) {
        course.mode = next;
        if (course.held() != null
                && (course.held().why() == Why.NEXT
                        || next == Mode.WATCH && course.held().why().passable() && !input.identityHold())) {
            release(now);
        }
        return course.effects();
    }

    /** A person stops everything here. */
    public List<Effect> halt() {
        log.giveUp();
        if (course.state() != State.DONE) {
            course.become(State.STOPPED);
        }
        return course.effects();
    }

    /** A person lets it restart after {@link #halt}: what is on the line is to be told again. */
    public List<Effect> again(Instant now) {
        course.become(course.begins());
        course.identified = false;
        course.line.fresh(now);
        return course.effects();
    }

    /** A person says that the setup by hand has come to its end; nothing where the setup is not by hand. */
    public List<Effect> finish() {
        if (course.dialogue.byHand() && course.state() != State.DONE) {
            course.become(State.DONE);
        }
        return course.effects();
    }

    /** The line is gone. */
    public List<Effect> lineDown() {
        log.giveUp();
        if (course.state() != State.STOPPED && course.state() != State.DONE) {
            course.cut();
        }
        return course.effects();
    }

    /** The line is there, or is back. One that is back may be another machine's. */
    public List<Effect> lineUp(Instant now) {
        if (course.state() != State.CUT) {
            course.line.quietFrom(now); // it could not be heard before
            return course.effects();
        }
        course.line.fresh(now);
        gap.nudged = false;
        identification.lineUp();
        gap.mayHaveMissed = true;
        if (!course.waitsOn()) {
            gap.brokenOff |= course.identified;
            course.identified = false;
            course.become(course.begins());
        }
        gap.broken();
        return course.effects();
    }

    /** A value became known, such as what the other member shows; what waited for it goes on. */
    public List<Effect> known(String name, String value, Instant now) {
        course.read.put(name, value);
        if (course.held() != null && course.held().why().endsWhenKnown()) {
            release(now);
        }
        return course.effects();
    }

    /**
     * A person decides to go on.
     *
     * @param typed what the person typed to confirm
     * @return nothing where that is not enough; {@link #hold} still says what is wanted
     */
    public List<Effect> goOn(String typed, Instant now) {
        if (course.held() == null
                || !course.held().why().passable()
                || !course.held().typed().isEmpty() && !course.held().typed().equals(typed.strip())) {
            return course.effects();
        }
        if (decision.apply(now)) {
            release(now);
        }
        return course.effects();
    }

    private void release(Instant now) {
        course.letGo();
        course.line.quietFrom(now);
        look(now);
    }

    /** A person types at the line; gives back what of it may pass. */
    public List<Effect> typed(String keys, Instant now) {
        if (course.state() == State.CUT) {
            return course.effects();
        }
        if (course.quietForGood()) {
            // a person who has stopped the tool, or works without it, has the line alone
            course.emit(new Effect.Send(-1, keys));
            return course.effects();
        }
        try {
            input.type(keys, now);
        } catch (Look.TooHard e) {
            course.hold(Why.DESCRIPTION, Course.NONE, e.getMessage(), "");
        }
        return course.effects();
    }

    /** What a person typed before Enter the last time; nothing of a password. */
    public String lastTyped() {
        return typing.last();
    }

    /** What was sent is echoed, and what stood there is no question any more. */
    private void sentNow(String text, Instant now) {
        pages.answered();
        gap.answered();
        course.line.answered(text, now);
        course.waitsForTheNext(now);
        if (course.state() == State.FOLLOWING) {
            course.beginWait(now);
        }
    }

    /**
     * A person wants the machine's own log while the work stands. Its command changes nothing, and goes to its prompt
     * alone; nothing else happens before it was shown.
     *
     * @return why that cannot be done now; empty once the command is among the effects
     */
    public Optional<String> fetchLog(Instant now) {
        return log.begin(now);
    }

    /** What was decided or asked for in {@link #fetchLog}. */
    public List<Effect> effects() {
        return course.effects();
    }

    private void look(Instant now) {
        try {
            if (log.isFetched()) {
                log.look(now);
                return;
            }
            if (course.state() == State.HELD && !decision.takenByTheLine()) {
                return;
            }
            Duration stands = course.line.stands(now);
            if (stands.compareTo(SETTLE) >= 0) {
                settled(course.line.shown(), stands, now);
            }
        } catch (Look.TooHard e) {
            course.hold(Why.DESCRIPTION, -1, e.getMessage(), "");
        }
    }

    private void settled(String shown, Duration stands, Instant now) {
        if (!identification.identify(shown, now)) {
            return;
        }
        if (course.state() == State.WAITING && course.steps.waits().until().in(shown)) {
            answers.over(shown, now);
        }
        if (course.state() == State.DONE || pages.pageTurned()) {
            return;
        }
        Optional<Question> question = course.line.question();
        if (question.isEmpty() && gap.endedMeanwhile(shown)) {
            course.beginWait(now);
            answers.over(shown, now);
        } else if (question.isEmpty()
                && course.line.quiet(now).compareTo(SETTLE) >= 0
                && course.state() == State.FOLLOWING
                && course.mode != Mode.WATCH
                && typing.isEmpty()
                && (course.steps.nextRow().isPresent() || course.steps.pageOpens())) {
            pages.pageStands(shown, stands, now);
        } else if (question.isEmpty()) {
            answers.nothingKnown(shown, stands);
        } else if (question.get().last() || stands.compareTo(SETTLE_WITH_CHATTER) >= 0) {
            answers.asked(question.get(), shown, now);
        }
    }

    /** The other one of the pair is the one that takes setup: this one needs none where it stands by. */
    public List<Effect> otherIsActive(Instant now) {
        identification.otherIsActive();
        if (course.held() != null && course.held().why() == Why.STANDBY) {
            course.become(State.UNSURE);
            look(now);
        }
        return course.effects();
    }
}
