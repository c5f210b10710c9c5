package lychnos.server.site;

import java.time.Duration;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.kind.Kind;
import lychnos.core.service.Measured;
import lychnos.core.service.Measured.State;
import lychnos.core.service.ServiceKind;
import lychnos.server.text.PrepareText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ldap.DirectoryQuestion;
import lychnos.wire.ldap.DirectoryQuestion.Protection;
import lychnos.wire.ldap.DirectorySeen;
import lychnos.wire.vantage.Vantage;

/** Measures a directory: whether it accepts the service account and knows the group. */
final class DirectoryMeasured {

    private static final int LDAP = 389;
    private static final int LDAP_OVER_TLS = 636;

    private DirectoryMeasured() {}

    /** @param login the service account; null for none */
    static Measured of(SiteResourceRow directory, Kind.Login login, Vantage vantage, Duration patience, Instant at) {
        String address = directory.value.get("address");
        Protection protection =
                switch (directory.value.getOrDefault("protection", "")) {
                    case "tls" -> Protection.TLS;
                    case "starttls" -> Protection.START_TLS;
                    default -> Protection.NONE;
                };
        String group = directory.value.getOrDefault("group", "");
        DirectoryQuestion question = new DirectoryQuestion(
                protection,
                directory.value.getOrDefault("certificate", ""),
                login,
                directory.value.getOrDefault("base", ""),
                group);
        try {
            DirectorySeen seen = vantage.directory(
                    Address.parse(address),
                    directory.resource().number("port", protection == Protection.TLS ? LDAP_OVER_TLS : LDAP),
                    question,
                    patience);
            Map<String, String> detail = new LinkedHashMap<>();
            if (!seen.said().isEmpty()) {
                detail.put("answer", seen.said());
            }
            if (!seen.certificate().isEmpty()) {
                detail.put("certificate", seen.certificate());
            }
            return new Measured(ServiceKind.DIRECTORY, address, state(seen), sentence(seen, question), detail, at);
        } catch (WireFault e) {
            return new Measured(ServiceKind.DIRECTORY, address, State.SILENT, e.getMessage(), Map.of(), at);
        }
    }

    private static State state(DirectorySeen seen) {
        return switch (seen.result()) {
            case FOUND -> State.FINE;
            case SILENT -> State.SILENT;
            default -> State.ODD;
        };
    }

    private static String sentence(DirectorySeen seen, DirectoryQuestion question) {
        return switch (seen.result()) {
            case SILENT -> PrepareText.DIRECTORY_SILENT.text(seen.said());
            case NO_TLS -> PrepareText.DIRECTORY_WITHOUT_TLS.text(seen.said());
            case NOT_TRUSTED ->
                (question.certificate().isEmpty()
                                ? PrepareText.DIRECTORY_CERTIFICATE_UNKNOWN
                                : PrepareText.DIRECTORY_CERTIFICATE_CHANGED)
                        .text(seen.certificate());
            case REFUSED ->
                question.login() == null
                        ? PrepareText.DIRECTORY_WANTS_AN_ACCOUNT.text(seen.said())
                        : PrepareText.DIRECTORY_REFUSES_ACCOUNT.text(
                                question.login().user(), seen.said());
            case NO_BASE -> PrepareText.DIRECTORY_WITHOUT_BASE.text(question.base());
            case NO_GROUP -> PrepareText.DIRECTORY_WITHOUT_GROUP.text(question.group());
            case SEVERAL_GROUPS -> PrepareText.DIRECTORY_SEVERAL_GROUPS.text(question.group());
            case FOUND ->
                question.group().isEmpty()
                        ? PrepareText.DIRECTORY_ANSWERS.text()
                        : PrepareText.DIRECTORY_KNOWS_GROUP.text(question.group());
        };
    }
}
