package lychnos.core.dialogue;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.dialogue.Conversation.Progress;

/**
 * Plays a recorded line through a dialogue without a machine: what the machine said is said again, and what the tool
 * would have sent is compared with what was sent then. A description can be tried this way before it meets a machine.
 */
public final class DryRun {

    private static final Instant START = Instant.EPOCH;
    private static final Duration STEP = Duration.ofMillis(50);
    /** A machine that says nothing for so long waits for somebody. */
    private static final Duration PAUSE = Duration.ofMillis(100);
    /** How much longer it waits when it is played, so that what stands on the line is answered before it goes on. */
    private static final Duration PATIENCE = Duration.ofMillis(900);
    /** A recording may hold a restart of most of an hour; what lies still longer is cut short. */
    private static final Duration LONGEST_PAUSE = Duration.ofMinutes(90);

    private static final int MOST_MOMENTS = 600;

    private DryRun() {}

    /**
     * One piece of a recording.
     *
     * @param at since the recording began
     * @param fromMachine whether the machine said it; else it was typed, or, where it is empty, something was sent that
     * the recording does not tell
     */
    public record Heard(Duration at, boolean fromMachine, String text) {}

    /** What happened at a moment of a dry run. */
    public enum Event {
        /** An answer was sent. */
        SENT,
        /** A step was done. */
        DONE,
        /** A person would have been asked. */
        ASKED,
        /** The dialogue would have done something else than was done then. */
        DIFFERED
    }

    /**
     * A moment of a dry run.
     *
     * @param at since the recording began
     * @param step the place of the step that it is about; -1 where it is about none
     * @param text what was sent (nothing of a password), shown, asked or done otherwise
     * @param screen the lines of the screen at this moment, without those that are empty at its end
     */
    public record Moment(Duration at, int step, Event event, String text, List<String> screen) {}

    /** A step, and how far it came. */
    public record StepReached(String title, Progress progress) {}

    /** A place where the tool would have done something else. */
    public record Difference(Duration at, String sentence) {}

    /**
     * The result of a dry run.
     *
     * @param done titles of the steps that were done
     * @param open titles of those that were not
     * @param read what the line told
     * @param steps every step in its order
     * @param moments what happened, in the order of time; of a very long recording the first {@value #MOST_MOMENTS}
     */
    public record Report(
            List<String> done,
            List<String> open,
            List<Effect.Read> read,
            List<Difference> differences,
            List<StepReached> steps,
            List<Moment> moments) {

        /** Whether the description does what was done then, to the end. */
        public boolean agrees() {
            return open.isEmpty() && differences.isEmpty();
        }
    }

    /** Plays a recording. A password was blanked in it, so that only its place is compared. */
    public static Report play(Dialogue dialogue, String member, Values values, List<Heard> recording) {
        return new Player(dialogue, member, values).play(recording);
    }

    private static final class Player {
        private final Values values;
        private final Conversation conversation;
        private final List<Difference> differences = new ArrayList<>();
        private final List<Moment> moments = new ArrayList<>();
        private final List<Effect.Read> read = new ArrayList<>();
        private final StringBuilder ours = new StringBuilder();
        private final StringBuilder theirs = new StringBuilder();
        /** What was sent last, until the machine has shown what was typed then; empty while nothing is awaited. */
        private String awaited = "";

        private final StringBuilder echo = new StringBuilder();
        private boolean tellsWhatWasTyped;
        private Instant now = START;
        /** How much later than then it is now. */
        private Duration longer = Duration.ZERO;

        private Duration newest = Duration.ZERO;
        /** The step whose answer was sent last, or -1. */
        private int lastStep = -1;

        private int sent;
        private int sendings;
        private boolean secret;
        private Hold told;

        Player(Dialogue dialogue, String member, Values values) {
            this.values = values;
            conversation = new Conversation(dialogue, member, values, Mode.RUN, START);
        }

        Report play(List<Heard> recording) {
            boolean marked = recording.stream().anyMatch(heard -> !heard.fromMachine);
            tellsWhatWasTyped = recording.stream().anyMatch(heard -> !heard.fromMachine && !heard.text.isEmpty());
            Duration before = Duration.ZERO;
            for (Heard heard : recording) {
                // the person at the line then may have answered more quickly
                if (!marked && heard.at.minus(before).compareTo(PAUSE) > 0) {
                    longer = longer.plus(PATIENCE);
                }
                before = heard.at;
                advance(START.plus(heard.at).plus(longer));
                if (heard.fromMachine) {
                    compareEcho(heard.text);
                    take(conversation.output(heard.text, now));
                } else {
                    typed(heard.text);
                    awaitSending();
                }
            }
            advance(now.plus(Conversation.UNFORESEEN).plusSeconds(1));
            List<String> done = new ArrayList<>();
            List<String> open = new ArrayList<>();
            List<StepReached> steps = new ArrayList<>();
            for (int i = 0; i < conversation.steps().size(); i++) {
                Progress progress = conversation.progress(i);
                steps.add(new StepReached(conversation.steps().get(i).title(), progress));
                if (progress == Progress.DONE) {
                    done.add(conversation.steps().get(i).title());
                } else if (progress != Progress.LEFT_OUT) {
                    open.add(conversation.steps().get(i).title());
                }
            }
            return new Report(done, open, read, differences, steps, moments);
        }

