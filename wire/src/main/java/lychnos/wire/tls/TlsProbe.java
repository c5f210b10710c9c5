package lychnos.wire.tls;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.security.cert.Certificate;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.HexFormat;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLSession;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;
import lychnos.wire.WireFault;
import lychnos.wire.WireFault.Kind;

/** Shakes hands and looks at the certificate. Trusts anything, since to look is the purpose; sends nothing afterwards. */
public final class TlsProbe {

    private final SSLContext context = trustingContext();

    private static SSLContext trustingContext() {
        try {
            SSLContext context = SSLContext.getInstance("TLS");
            context.init(null, new TrustManager[] {new TrustAnything()}, null);
            // every probe is to see the certificate itself, not a resumed session
            context.getClientSessionContext().setSessionCacheSize(1);
            return context;
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("TLS is part of every Java", e);
        }
    }

    /** @throws WireFault of kind SILENT, REFUSED or NO_TLS */
    public TlsSeen probe(InetSocketAddress peer, Duration timeout) throws WireFault {
        int millis = (int) timeout.toMillis();
        try (Socket plain = new Socket()) {
            plain.connect(peer, millis);
            plain.setSoTimeout(millis);
            try (SSLSocket socket = (SSLSocket) context.getSocketFactory().createSocket(plain, null, peer.getPort(), true)) {
                socket.startHandshake();
                return seen(socket.getSession());
            }
        } catch (SSLException e) {
            throw new WireFault(Kind.NO_TLS, "the handshake failed", e);
        } catch (SocketTimeoutException e) {
            throw new WireFault(Kind.SILENT, "no answer in " + timeout.toSeconds() + " s", e);
        } catch (ConnectException e) {
            throw new WireFault(Kind.REFUSED, "the connection was refused", e);
        } catch (IOException e) {
            throw new WireFault(Kind.NO_TLS, "the connection ended in the handshake", e);
        }
    }

    private static TlsSeen seen(SSLSession session) throws SSLException {
        X509Certificate certificate = (X509Certificate) session.getPeerCertificates()[0];
        return new TlsSeen(
                session.getProtocol(),
                fingerprint(certificate),
                certificate.getSubjectX500Principal().getName(),
                certificate.getSubjectX500Principal().equals(certificate.getIssuerX500Principal()),
                certificate.getNotBefore().toInstant(),
                certificate.getNotAfter().toInstant());
    }

    /** SHA-256 over the certificate's DER form, in lower-case hexadecimal. */
    public static String fingerprint(Certificate certificate) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(certificate.getEncoded()));
        } catch (GeneralSecurityException e) {
            throw new IllegalArgumentException("a certificate that came over the wire has an encoding", e);
        }
    }

    private static final class TrustAnything extends X509ExtendedTrustManager {

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, Socket socket) {}

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, Socket socket) {}

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type, SSLEngine engine) {}

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type, SSLEngine engine) {}

        @Override
        public void checkClientTrusted(X509Certificate[] chain, String type) {}

        @Override
        public void checkServerTrusted(X509Certificate[] chain, String type) {}

        @Override
        public X509Certificate[] getAcceptedIssuers() {
            return new X509Certificate[0];
        }
    }
}
