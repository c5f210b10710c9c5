package lychnos.wire.ladder;

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
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Trouble;
import lychnos.lab.Authority;
import lychnos.lab.Certificates;
import lychnos.wire.HallOnTheWire;
import lychnos.wire.dial.Dialler;
import lychnos.wire.vantage.LocalVantage;
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
/** Peers on the loopback and on the wire that do one thing wrong at a time. */
abstract class LivePeers {

    static final Address AT = Address.parse("127.40.43.7");
    static final Address ON_THE_WIRE = Address.parse("10.40.8.70");
    static final Address BESIDE_IT = Address.parse("10.40.8.73");
    static final Mac FIRST = Mac.parse("02:4c:59:e1:00:01");
    static final Mac SECOND = Mac.parse("02:4c:59:e1:00:02");
    static final int PORT = 18450;
    static final String NAME = "live-1.ardal.example";
    static final Target.SetUp SET_UP = new Target.SetUp(Instant.EPOCH, "LV-1", true);
    static final Target.Names NO_NAMES = new Target.Names(NAME, Map.of(), Map.of());
    static final String FORM = "<title>Live</title><form><input type=password name=w></form>";
    static final Map<Trouble, String> SENTENCES = new EnumMap<>(Trouble.class);

    @TempDir
    static Path directory;

    static HallOnTheWire hall;
    static LocalVantage jump;

    final Vertx vertx = Vertx.vertx();
    final LocalVantage loop = new LocalVantage(
            "loop",
            false,
            new Dialler(() -> List.of(Prefix.parse("127.40.0.0/16"), Prefix.parse("10.40.8.0/24")), true),
            vertx);
    final List<AutoCloseable> opened = new ArrayList<>();

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

    void https(KeyCertOptions key, Handler<HttpServerRequest> pages) {
        vertx.createHttpServer(new HttpServerOptions().setSsl(true).setKeyCertOptions(key))
                .requestHandler(pages)
                .listen(PORT, AT.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    void page(KeyCertOptions key) {
        https(key, request -> request.response().end(FORM));
    }

    static KeyCertOptions own() {
        return Certificates.selfSigned("live", -1, 30);
    }

    void tcp(int port, Handler<io.vertx.core.net.NetSocket> peer) {
        vertx.createNetServer()
                .connectHandler(peer)
                .listen(port, AT.toString())
                .toCompletionStage()
                .toCompletableFuture()
                .join();
    }

    static String pem(Object object) throws IOException {
        StringWriter text = new StringWriter();
        try (JcaPEMWriter writer = new JcaPEMWriter(text)) {
            writer.writeObject(object);
        }
        return text.toString();
    }

    static KeyCertOptions pems(KeyPair pair, String chain) throws Exception {
        return new PemKeyCertOptions()
                .addKeyValue(Buffer.buffer(pem(new JcaPKCS8Generator(pair.getPrivate(), null))))
                .addCertValue(Buffer.buffer(chain));
    }

    /** A key with a certificate that the hall's authority signed. */
    static KeyCertOptions signed(String name, boolean alone) throws Exception {
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

    static KeyCertOptions weak() throws Exception {
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
    void service(String wrongAt) {
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
    void pong() throws IOException {
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

    static JsonObject link(String to) {
        return new JsonObject().put("@odata.id", "/redfish/v1/" + to);
    }

    static Target.Redfish redfish() {
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
    void array(String admitted, String state) {
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
}
