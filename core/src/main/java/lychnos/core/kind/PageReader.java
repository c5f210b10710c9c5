package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.Template;
import lychnos.core.proof.OwnValue;

/** Reads the pages of a dialogue, and the controllers that are set up between them. */
final class PageReader {

    private final DialogueNames names;

    PageReader(DialogueNames names) {
        this.names = names;
    }

    /** Pages and controllers in order; those before the line's dialogue come first. */
    List<DialogueStep.Remote> read(YamlPlace dialogue) {
        return Stream.concat(
                        dialogue.at("before").list().stream().flatMap(entry -> pages(entry, true)),
                        dialogue.at("pages").list().stream()
                                .flatMap(entry ->
                                        entry.at("controller").there() ? controllers(entry) : pages(entry, false)))
                .toList();
    }

    Dialogue.PageInterface pageInterface(YamlPlace place) {
        place.only("interface");
        YamlPlace identify = place.at("identify");
        identify.only("identify-resource");
        Map<String, Template> must = new LinkedHashMap<>();
        if (identify.at("must").there()) {
            identify.at("must").map().forEach((at, value) -> must.put(pointer(value, at), names.template(value)));
        }
        if (must.isEmpty()) {
            place.fault(KindFaultText.INTERFACE_NOT_IDENTIFIED.text(
                    "identify: { resource: /about, must: { /serial: \"{serial}\" } }"));
        }
        return new Dialogue.PageInterface(
                names.template(place.at("at")),
                names.template(place.at("user")),
                names.password(place.at("phrase")),
                names.password(place.at("first")),
                identify.at("resource").text("/"),
                must,
                shows(place.at("shows")),
                place.at("reads").list().stream()
                        .map(entry -> read(entry, page(entry, false, "")))
                        .toList(),
                certificate(place.at("certificate")));
    }

    private static Optional<Dialogue.CertificatePages> certificate(YamlPlace place) {
        if (!place.there()) {
            return Optional.empty();
        }
        place.only("certificate-pages");
        return Optional.of(new Dialogue.CertificatePages(
                place.at("request").text(""),
                pointer(place.at("name"), place.at("name").text("")),
                pointer(place.at("names"), place.at("names").text("")),
                pointer(place.at("shows"), place.at("shows").text("")),
                place.at("resource").text(""),
                pointer(place.at("chain"), place.at("chain").text(""))));
    }

    private static DialogueStep.Page read(YamlPlace entry, DialogueStep.Page page) {
        if (!page.driven()) {
            entry.fault(KindFaultText.READ_WITHOUT_RESOURCE.text());
        }
        return page;
    }

    private static Map<OwnValue, String> shows(YamlPlace place) {
        Map<OwnValue, String> shows = new EnumMap<>(OwnValue.class);
        if (place.there()) {
            place.only("shows-in-resource");
            place.map().forEach((word, at) -> OwnValue.named(word)
                    .ifPresent(value -> shows.put(value, pointer(at, at.text()))));
        }
        return shows;
    }

    /** One for each member that it is done on, where those are named. */
    private Stream<DialogueStep.Remote> pages(YamlPlace entry, boolean first) {
        return names.each(entry).map(member -> page(entry, first, member));
    }

    private Stream<DialogueStep.Remote> controllers(YamlPlace entry) {
        return names.each(entry).map(member -> controller(entry, member));
    }

    private DialogueStep.Controller controller(YamlPlace entry, String member) {
        entry.only("controller");
        String role = entry.at("role").text("");
        if (!names.ofRole(role)) {
            entry.at("role").fault(KindFaultText.NO_SUCH_ROLE.text(role));
        }
        Duration about = KindReader.about(entry);
        return new DialogueStep.Controller(
                entry.at("controller").text("controller"),
                member,
                role,
                names.template(entry.at("mac")),
                names.template(entry.at("serial")),
                names.template(entry.at("user")),
                names.password(entry.at("phrase")),
                names.password(entry.at("first")),
                entry.at("screen").text(""),
                about,
                KindReader.atMost(entry, about));
    }

