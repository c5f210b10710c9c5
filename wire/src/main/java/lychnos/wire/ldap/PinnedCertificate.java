package lychnos.wire.ldap;

import java.security.cert.CertificateException;
import java.security.cert.X509Certificate;
import javax.net.ssl.X509TrustManager;
import lychnos.core.text.Sha256;
import lychnos.wire.fault.WireText;

/** Accepts one certificate, by its digest, and remembers which one was shown. */
final class PinnedCertificate implements X509TrustManager {

    private final String expected;
    private volatile String shown = "";

    /** @param expected SHA-256, 64 hexadecimal digits; with an empty text nothing is accepted */
    PinnedCertificate(String expected) {
        this.expected = expected;
    }

    String shown() {
        return shown;
    }

    @Override
    public void checkServerTrusted(X509Certificate[] chain, String type) throws CertificateException {
        shown = Sha256.hex(chain[0].getEncoded());
        if (!shown.equalsIgnoreCase(expected)) {
            throw new CertificateException(WireText.DIRECTORY_CERTIFICATE.text(shown));
        }
    }

    @Override
    public void checkClientTrusted(X509Certificate[] chain, String type) throws CertificateException {
        throw new CertificateException("this is the side of the client");
    }

    @Override
    public X509Certificate[] getAcceptedIssuers() {
        return new X509Certificate[0];
    }
}
