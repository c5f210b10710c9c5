package lychnos.server;

import static org.hamcrest.Matchers.containsString;
import static org.hamcrest.Matchers.equalTo;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.quarkus.test.junit.QuarkusTest;
import jakarta.inject.Inject;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.BooleanSupplier;
import lychnos.core.address.Address;
import lychnos.core.fact.Secret;
import lychnos.core.text.Texts;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/** Units that need several addresses, and the names of them at a real name server. */
@QuarkusTest
class NeedsTest {

    private static final Address PRIMARY = Address.parse("10.40.8.3");

    @Inject
    Vantage vantage;

    private Client client;
    private long id;

    @BeforeEach
    void begin() {
        client = Client.engineer();
        id = client.bringUp();
        client.network(id, Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.100-199"));
    }

    private int announce(String kind, int members) {
        return client.post("/api/bring-ups/" + id + "/units", Map.of("kind", kind, "count", 1, "members", members))
                .statusCode(200)
                .json()
                .getInt("[0]");
    }

    private void dataNetwork() {
        Map<String, Object> network = Client.network("10.40.16.0/24", "", "pool 10.40.16.100-150");
        network.putAll(Map.of("purpose", "storage-data", "mtu", 9000, "vlan", 416));
        client.request().body(network).put("/api/bring-ups/" + id + "/networks").statusCode(204);
    }

    private Json fits(int unit, String at) {
        return client.get("/api/bring-ups/" + id + "/fits?unit=" + unit + (at == null ? "" : "&at=" + at));
    }

    private Response take(Json fits) {
        return client.post(
                "/api/bring-ups/" + id + "/allocations",
                Map.of("lines", fits.getList("fits[0].lines"), "growth", fits.getList("fits[0].growth")));
    }

    @Tag("wording")
    @Test
    void aStoreIsPlacedInOneRunWithRoomToGrow() {
        int store = announce("backup-store", 2);
        Json fits = fits(store, null);
        assertEquals("10.40.8.100", fits.getString("fits[0].lines[0].address"));
        assertEquals("10.40.8.107-10.40.8.112", fits.getString("fits[0].growth[0].run"));
        assertTrue(fits.<String>getList("fits[0].reasons").stream()
                .anyMatch(reason -> Texts.says("core.place.PlaceText.STARTS_ON_A_TEN", reason)));
        take(fits).statusCode(200);
        Json ribbon = client.get("/api/bring-ups/" + id + "/ribbon");
        assertEquals(7, ribbon.getList("seats").size());
        assertEquals(
                List.of("growth"),
                ribbon.getList("strips.purpose").stream()
                        .filter("growth"::equals)
                        .toList());
        int second = announce("backup-store", 1);
        assertEquals(
                "10.40.8.120",
                fits(second, null).getString("fits[0].lines[0].address"),
                "growth is not given to others");
    }

    @Test
    void anArrayIsPlacedInTwoNetworksOrNotAtAll() {
        int array = announce("block-array", 2);
        assertTrue(fits(array, null).getString("fault").contains("storage data"));
        dataNetwork();
        Json fits = fits(array, null);
        assertEquals(8, fits.getList("fits[0].lines").size());
        List<Map<String, Object>> half = new ArrayList<>(fits.getList("fits[0].lines"));
        half.remove(7);
        client.post("/api/bring-ups/" + id + "/allocations", Map.of("lines", half))
                .statusCode(400)
                .body("detail", containsString("lower 2"));
        take(fits).statusCode(200);
        assertEquals(
                "10.40.16.100",
                client.get("/api/bring-ups/" + id + "/prepare")
                        .getString("site.networks.find { it.purpose == 'storage-data' }.ranges[0].run")
                        .split("-")[0]);
        assertEquals(
                17,
                client.get("/api/bring-ups/" + id + "/names").getInt("planned"),
                "a name and a way back for each, and one alias");
    }

    @Test
    void aChassisGetsTheSameHostNumbersInIpv6() {
        Map<String, Object> six =
                Client.network("fd40:a4da:1:8::/64", "fd40:a4da:1:8::1", "pool fd40:a4da:1:8::10-fd40:a4da:1:8::ff");
        client.request().body(six).put("/api/bring-ups/" + id + "/networks").statusCode(204);
        Json fits = fits(announce("blade-chassis", 2), null);
        List<String> addresses = fits.getList("fits[0].lines.address");
        assertEquals(6, addresses.size());
        assertEquals(
                "fd40:a4da:1:8::"
                        + Integer.toHexString(Integer.parseInt(addresses.get(0).substring(8))),
                addresses.get(3));
        take(fits).statusCode(200);
    }

    @Tag("wording")
    @Test
    void aPlaceThatWasPointedAtIsTakenOrRefusedWithItsReason() {
        int pair = announce("interconnect-pair", 2);
        assertEquals("10.40.8.130", fits(pair, "10.40.8.130").getString("fits[0].lines[0].address"));
        assertTrue(Texts.says(
                "core.place.PlaceText.WRONG_START", fits(pair, "10.40.8.131").getString("fault")));
        assertTrue(Texts.says(
                "core.place.PlaceText.NOT_FREE", fits(pair, "10.40.8.198").getString("fault")));
        client.request()
                .get("/api/bring-ups/" + id + "/fits?unit=" + pair + "&at=10.40.8")
                .statusCode(400)
                .body("faults[0].field", equalTo("at"));
    }

    private Response existing(String text, boolean preview) {
        return lychnos.server.http.Request.given()
                .cookie("lychnos", client.cookie())
                .contentType("text/plain; charset=UTF-8")
                .body(text)
                .post("/api/bring-ups/" + id + "/address-imports?preview=" + preview);
    }

    @Tag("wording")
    @Test
    void whatIsInUseAlreadyIsBroughtInAndNotGivenOut() {
        int pair = announce("interconnect-pair", 2);
        String hosts = "10.40.8.100 printer.ardal.example\n10.44.1.1 elsewhere\n10.40.8.1000 wrong\n";
        existing(hosts, true)
                .statusCode(200)
                .body("fresh.address", equalTo(List.of("10.40.8.100")))
                .body("elsewhere", equalTo(1))
                .body("faults[0].line", equalTo(3));
        assertEquals(
                "10.40.8.100",
                client.get("/api/bring-ups/" + id + "/proposal").getString("lines[0].address"),
                "a preview changes nothing");
        existing(hosts, false).statusCode(200);
        assertEquals(
                "10.40.8.102", client.get("/api/bring-ups/" + id + "/proposal").getString("lines[0].address"));
        assertEquals(
                "is printer.ardal.example, says a hosts file",
                client.get("/api/bring-ups/" + id + "/ribbon").getString("unknownDevices[0].sentence"));
        client.post("/api/bring-ups/" + id + "/address-imports/forget", Map.of("addresses", List.of("10.40.8.100")))
                .statusCode(204);
        assertEquals("10.40.8.100", fits(pair, "10.40.8.100").getString("fits[0].lines[0].address"));
    }

    @Tag("wording")
    @Test
    @EnabledIfEnvironmentVariable(
            named = "LYCHNOS_TEST_NAME_KEY",
            matches = ".+",
            disabledReason = "the hall's name servers run only in ./lychnos test")
    void aWholeZoneIsBroughtIn() {
        client.post("/api/bring-ups/" + id + "/address-imports/transfer", Map.of())
                .statusCode(409)
                .body("code", equalTo("NO_DOMAIN_WITH_A_PRIMARY_NAME_SERVER"));
        domain(System.getenv("LYCHNOS_TEST_NAME_KEY"));
        List<String> found = client.post("/api/bring-ups/" + id + "/address-imports/transfer?preview=true", Map.of())
                .statusCode(200)
                .json()
                .getList("fresh.name");
        assertTrue(found.contains("ns1.ardal.example") && found.contains("relay.ardal.example"), found.toString());
    }

    @Tag("wording")
    @Test
    void releasedAddressesCoolOff() {
        int pair = announce("interconnect-pair", 2);
        take(fits(pair, "10.40.8.130")).statusCode(200);
        client.post("/api/units/" + pair + "/release", Map.of()).statusCode(204);
        assertEquals(
                List.of("10.40.8.130", "10.40.8.131", "10.40.8.132"),
                client.get("/api/bring-ups/" + id + "/ribbon").getList("cooling"));
        assertTrue(Texts.says(
                "core.place.PlaceText.NOT_FREE", fits(pair, "10.40.8.130").getString("fault")));
        client.post("/api/units/" + pair + "/release", Map.of()).statusCode(409);
    }

    @Test
    void manyUnitsArePlacedAndTakenAndUndoneInOne() {
        client.post("/api/bring-ups/" + id + "/units", Map.of("kind", "interconnect-pair", "count", 30, "members", 2))
                .statusCode(200);
        Json proposal = client.get("/api/bring-ups/" + id + "/proposal");
        assertEquals(75, proposal.getList("lines").size(), "25 pairs begin at even addresses among a hundred");
        assertEquals(5, proposal.getList("unplaced").size());
        String taking = client.post("/api/bring-ups/" + id + "/allocations", Map.of("lines", proposal.getList("lines")))
                .statusCode(200)
                .json()
                .getString("allocation");
        client.post("/api/bring-ups/" + id + "/allocations/" + taking + "/undo", Map.of())
                .statusCode(204);
        assertEquals(
                0,
                client.get("/api/bring-ups/" + id + "/ribbon").getList("seats").size());
        assertEquals(
                0,
                client.get("/api/bring-ups/" + id + "/ribbon")
                        .getList("cooling")
                        .size(),
                "nobody was told, so nothing has to cool");
    }

    private void domain(String key) {
        Map<String, String> values = new HashMap<>(Map.of(
                "primary", PRIMARY.toString(), "key-name", System.getenv("LYCHNOS_TEST_NAME_KEY_NAME"), "key", key));
        values.put("reverse-zones", "8.40.10.in-addr.arpa");
        Client.lead()
                .request()
                .body(Map.of("sort", "domain", "name", "ardal.example", "values", values))
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(200);
    }

    private Json names() {
        return client.get("/api/bring-ups/" + id + "/names");
    }

    private static void until(String what, BooleanSupplier holds) {
        long end = System.nanoTime() + Duration.ofSeconds(30).toNanos();
        while (!holds.getAsBoolean()) {
            assertTrue(System.nanoTime() < end, what);
            java.util.concurrent.locks.LockSupport.parkNanos(50_000_000);
        }
    }

    private List<String> resolve(String name) {
        try {
            return vantage.resolve(PRIMARY, name, "A", Duration.ofSeconds(2));
        } catch (WireFault e) {
            throw new IllegalStateException(e);
        }
    }

    @Test
    @EnabledIfEnvironmentVariable(
            named = "LYCHNOS_TEST_NAME_KEY",
            matches = ".+",
            disabledReason = "the hall's name servers run only in ./lychnos test")
    void namesAreMadeAtTheNameServerAndWithdrawnAgain() {
        domain(System.getenv("LYCHNOS_TEST_NAME_KEY"));
        int pair = announce("interconnect-pair", 2);
        Json fits = fits(pair, "10.40.8.180");
        String name = fits.getString("fits[0].lines[0].fqdn");
        take(fits).statusCode(200);
        client.post("/api/bring-ups/" + id + "/record-pushes", Map.of()).statusCode(200);
        until("six records are made", () -> names().getInt("made") == 6);
        assertEquals(List.of("10.40.8.180"), resolve(name));
        client.post("/api/units/" + pair + "/release", Map.of()).statusCode(204);
        until("they are withdrawn", () -> resolve(name).isEmpty());
    }

    @Test
    @EnabledIfEnvironmentVariable(
            named = "LYCHNOS_TEST_NAME_KEY",
            matches = ".+",
            disabledReason = "the hall's name servers run only in ./lychnos test")
    void aRefusedUpdateSaysWhyAndCanBeSentAgain() {
        domain("AAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAAA=");
        int pair = announce("interconnect-pair", 2);
        take(fits(pair, "10.40.8.190")).statusCode(200);
        client.post("/api/bring-ups/" + id + "/record-pushes", Map.of()).statusCode(200);
        until("six are refused", () -> names().getInt("refused") == 6);
        assertTrue(names().getString("open[0].answer").contains("BADSIG"), names().getString("open[0].answer"));
        Integer thing =
                client.get("/api/bring-ups/" + id + "/prepare").getInt("siteResources.find { it.sort == 'domain' }.id");
        Map<String, Object> right = Map.of(
                "id",
                thing,
                "sort",
                "domain",
                "name",
                "ardal.example",
                "values",
                Map.of(
                        "primary",
                        PRIMARY.toString(),
                        "key-name",
                        System.getenv("LYCHNOS_TEST_NAME_KEY_NAME"),
                        "key",
                        System.getenv("LYCHNOS_TEST_NAME_KEY"),
                        "reverse-zones",
                        "8.40.10.in-addr.arpa"));
        Client.lead()
                .request()
                .body(right)
                .put("/api/bring-ups/" + id + "/site-resources")
                .statusCode(200);
        client.post("/api/bring-ups/" + id + "/record-pushes", Map.of()).statusCode(200);
        until("six are made", () -> names().getInt("made") == 6);
        client.post("/api/units/" + pair + "/release", Map.of()).statusCode(204);
    }

    @Tag("wording")
    @Test
    @EnabledIfEnvironmentVariable(
            named = "LYCHNOS_TEST_NAME_KEY",
            matches = ".+",
            disabledReason = "the hall's servers run only in ./lychnos test")
    void aNameThatLeadsElsewhereAndAnAddressThatIsNamedAreTold() throws WireFault {
        Map<String, Object> network = Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.100-199");
        network.put("nameServers", List.of(PRIMARY.toString()));
        client.network(id, network);
        domain(System.getenv("LYCHNOS_TEST_NAME_KEY"));
        NameKey key = new NameKey(
                System.getenv("LYCHNOS_TEST_NAME_KEY_NAME"), Secret.of(System.getenv("LYCHNOS_TEST_NAME_KEY")));
        int pair = announce("interconnect-pair", 2);
        Json fits = fits(pair, "10.40.8.170");
        ZoneRecord theirs = new ZoneRecord(fits.getString("fits[0].lines[0].fqdn"), "A", "10.40.8.77");
        ZoneRecord reverse = new ZoneRecord("176.8.40.10.in-addr.arpa", "PTR", "scanner.ardal.example");
        vantage.makeRecords(PRIMARY, "ardal.example", key, List.of(theirs), Duration.ofSeconds(3));
        vantage.makeRecords(PRIMARY, "8.40.10.in-addr.arpa", key, List.of(reverse), Duration.ofSeconds(3));
        take(fits(pair, "10.40.8.176")).statusCode(409).body("code", equalTo("UNKNOWN_DEVICE_USES_THIS_ADDRESS"));
        take(fits).statusCode(200);
        client.post("/api/bring-ups/" + id + "/measure", Map.of()).statusCode(204);
        until("the other record is told", () -> client.get("/api/bring-ups/" + id + "/prepare")
                .getList("site.findings.code")
                .contains("record-disagrees"));
        vantage.removeRecords(PRIMARY, "ardal.example", key, List.of(theirs), Duration.ofSeconds(3));
        vantage.removeRecords(PRIMARY, "8.40.10.in-addr.arpa", key, List.of(reverse), Duration.ofSeconds(3));
        client.post("/api/units/" + pair + "/release", Map.of()).statusCode(204);
    }

    @Test
    @EnabledIfEnvironmentVariable(
            named = "LYCHNOS_TEST_NAME_KEY",
            matches = ".+",
            disabledReason = "the hall's servers run only in ./lychnos test")
    void servicesAreMeasuredWhenSomebodyLooks() {
        Map<String, Object> network = Client.network("10.40.8.0/24", "10.40.8.1", "pool 10.40.8.100-199");
        network.put("nameServers", List.of("10.40.8.3", "10.40.8.4"));
        network.put("timeServers", List.of("10.40.8.6", "10.40.8.7", "10.40.8.9", "10.40.8.8"));
        client.network(id, network);
        domain(System.getenv("LYCHNOS_TEST_NAME_KEY"));
        client.post("/api/bring-ups/" + id + "/measure", Map.of()).statusCode(204);
        until("the lying clock is named", () -> client.get("/api/bring-ups/" + id + "/prepare")
                .getList("site.findings.code")
                .contains("time-server-lies"));
        Json sheet = client.get("/api/bring-ups/" + id + "/prepare");
        assertEquals("FINE", sheet.getString("services.find { it.address == '10.40.8.1' }.state"));
        assertEquals(
                "accepted",
                sheet.getString("services.find { it.address == '10.40.8.3' }.detail['update ardal.example']"));
        assertEquals("LIES", sheet.getString("services.find { it.address == '10.40.8.9' }.state"));
        Map<String, Object> fix = sheet.getMap("site.findings.find { it.code == 'time-server-lies' }.fix");
        client.post("/api/bring-ups/" + id + "/fixes", fix).statusCode(204);
        assertEquals(
                List.of("10.40.8.6", "10.40.8.7", "10.40.8.8"),
                client.get("/api/bring-ups/" + id + "/prepare").getList("site.network.timeServers"));
    }

    @Tag("wording")
    @Test
    void theSameAddressesMayLieInARealmOfTheirOwn() {
        assertEquals(
                "management", client.get("/api/bring-ups/" + id + "/prepare").getString("site.network.realm"));
        Map<String, Object> twin = Client.network("10.40.8.0/25", "", "pool 10.40.8.100-110");
        twin.put("purpose", "service-port");
        client.request()
                .body(twin)
                .put("/api/bring-ups/" + id + "/networks")
                .statusCode(400)
                .body("faults[0].code", equalTo("OVERLAPS_AN_EXISTING_NETWORK_IN_THE_REALM"));
        twin.put("realm", "bench");
        // one bring-up never takes the same address from two networks
        client.request()
                .body(twin)
                .put("/api/bring-ups/" + id + "/networks")
                .statusCode(400)
                .body("faults[0].code", equalTo("OVERLAPS_A_NETWORK_IN_USE"));
        long other = client.bringUpBeside(id);
        client.request().body(twin).put("/api/bring-ups/" + other + "/networks").statusCode(204);
        assertTrue(client.get("/api/bring-ups/" + id + "/prepare").getList("site.findings.code").stream()
                .noneMatch("networks-overlap"::equals));
    }
}
