package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Expected;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.proof.OwnValue;
import lychnos.core.proof.Settings;

/**
 * What a machine is asked again after its setup, each time it is checked: the commands of its dialogue that change
 * nothing, with what they must show then.
 *
 * @param paging by what its screen shows when it waits for a key to go on, that key
 * @param shows what the output of all commands tells of the machine besides, and the pattern that finds it
 */
public record LookAgain(List<Command> commands, Map<Look, String> paging, Map<OwnValue, Look> shows) {

    /** Commands in whose output nothing else is looked for. */
    public LookAgain(List<Command> commands, Map<Look, String> paging) {
        this(commands, paging, Map.of());
    }

    /** The same, where the output tells these values as well. */
    public LookAgain showing(Map<OwnValue, Look> values) {
        return new LookAgain(commands, paging, values);
    }

    /** What the outputs of the commands tell of the machine; what none of them shows is not there. */
    public Map<OwnValue, String> shown(List<String> outputs) {
        String all = String.join("\n", outputs);
        Map<OwnValue, String> shown = new EnumMap<>(OwnValue.class);
        shows.forEach((value, look) ->
                look.last(all).map(seen -> seen.value().strip()).ifPresent(text -> shown.put(value, text)));
        return shown;
    }

    /**
     * Names that mean another value on each member: at an address that members share, it is unknown whose value is
     * shown.
     */
    private static final Set<String> OF_ONE_MEMBER = Set.of(
            "address", "length", "mask", "gateway", "name", "member-number", "address-6", "length-6", "gateway-6");

    /**
     * A command.
     *
     * @param title what people call what it shows
     * @param prompt where it is typed, and what is shown again afterwards
     * @param planned by what is looked for in its output, what that must be
     * @param names what people call those values
     * @param domain that of the machine; empty where it has none
     */
    public record Command(
            String title,
            Look prompt,
            String sends,
            List<Expected> expects,
            Map<Look, String> planned,
            Map<Look, String> names,
            String domain) {

        /** What its output tells. */
        public Told judge(String output) {
            List<Settings.Field> fields = new ArrayList<>();
            planned.forEach((look, value) -> {
                String found = look.last(output).map(Look.Seen::value).orElse(DialogueText.LOOK_NOT_SHOWN.text());
                fields.add(new Settings.Field(
                        names.get(look),
                        value,
                        found,
                        Notation.same(value, found, Optional.of(domain).filter(own -> !own.isEmpty()))));
            });
            fields.sort(Comparator.comparing(Settings.Field::name));
            List<String> missing = expects.stream()
                    .filter(each -> each.required() && !each.look().in(output))
                    .map(each -> each.look().toString())
                    .toList();
            List<String> state = expects.stream()
                    .flatMap(each -> each.look().last(output).stream())
                    .map(seen -> seen.text().strip())
                    .distinct()
                    .toList();
            return new Told(fields, missing, state);
        }
    }

    /**
     * What a command has told.
     *
     * @param fields what was compared, value by value
     * @param missing what must be there and is not
     * @param state what is there of what may be
     */
    public record Told(List<Settings.Field> fields, List<String> missing, List<String> state) {}

    /**
     * What is asked of a machine.
     *
     * @param member whose steps they are
     * @param shared whether the address is one that members share
     */
    public static LookAgain of(Dialogue described, String member, Values values, boolean shared) {
        Dialogue dialogue = described.filled(values::text);
        List<Command> commands = new ArrayList<>();
        List<DialogueStep> steps = dialogue.steps(member, false).stream()
                .filter(step ->
                        step.only().holds(values::text, dialogue.shownLater()).orElse(false))
                .toList();
        for (int at = 0; at < steps.size(); at++) {
            if (steps.get(at) instanceof Asked asked && asked.is(Mark.AGAIN)) {
                Optional<String> sends = asked.answer().fill(values::text);
                if (sends.isPresent()) {
                    commands.add(command(asked, sends.get(), steps.subList(at + 1, steps.size()), values, shared));
                }
            }
        }
        return new LookAgain(commands, dialogue.paging());
    }

    private static Command command(
            Asked asked, String sends, List<DialogueStep> behind, Values values, boolean shared) {
        Map<Look, String> planned = new LinkedHashMap<>();
        Map<Look, String> names = new LinkedHashMap<>();
        for (DialogueStep step : behind) {
            if (!(step instanceof Summary summary)) {
                break;
            }
            summary.fields().forEach((look, template) -> {
                Set<String> used = template.names();
                boolean anyMembers = shared && used.stream().anyMatch(OF_ONE_MEMBER::contains);
                template.fill(values::text).filter(value -> !anyMembers).ifPresent(value -> {
                    planned.put(look, value);
                    names.put(
                            look,
                            used.isEmpty()
                                    ? look.toString()
                                    : used.iterator().next().replace('-', ' ').replace('.', ' '));
                });
            });
        }
        return new Command(
                asked.title(),
                asked.look(),
                sends,
                asked.expects(),
                planned,
                names,
                values.text("domain").orElse(""));
    }
}
