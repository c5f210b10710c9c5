package lychnos.wire.tls;

import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.security.GeneralSecurityException;
import java.security.cert.X509Certificate;
import java.time.Duration;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.SSLException;
import javax.net.ssl.SSLSession;
import javax.net.ssl.SSLSocket;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.tcp.Deadline;

/**
 * Shakes hands and looks at the certificate. Trusts anything, since to look is the purpose; sends nothing afterwards.
 */
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
        Socket plain = new Socket();
        Deadline deadline = Deadline.of(plain, timeout);
        try (plain;
                deadline) {
            plain.connect(peer, millis);
            plain.setSoTimeout(millis);
            try (SSLSocket socket =
                    (SSLSocket) context.getSocketFactory().createSocket(plain, null, peer.getPort(), true)) {
                socket.startHandshake();
                SSLSession session = socket.getSession();
                return Shown.of(session.getProtocol(), session.getPeerCertificates(), TlsProvider.JAVA);
            }
        } catch (SSLException e) {
            if (deadline.over()) {
                throw silent(timeout, e);
            }
            throw new WireFault(Kind.NO_TLS, WireText.TLS_HANDSHAKE_FAILED.text(), e);
        } catch (SocketTimeoutException e) {
            throw silent(timeout, e);
        } catch (ConnectException e) {
            throw new WireFault(Kind.REFUSED, WireText.CONNECTION_REFUSED.text(), e);
        } catch (IOException e) {
            if (deadline.over()) {
                throw silent(timeout, e);
            }
            throw new WireFault(Kind.NO_TLS, WireText.ENDED_IN_HANDSHAKE.text(), e);
        }
    }

    private static WireFault silent(Duration timeout, IOException cause) {
        return new WireFault(Kind.SILENT, WireText.NO_ANSWER_IN.text(timeout.toSeconds()), cause);
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
