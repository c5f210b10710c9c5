package lychnos.server.prove;

/** How a signed certificate comes onto a machine. */
public enum CertificateWay {
    /** Over its Redfish CertificateService. */
    REDFISH,
    /** Over the documented interface of its pages. */
    PAGES,
    /** A person makes the request and installs the certificate on the machine's own page. */
    BY_HAND
}
