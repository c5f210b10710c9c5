package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindReader;
import org.junit.jupiter.api.Test;

/** The shipped dialogues, tried on recorded lines. */
class DryRunTest {

    private static final Map<String, String> LEFT = Map.ofEntries(
            Map.entry("serial", "OR-20117"),
            Map.entry("factory.user", "keeper"),
            Map.entry("password-policy", "2"),
            Map.entry("begins", "fresh"),
            Map.entry("names-used", "yes"),
            Map.entry("address", "10.40.8.40"),
            Map.entry("length", "24"),
            Map.entry("gateway", "10.40.8.1"),
            Map.entry("name-server-1", "10.40.8.3"),
            Map.entry("shared.address", "10.40.8.42"));
    private static final Map<String, String> SECOND = Map.ofEntries(
            Map.entry("serial", "FC-882"),
            Map.entry("duty", "active"),
            Map.entry("fabric-number", "7"),
            Map.entry("fabric-name", "ardal-fabric"),
            Map.entry("active", "3"),
            Map.entry("member-number", "2"),
            Map.entry("tunnel-pool", "10.45.0.0/16"),
            Map.entry("control-vlan", "3900"),
            Map.entry("address", "10.40.8.71"),
            Map.entry("length", "24"),
            Map.entry("gateway", "10.40.8.1"),
            Map.entry("name", "ard-fdc-1-2"));

    private static final Secret PASSWORD = Secret.of("Hn4tRb7sLxVc");

    private static DryRun.Report play(String kind, String member, String recording, Map<String, String> texts)
            throws IOException {
        return DryRun.play(
                KindReader.shipped(kind).dialogue().orElseThrow(),
                member,
                new Known(
                        texts,
                        Map.of("factory.phrase", PASSWORD, "keeper-password", PASSWORD, "warden-password", PASSWORD),
                        AgreedTerms::toTheFirst),
                Recorded.read(recording));
    }

    @Test
    void theLeftInterconnectGoesToTheEnd() throws IOException {
        DryRun.Report report = play("interconnect-pair", "left", "interconnect-left.txt", LEFT);
        assertEquals(List.of(), report.differences());
        assertEquals(List.of(), report.open());
        assertEquals(List.of(new Effect.Read("code", "403918")), report.read());
        assertTrue(report.agrees());
    }

    @Test
    void aControllerIsWokenByTheKeyThatDoesNoHarm() throws IOException {
        DryRun.Report report = play("fabric-controller", "controller 2", "controller-2.txt", SECOND);
        assertEquals(List.of(), report.differences());
        assertEquals(List.of(), report.open());
        assertEquals(19, report.done().size());
    }

    @Test
    void saysWhereItWouldHaveDoneSomethingElse() throws IOException {
        Map<String, String> other = new java.util.HashMap<>(LEFT);
        other.put("gateway", "10.40.8.2");
        DryRun.Report report = play("interconnect-pair", "left", "interconnect-left.txt", other);
        List<String> sentences = new ArrayList<>(
                report.differences().stream().map(DryRun.Difference::sentence).toList());
        assertTrue(
                sentences.get(0).equals(DialogueText.RECORDING_DIFFERS.text("10.40.8.2", "10.40.8.1")),
                sentences.toString());
        assertTrue(
                sentences.get(1).contains(DialogueText.VALUE_DIFFERS.text("10.40.8.1", "10.40.8.2")),
                sentences.toString());
        assertFalse(report.agrees());
        assertTrue(report.open().contains("store it"));
    }

    @Test
    void aMachineThatWasDescribedFromTheReferencePageAloneGoesToTheEnd() throws IOException {
        String text = new String(
                getClass().getResourceAsStream("/kinds/brook-switch.yaml").readAllBytes(),
                java.nio.charset.StandardCharsets.UTF_8);
        Map<String, String> texts = Map.of(
                "serial",
                "BR-0007",
                "factory.user",
                "brook",
                "address",
                "10.40.8.90",
                "length",
                "24",
                "gateway",
                "10.40.8.1",
                "paths",
                "300-399");
        DryRun.Report report = DryRun.play(
                KindReader.read(text).dialogue().orElseThrow(),
                "",
                new Known(texts, Map.of("factory.phrase", PASSWORD, "operator", PASSWORD), AgreedTerms::toTheFirst),
                Recorded.read("brook-switch.txt"));
        assertEquals(List.of(), report.differences());
        assertEquals(List.of(), report.open());
    }
}
