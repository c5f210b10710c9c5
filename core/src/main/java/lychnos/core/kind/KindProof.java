package lychnos.core.kind;

import java.util.ArrayList;
import java.util.EnumSet;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.fact.FactSpec;
import lychnos.core.proof.OwnValue;

/** What the checks of a kind prove, one clause for each. */
final class KindProof {

    private KindProof() {}

    /** What a machine of this kind tells of itself at each check. */
    static Set<OwnValue> shown(Kind kind) {
        Set<OwnValue> shown = EnumSet.noneOf(OwnValue.class);
        shown.addAll(kind.checks().shows().keySet());
        kind.checkedPages().ifPresent(over -> shown.addAll(over.shows().keySet()));
        if (kind.driven()) {
            shown.addAll(Set.of(OwnValue.FIRMWARE, OwnValue.CLOCK));
        }
        return shown;
    }

    static List<String> proven(Kind kind) {
        KindChecks checks = kind.checks();
        List<String> all = new ArrayList<>(List.of(KindSummaryText.PORT_ANSWERS.text(checks.port())));
        if (checks.ssh()) {
            all.add((checks.signsIn().isPresent() ? KindSummaryText.SSH_READ_BACK : KindSummaryText.SSH).text());
        }
        if (!shown(kind).isEmpty()) {
            all.add(KindSummaryText.OWN_VALUES.text(
                    shown(kind).stream().map(OwnValue::word).collect(Collectors.joining(", "))));
        }
        if (checks.presence() == Expectation.EXPECTED) {
            all.add(KindSummaryText.PRESENCE.text());
        } else if (checks.presence() == Expectation.FORBIDDEN) {
            all.add(KindSummaryText.NO_PRESENCE.text());
        }
        if (!checks.iscsi().isEmpty()) {
            all.add(KindSummaryText.PORTALS.text(String.join(", ", checks.iscsi())));
        }
        if (!checks.nfs().isEmpty()) {
            all.add(KindSummaryText.NFS.text(String.join(", ", checks.nfs())));
        }
        if (!checks.open().isEmpty()) {
            all.add(KindSummaryText.OPEN.text(listed(checks.open())));
        }
        if (!checks.shut().isEmpty()) {
            all.add(KindSummaryText.SHUT.text(listed(checks.shut())));
        }
        checks.ports()
                .restricted()
                .forEach(each -> all.add(KindSummaryText.RESTRICTED.text(
                        each.port(), kind.fact(each.from()).map(FactSpec::title).orElse(each.from()))));
        checks.roles().forEach((role, ports) -> {
            if (!ports.open().isEmpty()) {
                all.add(KindSummaryText.ROLE_OPEN.text(role, listed(ports.open())));
            }
            if (!ports.shut().isEmpty()) {
                all.add(KindSummaryText.ROLE_SHUT.text(role, listed(ports.shut())));
            }
        });
        if (checks.webForm().isPresent()) {
            all.add(KindSummaryText.WEB_FORM.text());
        }
        checks.signsIn().ifPresent(login -> login.also()
                .forEach(other -> all.add(KindSummaryText.SSH_ALSO.text(other.user()))));
        if (!checks.community().isEmpty()) {
            all.add(KindSummaryText.NO_SNMP.text(checks.community()));
        }
        List<String> ways =
                kind.logins().stream().map(Kind.FactoryLogin::way).distinct().toList();
        all.add(KindSummaryText.FACTORY_REFUSED.text(String.join(", ", ways)));
        return List.copyOf(all);
    }

    private static String listed(List<Integer> ports) {
        return ports.stream().map(String::valueOf).collect(Collectors.joining(", "));
    }
}
