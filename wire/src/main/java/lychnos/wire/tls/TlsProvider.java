package lychnos.wire.tls;

import io.netty.handler.ssl.OpenSsl;
import io.vertx.core.net.JdkSSLEngineOptions;
import io.vertx.core.net.SSLEngineOptions;

/** What shakes hands for us. */
public enum TlsProvider {
    /** Native code: a handshake takes about a seventh of the processor time. */
    NATIVE("BoringSSL"),
    /** Part of every Java, and the one for peers that the native one refuses. */
    JAVA("Java");

    private final String title;

    TlsProvider(String title) {
        this.title = title;
    }

    /** What people call it. */
    public String title() {
        return title;
    }

    /** The quickest that loads on this machine. */
    public static TlsProvider best() {
        return OpenSsl.isAvailable() ? NATIVE : JAVA;
    }

    /** Its options for a client. */
    public SSLEngineOptions options() {
        return this == NATIVE ? new NativeTlsOptions() : new JdkSSLEngineOptions();
    }
}
