package lychnos.core.kind;

import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Look;
import lychnos.core.proof.OwnValue;

/** Reads what each check measures. */
final class KindChecksReader {

    private KindChecksReader() {}

    static KindChecks read(YamlPlace place, DialogueReader dialogues, List<AddressPlan> addresses) {
        place.only("checks");
        int port = place.at("port").number(1, 65535, 443);
        KindChecks.Ports ports = ports(place, dialogues);
        if (ports.shut().contains(port)) {
            place.at("shut").fault(KindFaultText.PORT_TWICE.text());
        }
        String community = place.at("community").text("");
        if (!community.matches("[!-~]{0,32}")) {
            place.at("community").fault(KindFaultText.COMMUNITY.text());
        }
        boolean signsIn = place.at("ssh").isMap();
        return new KindChecks(
                port,
                ports,
                community,
                signsIn || place.at("ssh").yes(false),
                signsIn ? Optional.of(dialogues.signsIn(place.at("ssh"))) : Optional.empty(),
                place.at("presence").there()
                        ? place.at("presence").read(Expectation::parse, Expectation.NOT_CHECKED)
                        : Expectation.NOT_CHECKED,
                place.at("iscsi").texts(),
                place.at("nfs").texts(),
                roles(place.at("roles"), dialogues, addresses),
                shows(place, signsIn),
                place.at("web-form").there() ? Optional.of(webForm(place.at("web-form"))) : Optional.empty());
    }

    private static KindChecks.WebForm webForm(YamlPlace place) {
        place.only("web-form");
        String path = place.at("path").text("/");
        if (!path.matches("/[\\x21-\\x7e]{0,200}")) {
            place.at("path").fault(KindFaultText.RESOURCE_PATH.text());
        }
        return new KindChecks.WebForm(
                path,
                place.at("user").text("user"),
                place.at("phrase").text("phrase"),
                DialogueReader.fixedLook(place.at("admitted")),
                DialogueReader.fixedLook(place.at("refused")));
    }

    /** What is found in the output of commands needs somebody who sends them. */
    private static Map<OwnValue, Look> shows(YamlPlace checks, boolean signsIn) {
        Map<OwnValue, Look> shows = new EnumMap<>(OwnValue.class);
        YamlPlace place = checks.at("shows");
        if (place.there()) {
            place.only("shows-in-output");
            if (!signsIn) {
                place.fault(KindFaultText.SHOWS_WITHOUT_LOGIN.text());
            }
            for (OwnValue value : OwnValue.values()) {
                if (place.at(value.word()).there()) {
                    shows.put(value, DialogueReader.fixedLook(place.at(value.word())));
                }
            }
        }
        return shows;
    }

    private static Map<String, KindChecks.Ports> roles(
            YamlPlace place, DialogueReader dialogues, List<AddressPlan> addresses) {
        Map<String, KindChecks.Ports> roles = new LinkedHashMap<>();
        place.map().forEach((role, at) -> {
            at.only("role-checks");
            if (addresses.stream().noneMatch(plan -> plan.roles().stream().anyMatch(row -> row.contains(role)))) {
                at.fault(KindFaultText.NO_SUCH_ROLE.text(role));
            }
            roles.put(role, ports(at, dialogues));
        });
        return roles;
    }

    private static KindChecks.Ports ports(YamlPlace place, DialogueReader dialogues) {
        List<Integer> open = numbers(place.at("open"));
        List<Integer> shut = numbers(place.at("shut"));
        if (shut.stream().anyMatch(open::contains)) {
            place.at("shut").fault(KindFaultText.PORT_TWICE.text());
        }
        List<KindChecks.Restricted> restricted = place.at("restricted").list().stream()
                .map(dialogues::restricted)
                .toList();
        if (restricted.stream().anyMatch(each -> shut.contains(each.port()))) {
            place.at("restricted").fault(KindFaultText.PORT_TWICE.text());
        }
        return new KindChecks.Ports(open, shut, restricted);
    }

    private static List<Integer> numbers(YamlPlace place) {
        return place.list().stream().map(item -> item.number(1, 65535, 1)).toList();
    }
}
