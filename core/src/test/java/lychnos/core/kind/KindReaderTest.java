package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.networknt.schema.InputFormat;
import com.networknt.schema.JsonSchema;
import com.networknt.schema.JsonSchemaFactory;
import com.networknt.schema.SpecVersion;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.fact.FactSpec;
import lychnos.core.place.Need;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class KindReaderTest {

    private static String shipped(String id) throws IOException {
        return new String(
                KindReaderTest.class
                        .getResourceAsStream("/kinds/" + id + ".yaml")
                        .readAllBytes(),
                StandardCharsets.UTF_8);
    }

    @Test
    void readsEveryShippedKind() {
        List<Kind> kinds = KindReader.allShipped();
        assertEquals(
                kinds.size(), new HashSet<>(kinds.stream().map(Kind::shortName).toList()).size());
        for (Kind kind : kinds) {
            assertTrue(
                    kind.facts().size() >= 4
                            && !kind.addresses().isEmpty()
                            && !kind.flows().isEmpty(),
                    kind.id());
            kind.members()
                    .counts()
                    .forEach(count ->
                            assertTrue(kind.needs(count, Map.of()).stream().allMatch(need -> need.length() > 0)));
        }
    }

    @Test
    void readsTheServerController() {
        Kind kind = KindReader.shipped("server-controller");
        assertEquals("srv", kind.shortName());
        assertEquals("{site}-{kind}-{n:3}-oob", kind.names().unit().toString());
        assertEquals(443, kind.port());
        assertEquals(List.of(23, 80), kind.shut());
        assertEquals(Duration.ofMinutes(5), kind.restartAtMost());
        assertEquals("(secret)", kind.factory().phrase().toString());
        assertTrue(kind.driven());
    }

    @Test
    void repeatsRolesForEveryMemberAndKeepsRoomForThoseToCome() {
        Need need = KindReader.shipped("backup-store").needs(2, Map.of()).get(0);
        assertEquals(
                List.of(
                        "cluster",
                        "node 1 port 1",
                        "node 1 port 2",
                        "node 2 port 1",
                        "node 2 port 2",
                        "node 1 controller",
                        "node 2 controller"),
                need.roles());
        assertEquals(6, need.growth());
        assertEquals(13, need.length());
    }

    @Test
    void repeatsRolesByAFactOfTheUnit() {
        Kind kind = KindReader.shipped("block-array");
        assertEquals(4, kind.needs(2, Map.of()).get(2).roles().size(), "two ports for each path by default");
        Need ports = kind.needs(2, Map.of("ports-per-path", "3")).get(2);
        assertEquals(List.of("upper 1", "upper 2", "upper 3", "lower 1", "lower 2", "lower 3"), ports.roles());
        assertEquals(Need.Paths.ALTERNATING, ports.paths());
    }

    @Test
    void marksWhatCanNeverBeChanged() {
        FactSpec pool =
                KindReader.shipped("fabric-controller").fact("tunnel-pool").orElseThrow();
        assertTrue(pool.is(FactSpec.Trait.PERMANENT) && pool.is(FactSpec.Trait.SAME));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "title: Block | tytle: Block | core.kind.KindFaultText.UNKNOWN_KEY",
                "title: Block | tytle: Block | core.kind.KindFaultText.KEY_MISSING",
                "port: 443 | port: 70000 | core.kind.KindFaultText.NUMBER_EXPECTED",
                "port: 443 | community: open sesame | core.kind.KindFaultText.COMMUNITY",
                "about: 8 min | about: soon | core.kind.KindFaultText.NOT_A_TIME",
                "at-most: 30 min | at-most: 10 s | core.kind.KindFaultText.TIMES_REVERSED",
                "kind: block-array | kind: [a] | core.kind.KindFaultText.TEXT_EXPECTED",
                "{unit}-ca | {uint}-ca | core.name.NameText.UNKNOWN_FIELD",
                "is: mtu | is: mtu, access: true | core.kind.KindFaultText.ACCESS_IS_A_PREFIX",
                "is: mtu | is: mtu, manager: true | core.kind.KindFaultText.MANAGER_IS_AN_ADDRESS",
                "is: mtu | is: mto | core.kind.KindFaultText.FACT_TYPE",
                "default: \"9000\" | default: \"90000\" | core.fact.FactText.NOT_A_NUMBER",
                "in: storage-data | in: storage | core.kind.KindFaultText.NOT_A_PURPOSE",
                "times: ports-per-path | times: ports-per-part | core.kind.KindFaultText.NOT_A_COUNT",
                "ssh: { user: \"{factory.user}\", phrase: \"{curator-password}\" } | ssh: yes "
                        + "| core.kind.KindFaultText.SHOWS_WITHOUT_LOGIN",
                "udp 53 | udp dns | core.kind.KindFaultText.FLOW_PORT",
                "names: | names: [ | core.kind.KindFaultText.NOT_YAML",
                "of: unit, is: serial | of: array, is: serial | core.kind.KindFaultText.FACT_SCOPE",
            })
    void namesWhatIsWrongAndWhere(String good, String bad, String message) throws IOException {
        String yaml = shipped("block-array");
        assertTrue(yaml.contains(good), good);
        long line = yaml.substring(0, yaml.indexOf(good)).lines().count();
        KindFaults faults = assertThrows(
                KindFaults.class,
                () -> KindReader.read(yaml.replaceFirst(
                        java.util.regex.Pattern.quote(good), java.util.regex.Matcher.quoteReplacement(bad))));
        assertTrue(
                faults.faults().stream()
                        .anyMatch(fault -> Texts.says(message, fault.reason()) && Math.abs(fault.line() - line) <= 3),
                faults.getMessage());
    }

    @Test
    void namesEveryFaultInOneReading() throws IOException {
        String yaml = shipped("block-array")
                .replace("is: mtu", "is: mto")
                .replace("port: 443", "port: 0")
                .replaceFirst("in: storage-data", "in: storage");
        assertEquals(
                3,
                assertThrows(KindFaults.class, () -> KindReader.read(yaml))
                        .faults()
                        .size());
    }

    @Test
    void theShippedKindsFollowThePublishedSchema() throws IOException {
        JsonSchema schema =
                JsonSchemaFactory.getInstance(SpecVersion.VersionFlag.V202012).getSchema(KindReader.schema());
        for (Kind kind : KindReader.allShipped()) {
            assertEquals(Set.of(), schema.validate(shipped(kind.id()), InputFormat.YAML), kind.id());
        }
        assertEquals(
                2,
                schema
                        .validate(
                                shipped("block-array")
                                        .replace("is: mtu", "is: mto")
                                        .replace("title: Block", "tytle: Block"),
                                InputFormat.YAML)
                        .stream()
                        .map(message -> message.getInstanceLocation().toString())
                        .distinct()
                        .count());
    }

    @Test
    void aMachineInARackHasACabledManagementPort() {
        FactSpec port =
                KindReader.shipped("interconnect-pair").fact(Kind.SWITCH_PORT).orElseThrow();
        assertEquals(FactSpec.Scope.MEMBER, port.scope());
        assertTrue(port.is(FactSpec.Trait.OPTIONAL));
        assertTrue(KindReader.shipped("server-controller").fact(Kind.CABLE).isPresent());
        assertEquals(Optional.empty(), KindReader.shipped("access-appliance").fact(Kind.SWITCH_PORT));
    }

    @Test
    void buildsNoObjects() {
        assertThrows(KindFaults.class, () -> KindReader.read("!!java.net.URL [\"x\"]"));
        assertThrows(KindFaults.class, () -> KindReader.read(""));
        assertThrows(KindFaults.class, () -> KindReader.read("a".repeat(100_001)));
    }

    @Test
    void refusesNestingWhereItIsTooDeep() {
        KindFaults faults =
                assertThrows(KindFaults.class, () -> KindReader.read("kind: x\nabout: " + "[".repeat(5000)));
        assertEquals(List.of(new KindFault(2, 19, "", KindFaultText.TOO_DEEP.text(12))), faults.faults());
    }
}
