package lychnos.wire.console;

import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;
import lychnos.core.kind.KindReader;
import lychnos.lab.console.ConsoleSpec;

/** What was prepared and placed for a stand-in machine: which kind it is, and what its dialogue is answered with. */
final class Planned {

    static final String NAME_SERVER = "127.40.8.3";
    static final String DIRECTORY = "127.40.8.44";
    static final String JOINER = "joins-arrays";
    static final String VISITOR = "night-watch";
    static final Secret OURS = Secret.of("Hn4tRb7sLxVc");
    /** The password on the card of an array for files. */
    static final String CARD = "ferry-hazel-31-loft";

    private static final Map<String, String> KINDS = Map.ofEntries(
            Map.entry("orrel", "interconnect-pair"),
            Map.entry("sallow", "fabric-controller"),
            Map.entry("greenup", "hypervisor-host"),
            Map.entry("brathay", "infiniband-gateway"),
            Map.entry("skeggle", "file-array"),
            Map.entry("wythop", "blade-chassis"),
            Map.entry("ullock", "server-controller-by-hand"),
            Map.entry("mungris", "wireless-controller"),
            Map.entry("dunmail", "console-manager"),
            Map.entry("bannisdale", "block-array"),
            Map.entry("rossett", "access-appliance"),
            Map.entry("rosthwaite", "fleet-manager"),
            Map.entry("loweswater", "load-balancer"),
            Map.entry("ennerdale", "delivery-pair"),
            Map.entry("crummock", "balancer-console"),
            Map.entry("buttermere", "licence-host"),
            Map.entry("ullscarf", "cluster-manager"));

    private Planned() {}

    static List<String> models() {
        return KINDS.keySet().stream().sorted().toList();
    }

    static String kind(String model) {
        return KINDS.get(model);
    }

    /** How many log-ins a machine has refused after its setup: the one that its kind tries for that, if any. */
    static String refusedLogins(String model) {
        boolean tries = KindReader.shipped(kind(model)).dialogue().orElseThrow().setup().stream()
                .anyMatch(step ->
                        step instanceof DialogueStep.Asked asked && asked.is(DialogueStep.Mark.MUST_BE_REFUSED));
        return tries ? "1" : "";
    }

    /** Where the first machine of a model stands in its unit. */
    static String firstPlace(String model) {
        return model.equals("orrel") || model.equals("ennerdale") ? "left" : "1";
    }

    /** Which member of its unit a machine is; empty for a single one. */
    static String member(ConsoleSpec spec) {
        return switch (spec.model()) {
            case "orrel", "ennerdale" -> spec.place();
            case "sallow" -> "controller " + spec.place();
            case "ullscarf" -> "node " + spec.place();
            case "wythop" -> "bay " + spec.place();
            case "bannisdale" -> spec.place().equals("1") ? "controller a" : "controller b";
            default -> "";
        };
    }

    /** @param factory the maker's password; every other one is the same of ours */
    private record Prepared(Map<String, String> texts, Secret factory) implements Values {

        @Override
        public Optional<String> text(String name) {
            return Optional.ofNullable(texts.get(name));
        }

        @Override
        public Optional<Secret> secret(String name) {
            return name.equals("factory.phrase") || name.equals("factory-password")
                    ? Optional.of(factory)
                    : texts.containsKey(name) ? Optional.empty() : Optional.of(OURS);
        }

        @Override
        public Collection<Secret> secrets() {
            return List.of(OURS);
        }

        @Override
        public String unitName() {
            return "ard-one-1";
        }

        @Override
        public AgreedTerms terms() {
            return AgreedTerms.toTheFirst();
        }
    }

    static Values values(ConsoleSpec spec) {
        int last = 1 + spec.port() % 250;
        Map<String, String> texts = new HashMap<>(texts(
                "serial " + spec.serial(),
                "address 127.40.9." + last,
                "length 24",
                "mask 255.255.255.0",
                "gateway 127.40.9.1",
                "address-6 " + six("9", last),
                "length-6 64",
                "gateway-6 " + six("9", 1),
                "name-server-1 " + NAME_SERVER,
                "name-server-2 127.40.8.4",
                "time-server-1 127.40.8.6",
                "name ard-one-" + last,
                "domain ardal.example",
                "member-number " + spec.place()));
        // the right one of a pair is at the port behind the left one's
        texts.putAll(ofModel(spec.model(), spec.place().equals("right") ? last - 1 : last, last));
        return new Prepared(texts, Secret.of(factory(spec.model())));
    }

    private static String six(String network, int last) {
        return "fd40:a4da:1:" + network + "::" + Integer.toHexString(last);
    }

