package lychnos.server.configure.line;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.TermsText;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.LastStretch;
import lychnos.server.configure.model.MemberDialogue;

/** Makes the change that the database is given of what a conversation has done since the last one. */
final class LineChanges {

    private static final String TOOL = "Lychnos";

    private final long dialogueId;
    private final String member;
    private final Dialogue dialogue;
    private final Conversation conversation;
    private final LineTape tape;
    private boolean wiped;
    private boolean identified;
    private String note;
    private String by = TOOL;
    private Map<Integer, Progress> saved = new HashMap<>();
    private List<DialogueStep> savedSteps;
    private final LastStretch stretch = new LastStretch();

    /**
     * @param progress of the steps, as it is in the database; a step without one is open there
     * @param conversation as it was taken up
     */
    LineChanges(
            MemberDialogue kept, List<Progress> progress, Dialogue dialogue, Conversation conversation, LineTape tape) {
        this.dialogueId = kept.id;
        this.member = kept.member;
        this.dialogue = dialogue;
        this.conversation = conversation;
        this.tape = tape;
        wiped = kept.wiped;
        identified = kept.identified;
        note = kept.note;
        rememberSteps();
        saved.replaceAll((step, now) -> step < progress.size() ? progress.get(step) : Progress.OPEN);
    }

    boolean identified() {
        return identified;
    }

    /** What is to be said beside the steps. */
    String note() {
        return note;
    }

    void note(String sentence) {
        note = sentence;
    }

    /** A person does what is changed next. */
    void by(String login) {
        by = login;
    }

    /**
     * What has to be kept, or null where nothing but bytes came.
     *
     * @param unsaved what the conversation wants done since the last change
     * @param standing how the line stands now
     * @param lastStanding how it stood when screens were told last, or null
     */
    Change of(List<Effect> unsaved, Mode mode, LineStanding standing, LineStanding lastStanding, Instant now) {
        List<DialogueStep> steps = conversation.steps();
        boolean replanned = !steps.equals(savedSteps);
        Map<Integer, String> evidence = new HashMap<>();
        Map<Integer, String> sends = new LinkedHashMap<>();
        Map<String, String> told = new LinkedHashMap<>();
        List<String> tries = new ArrayList<>();
        TermsText agreed = null;
        String log = "";
        List<String> proven = new ArrayList<>();
        if (unsaved.stream()
                .anyMatch(effect -> effect instanceof Effect.SendSecret
                        || effect instanceof Effect.Send send && send.step() >= 0)) {
            note = ""; // what was to be said of the answer before is said
        }
        for (Effect effect : unsaved) {
            if (effect instanceof Effect.Done done) {
                evidence.put(done.step(), done.evidence());
                passwordThatProves(steps.get(done.step())).ifPresent(proven::add);
            } else if (effect instanceof Effect.Send send && send.step() >= 0) {
                sends.put(
                        send.step(),
                        secretStep(steps.get(send.step()))
                                ? null
                                : by.equals(TOOL) ? send.text().strip() : typedOrSent(send));
                tape.mark(steps.get(send.step()).title());
            } else if (effect instanceof Effect.SendSecret send) {
                sends.put(send.step(), null);
                tries.addAll(((Asked) steps.get(send.step())).answer().names());
                tape.mark(steps.get(send.step()).title());
            } else if (effect instanceof Effect.Read read) {
                told.put(read.name(), read.value());
            } else if (effect instanceof Effect.Agreed terms) {
                agreed = terms.terms();
            } else if (effect instanceof Effect.Identified) {
                identified = true;
                tape.mark("identified");
            } else if (effect instanceof Effect.Logged logged) {
                log = logged.text();
            } else if (effect instanceof Effect.Note said) {
                note = said.sentence();
            }
        }
        wiped = wiped || replanned;
        Map<Integer, Change.StepMoved> moved = new LinkedHashMap<>();
        for (int i = 0; i < steps.size(); i++) {
            Progress progress = conversation.progress(i);
            if (replanned || sends.containsKey(i) || saved.get(i) != progress) {
                moved.put(i, new Change.StepMoved(progress, evidence.getOrDefault(i, "")));
            }
        }
        if (moved.isEmpty()
                && told.isEmpty()
                && log.isEmpty()
                && lastStanding != null
                && standing.kept().equals(lastStanding.kept())) {
            return null;
        }
        return new Change(
                dialogueId,
                now,
                new Change.DialogueStands(
                        conversation.state(), conversation.hold().orElse(null), mode, wiped, identified, note),
                replanned ? dialogue.withPages(member, wiped) : null,
                moved,
                new Change.Answered(sends, by, "console", tries, proven, agreed),
                told,
                stretch(),
                log,
                0);
    }

    /** A person's Enter stands for what was typed before it. */
    private String typedOrSent(Effect.Send send) {
        String sent = send.text().strip();
        return sent.isEmpty() ? conversation.lastTyped() : sent;
    }

    private static boolean secretStep(DialogueStep step) {
        return step instanceof Asked asked && asked.is(Mark.SECRET);
    }

    private static Optional<String> passwordThatProves(DialogueStep step) {
        return step instanceof Asked asked && asked.is(Mark.PROVES)
                ? asked.answer().names().stream().findFirst()
                : Optional.empty();
    }

    /** What the time goes to from now on, if that is something else than before. */
    private Change.Stretch stretch() {
        Change.Stretch now =
                switch (conversation.state()) {
                    case WAITING -> waiting();
                    case HELD, STOPPED, CUT ->
                        Change.Stretch.held(conversation.hold().map(Hold::why), conversation.state());
                    case DONE -> new Change.Stretch("", "", 0, 0);
                    default -> new Change.Stretch("hands", "", 0, 0);
                };
        return stretch.ifNew(now);
    }

    private Change.Stretch waiting() {
        List<DialogueStep> steps = conversation.steps();
        for (int i = 0; i < steps.size(); i++) {
            if (conversation.progress(i) == Progress.OPEN && steps.get(i) instanceof Waits waits) {
                return new Change.Stretch(
                        "wait",
                        waits.title(),
                        waits.about().toSeconds(),
                        waits.atMost().toSeconds());
            }
        }
        return new Change.Stretch("wait", "works", 0, 0);
    }

    /** It is in the database. */
    void remember(Change change) {
        rememberSteps();
        stretch.kept(change.stretch());
        by = TOOL;
    }

    private void rememberSteps() {
        savedSteps = conversation.steps();
        saved = new HashMap<>();
        for (int i = 0; i < savedSteps.size(); i++) {
            saved.put(i, conversation.progress(i));
        }
    }
}
