package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import io.vertx.core.Handler;
import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.http.HttpServerOptions;
import io.vertx.core.http.HttpServerRequest;
import io.vertx.core.json.JsonArray;
import io.vertx.core.json.JsonObject;
import io.vertx.core.net.KeyCertOptions;
import io.vertx.core.net.PemKeyCertOptions;
import java.io.IOException;
import java.io.StringWriter;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Expectation;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Part;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Trouble;
import lychnos.core.proof.Verdict;
import lychnos.lab.Authority;
import lychnos.lab.Certificates;
import lychnos.lab.Controller;
import lychnos.lab.Quirk;
import lychnos.wire.HallOnTheWire;
import lychnos.wire.LoopbackHall;
import lychnos.wire.dial.Dialler;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.vantage.LocalVantage;
import org.apache.sshd.server.SshServer;
import org.bouncycastle.asn1.pkcs.PKCSObjectIdentifiers;
import org.bouncycastle.asn1.x500.X500Name;
import org.bouncycastle.asn1.x509.Extension;
import org.bouncycastle.asn1.x509.ExtensionsGenerator;
import org.bouncycastle.asn1.x509.GeneralName;
import org.bouncycastle.asn1.x509.GeneralNames;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.cert.jcajce.JcaX509v3CertificateBuilder;
import org.bouncycastle.openssl.jcajce.JcaPEMWriter;
import org.bouncycastle.openssl.jcajce.JcaPKCS8Generator;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;
import org.bouncycastle.pkcs.jcajce.JcaPKCS10CertificationRequestBuilder;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;
import org.junit.jupiter.api.condition.EnabledIfEnvironmentVariable;
import org.junit.jupiter.api.io.TempDir;

/**
 * Everything that can keep an endpoint from being proven, each brought about on purpose: on the wire of the hall, at
 * its name servers, in a stand-in, or by a peer that is wrong in that one way. The sentences are written to
 * target/live-verdicts.txt.
 */
@EnabledIfEnvironmentVariable(
        named = "HALL",
        matches = ".+",
        disabledReason = "wants the namespace that ./lychnos test makes")
class LiveVerdictsTest {

    private static final Address AT = Address.parse("127.40.43.7");
    private static final Address ON_THE_WIRE = Address.parse("10.40.8.70");
    private static final Address BESIDE_IT = Address.parse("10.40.8.73");
    private static final Mac FIRST = Mac.parse("02:4c:59:e1:00:01");
    private static final Mac SECOND = Mac.parse("02:4c:59:e1:00:02");
    private static final int PORT = 18450;
    private static final String NAME = "live-1.ardal.example";
    private static final Target.SetUp SET_UP = new Target.SetUp(Instant.EPOCH, "LV-1", true);
    private static final Target.Names NO_NAMES = new Target.Names(NAME, Map.of(), Map.of());
    private static final String FORM = "<title>Live</title><form><input type=password name=w></form>";
    private static final Map<Trouble, String> SENTENCES = new EnumMap<>(Trouble.class);

    @TempDir
    static Path directory;

    private static HallOnTheWire hall;
    private static LocalVantage jump;

    private final Vertx vertx = Vertx.vertx();
    private final LocalVantage loop = new LocalVantage(
            "loop",
            false,
            new Dialler(() -> List.of(Prefix.parse("127.40.0.0/16"), Prefix.parse("10.40.8.0/24")), true),
            vertx);
    private final List<AutoCloseable> opened = new ArrayList<>();

    private interface Row {
        Climbed climb() throws Exception;
    }

    @BeforeAll
    static void open() throws IOException {
        hall = new HallOnTheWire(
                directory,
                "LV-1 " + FIRST + " " + ON_THE_WIRE + " -\nLV-2 " + SECOND + " " + BESIDE_IT + " -\n",
                Prefix.parse("127.40.0.0/16"));
        jump = hall.jump;
    }

    @AfterAll
    static void close() throws Exception {
        hall.close();
        StringBuilder all = new StringBuilder();
        new TreeMap<>(SENTENCES)
                .forEach((trouble, sentence) ->
                        all.append(trouble).append(": ").append(sentence).append('\n'));
        Files.writeString(Path.of("target", "live-verdicts.txt"), all);
    }

    @AfterEach
    void end() throws Exception {
        for (AutoCloseable each : opened) {
            each.close();
        }
        loop.close();
        vertx.close().toCompletionStage().toCompletableFuture().join();
    }

    // --- peers ---

