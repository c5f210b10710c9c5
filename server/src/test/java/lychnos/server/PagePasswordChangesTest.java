package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.atomic.AtomicReference;
import lychnos.server.http.Json;
import lychnos.server.secrets.SealedStore;
import lychnos.server.secrets.SealedStore.SealedState;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** The password of a machine's own pages is replaced over their documented interface. */
@QuarkusTest
@EnabledIfEnvironmentVariable(
        named = "HALL",
        matches = ".+",
        disabledReason = "the mail relay runs in the hall that ./lychnos test makes")
class PagePasswordChangesTest {

    private static final String NAME = "web-password";

    @Inject
    SealedStore sealed;

    private ConsoleStage stage;

    @BeforeEach
    void site() {
        stage = new ConsoleStage();
        stage.policy("telemetry");
        stage.policy("remote-support");
        stage.thing("relay", "relay", Map.of("address", "10.40.8.20"));
    }

    @AfterEach
    void close() {
        stage.close();
    }

    private String path() {
        return "/api/bring-ups/" + stage.bringUp + "/password-changes";
    }

    private String password(int unit) {
        return sealed.open(unit, NAME, SealedState.PROVEN).orElseThrow().use(text -> text);
    }

    private Json toItsEnd() {
        AtomicReference<Json> view = new AtomicReference<>();
        ConsoleStage.until(
                "the change has ended",
                () -> {
                    view.set(stage.client.get(path()));
                    return !List.of("WAITING", "RUNNING").contains(view.get().getString("lanes[0].state"));
                },
                () -> view.get().prettify());
        return view.get();
    }

    @Test
    void anArrayGetsANewPasswordOnItsPagesAndRefusesTheOldOne() {
        int unit = stage.array(Map.of());
        stage.ready().begin(unit, "run");
        assertEquals("DONE", stage.toTheEnd(unit).getString("runState"));
        stage.proven(unit, "management");
        String old = password(unit);
        assertEquals(List.of(unit), stage.client.get(path()).getList("units.unitId"));
        Client.lead().post(path(), Map.of("units", List.of(unit), "width", 1)).statusCode(204);
        Json view = toItsEnd();
        assertEquals("DONE", view.getString("lanes[0].state"), view::prettify);
        assertNotEquals(old, password(unit));
        assertEquals(Optional.empty(), sealed.open(unit, NAME, SealedState.MADE));
        assertEquals("2", stage.hall().kept(stage.serial(0) + "-1", "seen.webPhraseChanges"));
        assertEquals(6, view.getInt("lanes[0].stepNumber"));
        Json proof = stage.proven(unit, "management");
        assertTrue(proof.getBoolean("endpoint.proven"), proof::prettify);
    }
}
