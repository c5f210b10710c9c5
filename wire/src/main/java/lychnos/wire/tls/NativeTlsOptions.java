package lychnos.wire.tls;

import io.netty.handler.ssl.OpenSslSessionContext;
import io.netty.handler.ssl.SslContext;
import io.netty.handler.ssl.SslProvider;
import io.vertx.core.net.OpenSSLEngineOptions;
import io.vertx.core.spi.tls.DefaultSslContextFactory;
import io.vertx.core.spi.tls.SslContextFactory;
import javax.net.ssl.SSLException;

/**
 * The native provider for a client that resumes no session (RFC 8446, section 2.2): one that is resumed shows the
 * certificate of an earlier handshake. The option of this name in Vert.x is about servers alone.
 */
final class NativeTlsOptions extends OpenSSLEngineOptions {

    @Override
    public OpenSSLEngineOptions copy() {
        return new NativeTlsOptions();
    }

    @Override
    public SslContextFactory sslContextFactory() {
        return new DefaultSslContextFactory(SslProvider.OPENSSL, false) {

            @Override
            public SslContext create() throws SSLException {
                SslContext made = super.create();
                ((OpenSslSessionContext) made.sessionContext()).setSessionCacheEnabled(false);
                return made;
            }
        };
    }
}
