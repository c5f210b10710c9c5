package lychnos.server.configure.bench;

import java.time.Instant;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.ControllerPlan;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Summary;
import lychnos.core.dialogue.DialogueStep.Waits;
import lychnos.core.dialogue.Template;
import lychnos.core.sheet.MemberValues;
import lychnos.server.configure.bench.BenchViews.BenchStep;
import lychnos.server.text.ConfigureText;

/** What screens show of the steps of a setup. */
final class BenchSteps {

    private static final String HIDDEN = "••••••••";

    /** What the database has of a step that was not begun: progress, answer, times sent, by whom, when, evidence. */
    private static final Object[] NOT_BEGUN = {null, "OPEN", null, 0, "", null, ""};

    private BenchSteps() {}

    /**
     * A step of a member.
     *
     * @param kept its row in the database; null before the setup has begun
     */
    static BenchStep of(int place, DialogueStep step, MemberValues values, Object[] kept) {
        String answer = "";
        String source = "";
        List<String> marks = List.of();
        String sort = "asked";
        Map<String, String> fields = new LinkedHashMap<>();
        Set<String> differ = new HashSet<>();
        Map<String, String> told = new LinkedHashMap<>();
        long about = 0;
        long atMost = 0;
        if (step instanceof Asked asked) {
            boolean secret = asked.is(Mark.SECRET);
            answer = secret ? HIDDEN : filled(asked.answer(), values);
            source = source(asked.answer(), values);
            marks = asked.marks().stream().map(Enum::name).sorted().toList();
        } else if (step instanceof Summary summary) {
            sort = "summary";
            answer = summary.fields().size() + " fields";
            source = summary.fields().values().stream()
                    .map(template -> filled(template, values))
                    .collect(Collectors.joining(", "));
        } else if (step instanceof Waits waits) {
            sort = "waits";
            about = waits.about().toSeconds();
            atMost = waits.atMost().toSeconds();
        } else if (step instanceof DialogueStep.Controller controller) {
            sort = "page";
            about = controller.usually().toSeconds();
            atMost = controller.longest().toSeconds();
            marks = List.of("CONTROLLER", "DRIVEN");
            fields.putAll(new ControllerPlan(controller, values).sheet());
            differ.addAll(ControllerPlan.DIFFER);
            new ControllerPlan(controller, values).passwords().keySet().forEach(label -> fields.put(label, HIDDEN));
        } else if (step instanceof DialogueStep.Page page) {
            sort = "page";
            about = page.waits() == null ? 0 : page.waits().about().toSeconds();
            atMost = page.waits() == null ? 0 : page.waits().atMost().toSeconds();
            marks = Stream.concat(
                            page.marks().stream().map(Enum::name).sorted(),
                            page.first() ? Stream.of("FIRST") : page.driven() ? Stream.of("DRIVEN") : Stream.empty())
                    .toList();
            answer = filled(page.open(), values);
            page.fields().forEach((label, field) -> {
                if (!field.optional() || field.value().fill(values::text).isPresent()) {
                    if (field.value().names().stream().anyMatch(values::tellsMembersApart)) {
                        differ.add(label);
                    }
                    fields.put(
                            label,
                            field.value().names().stream().anyMatch(name -> values.secret(name)
                                            .isPresent())
                                    ? HIDDEN
                                    : filled(field.value(), values));
                }
            });
            page.tells().keySet().forEach(name -> values.text(values.member().replace(' ', '-') + "." + name)
                    .ifPresent(shown -> told.put(name.replace('-', ' '), shown)));
        }
        Object[] row = kept == null ? NOT_BEGUN : kept;
        return new BenchStep(
                place,
                step.title(),
                sort,
                answer,
                source,
                marks,
                (String) row[1],
                (String) row[2],
                (Integer) row[3],
                (String) row[4],
                (Instant) row[5],
                (String) row[6],
                about,
                atMost,
                fields,
                differ,
                told);
    }

    /** What is typed; dots for a password, and the name of what is not known yet in brackets. */
    static String filled(Template template, MemberValues values) {
        // a list ends at its first entry that is not known: only what is asked for by name has something in its place
        return template.fill(name -> values.text(name)
                        .or(() -> values.secret(name).map(secret -> HIDDEN))
                        .or(() -> Optional.of("(" + name.replace('-', ' ') + ")")
                                .filter(place -> template.names().contains(name))))
                .orElse("");
    }

    private static String source(Template template, MemberValues values) {
        if (template.names().isEmpty()) {
            return ConfigureText.SAME_FOR_EVERY_UNIT.text();
        }
        return template.names().stream()
                .limit(1)
                .map(name -> values.sourced(name)
                        .map(MemberValues.Sourced::source)
                        .or(() -> values.secret(name)
                                .map(secret -> name.equals("factory.phrase")
                                        ? ConfigureText.FACTORY_LOGIN.text()
                                        : ConfigureText.SEALED_MADE_FOR_THIS_UNIT.text()))
                        .orElse(ConfigureText.NOT_KNOWN_YET.text()))
                .collect(Collectors.joining());
    }
}
