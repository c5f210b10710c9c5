package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.sheet.MemberValues;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.kinds.Kinds;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;

/** Everything that is needed to open a unit's lines, read in one go. */
@ApplicationScoped
public class Openings {

    private final BringUps bringUps;
    private final Kinds kinds;
    private final Answers answers;
    private final ConsoleLines lines;
    private final ConsoleReader consoleReader;

    Openings(BringUps bringUps, Kinds kinds, Answers answers, ConsoleLines lines, ConsoleReader consoleReader) {
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.answers = answers;
        this.lines = lines;
        this.consoleReader = consoleReader;
    }

    /** One member: how far it is, what it is answered with, and its line if it has one that can be reached. */
    public record LineOpening(
            ConsoleReader.KeptDialogue kept,
            Dialogue dialogue,
            String kindText,
            MemberValues values,
            Optional<ConsoleLines.OpenableLine> line) {

        /** Whether its line has asked everything, or it has none, and pages are left that need no person. */
        public boolean pagesAreNext() {
            String member = kept.dialogue().member;
            int asked = dialogue.steps(member, kept.dialogue().wiped).size();
            List<DialogueStep> steps = dialogue.withPages(member, kept.dialogue().wiped);
            boolean lineIsDone = kept.progress().stream().limit(asked).noneMatch(Openings::open);
            return lineIsDone
                    && IntStream.range(asked, steps.size())
                            .anyMatch(i -> open(kept.progress().get(i))
                                    && steps.get(i) instanceof DialogueStep.Remote remote
                                    && remote.driven());
        }
    }

    private static boolean open(Progress progress) {
        return progress == Progress.OPEN || progress == Progress.SENT;
    }

    /** By member, what it is answered with, as it is known now. */
    @Transactional
    public Map<String, MemberValues> values(long runId, long unitId) {
        return answers.of(bringUps.unit(unitId), consoleReader.toldByAll(runId));
    }

    @Transactional
    public List<LineOpening> of(long runId, long unitId) {
        Unit unit = bringUps.unit(unitId);
        Dialogue dialogue = kinds.of(unit).dialogue().orElseThrow();
        String kindText = kinds.published(unit).text();
        long site = bringUps.get(unit.bringUpId).site.id;
        Map<String, MemberValues> values = answers.of(unit, consoleReader.toldByAll(runId));
        List<LineOpening> openings = new ArrayList<>();
        for (ConsoleReader.KeptDialogue kept : consoleReader.load(runId)) {
            MemberValues own = values.get(kept.dialogue().member);
            openings.add(new LineOpening(
                    kept, dialogue, kindText, own, lines.of(site, own.known(), kept.dialogue().member)));
        }
        return openings;
    }
}
