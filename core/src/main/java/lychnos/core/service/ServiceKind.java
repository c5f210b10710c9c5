package lychnos.core.service;

/** The services that units lean on. */
public enum ServiceKind {
    GATEWAY,
    NAME,
    TIME,
    RELAY,
    PROXY,
    DIRECTORY
}
