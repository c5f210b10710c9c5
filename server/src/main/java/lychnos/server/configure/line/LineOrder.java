package lychnos.server.configure.line;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.TermsText;
import lychnos.core.fact.Fact;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.core.sheet.MemberValues;
import lychnos.core.sheet.UnitFacts;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.ConsoleLines;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.wire.console.LineAddress;

/**
 * A dialogue that a vantage is to carry on: how far it is, where its line is, and everything that it will be answered
 * with. The text of its kind goes with it: kinds are data of the site, and a vantage point has no database.
 */
public record LineOrder(Held held, LeftDialogue left, LineAt line, KindText kind, UnitValues values) {

    /**
     * A member's dialogue as it was left.
     *
     * @param told what its line has told
     */
    public record LeftDialogue(
            long dialogueId,
            String member,
            Mode mode,
            boolean wiped,
            boolean identified,
            boolean stopped,
            String note,
            List<Progress> progress,
            Map<String, String> told,
            Recorded recorded) {}

    /**
     * What was recorded of the line.
     *
     * @param shown since the last answer
     * @param tail the end of all that was shown
     * @param pieces how many pieces there are
     * @param handedIn the last step that a vantage has handed in
     */
    public record Recorded(String shown, String tail, long pieces, long handedIn) {}

    /** Where the line is, and what people call it. */
    public record LineAt(LineAddress address, String title) {}

    /** The text of the published version, and the names of the factory's accounts as this site has them. */
    public record KindText(String text, List<String> factoryUsers) {}

    /** What the answers are made of. */
    public record UnitValues(
            int members,
            Map<String, Map<String, Fact>> facts,
            String unitName,
            List<MemberValues.Seat> seats,
            Map<String, String> site,
            Map<String, String> told,
            Map<String, Secret> passwords,
            AgreedTerms terms) {}

    public static LineOrder of(Held held, Openings.LineOpening opening) {
        MemberValues values = opening.values();
        ConsoleLines.OpenableLine line = opening.line().orElseThrow();
        Kind kind = values.known().kind();
        return new LineOrder(
                held,
                left(opening.kept()),
                new LineAt(line.address(), line.title()),
                new KindText(
                        opening.kindText(),
                        kind.logins().stream()
                                .map(login -> login.login().user())
                                .toList()),
                new UnitValues(
                        values.known().members(),
                        values.known().facts(),
                        values.unitName(),
                        values.seats(),
                        values.site(),
                        values.told(),
                        values.passwords(),
                        values.terms()));
    }

    private static LeftDialogue left(ConsoleReader.KeptDialogue kept) {
        MemberDialogue dialogue = kept.dialogue();
        return new LeftDialogue(
                dialogue.id,
                dialogue.member,
                dialogue.mode,
                dialogue.wiped,
                dialogue.identified,
                dialogue.state == MemberDialogue.DialogueState.STOPPED,
                dialogue.note,
                kept.progress(),
                kept.told(),
                new Recorded(kept.shown(), kept.tail(), kept.pieces(), dialogue.handedIn));
    }

    /**
     * The kind as it holds for this unit. What the site adjusts beside the text and a dialogue needs is who the
     * factory's accounts are, whose passwords come with the values.
     */
    public Kind kindOfUnit() {
        return KindReader.read(kind.text).withFactoryUsers(kind.factoryUsers);
    }

    public ConsoleReader.KeptDialogue kept() {
        MemberDialogue dialogue = new MemberDialogue();
        dialogue.id = left.dialogueId;
        dialogue.member = left.member;
        dialogue.mode = left.mode;
        dialogue.wiped = left.wiped;
        dialogue.identified = left.identified;
        dialogue.note = left.note;
        dialogue.state = left.stopped ? MemberDialogue.DialogueState.STOPPED : MemberDialogue.DialogueState.UNSURE;
        Recorded recorded = left.recorded;
        return new ConsoleReader.KeptDialogue(
                dialogue, left.progress, left.told, recorded.shown, recorded.tail, recorded.pieces);
    }

    public MemberValues valuesOf(Kind of) {
        return new MemberValues(
                new UnitFacts(of, values.members, values.facts),
                left.member,
                values.unitName,
                values.seats,
                values.site,
                values.told,
                values.passwords,
                values.terms);
    }

    /**
     * A step as it is handed in; its new plan, where it has one, both ends can put together. It has no parts, since it
     * is also how a vantage point keeps it on its disk: one of a later release must read what was left there.
     *
     * @param state null where only the recording has grown
     */
    public record HandedStep(
            long number,
            Instant at,
            Conversation.State state,
            Hold hold,
            Mode mode,
            boolean wiped,
            boolean identified,
            String note,
            boolean replanned,
            Map<Integer, Change.StepMoved> moved,
            Map<Integer, String> sends,
            String by,
            String way,
            List<String> tries,
            List<String> proven,
            TermsText agreed,
            Map<String, String> told,
            Change.Stretch stretch,
            String log,
            List<Change.RecordingPiece> pieces) {

        public static HandedStep of(long number, Change change, List<Change.RecordingPiece> pieces) {
            return new HandedStep(
                    number,
                    change.at(),
                    change.stands().state(),
                    change.stands().hold(),
                    change.stands().mode(),
                    change.stands().wiped(),
                    change.stands().identified(),
                    change.stands().note(),
                    change.steps() != null,
                    change.moved(),
                    change.answered().sends(),
                    change.answered().by(),
                    change.answered().way(),
                    change.answered().tries(),
                    change.answered().proven(),
                    change.answered().agreed(),
                    change.told(),
                    change.stretch(),
                    change.log(),
                    pieces);
        }

        public static HandedStep recording(long number, Instant at, List<Change.RecordingPiece> pieces) {
            return new HandedStep(
                    number, at, null, null, null, false, false, "", false, Map.of(), Map.of(), "", "", List.of(),
                    List.of(), null, Map.of(), null, "", pieces);
        }

        Change change(long dialogueId, Dialogue dialogue, String member) {
            return new Change(
                    dialogueId,
                    at,
                    new Change.DialogueStands(state, hold, mode, wiped, identified, note),
                    replanned ? dialogue.withPages(member, wiped) : null,
                    moved,
                    new Change.Answered(sends, by, way, tries, proven, agreed),
                    told,
                    stretch,
                    log,
                    number);
        }
    }
}
