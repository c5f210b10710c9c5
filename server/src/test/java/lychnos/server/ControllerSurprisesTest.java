package lychnos.server;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.List;
import java.util.Map;
import lychnos.lab.Quirk;
import lychnos.server.http.Json;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** What controllers do that they should not, and that a person must decide about. */
@QuarkusTest
class ControllerSurprisesTest extends ConfigureStage {

    @Tag("wording")
    @Test
    void whatNeverComesBackIsASurprise() {
        stopsWith(22, Quirk.NEVER_BACK, "This controller has not come back: silent at 127.40.22.101");
    }

    @Tag("wording")
    @Test
    void whatComesBackAtItsOldAddressIsASurprise() {
        stopsWith(
                32,
                Quirk.BACK_AT_OLD,
                "The controller answers at its old address 127.40.32.10 instead of 127.40.32.101: ");
    }

    @Tag("wording")
    @Test
    void anotherCertificateAfterTheMoveIsASurprise() {
        stopsWith(23, Quirk.WRONG_CERTIFICATE, "This controller shows another certificate");
    }

    @Tag("wording")
    @Test
    void garbageIsASurprise() {
        stopsWith(24, Quirk.GARBAGE, "the controller sent an answer that cannot be read");
    }

    @Tag("wording")
    @Test
    void aSettingThatWasNotKeptIsASurprise() {
        stopsWith(25, Quirk.FORGETS_TIME, "time servers is empty, planned 127.40.8.6");
    }

    @Tag("wording")
    @Test
    void aFactoryPasswordThatStaysIsASurprise() {
        stopsWith(26, Quirk.KEEPS_FACTORY, "The factory password still works.");
    }

    @Tag("wording")
    @Test
    void aMachineThatCannotBeIdentifiedIsNotWrittenTo() {
        try (Row row = new Row(27, Quirk.PASSWORD_CHANGE_REQUIRED)) {
            row.start(1);
            Json view = row.await("a stop", states -> states.contains("STOPPED"));
            assertTrue(
                    view.getString("lanes[0].note").contains("cannot be seen from here"),
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
                    view.getString("lanes[0].advice").contains("switch port carries VLAN 420 tagged"), view::prettify);
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
