package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ArrayNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.time.LocalDate;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * The core of the demo hall: units of every kind, some known and placed, some with facts missing, some that would go
 * wrong.
 */
final class CoreStory {

    private static final ObjectMapper JSON = new ObjectMapper();

    /** Allocated already; the others wait for the visitor of the demo. */
    private static final List<String> PLACED = List.of(
            "ard-fic-1",
            "ard-fic-2",
            "ard-blk-1",
            "ard-bch-1",
            "ard-iog-1",
            "ard-hv-01",
            "ard-fdc-1",
            "ard-fil-1",
            "ard-srh-001-oob",
            "ard-air-1",
            "ard-idx-1",
            "ard-obj-1",
            "ard-cmg-1",
            "ard-flm-1",
            "ard-lba-1",
            "ard-lbc-1",
            "ard-adp-1",
            "ard-lic-1",
            "ard-clm-1");

    private final Story story;
    private final String base;
    private final long core;

    CoreStory(Story story, String base, long core) {
        this.story = story;
        this.base = base;
        this.core = core;
    }

    /** The resources of the site, defined once for all bring-ups. */
    void ground(String keyName, String key) throws IOException, InterruptedException {
        siteResources(base.equals("10.40"), keyName, key);
    }

    void tell(String facts) throws IOException, InterruptedException {
        JsonNode choices = story.send("GET", at("prepare"), null, null).path("choices");
        send(
                "POST",
                "network/choice",
                JSON.createObjectNode()
                        .put("networkId", choices.path(0).path("id").asLong()));
        networks();
        boolean real = base.equals("10.40");
        announce("interconnect-pair", 2, 2);
        announce("infiniband-gateway", 2, 1);
        announce("fabric-controller", 1, 3);
        announce("block-array", 2, 2);
        announce("backup-store", 2, 2);
        announce("blade-chassis", 1, 2);
        announce("hypervisor-host", 2, 1);
        announce("access-appliance", 2, 1);
        announce("file-array", 1, 1);
        announce("server-controller-by-hand", 1, 1);
        announce("wireless-controller", 1, 1);
        announce("index-appliance", 1, 1);
        announce("console-manager", 1, 1);
        announce("fleet-manager", 1, 1);
        announce("load-balancer", 1, 1);
        announce("balancer-console", 1, 1);
        announce("delivery-pair", 1, 2);
        announce("licence-host", 1, 1);
        announce("cluster-manager", 1, 1);
        story.send("POST", at("facts.csv"), facts, "text/plain");
        // the first rack is mounted and cabled; its late cables are not in yet
        RackTicks.tick(
                story,
                "/api/bring-ups/" + core,
                (machine, check) -> machine.path("location").asText().startsWith("R1 ")
                        && !check.path("late").asBoolean());
        // one is left to the visitor of the demo
        images(List.of("ullscarf-clusters.img"));
        if (real) {
            // somebody's address is known before anything is placed beside it
            ObjectNode ask = JSON.createObjectNode();
            ask.putArray("addresses").add(base + ".8.150");
            send("POST", "probes", ask);
        }
        place();
        TeamAsks.note(story, "/api/bring-ups/" + core);
        if (real) {
            send("POST", "record-pushes", JSON.createObjectNode());
        }
    }

    /** The networks that stand beside the one of management. */
    void networks() throws IOException, InterruptedException {
        send("PUT", "networks", data());
        send("PUT", "networks", inBand());
        if (base.equals("10.40")) {
            send("PUT", "networks", six());
        }
    }

    private String at(String path) {
        return "/api/bring-ups/" + core + "/" + path;
    }

    private JsonNode send(String method, String path, ObjectNode body) throws IOException, InterruptedException {
        return story.send(method, at(path), body.toString(), "application/json");
    }

    private ObjectNode data() {
        ObjectNode network = story.network(8, "Storage data", 416)
                .put("prefix", base + ".16.0/24")
                .put("purpose", "storage-data")
                .put("mtu", 9000)
                .put("gateway", "");
        network.putArray("ranges")
                .addObject()
                .put("purpose", "pool")
                .put("run", base + ".16.10-" + base + ".16.199")
                .put("note", "data ports");
        return network;
    }

    private ObjectNode inBand() {
        ObjectNode network = story.network(8, "In-band", 420)
                .put("prefix", base + ".24.0/24")
                .put("purpose", "in-band");
        network.put("gateway", base + ".24.1");
        network.putArray("ranges")
                .addObject()
                .put("purpose", "pool")
                .put("run", base + ".24.10-" + base + ".24.99")
                .put("note", "balancers and their services");
        return network;
    }

    private ObjectNode six() {
        ObjectNode network = story.network(8, "Management, IPv6", 408)
                .put("prefix", "fd40:a4da:1:8::/64")
                .put("gateway", "fd40:a4da:1:8::1");
        network.putNull("vlan");
        network.putArray("ranges")
                .addObject()
                .put("purpose", "pool")
                .put("run", "fd40:a4da:1:8::10-fd40:a4da:1:8::ff")
                .put("note", "as the last octet of IPv4");
        return network;
    }

