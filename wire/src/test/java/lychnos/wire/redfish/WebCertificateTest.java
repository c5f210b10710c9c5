package lychnos.wire.redfish;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertNotEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import lychnos.core.text.Texts;
import lychnos.lab.Authority;
import lychnos.lab.Quirk;
import lychnos.wire.LoopbackHall;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import lychnos.wire.tls.SignedChain;
import lychnos.wire.tls.SigningRequest;
import lychnos.wire.tls.TlsSeen;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/** A certificate that is asked for, signed by an authority, looked at, and put in. */
class WebCertificateTest {

    private static final String NAME = "ard-srv-001-oob.ardal.example";

    private static RedfishClient client(LoopbackHall lab) throws Exception {
        RedfishClient client = new RedfishClient(lab.vantage, LoopbackHall.FIRST, LoopbackHall.PORT, null);
        client.logIn(LoopbackHall.FACTORY.user(), LoopbackHall.FACTORY.phrase());
        return client;
    }

    private static TlsSeen shown(LoopbackHall lab) throws WireFault {
        return lab.vantage.tls(LoopbackHall.FIRST, LoopbackHall.PORT, Duration.ofSeconds(3));
    }

    @Test
    void aMachineGetsACertificateThatAnAuthoritySigned() throws Exception {
        try (LoopbackHall lab = new LoopbackHall();
                RedfishClient client = client(lab)) {
            TlsSeen before = shown(lab);
            assertTrue(before.selfSigned());
            WebCertificate slot = new WebCertificate(client);
            WebCertificate.Request request = slot.request(NAME, List.of(NAME, LoopbackHall.FIRST.toString()));
            assertEquals(
                    before.fingerprint(), shown(lab).fingerprint(), "the one in use stays until another is put in");
            SignedChain chain =
                    SignedChain.check(new Authority().sign(request.pem()), request.pem(), NAME, Instant.now());
            slot.replace(request.collection(), chain.pem());
            TlsSeen after = shown(lab);
            assertNotEquals(before.fingerprint(), after.fingerprint());
            assertFalse(after.selfSigned());
            assertEquals(List.of(NAME, LoopbackHall.FIRST.toString()), after.names());
            assertEquals(chain.fingerprint(), after.fingerprint());
            assertEquals("", after.chainFault());
            assertEquals(2, after.pem().size());
        }
    }

    @Test
    void aRequestAndItsCertificateOutliveAPowerCut(@TempDir Path state) throws Exception {
        WebCertificate.Request request;
        try (LoopbackHall lab = new LoopbackHall(state);
                RedfishClient client = client(lab)) {
            request = new WebCertificate(client).request(NAME, List.of(NAME));
        }
        String fingerprint;
        try (LoopbackHall lab = new LoopbackHall(state);
                RedfishClient client = client(lab)) {
            new WebCertificate(client).replace(request.collection(), new Authority().sign(request.pem()));
            fingerprint = shown(lab).fingerprint();
            assertFalse(shown(lab).selfSigned());
        }
        try (LoopbackHall lab = new LoopbackHall(state)) {
            assertEquals(fingerprint, shown(lab).fingerprint());
        }
    }

    @Test
    void oneThatHasNoServiceForItSaysSo() throws Exception {
        try (LoopbackHall lab = new LoopbackHall(Quirk.NO_CERTIFICATE_SERVICE);
                RedfishClient client = client(lab)) {
            assertTrue(assertThrows(WireFault.class, () -> new WebCertificate(client).request(NAME, List.of(NAME)))
                    .getMessage()
                    .contains(WireText.NO_CERTIFICATE_SERVICE.text()));
        }
    }

    private static String wrong(String pem, String request, String name) {
        return assertThrows(IllegalArgumentException.class, () -> SignedChain.check(pem, request, name, Instant.now()))
                .getMessage();
    }

