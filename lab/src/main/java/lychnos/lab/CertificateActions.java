package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;

/** The actions of a stand-in's certificate service (DMTF DSP0266, CertificateService). */
final class CertificateActions {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final WebKey key;

    CertificateActions(WebKey key) {
        this.key = key;
    }

    /** Makes a request for a certificate, or takes a certificate. */
    Reply act(String path, JsonNode body) {
        try {
            if (path.equals(Paths.REQUEST_CERTIFICATE)) {
                String name = body.path("CommonName").asText();
                if (name.isEmpty()
                        || !body.path("CertificateCollection")
                                .path("@odata.id")
                                .asText()
                                .equals(Paths.WEB_CERTIFICATES)) {
                    return Reply.error(
                            400,
                            "Base.1.18.ActionParameterMissing",
                            "A name and a collection are wanted.",
                            "CommonName",
                            "CertificateCollection");
                }
                ObjectNode made = JSON.createObjectNode()
                        .put("CSRString", key.request(name, PortSettings.texts(body.path("AlternativeNames"))));
                made.putObject("CertificateCollection").put("@odata.id", Paths.WEB_CERTIFICATES);
                return Reply.ok(made);
            }
            if (path.equals(Paths.REPLACE_CERTIFICATE)) {
                boolean known =
                        body.path("CertificateUri").path("@odata.id").asText().equals(Paths.WEB_CERTIFICATE)
                                && body.path("CertificateType").asText().equals("PEMchain");
                if (!known || !key.take(body.path("CertificateString").asText())) {
                    return Reply.error(
                            400,
                            "Base.1.18.PropertyValueError",
                            "That is no certificate for a request of mine.",
                            "CertificateString");
                }
                return Reply.empty(204);
            }
        } catch (Exception e) {
            return Reply.error(
                    400,
                    "Base.1.18.ActionParameterValueError",
                    "That cannot be read: " + e.getMessage(),
                    "CertificateString");
        }
        return Reply.notAllowed();
    }
}
