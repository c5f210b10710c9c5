package lychnos.e2e;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.net.ServerSocket;
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
        try (ServerSocket free = new ServerSocket(0)) {
            return free.getLocalPort();
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
        ProcessBuilder builder = new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(said.toFile());
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
        JsonNode chain;
        try {
            Api lead = firstLead();
            ObjectNode bringUp = Api.JSON.createObjectNode().put("name", "Row B").put("siteCode", "ard").put("siteName", "Ardal");
            bringUp.putArray("positions");
            lead.ask(url, "POST", "/api/bring-ups", bringUp);
            assertEquals(200, lead.text(url, "/api/bring-ups/1/labels", Files.readString(Machines.labels())).statusCode());
            well("one", "backup", backup);
            chain = verified(lead);
            // what happens from here on is not in the backup
            bringUp.put("name", "Row C");
            lead.ask(url, "POST", "/api/bring-ups", bringUp);
            refused("one", "is there already", "backup", backup);
            refused("one", "nothing is restored over it", "restore", backup);
        } finally {
            well("one", "stop");
        }
        refused("one", "nothing is restored over it", "restore", backup);
        refused("two", "is no backup", "restore", keyed("labels", Files.readString(Machines.labels())));
        Path key = Path.of(backup + ".key");
        Path away = Files.move(key, directory.resolve("away"));
        refused("two", "its key is missing", "restore", backup);
        Files.move(away, key);
        refused("two", "could not be restored", "restore", keyed("half", halfOf(backup)));
        assertFalse(Files.exists(directory.resolve("two").resolve("pg")), "half a database would be taken for a whole one");
        well("two", "restore", backup);
        well("two", "start");
        try {
            Api lead = new Api(url, "first", PASSWORD);
            assertEquals(1, lead.ask(url, "GET", "/api/bring-ups", null).size());
            assertEquals(12, lead.ask(url, "GET", "/api/bring-ups/1/prepare", null).path("units").size());
            assertEquals(chain, verified(lead));
        } finally {
            well("two", "stop");
        }
    }

    private void refused(String data, String because, String... arguments) throws IOException, InterruptedException {
        Done done = lychnos(data, arguments);
        assertTrue(done.exit != 0 && done.said.contains(because), done.said);
    }

    /** A file with a key beside it. */
    private String keyed(String name, Object content) throws IOException {
        Path file = directory.resolve(name);
        Files.write(file, content instanceof byte[] bytes ? bytes : content.toString().getBytes(java.nio.charset.StandardCharsets.UTF_8));
        Files.writeString(directory.resolve(name + ".key"), "");
        return file.toString();
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
        ObjectNode first = Api.JSON.createObjectNode().put("code", Files.readString(directory.resolve("one/first-lead.code")).strip()).put("login", "first").put("name", "First lead").put("password", PASSWORD);
        HttpResponse<String> answer = HttpClient.newHttpClient().send(HttpRequest.newBuilder(URI.create(url + "/api/first-lead")).header("Content-Type", "application/json").POST(HttpRequest.BodyPublishers.ofString(first.toString())).build(), HttpResponse.BodyHandlers.ofString());
        assertTrue(answer.statusCode() < 300, answer.body());
        return new Api(url, "first", PASSWORD);
    }
}
