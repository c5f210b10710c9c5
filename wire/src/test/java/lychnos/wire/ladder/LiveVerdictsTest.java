package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.buffer.Buffer;
import java.io.IOException;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.time.Duration;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.kind.Expectation;
import lychnos.core.proof.Part;
import lychnos.core.proof.Trouble;
import lychnos.core.proof.Verdict;
import lychnos.lab.Certificates;
import lychnos.lab.Quirk;
import lychnos.wire.HallOnTheWire;
import lychnos.wire.LoopbackHall;
import lychnos.wire.dns.ZoneRecord;
import org.apache.sshd.server.SshServer;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
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
class LiveVerdictsTest extends LiveClimbs {

    // --- what can go wrong, and how it is brought about ---

    private Map<Trouble, Row> rows() {
        Map<Trouble, Row> rows = new EnumMap<>(Trouble.class);
        rows.put(Trouble.SILENT, () -> wire(Address.parse("10.40.8.98"), FIRST, Target.Known.NOTHING, NO_NAMES));
        rows.put(Trouble.OTHER_HARDWARE, () -> wire(ON_THE_WIRE, SECOND, Target.Known.NOTHING, NO_NAMES));
        rows.put(Trouble.TWO_MACHINES, () -> {
            hall.does("ip", "addr", "add", ON_THE_WIRE + "/32", "dev", "m1");
            try {
                return wire(ON_THE_WIRE, FIRST, Target.Known.NOTHING, NO_NAMES);
            } finally {
                hall.does("ip", "addr", "del", ON_THE_WIRE + "/32", "dev", "m1");
                HallOnTheWire.forgetNeighbour(ON_THE_WIRE);
            }
        });
        rows.put(Trouble.ELSEWHERE, () -> {
            hall.does("ip", "addr", "add", "10.40.8.71/32", "dev", "m0");
            try {
                return wire(
                        ON_THE_WIRE,
                        FIRST,
                        new Target.Known(
                                null,
                                Map.of(Address.parse("10.40.8.71"), "where it was before its setup"),
                                Map.of(),
                                List.of()),
                        NO_NAMES);
            } finally {
                hall.does("ip", "addr", "del", "10.40.8.71/32", "dev", "m0");
            }
        });
        rows.put(Trouble.PORT_REFUSED, () -> climb(target(signIn(false))));
        rows.put(Trouble.PORT_SILENT, () -> {
            // a queue that is full: new connections hear nothing
            ServerSocket full = new ServerSocket(PORT, 1, InetAddress.getByName(AT.toString()));
            opened.add(full);
            for (int i = 0; i < 3; i++) {
                Socket waiting = new Socket();
                opened.add(waiting);
                try {
                    waiting.connect(new InetSocketAddress(AT.toString(), PORT), 200);
                } catch (IOException e) {
                    break;
                }
            }
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.NO_TLS, () -> {
            tcp(PORT, socket -> socket.end(Buffer.buffer("hello\r\n")));
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.CERTIFICATE_EXPIRED, () -> {
            page(Certificates.selfSigned("old", -800, -70));
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.CERTIFICATE_NOT_YET, () -> {
            page(Certificates.selfSigned("early", 10, 30));
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.CERTIFICATE_CHANGED, () -> {
            page(own());
            return climb(new Target(AT, PORT, null, "ab".repeat(32), List.of(), signIn(false), NO_NAMES));
        });
        rows.put(Trouble.CERTIFICATE_NAMES, () -> {
            page(signed("other.ardal.example", false));
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.CHAIN_BROKEN, () -> {
            page(signed(NAME, true));
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.WEAK_KEY, () -> {
            page(weak());
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.NO_SERVICE, () -> {
            https(own(), request -> request.response().setStatusCode(503).end());
            return climb(target(redfish()));
        });
        rows.put(Trouble.NO_PRESENCE, () -> {
            service("nowhere");
            Target.Redfish asked = redfish();
            return climb(target(new Target.Redfish(
                    asked.serial(), asked.mac(), asked.plan(), asked.login(), asked.factory(), Expectation.EXPECTED)));
        });
        rows.put(Trouble.PRESENCE_ANSWERS, () -> {
            service("nowhere");
            pong();
            Target.Redfish asked = redfish();
            return climb(target(new Target.Redfish(
                    asked.serial(), asked.mac(), asked.plan(), asked.login(), asked.factory(), Expectation.FORBIDDEN)));
        });
        rows.put(
                Trouble.PASSWORD_REFUSED,
                () -> standIn(lab -> lab.machine().controller().setPhrase("somebody-elses-phrase")));
        rows.put(Trouble.IDENTITY_UNREADABLE, () -> {
            service("/redfish/v1/M1");
            return climb(target(redfish()));
        });
        rows.put(Trouble.OTHER_MACHINE, () -> standIn(NOT_AT_ALL, Quirk.OTHER_SERIAL));
        rows.put(Trouble.SETTINGS_UNREADABLE, () -> {
            service("/redfish/v1/N");
            return climb(target(redfish()));
        });
        rows.put(
                Trouble.NOT_AS_PLANNED,
                () -> standIn(lab -> lab.machine().controller().setMask("255.255.0.0")));
        rows.put(Trouble.NOT_IN_STATE, () -> {
            array("ours-and-nobody-elses", "starting");
            return climb(target(new Target.SignIn(
                    false,
                    SET_UP,
                    SignInTest.pages(
                            "https://" + AT + ":" + PORT + "/open", "ours-and-nobody-elses", "/^in service$/"))));
        });
        rows.put(Trouble.FACTORY_ACCEPTED, () -> standIn(NOT_AT_ALL, Quirk.KEEPS_FACTORY));
        rows.put(Trouble.FACTORY_UNCLEAR, () -> {
            service("factory");
            return climb(target(redfish()));
        });
        rows.put(
                Trouble.MUST_BE_SHUT,
                () -> standIn(lab -> {
                    ServerSocket open = new ServerSocket(23, 5, InetAddress.getByName(LoopbackHall.FIRST.toString()));
                    opened.add(open);
                }));
        rows.put(Trouble.SOURCE_ADMITTED, () -> {
            page(own());
            return climb(restricted(PORT, "10.40.0.0/16"));
        });
        rows.put(Trouble.SOURCE_REFUSED, () -> {
            page(own());
            return climb(restricted(PORT + 1, "127.0.0.0/8"));
        });
        rows.put(Trouble.COMMUNITY_ANSWERS, () -> standIn(NOT_AT_ALL, Quirk.ANSWERS_SNMP));
        rows.put(Trouble.NO_PAGE, () -> {
            https(own(), request -> request.response().end("<title>It works?</title>"));
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.LEADS_AWAY, () -> {
            https(own(), request -> request.response()
                    .setStatusCode(302)
                    .putHeader("Location", "https://other.ardal.example/")
                    .end());
            return climb(target(signIn(false)));
        });
        rows.put(Trouble.NO_SSH, () -> {
            page(own());
            return climb(target(signIn(true)));
        });
        rows.put(Trouble.HOST_KEY_CHANGED, () -> {
            page(own());
            SshServer ssh = SshServer.setUpDefaultServer();
            KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
            generator.initialize(256);
            KeyPair pair = generator.generateKeyPair();
            ssh.setHost(AT.toString());
            ssh.setPort(22);
            ssh.setKeyPairProvider(session -> List.of(pair));
            ssh.setPasswordAuthenticator((user, phrase, session) -> false);
            ssh.start();
            opened.add(ssh);
            return climb(target(signIn(true))
                    .knowing(new Target.Known("SHA256:the-one-that-it-had", Map.of(), Map.of(), List.of())));
        });
        rows.put(Trouble.NO_NFS, () -> {
            tcp(2049, socket -> socket.end(Buffer.buffer("no RPC at all, however long one listens to it")));
            return climb(target(new Target.DataAddress(0, true, Set.of())));
        });
        rows.put(Trouble.NO_PORTAL, () -> {
            tcp(3260, socket -> socket.end(Buffer.buffer("no iSCSI")));
            return climb(target(new Target.DataAddress(3260, false, Set.of())));
        });
        rows.put(Trouble.PAGES_REFUSED, () -> {
            array("somebody-elses", "in service");
            return climb(target(new Target.SignIn(
                    false,
                    SET_UP,
                    SignInTest.pages(
                            "https://" + AT + ":" + PORT + "/open", "ours-and-nobody-elses", "/^in service$/"))));
        });
        rows.put(Trouble.NOT_SET_UP, () -> {
            page(own());
            return climb(target(new Target.SignIn(false, null, null)));
        });
        rows.put(Trouble.NAME_MISSING, () -> named(both(), Map.of()));
        rows.put(
                Trouble.NAME_ELSEWHERE,
                () -> withRecord(
                        new ZoneRecord(NAME, "A", "10.40.8.99"), "ardal.example", () -> named(both(), Map.of())));
        rows.put(Trouble.NAME_LAGS, this::besideALaggingServer);
        rows.put(
                Trouble.NAME_SERVER_SILENT,
                () -> withRecord(
                        new ZoneRecord(NAME, "A", ON_THE_WIRE.toString()),
                        "ardal.example",
                        () -> named(
                                Map.of("10.40.8.3", PRIMARY, "10.40.8.99", Address.parse("10.40.8.99")), Map.of())));
        rows.put(Trouble.REVERSE_MISSING, () -> named(Map.of(), both()));
        rows.put(
                Trouble.REVERSE_ELSEWHERE,
                () -> withRecord(
                        new ZoneRecord(ON_THE_WIRE.reverseName(), "PTR", "somebody-else.ardal.example"),
                        "8.40.10.in-addr.arpa",
                        () -> named(Map.of(), both())));
        rows.put(
                Trouble.CLOCK_OFF,
                () -> standIn(lab -> lab.machine().controller().setAhead(3600)));
        rows.put(Trouble.TIME_SERVER_OFF, () -> {
            double ahead = jump.time(Address.parse("10.40.8.9"), Duration.ofSeconds(3))
                    .orElseThrow()
                    .offsetMillis();
            assertTrue(Math.abs(ahead) > 60_000, "the hall's ninth address keeps a wrong time on purpose");
            return wire(
                    ON_THE_WIRE,
                    FIRST,
                    new Target.Known(
                            null,
                            Map.of(),
                            Map.of(),
                            List.of(Part.broken("10.40.8.9", "is " + Math.round(ahead / 1000) + " s ahead of ours"))),
                    NO_NAMES);
        });
        return rows;
    }

    @TestFactory
    Stream<DynamicTest> everyTroubleIsToldByItsSentence() {
        return rows().entrySet().stream()
                .map(row -> DynamicTest.dynamicTest(row.getKey().name(), () -> {
                    LiveVerdictsTest own = new LiveVerdictsTest();
                    try {
                        Climbed climbed = own.rows().get(row.getKey()).climb();
                        boolean onTheLadder =
                                climbed.outcomes().stream().anyMatch(outcome -> outcome.trouble() == row.getKey());
                        boolean beside = climbed.beside().stream().anyMatch(mark -> mark.trouble() == row.getKey());
                        assertTrue(onTheLadder || beside, () -> climbed.outcomes() + " " + climbed.beside());
                        Verdict verdict = Verdict.of(climbed.outcomes(), climbed.beside());
                        if (onTheLadder) {
                            assertTrue(!verdict.proven() && !verdict.press().isEmpty(), verdict::toString);
                        }
                        String seen = climbed.beside().stream()
                                .filter(mark -> mark.trouble() == row.getKey())
                                .map(mark -> mark.trouble().sentence(mark.seen()))
                                .findFirst()
                                .orElse(verdict.sentence());
                        SENTENCES.put(row.getKey(), seen);
                    } finally {
                        own.end();
                    }
                }));
    }

    @Test
    void thereIsOneForEach() {
        // an account that is not let in needs a server with a shell: ShellReadTest has one
        assertEquals(EnumSet.complementOf(EnumSet.of(Trouble.ACCOUNT_REFUSED)), rows().keySet());
    }
}