    @ParameterizedTest
    @ValueSource(strings = {"", "not PEM at all", "-----BEGIN CERTIFICATE-----\nAAAA\n-----END CERTIFICATE-----\n"})
    void whatIsNoCertificateIsNotPutIn(String pem) throws Exception {
        try (LoopbackHall lab = new LoopbackHall();
                RedfishClient client = client(lab)) {
            String request =
                    new WebCertificate(client).request(NAME, List.of(NAME)).pem();
            String why = wrong(pem, request, NAME);
            assertTrue(Texts.says(WireText.CHAIN_EMPTY, why) || Texts.says(WireText.CHAIN_NOT_PEM, why), why);
        }
    }

    @Test
    void aChainThatWouldShutUsOutIsNotPutIn() throws Exception {
        try (LoopbackHall lab = new LoopbackHall();
                RedfishClient client = client(lab)) {
            WebCertificate slot = new WebCertificate(client);
            Authority authority = new Authority();
            String old = slot.request(NAME, List.of(NAME)).pem();
            String request = slot.request(NAME, List.of(NAME)).pem();
            String chain = authority.sign(request);
            assertEquals(WireText.CHAIN_OTHER_KEY.text(), wrong(authority.sign(old), request, NAME));
            assertTrue(Texts.says(WireText.CHAIN_OTHER_NAME, wrong(chain, request, "ard-srv-002-oob.ardal.example")));
            String own = chain.substring(0, chain.indexOf("-----BEGIN", 20));
            String alone = wrong(own, request, NAME);
            assertTrue(Texts.says(WireText.CHAIN_ISSUER_MISSING, alone) && alone.contains("Ardal hall signing"), alone);
            String other = wrong(own + new Authority().root(), request, NAME);
            assertTrue(
                    Texts.says(WireText.CHAIN_ISSUER_MISSING, other) || Texts.says(WireText.CHAIN_LEFT_OVER, other),
                    other);
            String late = assertThrows(
                            IllegalArgumentException.class,
                            () -> SignedChain.check(
                                    chain, request, NAME, Instant.now().plus(Duration.ofDays(5000))))
                    .getMessage();
            assertTrue(Texts.says(WireText.CHAIN_NOT_NOW, late), late);
            // in any order, with the root or without it
            assertEquals(
                    SignedChain.check(chain, request, NAME, Instant.now()),
                    SignedChain.check(chain.substring(own.length()) + own, request, NAME, Instant.now()));
            assertEquals(
                    3,
                    SignedChain.check(chain + authority.root(), request, NAME, Instant.now())
                                    .pem()
                                    .split("BEGIN CERT")
                                    .length
                            - 1);
        }
    }

    private static String wrongRequest(String pem) {
        return assertThrows(IllegalArgumentException.class, () -> SigningRequest.check(pem, NAME))
                .getMessage();
    }

    @Test
    void aRequestThatAPersonCopiedIsLookedAtBeforeItIsSigned() throws Exception {
        try (LoopbackHall lab = new LoopbackHall();
                RedfishClient client = client(lab)) {
            WebCertificate slot = new WebCertificate(client);
            String request = slot.request(NAME, List.of(NAME)).pem();
            SigningRequest.check("\n" + request + "\n", NAME);
            String other = slot.request("ard-srv-002-oob.ardal.example", List.of("ard-srv-002-oob.ardal.example"))
                    .pem();
            assertEquals(WireText.REQUEST_OTHER_NAME.text("ard-srv-002-oob.ardal.example", NAME), wrongRequest(other));
            assertEquals(WireText.REQUEST_UNREADABLE.text(), wrongRequest("x"));
            assertEquals(WireText.REQUEST_UNREADABLE.text(), wrongRequest(new Authority().root()));
            int end = request.indexOf("\n-----END") - 12;
            char flipped = request.charAt(end) == 'A' ? 'B' : 'A';
            String damaged = wrongRequest(request.substring(0, end) + flipped + request.substring(end + 1));
            assertTrue(
                    damaged.equals(WireText.REQUEST_DAMAGED.text())
                            || damaged.equals(WireText.REQUEST_UNREADABLE.text()),
                    damaged);
        }
    }
}
