package lychnos.lab.console;

import io.vertx.core.json.JsonObject;
import java.io.IOException;
import java.net.Socket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.cert.X509Certificate;
import java.time.Duration;
import java.util.Base64;
import javax.net.ssl.SSLContext;
import javax.net.ssl.SSLEngine;
import javax.net.ssl.TrustManager;
import javax.net.ssl.X509ExtendedTrustManager;

/** How a machine registers with a fleet manager: over the interface of that one's pages, with the word for joining. */
final class FleetCall {

    private static final Duration PATIENCE = Duration.ofSeconds(5);

    private FleetCall() {}

    /** Machines of a hall sign their own certificates; this one looks at none. */
    private static final class Anybody extends X509ExtendedTrustManager {
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

    /** Registers a machine; gives what the fleet manager lists of it then, or why it does not. */
    static String register(String manager, String word, JsonObject self) throws InterruptedException {
        try {
            SSLContext anybody = SSLContext.getInstance("TLS");
            anybody.init(null, new TrustManager[] {new Anybody()}, null);
            HttpClient http = HttpClient.newBuilder()
                    .sslContext(anybody)
                    .connectTimeout(PATIENCE)
                    .build();
            HttpResponse<String> answer = http.send(
                    HttpRequest.newBuilder(URI.create("https://" + manager + ServedPages.ROOT + "/members"))
                            .timeout(PATIENCE)
                            .header("Authorization", "Basic " + basic(FleetPages.JOINER + ":" + word))
                            .header("Content-Type", "application/json")
                            .PUT(HttpRequest.BodyPublishers.ofString(self.encode()))
                            .build(),
                    HttpResponse.BodyHandlers.ofString());
            JsonObject body = new JsonObject(answer.body());
            return answer.statusCode() == 200
                    ? "linked, listed there as " + body.getString("name")
                    : "not linked: " + body.getString("detail");
        } catch (IOException | GeneralSecurityException | IllegalArgumentException e) {
            return "not linked: no fleet manager answers at " + manager;
        }
    }

    private static String basic(String login) {
        return Base64.getEncoder().encodeToString(login.getBytes(StandardCharsets.UTF_8));
    }
}
