package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.Collection;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.dialogue.DialogueStep.Field;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Page;
import lychnos.core.dialogue.DialogueStep.Shown;
import lychnos.core.dialogue.DialogueStep.Working;
import lychnos.core.fact.Secret;
import org.junit.jupiter.api.Test;

class PageFillTest {

    private static final Secret WORD = Secret.of("Qw7xRt9mKp");

    private static Values knowing(String... named) {
        Map<String, String> texts = new LinkedHashMap<>();
        for (String each : named) {
            texts.put(each.split(" ")[0], each.substring(each.indexOf(' ') + 1));
        }
        return new Values() {
            @Override
            public Optional<String> text(String name) {
                return Optional.ofNullable(texts.get(name));
            }

            @Override
            public Optional<Secret> secret(String name) {
                return name.equals("word") ? Optional.of(WORD) : Optional.empty();
            }

            @Override
            public Collection<Secret> secrets() {
                return List.of(WORD);
            }

            @Override
            public String unitName() {
                return "ard-blk-1";
            }

            @Override
            public AgreedTerms terms() {
                return AgreedTerms.NONE;
            }
        };
    }

    private static Page subnet(Mark... marks) {
        Map<String, Field> fields = new LinkedHashMap<>();
        fields.put("Purpose", new Field(Template.parse("host data"), "/purpose", false));
        fields.put("MTU", new Field(Template.parse("{mtu}"), "/mtu", false));
        fields.put("Fifth port", new Field(Template.parse("{port-5}"), "/ports/4", true));
        fields.put("Telemetry", new Field(Template.parse("no"), "/telemetry", false));
        fields.put("Word", new Field(Template.parse("{word}"), "/word", false));
        return new Page(
                "Subnet",
                "",
                Template.parse(""),
                fields,
                false,
                "/subnets/data",
                "left.code",
                Set.of(marks),
                List.of(new Shown("/tried", Look.parse("/^taken/"), false)),
                new Working(
                        java.time.Duration.ofMinutes(1),
                        java.time.Duration.ofMinutes(5),
                        new Shown("/state", Look.parse("ready"), false)),
                Map.of("join-code", "/join"));
    }

    private static final Values KNOWN = knowing("mtu 9000", "left.code 123456");

    @Test
    void tellsWhatIsNotKnownYetButNotWhatNeedNotBe() {
        assertEquals(List.of("left.code", "mtu"), new PageFill(subnet(), knowing()).lacking());
        assertEquals(List.of(), new PageFill(subnet(), KNOWN).lacking());
    }

    @Test
    void writesWhatWasPlannedAndKeepsPasswordsApart() {
        PageFill.Entry entry = new PageFill(subnet(), KNOWN).entry();
        assertEquals(Map.of("/purpose", "host data", "/mtu", "9000", "/telemetry", "no"), entry.texts());
        assertEquals(Map.of("/word", WORD), entry.secrets());
    }

    @Test
    void findsAPurposeThatCameWrong() {
        PageFill fill = new PageFill(subnet(), KNOWN);
        assertEquals(
                List.of(DialogueText.FIELD_DIFFERS.text("Purpose", "replication", "host data")),
                fill.differences(Map.of("/purpose", "replication", "/mtu", "9000", "/telemetry", "false")).stream()
                        .map(Object::toString)
                        .toList());
        assertEquals(3, fill.differences(Map.of()).size(), "a resource that shows nothing agrees with nothing");
    }

    @Test
    void whatMustBeShownMayBeOfThePlan() {
        Page page = new Page(
                "Access",
                "",
                Template.parse(""),
                Map.of("MTU", new Field(Template.parse("{mtu}"), "/mtu", false)),
                false,
                "/access",
                "",
                Set.of(),
                List.of(new Shown("/size", Look.parse("/^{mtu} octets$/"), false)),
                null,
                Map.of());
        assertEquals(List.of(), new PageFill(page, KNOWN).missing(Map.of("/size", "9000 octets")));
        assertEquals(
                List.of(DialogueText.PAGE_SAYS.text("1500 octets")),
                new PageFill(page, KNOWN).missing(Map.of("/size", "1500 octets")));
        assertEquals(
                1,
                new PageFill(page, knowing())
                        .missing(Map.of("/size", "9000 octets"))
                        .size());
    }

    @Test
    void looksForWhatMustBeShownAfterwards() {
        PageFill fill = new PageFill(subnet(), KNOWN);
        assertEquals(
                List.of(DialogueText.PAGE_SAYS.text("550 unknown sender")),
                fill.missing(Map.of("/tried", "550 unknown sender")));
        assertEquals(List.of(), fill.missing(Map.of("/tried", "taken by the relay")));
        assertFalse(fill.over(Map.of("/state", "works")));
        assertTrue(fill.over(Map.of("/state", "ready")));
        assertEquals(Map.of("join-code", "88"), fill.told(Map.of("/join", "88")));
        assertEquals(Map.of(), fill.told(Map.of("/join", "")));
    }

    @Test
    void callsAPersonBeforeWhatCannotBeTakenBack() {
        assertEquals(
                "host data",
                new PageFill(subnet(Mark.PERMANENT), KNOWN)
                        .stops(3, Mode.RUN)
                        .orElseThrow()
                        .typed());
        assertEquals(
                "ard-blk-1",
                new PageFill(subnet(Mark.DESTROYS), KNOWN)
                        .stops(3, Mode.RUN)
                        .orElseThrow()
                        .typed());
        Hold consent =
                new PageFill(subnet(Mark.CONSENT), KNOWN).stops(3, Mode.RUN).orElseThrow();
        assertEquals(Hold.Why.CONSENT, consent.why());
        assertTrue(consent.why().passable());
        assertEquals(
                Hold.Why.TERMS,
                new PageFill(subnet(Mark.TERMS), KNOWN)
                        .stops(3, Mode.RUN)
                        .orElseThrow()
                        .why());
        assertEquals(
                Hold.Why.NEXT,
                new PageFill(subnet(), KNOWN).stops(3, Mode.ASK).orElseThrow().why());
        assertTrue(new PageFill(subnet(), KNOWN).stops(3, Mode.RUN).isEmpty());
        String shown = new PageFill(subnet(Mark.RESTARTS), KNOWN)
                .stops(3, Mode.RUN)
                .orElseThrow()
                .shown();
        assertTrue(shown.contains("Word: " + DialogueText.SEALED_VALUE.text()) && !shown.contains("Qw7"), shown);
    }
}
