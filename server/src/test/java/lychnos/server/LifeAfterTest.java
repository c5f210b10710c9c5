package lychnos.server;

import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import lychnos.lab.MachineSpec;
import lychnos.server.http.Json;
import lychnos.server.text.HandoverText;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Units that were in use: retired, or with another machine in the place of one. */
@QuarkusTest
class LifeAfterTest extends ProvenMachine {

    private Client lead;

    @BeforeEach
    void sign() {
        lead = Client.lead();
        lead.post("/api/bring-ups/" + id + "/signatures", Map.of("units", List.of(Map.of("unit", unit))))
                .statusCode(200);
    }

    @Override
    List<MachineSpec> machines() {
        return List.of(super.machines().get(0), MachineSpec.of(otherSerial(), otherMac(), at(11)));
    }

    private String otherSerial() {
        return "PW-" + net;
    }

    private String otherMac() {
        return "02:4c:59:c2:00:%02x".formatted(net);
    }

    private Json handover() {
        return client.get("/api/bring-ups/" + id + "/handover");
    }

    private void chainHolds() {
        assertEquals(
                List.of(),
                lead.post("/api/chain/verifications", Map.of()).json().getList("breaks"));
    }

    @Tag("wording")
    @Test
    void aRetiredUnitLeavesItsRecordAndWhatItBoreIsFree() {
        client.post("/api/units/" + unit + "/retirement", Map.of("why", "sold")).statusCode(403);
        lead.post("/api/units/" + unit + "/retirement", Map.of("why", "  "))
                .statusCode(400)
                .body("faults[0].field", equalTo("why"));
        lead.post("/api/units/" + unit + "/retirement", Map.of("why", "its lease ran out"))
                .statusCode(204);
        lead.post("/api/units/" + unit + "/retirement", Map.of("why", "again")).statusCode(404);
        Json after = handover();
        assertEquals(List.of(), after.getList("units"));
        assertEquals(List.of(), after.getList("lines"));
        assertEquals(serial(), after.getString("retired[0].serial"));
        assertEquals("its lease ran out", after.getString("retired[0].why"));
        assertEquals("Hall lead", after.getString("retired[0].by"));
        chainHolds();
        Json record = client.get("/api/bring-ups/" + id + "/records");
        assertEquals(1, record.getList("$").size());
        assertEquals("retired: its lease ran out", record.getString("[0].endedWhy"));
        assertTrue(record.getString("[0].body").contains(serial()));
        // the address is held back meanwhile
        assertEquals(
                List.of(at(101)), client.get("/api/bring-ups/" + id + "/ribbon").getList("cooling"));
        assertEquals(List.of(), client.get("/api/bring-ups/" + id + "/prove").getList("endpoints"));
        // the same machine, in the same place
        client.labels(
                        id,
                        "serial,mac,rack position,model,first address\n%s,%s,R1 u1,C4,%s\n"
                                .formatted(serial(), mac(), at(10)),
                        false)
                .statusCode(200)
                .body("taken[0].change", equalTo("new"));
        assertEquals(at(102), client.get("/api/bring-ups/" + id + "/proposal").getString("lines[0].address"));
        for (String page : List.of("board", "prepare", "configure", "prove", "names")) {
            client.request().get("/api/bring-ups/" + id + "/" + page).statusCode(200);
        }
    }

    private Map<String, Object> other(String serial, String mac) {
        Map<String, Object> body = new HashMap<>(
                Map.of("member", "", "facts", Map.of("serial", serial, "mac", mac), "why", "its board is dead"));
        body.put("firstAddress", at(11));
        return body;
    }

    @Tag("wording")
    @Test
    void anotherMachineTakesItsPlaceUnderItsNameAndAddress() {
        Json parts = client.get("/api/units/" + unit + "/members");
        assertEquals(serial(), parts.getString("[0].facts.serial.value"));
        assertEquals(mac(), parts.getString("[0].facts.mac.value"));
        String path = "/api/units/" + unit + "/replacements";
        client.post(path, other(otherSerial(), otherMac())).statusCode(403);
        lead.post(path, other("", otherMac())).statusCode(400).body("faults[0].field", equalTo("serial"));
        lead.post(path, other(serial(), otherMac()))
                .statusCode(400)
                .body("faults[0].code", equalTo("IS_THE_VALUE_OF_THE_OLD_MACHINE"));
        lead.post(path, other(otherSerial(), "02:4c")).statusCode(400).body("faults[0].field", equalTo("mac"));
        assertEquals("SIGNED", handover().getString("units[0].state"), "nothing was changed by what was refused");
        lead.post(path, other(otherSerial(), otherMac())).statusCode(204);
        Json after = handover();
        assertEquals("BLOCKED", after.getString("units[0].state"));
        assertEquals(otherSerial(), after.getString("lines[0].serial"));
        assertEquals(at(101), after.getString("lines[0].address"));
        assertEquals("", after.getString("lines[0].certificate"));
        assertEquals(1, client.get("/api/bring-ups/" + id + "/configure").getInt("ready"));
        // the old one is pulled; the new one is set up from the beginning
        machine().powerOff();
        client.post("/api/bring-ups/" + id + "/setups", Map.of("width", 1)).statusCode(204);
        ConsoleStage.until("it is set up", () -> client.get("/api/bring-ups/" + id + "/configure")
                .getString("lanes[0].state")
                .equals("DONE"));
        check(null);
        assertTrue(view().getBoolean("endpoints[0].proven"), () -> detail().prettify());
        assertEquals(at(101), hall.machine(otherSerial()).address());
        assertEquals(List.of(), view().getList("changes"), "another certificate is no change: it is another machine");
        lead.post("/api/bring-ups/" + id + "/signatures", Map.of("units", List.of(Map.of("unit", unit))))
                .statusCode(200);
        chainHolds();
        Json records = client.get("/api/bring-ups/" + id + "/records");
        assertEquals(HandoverText.MACHINE_WAS_REPLACED.text("its board is dead"), records.getString("[0].endedWhy"));
        assertTrue(records.getString("[0].body").contains(serial())
                && records.getString("[1].body").contains(otherSerial()));
    }
}
