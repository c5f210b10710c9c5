package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Expected;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.dialogue.Hold.Why;
import org.junit.jupiter.api.Test;

/** Pages worked with cursor keys, and commands whose output is looked through. */
class MenuTest {

    private static final List<String> ROWS = List.of("Keyboard", "Name", "Address", "Store");

    private static Asked row(String row, String asked, String answer) {
        return new Asked(
                row,
                "",
                Look.parse(asked),
                Template.parse(answer),
                false,
                false,
                null,
                "",
                Set.of(),
                Look.parse(row),
                List.of());
    }

    private static Dialogue dialogue(DialogueStep... steps) {
        return new Dialogue(
                LineSettings.USUAL,
                "",
                List.of(),
                Map.of(),
                null,
                new Dialogue.Identify(
                        Look.parse("/host (?<serial>\\S+)/"),
                        Map.of("serial", Template.parse("{serial}")),
                        Set.of(),
                        Set.of()),
                List.of(),
                List.of(),
                List.of(steps),
                false);
    }

    private static String page(int marked) {
        StringBuilder page = new StringBuilder("\033[2J\033[1;1Hhost TN-7\033[2;1H");
        for (int i = 0; i < ROWS.size(); i++) {
            page.append("\033[")
                    .append(3 + i)
                    .append(";2H")
                    .append(i == marked ? "\033[7m" : "")
                    .append(ROWS.get(i))
                    .append("\033[0m");
        }
        return page.append("\033[1;1H").toString();
    }

    @Test
    void goesToTheRowAndEntersItAndThenAnswers() {
        Stage stage = new Stage(
                dialogue(row("Address", "New address:", "{address}"), row("Store", "Store it?", "y")), Mode.RUN);
        assertEquals("\033[B", stage.says(page(0)).after(1).sent());
        assertEquals("\033[B", stage.says(page(1)).after(1).sent());
        assertEquals("\r", stage.says(page(2)).after(1).sent());
        assertEquals("", stage.after(1).sent(), "one Enter is enough");
        stage.says("\033[24;1HNew address: ").after(1);
        assertEquals("10.40.8.41\r", stage.sent(), () -> stage.conversation.state() + " " + stage.conversation.hold());
        assertEquals("\033[B", stage.says(page(2)).after(1).sent());
        assertEquals("\r", stage.says(page(3)).after(1).sent());
        assertEquals("y\r", stage.says("\033[24;1HStore it? ").after(1).sent());
    }

    @Test
    void stopsWhereTheRowIsNotOnThePage() {
        Stage stage = new Stage(dialogue(row("Trunk", "New trunk:", "1")), Mode.RUN);
        for (int i = 0; i < 60 && stage.why() == null; i++) {
            stage.says(page(i % ROWS.size())).after(0.5);
        }
        assertEquals(Why.UNFORESEEN, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("Trunk"));
    }

    @Test
    void aPersonWhoTypesIsNotDriven() {
        Stage stage = new Stage(dialogue(row("Address", "New address:", "{address}")), Mode.WATCH);
        assertEquals("", stage.says(page(0)).after(6).sent());
    }

    @Test
    void aCommandMustShowWhatIsRequiredAndMayShowTheRest() {
        Asked show = new Asked(
                "both are up",
                "",
                Look.parse("tarn#"),
                Template.parse("pair show"),
                true,
                false,
                null,
                "",
                Set.of(),
                null,
                List.of(
                        new Expected(Look.parse("left: leads"), true),
                        new Expected(Look.parse("no downlinks"), false)));
        Stage stage = new Stage(
                dialogue(
                        show,
                        new Summary("read back", "", Map.of(Look.parse("/oob (\\S+)/"), Template.parse("{address}")))),
                Mode.RUN);
        stage.says("host TN-7\r\ntarn# ").after(1);
        assertEquals("pair show\r", stage.sent());
        stage.says("pair show\r\nleft: alone\r\noob 10.40.8.41\r\ntarn# ").after(2);
        assertEquals(Why.DIFFERS, stage.why());
        stage.effects.addAll(stage.conversation.typed("pair show\r", stage.now));
        stage.says("pair show\r\nleft: leads\r\noob 10.40.8.41\r\ntarn# ").after(2);
        assertEquals(State.DONE, stage.conversation.state(), () -> stage.conversation
                .hold()
                .toString());
    }

    @Test
    void whatIsReadBackMustAgree() {
        Asked show = new Asked(
                "shows", "", Look.parse("tarn#"), Template.parse("net show"), true, false, null, "", Set.of());
        Stage stage = new Stage(
                dialogue(
                        show,
                        new Summary("read back", "", Map.of(Look.parse("/oob (\\S+)/"), Template.parse("{address}")))),
                Mode.RUN);
        stage.says("host TN-7\r\ntarn# ")
                .after(1)
                .says("net show\r\noob 10.40.8.99\r\ntarn# ")
                .after(2);
        assertEquals(Why.DIFFERS, stage.why());
        assertTrue(stage.conversation.hold().orElseThrow().sentence().contains("10.40.8.99"));
    }
}