    private void https(KeyCertOptions key, Handler<HttpServerRequest> pages) {
        vertx.createHttpServer(new HttpServerOptions().setSsl(true).setKeyCertOptions(key))
                .requestHandler(pages)
                .listen(PORT, AT.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    private void page(KeyCertOptions key) {
        https(key, request -> request.response().end(FORM));
    }

    private static KeyCertOptions own() {
        return Certificates.selfSigned("live", -1, 30);
    }

    private void tcp(int port, Handler<io.vertx.core.net.NetSocket> peer) {
        vertx.createNetServer()
                .connectHandler(peer)
                .listen(port, AT.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    private static String pem(Object object) throws IOException {
        StringWriter text = new StringWriter();
        try (JcaPEMWriter writer = new JcaPEMWriter(text)) {
            writer.writeObject(object);
        }
        return text.toString();
    }

    private static KeyCertOptions pems(KeyPair pair, String chain) throws Exception {
        return new PemKeyCertOptions()
                .addKeyValue(Buffer.buffer(pem(new JcaPKCS8Generator(pair.getPrivate(), null))))
                .addCertValue(Buffer.buffer(chain));
    }

    /** A key with a certificate that the hall's authority signed. */
    private static KeyCertOptions signed(String name, boolean alone) throws Exception {
        KeyPairGenerator generator = KeyPairGenerator.getInstance("EC");
        generator.initialize(256);
        KeyPair pair = generator.generateKeyPair();
        ExtensionsGenerator names = new ExtensionsGenerator();
        names.addExtension(
                Extension.subjectAlternativeName, false, new GeneralNames(new GeneralName(GeneralName.dNSName, name)));
        var request = new JcaPKCS10CertificationRequestBuilder(new X500Name("CN=" + name), pair.getPublic())
                .addAttribute(PKCSObjectIdentifiers.pkcs_9_at_extensionRequest, names.generate())
                .build(new JcaContentSignerBuilder("SHA256withECDSA").build(pair.getPrivate()));
        String chain = new Authority().sign(pem(request));
        return pems(pair, alone ? chain.substring(0, chain.indexOf("-----BEGIN", 20)) : chain);
    }

    private static KeyCertOptions weak() throws Exception {
        KeyPairGenerator generator = KeyPairGenerator.getInstance("RSA");
        generator.initialize(1024);
        KeyPair pair = generator.generateKeyPair();
        X500Name name = new X500Name("CN=weak");
        java.util.Date now = new java.util.Date();
        var builder = new JcaX509v3CertificateBuilder(
                name,
                java.math.BigInteger.ONE,
                now,
                new java.util.Date(now.getTime() + 86_400_000),
                name,
                pair.getPublic());
        return pems(
                pair,
                pem(new JcaX509CertificateConverter()
                        .getCertificate(
                                builder.build(new JcaContentSignerBuilder("SHA256withRSA").build(pair.getPrivate())))));
    }

    /** A small Redfish service that is the machine on the label and goes wrong at one place. */
    private void service(String wrongAt) {
        https(own(), request -> request.body().onSuccess(body -> {
            String path = request.path();
            JsonObject said =
                    switch (path) {
                        case "/redfish/v1/" ->
                            new JsonObject()
                                    .put("RedfishVersion", "1.17.0")
                                    .put("Links", new JsonObject().put("Sessions", link("S")))
                                    .put("Managers", link("M"));
                        case "/redfish/v1/M" -> new JsonObject().put("Members", new JsonArray().add(link("M1")));
                        case "/redfish/v1/M1" ->
                            new JsonObject()
                                    .put("ManagerType", "BMC")
                                    .put("SerialNumber", "LV-1")
                                    .put("EthernetInterfaces", link("E"))
                                    .put("NetworkProtocol", link("N"));
                        case "/redfish/v1/E" -> new JsonObject().put("Members", new JsonArray().add(link("E1")));
                        case "/redfish/v1/E1" ->
                            new JsonObject()
                                    .put("MACAddress", FIRST.toString())
                                    .put("HostName", "live-1")
                                    .put("FQDN", NAME)
                                    .put("DHCPv4", new JsonObject().put("DHCPEnabled", false))
                                    .put(
                                            "IPv4Addresses",
                                            new JsonArray()
                                                    .add(new JsonObject()
                                                            .put("Address", AT.toString())
                                                            .put("SubnetMask", "255.255.255.0")))
                                    .put("StaticNameServers", new JsonArray());
                        case "/redfish/v1/N" ->
                            new JsonObject()
                                    .put(
                                            "NTP",
                                            new JsonObject()
                                                    .put("ProtocolEnabled", true)
                                                    .put("NTPServers", new JsonArray()));
                        default -> new JsonObject();
                    };
            boolean logsIn = path.equals("/redfish/v1/S");
            boolean factory = logsIn && body.toString().contains("fellside");
            int status = path.equals(wrongAt) || factory && wrongAt.equals("factory") ? 500 : logsIn ? 201 : 200;
            request.response()
                    .setStatusCode(status)
                    .putHeader("X-Auth-Token", "t")
                    .putHeader("Location", "/redfish/v1/S/1")
                    .end(said.encode());
        }));
    }

    /** Answers every presence ping (DMTF DSP0136, section 3.2.4.3). */
    private void pong() throws IOException {
        DatagramSocket socket = new DatagramSocket(623, InetAddress.getByName(AT.toString()));
        opened.add(socket);
        new Thread(() -> {
                    byte[] asked = new byte[64];
                    byte[] answer =
                            HexFormat.of().parseHex("0600ff06000011be40000010000011be00000000" + "8100000000000000");
                    try {
                        while (true) {
                            DatagramPacket packet = new DatagramPacket(asked, asked.length);
                            socket.receive(packet);
                            answer[9] = asked[9];
                            socket.send(new DatagramPacket(answer, answer.length, packet.getSocketAddress()));
                        }
                    } catch (IOException e) {
                        // the test has ended
                    }
                })
                .start();
    }

    private static JsonObject link(String to) {
        return new JsonObject().put("@odata.id", "/redfish/v1/" + to);
    }

    private static Target.Redfish redfish() {
        Settings plan = new Settings(
                AT, Address.parse("255.255.255.0"), null, false, "live-1", NAME, List.of(), List.of(), true);
        return new Target.Redfish(
                "LV-1",
                FIRST,
                plan,
                new Target.Login("keeper", Secret.of("ours-and-nobody-elses")),
                new Kind.Login("keeper", Secret.of("fellside")));
    }

    /** Pages that say of their state what is given. */
    private void array(String admitted, String state) {
        https(own(), request -> {
            if (!request.path().startsWith("/open/")) {
                request.response().end(FORM);
                return;
            }
            String login = new String(
                    java.util.Base64.getDecoder()
                            .decode(request.getHeader("Authorization").substring(6)),
                    java.nio.charset.StandardCharsets.UTF_8);
            boolean in = login.endsWith(":" + admitted);
            request.response()
                    .setStatusCode(in ? 200 : 401)
                    .end(
                            in
                                    ? new JsonObject()
                                            .put("serial", "BK-1")
                                            .put("mtu", 9000)
                                            .put("state", state)
                                            .encode()
                                    : "");
        });
    }

    // --- climbs ---

    private Target target(Target.Service service) {
        return new Target(AT, PORT, null, null, List.of(), service, NO_NAMES);
    }

    private Climbed climb(Target target) throws Exception {
        return new Climb(loop, target, Clock.systemUTC()).climb();
    }

    private static Target.SignIn signIn(boolean ssh) {
        return new Target.SignIn(ssh, SET_UP, null);
    }

    private static Climbed wire(Address at, Mac label, Target.Known known, Target.Names names) throws Exception {
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
                        new Target(at, 443, label, null, List.of(), List.of(23), "", service, names, known),
                        Clock.systemUTC())
                .climb();
    }

    private static Climbed named(Map<String, Address> servers, Map<String, Address> reverse) throws Exception {
        return wire(ON_THE_WIRE, FIRST, Target.Known.NOTHING, new Target.Names(NAME, servers, reverse));
    }

    private interface Breaking {
        void on(LoopbackHall lab) throws Exception;
    }

    /** A stand-in of its own, as delivered by its preset, wrong in one way. */
    private Climbed standIn(Breaking breaking, Quirk... quirks) throws Exception {
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
                                        as.shut())
                                .refusing("public"),
                        Clock.systemUTC())
                .climb();
    }

    private static final Breaking NOT_AT_ALL = lab -> {};

    // --- the hall's name servers ---

    private static final Address PRIMARY = Address.parse("10.40.8.3");
    private static final Address SECONDARY = Address.parse("10.40.8.4");

    private static Climbed withRecord(ZoneRecord record, String zone, Row row) throws Exception {
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

    private static Map<String, Address> both() {
        return Map.of("10.40.8.3", PRIMARY, "10.40.8.4", SECONDARY);
    }

    /** A second server that took the zone once and asks again in a quarter of an hour: its primary tells it nothing. */
    private Climbed besideALaggingServer() throws Exception {
        try (LaggingPair pair = new LaggingPair(directory)) {
            pair.put(new ZoneRecord(NAME, "A", ON_THE_WIRE.toString()));
            return named(
                    Map.of(pair.primary.toString(), pair.primary, pair.lagging.toString(), pair.lagging), Map.of());
        }
    }

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
        assertEquals(EnumSet.allOf(Trouble.class), rows().keySet());
    }
}
