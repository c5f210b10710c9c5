package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import lychnos.core.text.Texts;
import lychnos.lab.Quirk;
import lychnos.server.http.Json;
import lychnos.server.text.ConfigureText;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What controllers do that they should not, and that a person must decide about. */
@QuarkusTest
class ControllerSurprisesTest extends ConfigureStage {

    @Test
    void whatNeverComesBackIsASurprise() {
        stopsWith(22, Quirk.NEVER_BACK, "server.text.ConfigureText.CONTROLLER_HAS_NOT_COME_BACK_TO_EITHER");
    }

    @Test
    void whatComesBackAtItsOldAddressIsASurprise() {
        stopsWith(32, Quirk.BACK_AT_OLD, "wire.controller.ControllerText.NOT_KEPT");
    }

    @Test
    void anotherCertificateAfterTheMoveIsASurprise() {
        stopsWith(23, Quirk.WRONG_CERTIFICATE, "server.text.ConfigureText.CONTROLLER_SHOWS_ANOTHER_CERTIFICATE");
    }

    @Test
    void garbageIsASurprise() {
        stopsWith(24, Quirk.GARBAGE, "server.text.ConfigureText.ANSWER_CANNOT_BE_READ");
    }

    @Test
    void aSettingThatWasNotKeptIsASurprise() {
        stopsWith(25, Quirk.FORGETS_TIME, "wire.controller.ControllerText.NOT_ALL_ACCEPTED");
    }

    @Test
    void aFactoryPasswordThatStaysIsASurprise() {
        stopsWith(26, Quirk.KEEPS_FACTORY, "core.proof.Trouble.FACTORY_ACCEPTED");
    }

    @Tag("wording")
    @Test
    void aMachineThatCannotBeIdentifiedIsNotWrittenTo() {
        try (Row row = new Row(27, Quirk.PASSWORD_CHANGE_REQUIRED)) {
            row.start(1);
            Json view = row.await("a stop", states -> states.contains("STOPPED"));
            assertTrue(
                    Texts.says("wire.controller.ControllerText.SERIAL_LATER", view.getString("lanes[0].note")),
                    view.getString("lanes[0].note"));
            assertEquals(0, row.machine(0).controller().writes());
        }
    }

    private void vlan(Row row, String vlan) {
        client.request()
                .body(Map.of(
                        "cells", List.of(Map.of("unitId", row.unit(0), "member", "", "name", "vlan", "value", vlan))))
                .put("/api/bring-ups/" + row.id + "/facts")
                .statusCode(200);
    }

    @Test
    void aPortWithAVlanOfItsOwnIsTaggedAndReadBack() {
        try (Row row = new Row(41)) {
            vlan(row, "410");
            row.start(1);
            row.await("done", states -> states.equals(List.of("DONE")));
            assertEquals(410, row.machine(0).controller().vlan());
            Json proof = client.get("/api/units/" + row.unit(0) + "/proof");
            assertEquals(List.of("410"), proof.getList("fields.findAll { it.name == 'VLAN' }.found"), proof::prettify);
        }
    }

    @Tag("wording")
    @Test
    void behindASwitchPortThatCarriesNoTagTheAdviceNamesTheVlan() {
        try (Row row = new Row(42, Quirk.UNTAGGED_SWITCH_PORT)) {
            vlan(row, "420");
            row.start(1);
            Json view = row.await("a stop", states -> states.contains("STOPPED"));
            assertTrue(
                    Texts.says(ConfigureText.CHECK_ITS_VLAN_AND_POWER, view.getString("lanes[0].advice")),
                    view::prettify);
        }
    }

    @Tag("wording")
    @Test
    void aControllerThatShowsNoSerialIsRecognizedByItsMacAlone() {
        try (Row row = new Row(43, Quirk.NO_SERIAL)) {
            row.start(1);
            row.await("done", states -> states.equals(List.of("DONE")));
            Json proof = client.get("/api/units/" + row.unit(0) + "/proof");
            assertTrue(proof.prettify().contains("the controller shows no serial"), proof::prettify);
        }
    }

    @Test
    void aControllerThatIsBusyForAMomentIsTriedAgainWithoutAPerson() {
        try (Row row = new Row(44, Quirk.BUSY_AT_FIRST)) {
            row.start(1);
            Json view = row.await("an end", states -> states.contains("STOPPED") || states.equals(List.of("DONE")));
            assertEquals(List.of("DONE"), view.getList("lanes.state"), view::prettify);
            assertEquals(
                    1, row.machine(0).controller().refusedLogins(), "the factory password, at the end of the ladder");
        }
    }
}