        /** Lets as much time go by as it takes to send what was sent here, within bounds. */
        private void awaitSending() {
            sendings++;
            Instant until = now.plus(PATIENCE);
            while (sent < sendings && now.isBefore(until)) {
                advance(now.plus(STEP));
                longer = longer.plus(STEP);
            }
            sendings = Math.max(sendings, sent);
        }

        private void advance(Instant to) {
            Instant end = Duration.between(now, to).compareTo(LONGEST_PAUSE) > 0 ? now.plus(LONGEST_PAUSE) : to;
            while (now.isBefore(end)) {
                take(conversation.tick(now));
                // nothing happens before the moment that the conversation wants to be told: hours cost no more than
                // seconds
                Instant next = conversation.wakeAt().orElse(end);
                now = next.isBefore(end) ? next : end;
            }
        }

        private void take(List<Effect> effects) {
            for (Effect effect : effects) {
                sent += effect instanceof Effect.Send || effect instanceof Effect.SendSecret ? 1 : 0;
                lastStep = effect instanceof Effect.Send typed && typed.step() >= 0 ? typed.step() : lastStep;
                if (effect instanceof Effect.Send send && send.step() >= 0) {
                    ours.append(send.text());
                    awaited = send.text().strip();
                    echo.setLength(0);
                    moment(send.step(), Event.SENT, send.text().strip());
                } else if (effect instanceof Effect.SendSecret send) {
                    ours.append('\r');
                    secret = true;
                    moment(send.step(), Event.SENT, "");
                } else if (effect instanceof Effect.Done each) {
                    moment(each.step(), Event.DONE, each.evidence());
                } else if (effect instanceof Effect.Read each) {
                    read.add(each);
                }
            }
            compare();
            Optional<Hold> hold = conversation.hold();
            if (hold.isPresent() && hold.get().why().passable() && hold.get() != told) {
                told = hold.get();
                moment(told.step(), Event.ASKED, told.sentence());
                take(conversation.goOn(told.typed(), now));
            } else if (hold.isPresent() && hold.get() != told) {
                told = hold.get();
                differ(told.step(), told.sentence());
            }
        }

        private void typed(String text) {
            theirs.append(text);
            compare();
        }

        /** Whole lines are compared, once both are there. */
        private void compare() {
            int our = ours.indexOf("\r");
            int their = theirs.indexOf("\r");
            if (our < 0 || their < 0) {
                return;
            }
            String sent = ours.substring(0, our);
            String then = theirs.substring(0, their);
            ours.delete(0, our + 1);
            theirs.delete(0, their + 1);
            if (!secret && !sent.equals(then)) {
                differ(lastStep, DialogueText.RECORDING_DIFFERS.text(sent, then));
            }
            secret = false;
        }

        /**
         * A recording of ours tells only that something was sent. Most machines show what was typed: that is compared.
         * A machine that shows nothing of it, or draws a page, is not judged by this.
         */
        private void compareEcho(String text) {
            if (awaited.isEmpty() || tellsWhatWasTyped) {
                return;
            }
            echo.append(text);
            int end = echo.indexOf("\r") < 0 ? echo.indexOf("\n") : echo.indexOf("\r");
            if (end < 0) {
                return;
            }
            String shown = echo.substring(0, end).strip();
            boolean plain = shown.chars().allMatch(letter -> letter >= ' ');
            if (plain && !shown.isEmpty() && !shown.equals(awaited)) {
                differ(lastStep, DialogueText.RECORDING_DIFFERS.text(awaited, shown));
            }
            awaited = "";
        }

        private void differ(int step, String sentence) {
            differences.add(new Difference(Duration.between(START, now), sentence));
            moment(step, Event.DIFFERED, sentence);
        }

        private void moment(int step, Event event, String text) {
            if (moments.size() < MOST_MOMENTS) {
                moments.add(new Moment(recorded(), step, event, text, shown()));
            }
        }

        /** The time of the recording; what is played later than it was said counts as said then. */
        private Duration recorded() {
            Duration at = Duration.between(START, now).minus(longer);
            newest = at.compareTo(newest) > 0 ? at : newest;
            return newest;
        }

        private List<String> shown() {
            List<String> lines = new ArrayList<>(conversation.screen().window());
            while (!lines.isEmpty() && lines.get(lines.size() - 1).isBlank()) {
                lines.remove(lines.size() - 1);
            }
            return lines;
        }
    }
}