    private void siteResources(boolean real, String keyName, String key) throws IOException, InterruptedException {
        for (String rack : List.of("R1", "R2", "R3")) {
            resource("rack", rack, Map.of("room", "Hall 2", "units", "42"));
        }
        resource(
                "host",
                "hv-01",
                Map.of(
                        "cores",
                        "32",
                        "memory",
                        "128 GiB",
                        "disk",
                        "2 TiB",
                        "version",
                        "8.2",
                        "line-ports",
                        "6101-6116",
                        "address",
                        base + ".8.23"));
        resource("host", "hv-02", Map.of("cores", "8", "memory", "24 GiB", "disk", "1 TiB"));
        resource("fabric", "compute", Map.of("switches", "4"));
        resource("firmware", "interconnect-pair", Map.of("rule", "exactly", "version", "2.6.1"));
        resource("firmware", "wireless-controller", Map.of("rule", "at least", "version", "8.9"));
        resource("source", "operations", Map.of("prefix", base + ".250.0/24"));
        String today = LocalDate.now().toString();
        resource(
                "policy",
                "telemetry",
                Map.of("answer", "no", "reason", "the hall is isolated", "who", "lead of the hall", "when", today));
        resource(
                "policy",
                "remote-support",
                Map.of("answer", "no", "reason", "the hall is isolated", "who", "lead of the hall", "when", today));
        resource(
                "policy",
                "diagnostics",
                Map.of("answer", "no", "reason", "the hall is isolated", "who", "lead of the hall", "when", today));
        resource(
                "policy",
                "licence-terms",
                Map.of(
                        "answer",
                        "yes",
                        "reason",
                        "agreed to with the purchase",
                        "who",
                        "lead of the hall",
                        "when",
                        today));
        resource("lines", "lines-1", Map.of("address", base + ".8.2", "protocol", "rfc2217", "ports", "6101-6140"));
        if (real) {
            Map<String, String> domain =
                    new HashMap<>(Map.of("primary", base + ".8.3", "key-name", keyName, "key", key));
            domain.put(
                    "reverse-zones",
                    "8.40.10.in-addr.arpa 9.40.10.in-addr.arpa 16.40.10.in-addr.arpa 24.40.10.in-addr.arpa "
                            + "8.0.0.0.1.0.0.0.a.d.4.a.0.4.d.f.ip6.arpa");
            resource("domain", "ardal.example", domain);
            resource("relay", "relay", Map.of("address", base + ".8.20"));
            resource(
                    "proxy",
                    "proxy-1",
                    Map.of(
                            "address",
                            base + ".8.25",
                            "port",
                            "3128",
                            "target",
                            "activate.ardal.example:443",
                            "user",
                            "hall",
                            "key",
                            "out-by-the-gate"));
            resource("time", "ntp-4", Map.of("address", base + ".8.9"));
            directory();
        }
    }

    /** The digest of its certificate comes from the script that started it, as if a person had compared it. */
    private void directory() throws IOException, InterruptedException {
        Map<String, String> directory = new HashMap<>(Map.of(
                "address",
                base + ".8.21",
                "protection",
                "starttls",
                "base",
                "dc=ardal,dc=example",
                "user",
                "uid=looks-up,dc=ardal,dc=example",
                "key",
                "moss-on-the-wall-4",
                "group",
                "storage-team"));
        directory.put("certificate", System.getenv("HALL_DIRECTORY_DIGEST"));
        resource("directory", "directory-1", directory);
    }

    private void resource(String sort, String name, Map<String, String> values)
            throws IOException, InterruptedException {
        ObjectNode resource = JSON.createObjectNode().put("sort", sort).put("name", name);
        resource.set("values", JSON.valueToTree(values));
        if (values.containsKey("key")) {
            story.asLead(() -> send("PUT", "site-resources", resource)); // what carries a password is a lead's
        } else {
            send("PUT", "site-resources", resource);
        }
    }

    /** Lets the server check the images in its folder, all but these. */
    void images(List<String> left) throws IOException, InterruptedException {
        for (JsonNode name : story.get(at("images")).path("waiting")) {
            if (!left.contains(name.asText())) {
                send(
                        "POST",
                        "images",
                        JSON.createObjectNode().put("name", name.asText()).put("inFolder", true));
            }
        }
    }

    void announce(String kind, int count, int members) throws IOException, InterruptedException {
        send(
                "POST",
                "units",
                JSON.createObjectNode().put("kind", kind).put("count", count).put("members", members));
    }

    /** Those that are to be placed already, together, as the wire is asked once for all of them. */
    private void place() throws IOException, InterruptedException {
        JsonNode proposal = story.send("GET", at("proposal"), null, null);
        ObjectNode taking = JSON.createObjectNode();
        ArrayNode lines = taking.putArray("lines");
        Set<Long> placed = new HashSet<>();
        for (JsonNode line : proposal.path("lines")) {
            if (PLACED.contains(line.path("unit").asText())) {
                lines.add(line);
                placed.add(line.path("unitId").asLong());
            }
        }
        ArrayNode growth = taking.putArray("growth");
        proposal.path("growth").forEach(run -> {
            if (placed.contains(run.path("unitId").asLong())) {
                growth.add(run);
            }
        });
        story.take(core, taking);
    }
}
