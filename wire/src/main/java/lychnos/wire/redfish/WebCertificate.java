package lychnos.wire.redfish;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.util.List;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;

/**
 * The certificate of a controller's web service (schemas CertificateService and Certificate): asked for, and replaced.
 */
public final class WebCertificate {

    private static final ObjectMapper JSON = new ObjectMapper();

    private final RedfishClient client;

    /** @param client logged in */
    public WebCertificate(RedfishClient client) {
        this.client = client;
    }

    /**
     * A request that the machine has made for a new key of its own.
     *
     * @param pem the request (PKCS #10, RFC 2986) in PEM
     * @param collection the machine's resource that the certificate will go to
     */
    public record Request(String pem, String collection) {}

    /** Has the machine make a key and a request for it. The certificate in use stays until another is put in. */
    public Request request(String commonName, List<String> names) throws WireFault, RedfishFault {
        String collection = collection();
        ObjectNode parameters = JSON.createObjectNode()
                .put("CommonName", commonName)
                .put("KeyPairAlgorithm", "TPM_ALG_ECDSA")
                .put("KeyCurveId", "TPM_ECC_NIST_P256");
        names.forEach(parameters.putArray("AlternativeNames")::add);
        parameters.putObject("CertificateCollection").put("@odata.id", collection);
        String pem =
                client.act(action("GenerateCSR"), parameters).path("CSRString").asText();
        if (!pem.contains("CERTIFICATE REQUEST")) {
            throw new WireFault(WireFault.Kind.GARBAGE, WireText.NO_SIGNING_REQUEST.text());
        }
        return new Request(pem, collection);
    }

    /** Puts a certificate in, with those above it; PEM. */
    public void replace(String collection, String chain) throws WireFault, RedfishFault {
        List<Resource> installed = client.members(JSON.createObjectNode().put("@odata.id", collection));
        if (installed.isEmpty()) {
            throw new WireFault(WireFault.Kind.GARBAGE, WireText.NO_CERTIFICATE_TO_REPLACE.text());
        }
        ObjectNode parameters =
                JSON.createObjectNode().put("CertificateString", chain).put("CertificateType", "PEMchain");
        parameters.putObject("CertificateUri").put("@odata.id", installed.get(0).path());
        client.act(action("ReplaceCertificate"), parameters);
    }

    private JsonNode action(String name) throws WireFault, RedfishFault {
        JsonNode root = client.root().json();
        if (!root.has("CertificateService")) {
            throw new WireFault(WireFault.Kind.GARBAGE, WireText.NO_CERTIFICATE_SERVICE.text());
        }
        return client.follow(root.path("CertificateService"))
                .json()
                .path("Actions")
                .path("#CertificateService." + name);
    }

    /** Where the web service's certificates lie (ManagerNetworkProtocol, HTTPS). */
    private String collection() throws WireFault, RedfishFault {
        for (Resource manager : client.members(client.root().json().path("Managers"))) {
            JsonNode certificates = client.follow(manager.json().path("NetworkProtocol"))
                    .json()
                    .path("HTTPS")
                    .path("Certificates");
            if (certificates.has("@odata.id")) {
                return certificates.path("@odata.id").asText();
            }
        }
        throw new WireFault(WireFault.Kind.GARBAGE, WireText.NO_PLACE_FOR_CERTIFICATE.text());
    }
}
