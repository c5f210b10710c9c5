package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.DialogueStep.Field;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Page;
import lychnos.core.dialogue.DialogueStep.Shown;
import lychnos.core.fact.Secret;

/**
 * What one page of a machine is filled with, and whether it shows that afterwards. What a resource shows is given as
 * texts by their places (JSON Pointer, RFC 6901).
 */
public final class PageFill {

    private final Page page;
    private final Values values;

    public PageFill(Page page, Values values) {
        this.page = page;
        this.values = values;
    }

    /**
     * What is written.
     *
     * @param texts by place
     * @param secrets by place; they are never read back
     */
    public record Entry(Map<String, String> texts, Map<String, Secret> secrets) {}

    /** A field that shows something else than was planned. */
    public record Difference(String field, String shown, String planned) {

        @Override
        public String toString() {
            return shown.isEmpty()
                    ? DialogueText.FIELD_EMPTY.text(field, planned)
                    : DialogueText.FIELD_DIFFERS.text(field, shown, planned);
        }
    }

    /** Names of values that are not known yet and without which the page cannot be filled in. */
    public List<String> lacking() {
        Stream<String> asked = page.fields().values().stream()
                .filter(field -> !field.optional())
                .flatMap(field -> field.value().names().stream());
        return Stream.concat(page.after().isEmpty() ? Stream.empty() : Stream.of(page.after()), asked)
                .distinct()
                .filter(name ->
                        values.text(name).isEmpty() && values.secret(name).isEmpty())
                .toList();
    }

    /** Whether a field takes a password. */
    private Optional<Secret> secret(Field field) {
        return field.value().names().stream().findFirst().flatMap(values::secret);
    }

    private Optional<String> planned(Field field) {
        return secret(field).isPresent() ? Optional.empty() : field.value().fill(values::text);
    }

    /** What is to be written; fields for which nothing was planned are left as they are. */
    public Entry entry() {
        Map<String, String> texts = new LinkedHashMap<>();
        Map<String, Secret> secrets = new LinkedHashMap<>();
        page.fields().values().forEach(field -> {
            planned(field).ifPresent(text -> texts.put(field.at(), text));
            secret(field).ifPresent(secret -> secrets.put(field.at(), secret));
        });
        return new Entry(texts, secrets);
    }

    /** By field, what was planned for it; passwords are not among them. */
    public Map<String, String> planned() {
        Map<String, String> all = new LinkedHashMap<>();
        page.fields().forEach((name, field) -> planned(field).ifPresent(text -> all.put(name, text)));
        return all;
    }

    /** Fields in which the page shows something else than was planned. */
    public List<Difference> differences(Map<String, String> shown) {
        List<Difference> differences = new ArrayList<>();
        page.fields().forEach((name, field) -> planned(field).ifPresent(planned -> {
            String is = shown.getOrDefault(field.at(), "");
            if (!same(planned, is)) {
                differences.add(new Difference(name, is, planned));
            }
        }));
        return differences;
    }

    /** A switch is written yes and no by people, true and false in JSON (RFC 8259, section 3). */
    private static boolean same(String planned, String shown) {
        return planned.equals(shown)
                || planned.equals("yes") && shown.equals("true")
                || planned.equals("no") && shown.equals("false");
    }

    /** What it must show once it was written and does not, as sentences. */
    public List<String> missing(Map<String, String> shown) {
        return missing(shown, false);
    }

    /** What it must show before anything is written and does not, as sentences. */
    public List<String> missingBefore(Map<String, String> shown) {
        return missing(shown, true);
    }

    private List<String> missing(Map<String, String> shown, boolean before) {
        return page.shows().stream()
                .map(each -> new Shown(each.at(), each.look().filled(values::text), each.before()))
                .filter(each -> each.before() == before && !holds(each, shown))
                .map(each -> Optional.ofNullable(shown.get(each.at()))
                        .filter(is -> !is.isEmpty())
                        .map(is -> DialogueText.PAGE_SAYS.text(is))
                        .orElse(DialogueText.TEXT_NOT_SHOWN.text(each.look())))
                .toList();
    }

    /** By place, what it says of the state that its setup ended in; places at which it says nothing are left out. */
    public Map<String, String> state(Map<String, String> shown) {
        Map<String, String> state = new LinkedHashMap<>();
        Stream.concat(
                        page.shows().stream().filter(each -> !each.before()),
                        page.waits() == null
                                ? Stream.of()
                                : Stream.of(page.waits().until()))
                .filter(each ->
                        shown.containsKey(each.at()) && !shown.get(each.at()).isEmpty())
                .forEach(each -> state.put(each.at(), shown.get(each.at())));
        return state;
    }

    /** Whether the machine has worked as long as it had to. */
    public boolean over(Map<String, String> shown) {
        return page.waits() == null || holds(page.waits().until(), shown);
    }

    private static boolean holds(Shown wanted, Map<String, String> shown) {
        return wanted.look().in(shown.getOrDefault(wanted.at(), ""));
    }

    /** What it tells for later steps, by name. */
    public Map<String, String> told(Map<String, String> shown) {
        Map<String, String> told = new LinkedHashMap<>();
        page.tells().forEach((name, at) -> Optional.ofNullable(shown.get(at))
                .filter(value -> !value.isEmpty())
                .ifPresent(value -> told.put(name, value)));
        return told;
    }

    /** Why a person is wanted before it is filled in; nothing where none is. */
    public Optional<Hold> stops(int step, Mode mode) {
        if (page.is(Mark.DESTROYS)) {
            return Optional.of(new Hold(
                    Hold.Why.DESTROYS, step, DialogueText.DESTROYS.text(page.title()), summary(), values.unitName()));
        }
        if (page.is(Mark.PERMANENT)) {
            String text = page.fields().values().stream()
                    .map(this::planned)
                    .flatMap(Optional::stream)
                    .findFirst()
                    .orElse(values.unitName());
            return Optional.of(new Hold(
                    Hold.Why.PERMANENT, step, DialogueText.PERMANENT.text(page.title(), text), summary(), text));
        }
        if (page.is(Mark.CONSENT)) {
            return Optional.of(
                    new Hold(Hold.Why.CONSENT, step, DialogueText.CONSENT.text(page.title()), summary(), ""));
        }
        if (page.is(Mark.TERMS) && !values.terms().recorded()) {
            return Optional.of(
                    new Hold(Hold.Why.TERMS, step, DialogueText.PAGE_TERMS.text(page.title()), summary(), ""));
        }
        if (page.is(Mark.RESTARTS)) {
            return Optional.of(
                    new Hold(Hold.Why.RESTARTS, step, DialogueText.RESTARTS.text(page.title()), summary(), ""));
        }
        return mode == Mode.ASK
                ? Optional.of(new Hold(Hold.Why.NEXT, step, DialogueText.PAGE_NEXT.text(page.title()), summary(), ""))
                : Optional.empty();
    }

    private String summary() {
        return page.fields().entrySet().stream()
                .map(field -> field.getKey() + ": "
                        + planned(field.getValue())
                                .orElse(
                                        secret(field.getValue()).isPresent()
                                                ? DialogueText.SEALED_VALUE.text()
                                                : DialogueText.LEFT_AS_IT_IS.text()))
                .collect(Collectors.joining("\n"));
    }
}
