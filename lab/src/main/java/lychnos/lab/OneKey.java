package lychnos.lab;

import io.vertx.core.Vertx;
import io.vertx.core.net.KeyCertOptions;
import java.net.Socket;
import java.security.KeyStore;
import java.security.Principal;
import java.security.PrivateKey;
import java.security.Security;
import java.security.cert.X509Certificate;
import javax.net.ssl.KeyManager;
import javax.net.ssl.KeyManagerFactory;
import javax.net.ssl.KeyManagerFactorySpi;
import javax.net.ssl.ManagerFactoryParameters;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.X509ExtendedKeyManager;

/**
 * A server's one key and certificate, shown to every client. Not out of a key store: hundreds of those, each with its
 * stretched password, take the better part of a minute.
 */
final class OneKey extends X509ExtendedKeyManager implements KeyCertOptions {

    private static final String ALIAS = "key";

    private volatile PrivateKey key;
    private volatile X509Certificate[] chain;

    /**
     * A key with what is shown for it.
     *
     * @param key an EC key
     * @param chain its certificate, and those above it that are sent along
     */
    OneKey(PrivateKey key, X509Certificate... chain) {
        this.key = key;
        this.chain = chain.clone();
    }

    @Override
    public KeyCertOptions copy() {
        return this; // every user of it shows the new one
    }

    @Override
    public KeyManagerFactory getKeyManagerFactory(Vertx vertx) {
        return new KeyManagerFactory(new Factory(this), Security.getProvider("SunJSSE"), "one key") {};
    }

    /** Shows another key and chain from the next handshake on. */
    synchronized void become(OneKey other) {
        key = other.key;
        chain = other.chain;
    }

    X509Certificate certificate() {
        return chain[0];
    }

    private static String aliasFor(String keyType) {
        return keyType.startsWith("EC") ? ALIAS : null;
    }

    @Override
    public String chooseEngineServerAlias(String keyType, Principal[] issuers, SSLEngine engine) {
        return aliasFor(keyType);
    }

    @Override
    public String chooseServerAlias(String keyType, Principal[] issuers, Socket socket) {
        return aliasFor(keyType);
    }

    @Override
    public String[] getServerAliases(String keyType, Principal[] issuers) {
        return aliasFor(keyType) == null ? null : new String[] {ALIAS};
    }

    @Override
    public X509Certificate[] getCertificateChain(String alias) {
        return chain.clone();
    }

    @Override
    public PrivateKey getPrivateKey(String alias) {
        return key;
    }

    @Override
    public String[] getClientAliases(String keyType, Principal[] issuers) {
        return null;
    }

    @Override
    public String chooseClientAlias(String[] keyType, Principal[] issuers, Socket socket) {
        return null;
    }

    /** Gives out the one that there is. */
    private static final class Factory extends KeyManagerFactorySpi {
        private final KeyManager[] one;

        Factory(OneKey key) {
            one = new KeyManager[] {key};
        }

        @Override
        protected void engineInit(KeyStore store, char[] password) {}

        @Override
        protected void engineInit(ManagerFactoryParameters parameters) {}

        @Override
        protected KeyManager[] engineGetKeyManagers() {
            return one;
        }
    }
}
