package lychnos.server;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.inject.Inject;
import java.nio.file.Path;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lychnos.server.http.Json;
import lychnos.server.http.Response;
import org.hibernate.Session;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.io.TempDir;

/** A proven machine, and a lead who signs. */
abstract class HandoverStage extends ProvenMachine {

    @Inject
    Session db;

    @TempDir
    Path directory;

    Client lead;

    @BeforeEach
    void signIn() {
        lead = Client.lead();
    }

    Json handover() {
        return client.get("/api/bring-ups/" + id + "/handover");
    }

    Response sign(Client by, String face) {
        Map<String, Object> seen = new LinkedHashMap<>(Map.of("unit", unit));
        seen.put("face", face);
        return by.post("/api/bring-ups/" + id + "/signatures", Map.of("units", List.of(seen)));
    }

    Response sign() {
        return sign(lead, handover().getString("units[0].face"));
    }

    Json verify() {
        return lead.post("/api/chain/verifications", Map.of()).statusCode(200).json();
    }

    void sql(String statement) {
        QuarkusTransaction.requiringNew()
                .run(() -> db.createNativeMutationQuery(statement).executeUpdate());
    }

    byte[] pack(String paper) {
        return client.post("/api/bring-ups/" + id + "/packs?paper=" + paper, Map.of())
                .statusCode(200)
                .asByteArray();
    }
}
