package lychnos.core.dialogue;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import lychnos.core.dialogue.DialogueStep.Controller;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;
import org.junit.jupiter.api.Test;

class ControllerPlanTest {

    private static final Function<String, Optional<String>> NOTHING = name -> Optional.empty();

    private static final Controller STEP = new Controller(
            "Controller",
            "",
            "controller",
            Template.parse("{controller-mac}"),
            Template.parse("{serial}"),
            Template.parse("keeper"),
            "controller-word",
            "controller-password",
            "",
            Duration.ofMinutes(2),
            Duration.ofMinutes(10));

    private final Map<String, String> texts = new HashMap<>(Map.of(
            "controller-mac",
            "02:4c:59:a2:04:01",
            "serial",
            "OB-7731",
            "controller.address",
            "10.40.8.45",
            "controller.mask",
            "255.255.255.0",
            "controller.gateway",
            "10.40.8.1",
            "controller.name",
            "ard-obj-1-n1-oob",
            "domain",
            "ardal.example",
            "name-server-1",
            "10.40.8.3",
            "time-server-1",
            "10.40.8.6",
            "time-server-3",
            "10.40.8.8"));
    private final Map<String, Secret> secrets = new HashMap<>(Map.of(
            "controller-word", Secret.of("made-for-it-16ch"), "controller-password", Secret.of("lever-pine-40-salt")));
    private final ControllerPlan plan = new ControllerPlan(STEP, new Known(texts, secrets, () -> AgreedTerms.NONE));

    @Test
    void isMadeOfWhatTheMemberWasGiven() {
        assertEquals(List.of(), plan.lacking());
        assertEquals(Optional.of(Mac.parse("02:4c:59:a2:04:01")), plan.mac());
        Settings settings = plan.settings();
        assertEquals("10.40.8.45", settings.address().toString());
        assertEquals("ard-obj-1-n1-oob.ardal.example", settings.fqdn());
        assertEquals(List.of("10.40.8.3"), settings.nameServers());
        assertEquals(List.of("10.40.8.6", "10.40.8.8"), settings.timeServers());
        assertFalse(settings.dhcp());
    }

    @Test
    void saysWhatIsNotKnownYet() {
        texts.remove("controller.address");
        texts.remove("controller-mac");
        secrets.remove("controller-password");
        assertEquals(List.of("controller-mac", "controller.address", "controller-password"), plan.lacking());
        assertTrue(plan.mac().isEmpty());
        assertEquals("(not allocated yet)", plan.sheet().get("Address"));
    }

    @Test
    void doesWithoutAGateway() {
        texts.remove("controller.gateway");
        assertEquals(List.of(), plan.lacking());
        assertEquals(null, plan.settings().gateway());
        assertEquals("none", plan.sheet().get("Gateway"));
    }

    @Test
    void isAskedBeforehandOnlyWhereEachStepIs() {
        assertTrue(plan.stops(3, Mode.RUN).isEmpty());
        Hold hold = plan.stops(3, Mode.ASK).orElseThrow();
        assertEquals(Hold.Why.NEXT, hold.why());
        assertTrue(hold.shown().contains("Address: 10.40.8.45"));
        assertFalse(hold.toString().contains("lever-pine"), "no password is shown");
    }

    @Test
    void aStepThatWaitsSaysForWhom() {
        assertEquals(
                DialogueText.WAITS_UNTIL.text("Join", DialogueText.VALUE_HAS_BEEN_SHOWN.text("node 1", "join code")),
                Hold.until(4, "Join", List.of("node-1.join-code"), "", NOTHING).sentence());
        assertEquals(
                Hold.Why.PEER,
                Hold.until(4, "Join", List.of("node-1.join-code"), "", NOTHING).why());
        assertEquals(
                Hold.Why.PREREQUISITE,
                Hold.until(4, "Bundle", List.of("bundled-at-switch"), "", NOTHING)
                        .why());
        assertEquals(
                Hold.Why.PREREQUISITE,
                Hold.until(4, "Both", List.of("node-1.join-code", "bundled-at-switch"), "", NOTHING)
                        .why());
    }

    @Test
    void aStepThatWaitsForADaySaysWhich() {
        Function<String, Optional<String>> known =
                name -> name.equals("granted-on") ? Optional.of("2026-12-07") : Optional.empty();
        Hold hold = Hold.until(4, "Authority", List.of("granted-on.reached"), "", known);
        assertEquals(Hold.Why.DATE, hold.why());
        assertEquals(DialogueText.WAITS_UNTIL.text("Authority", "2026-12-07 (granted on)"), hold.sentence());
        assertEquals("2026-12-07", hold.shown());
        assertEquals(
                Hold.Why.PREREQUISITE,
                Hold.until(4, "Authority", List.of("granted-on.reached", "answer"), "", known)
                        .why());
    }
}
