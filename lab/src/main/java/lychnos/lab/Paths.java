package lychnos.lab;

/** Where the resources of a stand-in's Redfish service are. */
final class Paths {

    static final String ROOT = "/redfish/v1/";
    static final String SESSIONS = ROOT + "SessionService/Sessions";
    static final String ACCOUNTS = ROOT + "AccountService/Accounts";
    static final String ACCOUNT = ACCOUNTS + "/7";
    static final String MANAGER = ROOT + "Managers/lc";
    static final String PORTS = MANAGER + "/EthernetInterfaces";
    static final String OOB = PORTS + "/oob";
    static final String PROTOCOL = MANAGER + "/NetworkProtocol";
    static final String CERTIFICATES = ROOT + "CertificateService";
    static final String REQUEST_CERTIFICATE = CERTIFICATES + "/Actions/CertificateService.GenerateCSR";
    static final String REPLACE_CERTIFICATE = CERTIFICATES + "/Actions/CertificateService.ReplaceCertificate";
    static final String WEB_CERTIFICATES = PROTOCOL + "/HTTPS/Certificates";
    static final String WEB_CERTIFICATE = WEB_CERTIFICATES + "/web";
    static final String TASK = ROOT + "TaskService/Tasks/";

    private Paths() {}
}
