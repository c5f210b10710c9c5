package lychnos.core.kind;

import java.util.List;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Template;
import lychnos.core.fact.FactSpec;

/**
 * Where a first setup uses a fact, told from the dialogue, so that a description cannot say otherwise: "question 4 of
 * 16 on the console". What the description says of the fact comes after it.
 */
final class AskedWhere {

    private final Dialogue dialogue;
    private final List<DialogueStep.Asked> console;

    private AskedWhere(Dialogue dialogue) {
        this.dialogue = dialogue;
        this.console = dialogue.setup().stream()
                .filter(DialogueStep.Asked.class::isInstance)
                .map(DialogueStep.Asked.class::cast)
                .toList();
    }

    /** Where the dialogue uses a fact, and what its description adds; empty for neither. */
    static String of(FactSpec fact, Dialogue dialogue) {
        return Stream.concat(new AskedWhere(dialogue).uses(fact.name()).stream(), Stream.of(fact.asked()))
                .filter(each -> !each.isEmpty())
                .collect(Collectors.joining("; "));
    }

    private List<String> uses(String name) {
        return Stream.of(compared(name), asked(name), entered(name))
                .flatMap(found -> found.limit(1))
                .toList();
    }

    private Stream<String> compared(String name) {
        boolean line = has(dialogue.identify().must().values().stream(), name);
        boolean pages = dialogue.over() != null && has(dialogue.over().must().values().stream(), name);
        return line || pages ? Stream.of(KindSummaryText.COMPARED_FIRST.text()) : Stream.empty();
    }

    private Stream<String> asked(String name) {
        return Stream.iterate(0, i -> i < console.size(), i -> i + 1)
                .filter(i -> console.get(i).answer().names().contains(name))
                .map(i -> (console.get(i).command() ? KindSummaryText.AT_COMMAND : KindSummaryText.AT_QUESTION)
                        .text(i + 1, console.size()));
    }

    private Stream<String> entered(String name) {
        return dialogue.pages().stream().flatMap(step -> {
            if (step instanceof DialogueStep.Page page) {
                return has(page.fields().values().stream().map(DialogueStep.Field::value), name)
                        ? Stream.of(KindSummaryText.ON_PAGE.text(page.title()))
                        : Stream.empty();
            }
            DialogueStep.Controller controller = (DialogueStep.Controller) step;
            return has(Stream.of(controller.mac(), controller.serial()), name)
                            || List.of(controller.phrase(), controller.delivered())
                                    .contains(name)
                    ? Stream.of(KindSummaryText.AT_STEP.text(controller.title()))
                    : Stream.empty();
        });
    }

    private static boolean has(Stream<Template> texts, String name) {
        return texts.anyMatch(text -> text.names().contains(name));
    }
}