    private static String factory(String model) {
        return switch (model) {
            case "orrel" -> "orrel";
            case "sallow" -> "highrigg";
            case "brathay" -> "tarnbeck";
            case "wythop" -> "mosedale";
            case "bannisdale" -> "sleddale";
            case "ullock" -> "fellside2";
            case "greenup" -> "greenup";
            case "skeggle" -> CARD;
            case "rossett" -> "wythburn-line";
            case "loweswater" -> "hause-point-7";
            case "ennerdale" -> "gillerthwaite";
            case "crummock" -> "rannerdale-1";
            case "buttermere" -> "warnscale-4";
            case "ullscarf" -> "greenup-edge-3";
            default -> "none";
        };
    }

    private static Map<String, String> ofModel(String model, int first, int last) {
        return switch (model) {
            case "orrel" ->
                texts(
                        "factory.user keeper",
                        "password-policy 2",
                        "begins fresh",
                        "names-used yes",
                        "left.address 127.40.9." + first,
                        "shared.address 127.40.12." + first);
            case "sallow" ->
                texts(
                        "factory.user warden",
                        "fabric-name ardal-fabric",
                        "fabric-number 7",
                        "duty active",
                        "active 3",
                        "tunnel-pool 10.45.0.0/16",
                        "control-vlan 3900");
            case "brathay" ->
                texts(
                        "factory.user steward",
                        "address-by static",
                        "time-zone UTC",
                        "subnet-manager 5",
                        "diagnostics no");
            case "skeggle" ->
                texts(
                        "factory.user warder",
                        "manage.name ard-fil-1",
                        "time-zone UTC",
                        "files.address 127.40.11." + last,
                        "files.length 24",
                        "data-tag 416",
                        "bundle no",
                        "directory " + DIRECTORY,
                        "joiner " + JOINER,
                        "group storage-team",
                        "directory-user " + VISITOR);
            case "wythop" ->
                texts(
                        "factory.user chief",
                        "shell-policy 2",
                        "shared.name ard-bch-1",
                        "bay-1.address 127.40.9." + last,
                        "bay-2.address 127.40.11." + last,
                        "shared.address 127.40.12." + last,
                        "bay-1.address-6 " + six("9", last),
                        "bay-2.address-6 " + six("b", last),
                        "shared.address-6 " + six("c", last));
            case "bannisdale" ->
                texts(
                        "factory.user curator",
                        "federation ardal-blocks",
                        "time-zone UTC",
                        "management.name ard-blk-1",
                        "management.address 127.40.9." + last,
                        "management.length 24",
                        "management.gateway 127.40.9.1",
                        "check-a.address 127.40.11." + last,
                        "check-b.address 127.40.12." + last);
            case "ullock" -> texts("factory.user keeper", "own-tag 0");
            case "dunmail" -> texts("account custodian", "idle 15");
            case "rosthwaite" ->
                texts(
                        "factory.user overseer",
                        "management.name ard-flm-1",
                        "management.address 127.40.9." + last,
                        "management.length 24",
                        "management.gateway 127.40.9.1",
                        "service-a.address 127.40.11." + last,
                        "service-b.address 127.40.12." + last);
            case "loweswater" ->
                texts(
                        "in-band-vlan 420",
                        "management.name ard-lba-1",
                        "management.address 127.40.9." + last,
                        "management.length 24",
                        "management.gateway 127.40.9.1",
                        "segment.address 127.40.11." + last,
                        "segment.length 24");
            case "ennerdale" ->
                texts(
                        "factory.user drover",
                        "backend-source.address 127.40.11." + last,
                        "service-1.address 127.40.12." + last,
                        "service-2.address 127.40.13." + last);
            case "buttermere" -> texts("factory.user bookkeeper", "time-server-2 127.40.8.7");
            case "ullscarf" ->
                texts("factory.user reeve", "cluster-name ardal-clusters", "cluster.address 127.40.12." + last);
            case "crummock" -> texts("factory.user shepherd", "ssh-from 127.40.0.0/16", "extra-route none");
            case "rossett" -> texts("factory.user porter", "licence-key K9-ARD-118-44");
            case "mungris" ->
                texts(
                        "admin-account skylark",
                        "country SE",
                        "uplink a",
                        "uplink-vlan untagged",
                        "relay 127.40.8.22",
                        "login-address 127.47.66.9",
                        "roaming ardal-air");
            default ->
                texts("factory.user root", "keyboard us", "links 1", "vlan 0", "install-on 0", "ipv6-mode static");
        };
    }

    /** Where a stand-in gets its first address, or its first password from; a hyphen for neither. */
    static String first(String model, String address) {
        return model.equals("greenup") ? address : model.equals("skeggle") ? CARD : "-";
    }

    /** The names and texts of what a machine is answered with. */
    static Map<String, String> answered(ConsoleSpec spec) {
        return ((Prepared) values(spec)).texts;
    }

    private static Map<String, String> texts(String... named) {
        return Stream.of(named)
                .map(each -> each.split(" ", 2))
                .collect(Collectors.toMap(each -> each[0], each -> each[1]));
    }
}
