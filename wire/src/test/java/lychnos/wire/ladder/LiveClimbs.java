package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Settings;
import lychnos.lab.Controller;
import lychnos.lab.Quirk;
import lychnos.wire.LoopbackHall;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.ZoneRecord;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;

/**
 * Everything that can keep an endpoint from being proven, each brought about on purpose: on the wire of the hall, at
 * its name servers, in a stand-in, or by a peer that is wrong in that one way. The sentences are written to
 * target/live-verdicts.txt.
 */
@EnabledIfEnvironmentVariable(
        named = "HALL",
        matches = ".+",
        disabledReason = "wants the namespace that ./lychnos test makes")
/** Climbs at peers that do one thing wrong. */
abstract class LiveClimbs extends LivePeers {

    interface Row {
        Climbed climb() throws Exception;
    }

    // --- climbs ---

    Target target(Target.Service service) {
        return new Target(AT, PORT, null, null, List.of(), service, NO_NAMES);
    }

    /** One with a port that must answer sources in one network only. */
    Target restricted(int port, String from) {
        Target.Restricted only = new Target.Restricted(port, Prefix.parse(from));
        Target.Ports ports = new Target.Ports(List.of(), List.of(), List.of(only));
        return new Target(AT, PORT, null, null, ports, "", signIn(false), NO_NAMES, Target.Known.NOTHING);
    }

    Climbed climb(Target target) throws Exception {
        return new Climb(loop, target, Clock.systemUTC()).climb();
    }

    static Target.SignIn signIn(boolean ssh) {
        return new Target.SignIn(ssh, SET_UP, null);
    }

    static Climbed wire(Address at, Mac label, Target.Known known, Target.Names names) throws Exception {
        Settings asDelivered = new Settings(
                at, Address.parse("255.255.255.0"), null, true, "lc-unset", "lc-unset", List.of(), List.of(), false);
        Target.Redfish service = new Target.Redfish(
                "LV-1",
                FIRST,
                asDelivered,
                new Target.Login(Controller.FACTORY_USER, Secret.of(Controller.FACTORY_PHRASE)),
                new Kind.Login("nobody", Secret.of("nothing-at-all")));
        return new Climb(
                        jump,
                        new Target(at, 443, label, null, Target.Ports.closed(List.of(23)), "", service, names, known),
                        Clock.systemUTC())
                .climb();
    }

    static Climbed named(Map<String, Address> servers, Map<String, Address> reverse) throws Exception {
        return wire(ON_THE_WIRE, FIRST, Target.Known.NOTHING, new Target.Names(NAME, servers, reverse));
    }

    interface Breaking {
        void on(LoopbackHall lab) throws Exception;
    }

    /** A stand-in of its own, as delivered by its preset, wrong in one way. */
    Climbed standIn(Breaking breaking, Quirk... quirks) throws Exception {
        LoopbackHall lab = new LoopbackHall(quirks);
        opened.add(lab);
        Settings plan = LoopbackHall.plan();
        lab.machine()
                .controller()
                .preset(
                        LoopbackHall.OURS.use(text -> text),
                        plan.gateway().toString(),
                        plan.hostName(),
                        "ardal.example",
                        plan.nameServers(),
                        plan.timeServers());
        breaking.on(lab);
        Settings here = new Settings(
                LoopbackHall.FIRST,
                plan.mask(),
                plan.gateway(),
                plan.dhcp(),
                plan.hostName(),
                plan.fqdn(),
                plan.nameServers(),
                plan.timeServers(),
                plan.ntp());
        Target as = lab.target(LoopbackHall.FIRST, null);
        Target.Redfish service = (Target.Redfish) as.service();
        return new Climb(
                        lab.vantage,
                        new Target(
                                        as.address(),
                                        as.port(),
                                        service.serial(),
                                        as.mac(),
                                        here,
                                        service.login(),
                                        null,
                                        service.factory(),
                                        as.ports().shut())
                                .refusing("public"),
                        Clock.systemUTC())
                .climb();
    }

    static final Breaking NOT_AT_ALL = lab -> {};

    // --- the hall's name servers ---

    static final Address PRIMARY = Address.parse("10.40.8.3");
    static final Address SECONDARY = Address.parse("10.40.8.4");

    static Climbed withRecord(ZoneRecord record, String zone, Row row) throws Exception {
        NameKey key = new NameKey(
                System.getenv("LYCHNOS_TEST_NAME_KEY_NAME"), Secret.of(System.getenv("LYCHNOS_TEST_NAME_KEY")));
        assertEquals(
                lychnos.wire.dns.Pushed.State.DONE,
                jump.makeRecords(PRIMARY, zone, key, List.of(record), Duration.ofSeconds(5))
                        .get(0)
                        .state());
        try {
            LoopbackHall.until("the second server has it", () -> {
                try {
                    return !jump.resolve(SECONDARY, record.owner(), record.type(), Duration.ofSeconds(2))
                            .isEmpty();
                } catch (lychnos.wire.fault.WireFault e) {
                    return false;
                }
            });
            return row.climb();
        } finally {
            jump.removeRecords(PRIMARY, zone, key, List.of(record), Duration.ofSeconds(5));
        }
    }

    static Map<String, Address> both() {
        return Map.of("10.40.8.3", PRIMARY, "10.40.8.4", SECONDARY);
    }

    /** A second server that took the zone once and asks again in a quarter of an hour: its primary tells it nothing. */
    Climbed besideALaggingServer() throws Exception {
        try (LaggingPair pair = new LaggingPair(directory)) {
            pair.put(new ZoneRecord(NAME, "A", ON_THE_WIRE.toString()));
            return named(
                    Map.of(pair.primary.toString(), pair.primary, pair.lagging.toString(), pair.lagging), Map.of());
        }
    }
}
