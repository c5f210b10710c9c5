package lychnos.lab;

import io.vertx.core.net.KeyCertOptions;
import java.math.BigInteger;
import java.security.KeyPair;
import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.Date;
import org.bouncycastle.asn1.x500.X500Name;
import org.bouncycastle.cert.jcajce.JcaX509CertificateConverter;
import org.bouncycastle.cert.jcajce.JcaX509v3CertificateBuilder;
import org.bouncycastle.operator.jcajce.JcaContentSignerBuilder;

/** Makes the self-signed certificates that the stand-ins present (EC P-256). */
public final class Certificates {

    private Certificates() {}

    /** A certificate for this name that is valid from and to these days, counted from now. */
    public static KeyCertOptions selfSigned(String commonName, int fromDays, int toDays) {
        try {
            KeyPair pair = KeyFile.newPair();
            X500Name name = new X500Name("CN=" + commonName);
            Instant now = Instant.now();
            var builder = new JcaX509v3CertificateBuilder(
                    name,
                    BigInteger.valueOf(now.toEpochMilli()),
                    Date.from(now.plus(fromDays, ChronoUnit.DAYS)),
                    Date.from(now.plus(toDays, ChronoUnit.DAYS)),
                    name,
                    pair.getPublic());
            var certificate = new JcaX509CertificateConverter()
                    .getCertificate(
                            builder.build(new JcaContentSignerBuilder("SHA256withECDSA").build(pair.getPrivate())));
            return new OneKey(pair.getPrivate(), certificate);
        } catch (Exception e) {
            throw new IllegalStateException("no certificate for " + commonName, e);
        }
    }
}
