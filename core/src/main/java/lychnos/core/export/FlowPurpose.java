package lychnos.core.export;

import java.util.Arrays;
import java.util.Optional;

/** What a flow is for. */
public enum FlowPurpose {
    NAMES("names", "name service"),
    TIME("time", "time service"),
    MAIL("mail", "mail relay"),
    LOGS("logs", "syslog"),
    PROXY("activation, updates and telemetry, through the proxy", "proxy"),
    INTERNET("activation, updates and telemetry", "internet"),
    DIRECTORY("log-in by the directory", "directory"),
    /** Between the machines of a unit. */
    CLUSTER("heartbeat of the cluster", ""),
    /** From the people who manage machines. */
    MANAGEMENT("management", "");

    private final String text;
    private final String service;

    FlowPurpose(String text, String service) {
        this.text = text;
        this.service = service;
    }

    /** What it is for, as a firewall team reads it. */
    public String text() {
        return text;
    }

    /** The purpose of a flow to what a kind calls a service of the site; nothing for a role. */
    static Optional<FlowPurpose> of(String service) {
        return Arrays.stream(values())
                .filter(each -> !each.service.isEmpty() && each.service.equals(service))
                .findFirst();
    }
}
