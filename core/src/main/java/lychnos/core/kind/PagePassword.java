package lychnos.core.kind;

import java.util.List;
import java.util.Optional;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;

/**
 * The password of a machine's pages, where its documented interface can replace it alone.
 *
 * @param fact the name of the password
 * @param resource of the page that sets it
 * @param at its place there (JSON Pointer, RFC 6901)
 */
public record PagePassword(String fact, String resource, String at) {

    /**
     * That of a kind. Nothing where no page sets it, where a check does not read the pages, or where the setup types the
     * same password on the console as well: replacing it on the page would leave the other one as it is.
     */
    public static Optional<PagePassword> of(Kind kind) {
        return kind.ownPages().isEmpty() ? Optional.empty() : kind.dialogue().flatMap(PagePassword::of);
    }

    private static Optional<PagePassword> of(Dialogue dialogue) {
        String fact = dialogue.over().phrase();
        boolean typed = dialogue.setup().stream()
                .filter(DialogueStep.Asked.class::isInstance)
                .map(DialogueStep.Asked.class::cast)
                .anyMatch(asked -> asked.answer().names().contains(fact));
        List<PagePassword> set = dialogue.pages().stream()
                .filter(DialogueStep.Page.class::isInstance)
                .map(DialogueStep.Page.class::cast)
                .filter(page -> page.driven() && page.is(DialogueStep.Mark.PROVES))
                .flatMap(page -> page.fields().values().stream()
                        .filter(field -> List.copyOf(field.value().names()).equals(List.of(fact)))
                        .filter(field -> !field.at().isEmpty())
                        .map(field -> new PagePassword(fact, page.resource(), field.at())))
                .toList();
        return typed || set.size() != 1 ? Optional.empty() : Optional.of(set.get(0));
    }
}
