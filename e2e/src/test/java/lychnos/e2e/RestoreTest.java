package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.Test;

/** A server for real work, as ./lychnos start runs it: backed up while it works, and put back where nothing is. */
class RestoreTest {

    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final String PASSWORD = "lead-of-the-restored-hall";
    private final Path directory = directory();
    private final int port = port();
    private final String url = "http://127.0.0.1:" + port;

    private static Path directory() {
        try {
            return Files.createTempDirectory(Path.of(System.getenv("LYCHNOS_E2E_RUN")), "restore");
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    private static int port() {
        try {
            return Stage.freePort();
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** What a command came to. */
    private record Done(int exit, String said) {}

    private Done lychnos(String data, String... arguments) throws IOException, InterruptedException {
        List<String> command = new ArrayList<>(List.of(ROOT.resolve("lychnos").toString()));
        command.addAll(List.of(arguments));
        Path said = directory.resolve("said");
        ProcessBuilder builder =
                new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(said.toFile());
        builder.environment().put("LYCHNOS_DATA", directory.resolve(data).toString());
        builder.environment().put("LYCHNOS_HTTP_PORT", String.valueOf(port));
        builder.environment().keySet().removeIf(name -> name.startsWith("QUARKUS_") || name.equals("LYCHNOS_INSIDE"));
        Process process = builder.start();
        assertTrue(process.waitFor(150, TimeUnit.SECONDS), () -> String.join(" ", arguments) + " does not end");
        return new Done(process.exitValue(), Files.readString(said));
    }

    private void well(String data, String... arguments) throws IOException, InterruptedException {
        Done done = lychnos(data, arguments);
        assertEquals(0, done.exit, done.said);
    }

    @Test
    void aBackupIsPutBackWhereNothingIsAndTheRecordHolds() throws Exception {
        Files.setPosixFilePermissions(directory, java.nio.file.attribute.PosixFilePermissions.fromString("rwxr-xr-x"));
        well("one", "start");
        String backup = directory.resolve("backup").toString();
        String key = Files.createDirectory(directory.resolve("elsewhere"))
                .resolve("key")
                .toString();
        String words = Files.writeString(directory.resolve("words"), "three lanterns over a rack\n")
                .toString();
        JsonNode chain;
        try {
            Api lead = firstLead();
            ObjectNode bringUp = Api.JSON
                    .createObjectNode()
                    .put("name", "Row B")
                    .put("siteCode", "ard")
                    .put("siteName", "Ardal");
            bringUp.putArray("positions");
            lead.ask(url, "POST", "/api/bring-ups", bringUp);
            assertEquals(
                    200,
                    lead.text(url, "/api/bring-ups/1/labels", Files.readString(Machines.labels()))
                            .statusCode());
            long unit = lead.ask(
                            url,
                            "POST",
                            "/api/bring-ups/1/units",
                            Api.JSON
                                    .createObjectNode()
                                    .put("kind", "backup-store")
                                    .put("count", 1)
                                    .put("members", 2))
                    .path(0)
                    .asLong();
            ObjectNode cells = Api.JSON.createObjectNode();
            cells.putArray("cells")
                    .addObject()
                    .put("unitId", unit)
                    .put("member", "node 1")
                    .put("name", "controller-password")
                    .put("value", "read-from-its-tag");
            assertEquals(
                    1,
                    lead.ask(url, "PUT", "/api/bring-ups/1/facts", cells)
                            .path("changed")
                            .asInt());
            refused("one", "the server runs", "rotate-key");
            refused(
                    "one",
                    "must be in another directory",
                    "backup",
                    backup,
                    "--key",
                    backup + ".key",
                    "--passphrase-file",
                    words);
            refused(
                    "one",
                    "at least 16 characters",
                    "backup",
                    backup,
                    "--key",
                    key,
                    "--passphrase-file",
                    Files.writeString(directory.resolve("short"), "short").toString());
            well("one", "backup", backup, "--key", key, "--passphrase-file", words);
            assertFalse(
                    new String(Files.readAllBytes(Path.of(backup)), java.nio.charset.StandardCharsets.ISO_8859_1)
                            .contains("PGDMP"),
                    "the dump itself is nowhere in it");
            chain = verified(lead);
            // what happens from here on is not in the backup
            bringUp.put("name", "Row C");
            lead.ask(url, "POST", "/api/bring-ups", bringUp);
            refused("one", "is there already", "backup", backup, "--key", key, "--passphrase-file", words);
            refused("one", "nothing is restored over it", "restore", backup, "--key", key, "--passphrase-file", words);
            accounts(lead);
        } finally {
            well("one", "stop");
        }
        String sealedWith = Files.readString(directory.resolve("one/seal.key"));
        well("one", "rotate-key");
        assertFalse(
                Files.readString(directory.resolve("one/seal.key")).contains(sealedWith.strip()),
                "the earlier key is gone");
        refused("one", "nothing is restored over it", "restore", backup, "--key", key, "--passphrase-file", words);
        String labels = Files.writeString(directory.resolve("labels"), Files.readString(Machines.labels()))
                .toString();
        refused("two", "could not be opened", "restore", labels, "--key", key, "--passphrase-file", words);
        refused(
                "two",
                "could not be opened",
                "restore",
                backup,
                "--key",
                key,
                "--passphrase-file",
                Files.writeString(directory.resolve("others"), "other words than those")
                        .toString());
        refused("two", "its key is missing", "restore", backup, "--key", key + ".away", "--passphrase-file", words);
        refused(
                "two",
                "could not be opened",
                "restore",
                Files.write(directory.resolve("half"), halfOf(backup)).toString(),
                "--key",
                key,
                "--passphrase-file",
                words);
        assertFalse(
                Files.exists(directory.resolve("two").resolve("pg")), "half a database would be taken for a whole one");
        well("two", "restore", backup, "--key", key, "--passphrase-file", words);
        well("two", "start");
        try {
            Api lead = new Api(url, "first", PASSWORD);
            assertEquals(1, lead.ask(url, "GET", "/api/bring-ups", null).size());
            assertEquals(
                    13,
                    lead.ask(url, "GET", "/api/bring-ups/1/prepare", null)
                            .path("units")
                            .size());
            assertTrue(
                    verified(lead).path("links").asLong() > chain.path("links").asLong(), "signing in is an entry too");
            assertEquals(
                    chain.path("last").asText(),
                    psql("select digest from chain_link where number = "
                                    + chain.path("links").asLong())
                            .strip(),
                    "the chain goes on from where the backup was made");
            theServerOwnsNothing();
            theChainIsHeldToWhatWasSeen(lead);
        } finally {
            well("two", "stop");
        }
    }

    /**
     * What was restored belonged to the superuser, as everything did in earlier versions: it was handed over when the
     * server started.
     */
    private void theServerOwnsNothing() throws IOException, InterruptedException {
        assertEquals(
                "0",
                psql("select count(*) from pg_class c where relnamespace = 'public'::regnamespace and relkind in "
                                + "('r', 'S') and relowner <> 'lychnos_owner'::regrole")
                        .strip());
        assertEquals(
                "f",
                psql("select rolsuper from pg_roles where rolname = 'lychnos_app'")
                        .strip());
        for (String harm : List.of(
                "drop trigger journal_is_kept on journal",
                "alter table chain_link disable trigger all",
                "update journal set act = 'nothing'",
                "delete from chain_link",
                "delete from record",
                "delete from signed_unit",
                "create table mine (id int)",
                "update flyway_schema_history set success = false")) {
            assertTrue(psql("set role lychnos_app; " + harm).contains("ERROR"), harm);
        }
    }

    /** Somebody who can write the whole database changes an entry, and has the chain computed again from before it. */
    private void theChainIsHeldToWhatWasSeen(Api lead) throws IOException, InterruptedException {
        assertTrue(Files.exists(directory.resolve("two/chain.head")));
        psql("alter table journal disable trigger all; update journal set act = 'nothing' where id = (select ref "
                + "from chain_link where number = 3); alter table journal enable trigger all; "
                + "alter table chain_link disable trigger all; delete from chain_link where number > 1; "
                + "alter table chain_link enable trigger all");
        JsonNode looked = lead.ask(url, "POST", "/api/chain/verifications", Api.JSON.createObjectNode());
        assertTrue(looked.path("breaks").toString().contains("has seen another link"), looked::toString);
    }

    private String psql(String sql) throws IOException, InterruptedException {
        Path data = directory.resolve("two");
        ProcessBuilder builder = new ProcessBuilder(
                        System.getenv("PSQL"),
                        "-X",
                        "-q",
                        "-t",
                        "-A",
                        "-h",
                        "127.0.0.1",
                        "-p",
                        Files.readAllLines(data.resolve("pg/postmaster.pid")).get(3),
                        "-U",
                        "lychnos",
                        "-d",
                        "lychnos",
                        "-c",
                        sql)
                .redirectErrorStream(true);
        builder.environment().put("PGPASSWORD", Files.readString(data.resolve("pg.password")));
        Process process = builder.start();
        String said = new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8);
        process.waitFor();
        return said;
    }

    /** Accounts from the command line: a link that works once, and an end at once. */
    private void accounts(Api lead) throws IOException, InterruptedException {
        Done added = lychnos("one", "account", "add", "kari", "Kari at the rack", "engineer");
        assertEquals(0, added.exit, added.said);
        String token = added.said.replaceAll("(?s).*/invite#(\\S+).*", "$1");
        ObjectNode accepted =
                Api.JSON.createObjectNode().put("token", token).put("password", "lantern over the third rack");
        HttpResponse<String> set = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(url + "/api/invitation/password"))
                                .header("Content-Type", "application/json")
                                .POST(HttpRequest.BodyPublishers.ofString(accepted.toString()))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertEquals(204, set.statusCode(), set.body());
        Api kari = new Api(url, "kari", "lantern over the third rack");
        assertEquals(
                "engineer",
                kari.ask(url, "GET", "/api/session", null).path("role").asText());
        // nothing was allowed to be reached, and the answer says how that is set
        ObjectNode network = Api.JSON
                .createObjectNode()
                .put("name", "Management")
                .put("prefix", "10.40.8.0/24")
                .put("gateway", "10.40.8.1")
                .put("domain", "ardal.example");
        network.putArray("nameServers");
        network.putArray("timeServers");
        network.putArray("ranges");
        assertTrue(assertThrows(IOException.class, () -> kari.ask(url, "PUT", "/api/bring-ups/1/network", network))
                .getMessage()
                .contains("--reach"));
        refused("one", "is an account", "account", "add", "kari", "Kari", "viewer");
        refused("one", "only lead", "account", "disable", "first");
        well("one", "account", "disable", "kari");
        assertThrows(IOException.class, () -> kari.ask(url, "GET", "/api/session", null));
        assertTrue(lychnos("one", "account", "list").said.contains("disabled"));
        well("one", "account", "reset-password", "first");
    }

    private void refused(String data, String because, String... arguments) throws IOException, InterruptedException {
        Done done = lychnos(data, arguments);
        assertTrue(done.exit != 0 && done.said.contains(because), done.said);
    }

    private static byte[] halfOf(String backup) throws IOException {
        byte[] all = Files.readAllBytes(Path.of(backup));
        return java.util.Arrays.copyOf(all, all.length / 2);
    }

    private JsonNode verified(Api lead) throws IOException, InterruptedException {
        JsonNode chain = lead.ask(url, "POST", "/api/chain/verifications", Api.JSON.createObjectNode());
        assertEquals(0, chain.path("breaks").size(), chain::toString);
        assertTrue(chain.path("links").asInt() > 1, chain::toString);
        return chain;
    }

    /** Sets the first lead's password with the code that the server has written down. */
    private Api firstLead() throws IOException, InterruptedException {
        ObjectNode first = Api.JSON
                .createObjectNode()
                .put(
                        "code",
                        Files.readString(directory.resolve("one/first-lead.code"))
                                .strip())
                .put("login", "first")
                .put("name", "First lead")
                .put("password", PASSWORD);
        HttpResponse<String> answer = HttpClient.newHttpClient()
                .send(
                        HttpRequest.newBuilder(URI.create(url + "/api/first-lead"))
                                .header("Content-Type", "application/json")
                                .POST(HttpRequest.BodyPublishers.ofString(first.toString()))
                                .build(),
                        HttpResponse.BodyHandlers.ofString());
        assertTrue(answer.statusCode() < 300, answer.body());
        return new Api(url, "first", PASSWORD);
    }
}
