package lychnos.core.kind;

import java.util.EnumSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;

/** Reads the part of a description that says what first setup asks on the console. */
final class DialogueReader {
    private final DialogueNames names;
    private final PageReader pageReader;
    private final StepReader stepReader;

    DialogueReader(List<FactSpec> facts, Members members, List<AddressPlan> addresses) {
        names = new DialogueNames(facts, members, addresses);
        pageReader = new PageReader(names);
        stepReader = new StepReader(names);
    }

    Dialogue read(YamlPlace place) {
        place.only("dialogue");
        List<DialogueStep> logIn = stepReader.read(place.at("log-in"));
        Dialogue.Identify identify =
                place.at("setup").there() ? identify(place.at("identify")) : Dialogue.Identify.NOTHING;
        names.read(identify.tells().stream().filter(name -> !names.known(name)).toList());
        List<DialogueStep> wipe = stepReader.read(place.at("wipe"));
        List<DialogueStep> setup = stepReader.read(place.at("setup"));
        List<DialogueStep.Remote> pages = pageReader.read(place);
        // with its line alone a person does the setup, and Lychnos learns it
        if (place.at("setup").list().isEmpty() && pages.isEmpty() && !place.hasOnly("line")) {
            place.fault(KindFaultText.DIALOGUE_EMPTY.text());
        }
        Dialogue.PageInterface over =
                place.at("interface").there() ? pageReader.pageInterface(place.at("interface")) : null;
        if (over == null && pages.stream().anyMatch(each -> each instanceof DialogueStep.Page page && page.driven())) {
            place.fault(KindFaultText.NO_INTERFACE.text());
        }
        return new Dialogue(
                place.at("line").there()
                        ? place.at("line").read(LineSettings::parse, LineSettings.USUAL)
                        : LineSettings.USUAL,
                place.at("nudge").there() ? place.at("nudge").read(DialogueReader::key, "") : "",
                place.at("chatter").list().stream().map(names::look).toList(),
                paging(place.at("paging")),
                place.at("refused").there() ? names.look(place.at("refused")) : null,
                identify,
                logIn,
                wipe,
                setup,
                place.at("one-by-one").yes(false),
                pages,
                over,
                log(place.at("log"), over != null));
    }

    private Dialogue.MachineLog log(YamlPlace place, boolean hasInterface) {
        if (!place.there()) {
            return null;
        }
        place.only("machine-log");
        boolean resource = place.at("resource").there();
        if (resource == place.at("send").there()) {
            place.fault(KindFaultText.LOG_WAY.text());
        } else if (resource && !hasInterface) {
            place.at("resource").fault(KindFaultText.NO_INTERFACE_OF_LOG.text());
        }
        return resource
                ? new Dialogue.MachineLog(null, "", place.at("resource").text())
                : new Dialogue.MachineLog(
                        names.look(place.at("at")), place.at("send").text(), "");
    }

    /** How one signs in over SSH to look at what the machine keeps. */
    KindChecks.SignsIn signsIn(YamlPlace place) {
        place.only("signs-in");
        return signsIn(
                place,
                place.at("also").list().stream()
                        .map(entry -> {
                            entry.only("also-signs-in");
                            return signsIn(entry, List.of());
                        })
                        .toList());
    }

    private KindChecks.SignsIn signsIn(YamlPlace place, List<KindChecks.SignsIn> also) {
        return new KindChecks.SignsIn(names.template(place.at("user")), names.password(place.at("phrase")), also);
    }

    /** A port that answers the sources of a fact only. */
    KindChecks.Restricted restricted(YamlPlace place) {
        place.only("restricted");
        String from = place.at("from").text();
        if (names.fact(from).filter(fact -> fact.type() == FactType.PREFIX).isEmpty()) {
            place.at("from").fault(KindFaultText.NOT_A_PREFIX_FACT.text(from));
        }
        return new KindChecks.Restricted(place.at("port").number(1, 65535, 22), from);
    }

    /** What is looked for where no values are filled in. */
    static Look fixedLook(YamlPlace place) {
        Look look = look(place);
        if (!look.names().isEmpty()) {
            place.fault(KindFaultText.NO_VALUES_IN_PATTERN.text());
        }
        return look;
    }

    static Look look(YamlPlace place) {
        return place.read(Look::parse, Look.NOTHING);
    }

    private static String key(String text) {
        return switch (text) {
            case "none" -> "";
            case "enter" -> "\r";
            case "space" -> " ";
            case "redraw" -> "\f";
            default -> {
                if (text.matches("ctrl [a-z]")) {
                    yield String.valueOf((char) (text.charAt(5) - 'a' + 1));
                }
                if (text.length() != 1) {
                    throw new IllegalArgumentException(KindFaultText.NOT_A_KEY.text());
                }
                yield text;
            }
        };
    }

    private Map<Look, String> paging(YamlPlace place) {
        Map<Look, String> keys = new LinkedHashMap<>();
        for (YamlPlace entry : place.isMap() ? List.of(place) : place.list()) {
            entry.only("paging");
            keys.put(names.look(entry.at("see")), entry.at("press").read(DialogueReader::key, " "));
        }
        return keys;
    }

    private Dialogue.Identify identify(YamlPlace place) {
        place.only("identify");
        Look see = names.look(place.at("see"));
        Map<String, Template> must = new LinkedHashMap<>();
        if (place.at("must").there()) {
            place.at("must").map().forEach((group, entry) -> {
                if (!see.groups().contains(group)) {
                    entry.fault(KindFaultText.NO_GROUP.text(group));
                }
                must.put(group, names.template(entry));
            });
        }
        if (must.isEmpty()) {
            place.fault(KindFaultText.NOT_IDENTIFIED.text("must: { serial: \"{serial}\" }"));
        }
        Set<String> unused = Set.copyOf(place.at("unused").texts());
        Set<String> standby = Set.copyOf(place.at("standby").texts());
        if (!(unused.isEmpty() && standby.isEmpty()) && !see.groups().contains(Dialogue.Identify.STATE)) {
            place.fault(KindFaultText.NO_STATE_GROUP.text());
        }
        return new Dialogue.Identify(
                see,
                must,
                unused,
                standby,
                place.at("probe").there() ? place.at("probe").read(DialogueReader::key, "") : "");
    }

    static Set<Mark> marks(YamlPlace entry, Mark... possible) {
        Set<Mark> marks = EnumSet.noneOf(Mark.class);
        for (Mark mark : possible) {
            if (entry.at(mark.key()).yes(false)) {
                marks.add(mark);
            }
        }
        return marks;
    }
}
