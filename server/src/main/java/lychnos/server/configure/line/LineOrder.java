package lychnos.server.configure.line;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
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
 * A dialogue that a vantage is to carry on: how far it is, which of its steps were handed in, where its line is, and
 * everything that it will be answered with. The text of its kind goes with it: kinds are data of the site, and a
 * vantage
 * point has no database.
 */
public record LineOrder(
        Held held,
        long dialogueId,
        String member,
        Mode mode,
        boolean wiped,
        boolean identified,
        boolean stopped,
        String note,
        List<Progress> progress,
        Map<String, String> read,
        String shown,
        String tail,
        long pieces,
        long handedIn,
        LineAddress address,
        String title,
        String kindText,
        List<String> factoryUsers,
        int members,
        Map<String, Map<String, Fact>> facts,
        String unitName,
        List<MemberValues.Seat> seats,
        Map<String, String> site,
        Map<String, String> told,
        Map<String, Secret> passwords,
        boolean termsAgreed) {

    public static LineOrder of(Held held, Openings.LineOpening opening) {
        ConsoleReader.KeptDialogue kept = opening.kept();
        MemberValues values = opening.values();
        ConsoleLines.OpenableLine line = opening.line().orElseThrow();
        Kind kind = values.known().kind();
        return new LineOrder(
                held,
                kept.dialogue().id,
                kept.dialogue().member,
                kept.dialogue().mode,
                kept.dialogue().wiped,
                kept.dialogue().identified,
                kept.dialogue().state == MemberDialogue.DialogueState.STOPPED,
                kept.dialogue().note,
                kept.progress(),
                kept.told(),
                kept.shown(),
                kept.tail(),
                kept.pieces(),
                kept.dialogue().handedIn,
                line.address(),
                line.title(),
                opening.kindText(),
                kind.logins().stream().map(login -> login.login().user()).toList(),
                values.known().members(),
                values.known().facts(),
                values.unitName(),
                values.seats(),
                values.site(),
                values.told(),
                values.passwords(),
                values.termsAgreed());
    }

    /**
     * The kind as it holds for this unit. The text is that of the published version; what the site adjusts beside it
     * and
     * a dialogue needs is who the factory's accounts are, whose passwords come with the values.
     */
    public Kind kind() {
        return KindReader.read(kindText).withFactoryUsers(factoryUsers);
    }

    public ConsoleReader.KeptDialogue kept() {
        MemberDialogue dialogue = new MemberDialogue();
        dialogue.id = dialogueId;
        dialogue.member = member;
        dialogue.mode = mode;
        dialogue.wiped = wiped;
        dialogue.identified = identified;
        dialogue.note = note;
        dialogue.state = stopped ? MemberDialogue.DialogueState.STOPPED : MemberDialogue.DialogueState.UNSURE;
        return new ConsoleReader.KeptDialogue(dialogue, progress, read, shown, tail, pieces);
    }

    public MemberValues values(Kind kind) {
        return new MemberValues(
                new UnitFacts(kind, members, facts), member, unitName, seats, site, told, passwords, termsAgreed);
    }

    /**
     * A step as it is handed in; its new plan, where it has one, both ends can put together.
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
            Map<String, String> told,
            Change.Stretch stretch,
            String log,
            List<Change.RecordingPiece> pieces) {

        public static HandedStep of(long number, Change change, List<Change.RecordingPiece> pieces) {
            return new HandedStep(
                    number,
                    change.at(),
                    change.state(),
                    change.hold(),
                    change.mode(),
                    change.wiped(),
                    change.identified(),
                    change.note(),
                    change.steps() != null,
                    change.moved(),
                    change.sends(),
                    change.by(),
                    change.way(),
                    change.tries(),
                    change.proven(),
                    change.told(),
                    change.stretch(),
                    change.log(),
                    pieces);
        }

        public static HandedStep recording(long number, Instant at, List<Change.RecordingPiece> pieces) {
            return new HandedStep(
                    number, at, null, null, null, false, false, "", false, Map.of(), Map.of(), "", "", List.of(),
                    List.of(), Map.of(), null, "", pieces);
        }

        Change change(long dialogueId, Dialogue dialogue, String member) {
            return new Change(
                    dialogueId,
                    at,
                    state,
                    hold,
                    mode,
                    wiped,
                    identified,
                    note,
                    replanned ? dialogue.withPages(member, wiped) : null,
                    moved,
                    sends,
                    by,
                    way,
                    tries,
                    proven,
                    told,
                    stretch,
                    log,
                    number);
        }
    }
}