    private DialogueStep.Page page(YamlPlace entry, boolean first, String on) {
        entry.only("web-page");
        Map<String, DialogueStep.Field> fields = new LinkedHashMap<>();
        entry.at("fields").map().forEach((label, value) -> fields.put(label, field(value)));
        if (fields.isEmpty()) {
            entry.fault(KindFaultText.PAGE_EMPTY.text());
        }
        String resource = entry.at("resource").text("");
        if (!resource.isEmpty() && !resource.matches("/[a-zA-Z0-9/_.-]*")) {
            entry.at("resource").fault(KindFaultText.RESOURCE_PATH.text());
        }
        boolean driven = !resource.isEmpty() && !first;
        if (driven && fields.values().stream().anyMatch(field -> field.at().isEmpty())) {
            entry.at("fields").fault(KindFaultText.FIELD_PLACE.text());
        }
        Set<Mark> marks = DialogueReader.marks(
                entry, Mark.PERMANENT, Mark.DESTROYS, Mark.TERMS, Mark.CONSENT, Mark.RESTARTS, Mark.PROVES, Mark.LATER);
        if (marks.contains(Mark.LATER) && !driven) {
            entry.at("later").fault(KindFaultText.LATER_NEEDS_RESOURCE.text());
        }
        List<DialogueStep.Shown> shows = new ArrayList<>();
        shown(entry.at("shows"), false, shows);
        shown(entry.at("shows-before"), true, shows);
        Map<String, String> tells = new LinkedHashMap<>();
        if (entry.at("tells").there()) {
            entry.at("tells").map().forEach((name, value) -> tells.put(name, pointer(value, value.text(""))));
            names.read(tells.keySet());
        }
        String after = entry.at("after").text("");
        if (!after.isEmpty() && !names.known(after)) {
            entry.at("after").fault(KindFaultText.NOT_READ_BEFORE.text(after));
        }
        return new DialogueStep.Page(
                entry.at("page").text("page"),
                on,
                entry.at("open").there() ? names.template(entry.at("open")) : new Template(""),
                fields,
                first,
                driven ? resource : "",
                after,
                marks,
                shows,
                entry.at("waits").there() ? working(entry.at("waits")) : null,
                tells);
    }

    private void shown(YamlPlace place, boolean before, List<DialogueStep.Shown> shows) {
        if (place.there()) {
            place.map()
                    .forEach((at, value) ->
                            shows.add(new DialogueStep.Shown(pointer(value, at), names.look(value), before)));
        }
    }

    private DialogueStep.Field field(YamlPlace value) {
        if (!value.isMap()) {
            return new DialogueStep.Field(names.template(value), "", false);
        }
        value.only("field");
        Template template = names.template(value.at("is"));
        if (names.secret(template) && !DialogueNames.alone(template)) {
            value.fault(KindFaultText.PASSWORD_ALONE_IN_FIELD.text());
        }
        return new DialogueStep.Field(
                template,
                pointer(value.at("at"), value.at("at").text("")),
                value.at("optional").yes(false));
    }

    /** A place in a resource, as RFC 6901 writes it. */
    private static String pointer(YamlPlace place, String text) {
        if (!text.isEmpty() && !text.startsWith("/")) {
            place.fault(KindFaultText.PLACE_IN_RESOURCE.text());
        }
        return text;
    }

    private static DialogueStep.Working working(YamlPlace waits) {
        waits.only("working");
        DialogueStep.Shown until = new DialogueStep.Shown(
                pointer(waits.at("at"), waits.at("at").text("")), DialogueReader.fixedLook(waits.at("see")), false);
        Duration about = KindReader.about(waits);
        return new DialogueStep.Working(about, KindReader.atMost(waits, about), until);
    }
}
