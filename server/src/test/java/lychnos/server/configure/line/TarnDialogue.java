package lychnos.server.configure.line;

import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Template;

/** The dialogue of a machine that greets with {@code TARN interconnect, serial TN-7, blank}. */
public final class TarnDialogue {

    private TarnDialogue() {}

    public static Asked asked(String title, String look, String answer, Mark... marks) {
        return new Asked(title, "", Look.parse(look), Template.parse(answer), false, false, null, "", Set.of(marks));
    }

    public static Dialogue of(List<DialogueStep> setup, List<DialogueStep.Remote> overTheNetwork) {
        return new Dialogue(
                new LineSettings(57600, 8, LineSettings.Parity.NONE, 1),
                "",
                List.of(),
                Map.of(),
                Look.parse("/not taken: (?<why>.+)/"),
                new Dialogue.Identify(
                        Look.parse("/TARN interconnect, serial (?<serial>\\S+), (?<state>blank)/"),
                        Map.of("serial", Template.parse("{serial}")),
                        Set.of("blank"),
                        Set.of()),
                List.of(),
                List.of(),
                setup,
                false,
                overTheNetwork,
                null,
                new Dialogue.MachineLog(Look.parse("tarn#"), "log show", ""));
    }
}
