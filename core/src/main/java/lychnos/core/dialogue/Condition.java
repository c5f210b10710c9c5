package lychnos.core.dialogue;

import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.fact.Version;

/** When a step is done: if all its tests hold. Without a test it is always done. */
public record Condition(List<Test> tests) {

    public static final Condition ALWAYS = new Condition(List.of());

    public Condition {
        tests = List.copyOf(tests);
    }

    /** A test of one value. */
    public sealed interface Test {

        /** The name of the value. */
        String name();

        /** Whether a value, which may be missing, passes. */
        boolean passes(Optional<String> value);

        /** What it wants, for people, after the title of the value. */
        String wants();
    }

    /** One of these texts, or none of them. */
    public record OneOf(String name, List<String> texts, boolean not) implements Test {

        public OneOf {
            texts = List.copyOf(texts);
        }

        @Override
        public boolean passes(Optional<String> value) {
            return value.filter(texts::contains).isPresent() != not;
        }

        @Override
        public String wants() {
            return (not ? DialogueText.IS_NOT : DialogueText.IS).text(String.join(" or ", texts));
        }
    }

    /** There is a value, or there is none. */
    public record Given(String name, boolean not) implements Test {

        @Override
        public boolean passes(Optional<String> value) {
            return value.filter(text -> !text.isBlank()).isPresent() != not;
        }

        @Override
        public String wants() {
            return not ? DialogueText.HAS_NO_VALUE.text() : DialogueText.HAS_A_VALUE.text();
        }
    }

    /** A number that is at least so large, or smaller. */
    public record AtLeast(String name, int least, boolean not) implements Test {

        @Override
        public boolean passes(Optional<String> value) {
            return value.filter(text -> text.matches("[0-9]{1,9}") && Integer.parseInt(text) >= least)
                            .isPresent()
                    != not;
        }

        @Override
        public String wants() {
            return not ? DialogueText.IS_BELOW.text(least) : DialogueText.IS_OR_MORE.text(least);
        }
    }

    /**
     * A version between two others.
     *
     * @param from the first that passes, or null
     * @param upTo the last that passes, with all that begin with it, or null
     * @param before the first that does not pass, or null
     */
    record Between(String name, Version from, Version upTo, Version before) implements Test {

        @Override
        public boolean passes(Optional<String> value) {
            return value.flatMap(Version::find).filter(this::contains).isPresent();
        }

        private boolean contains(Version version) {
            return (from == null || version.compareTo(from) >= 0)
                    && (upTo == null || version.beginsWith(upTo) || version.compareTo(upTo) < 0)
                    && (before == null || version.compareTo(before) < 0);
        }

        @Override
        public String wants() {
            return DialogueText.IS_BETWEEN.text(Stream.of(
                            part(DialogueText.FROM, from),
                            part(DialogueText.UP_TO, upTo),
                            part(DialogueText.BEFORE, before))
                    .filter(Objects::nonNull)
                    .collect(Collectors.joining(" ")));
        }

        private static String part(DialogueText limit, Version version) {
            return version == null ? null : limit.text(version);
        }
    }

    /** The names of the values that it looks at. */
    public Set<String> names() {
        return tests.stream().map(Test::name).collect(Collectors.toSet());
    }

    public static Condition of(Test test) {
        return new Condition(List.of(test));
    }

    /**
     * A version between others; what is null does not bound it.
     *
     * @throws IllegalArgumentException for a bound that is no version
     */
    public static Test between(String name, String from, String upTo, String before) {
        return new Between(name, version(from), version(upTo), version(before));
    }

    private static Version version(String text) {
        return text == null ? null : Version.parse(text);
    }

    /** The same with more to pass. */
    public Condition and(Condition more) {
        return new Condition(
                Stream.concat(tests.stream(), more.tests.stream()).distinct().toList());
    }

    /**
     * Whether it holds.
     *
     * @param later names of values that a machine shows on the way; {@code left.code} is the {@code code} of a member
     * @return empty while a value decides that the machine has not shown yet
     */
    Optional<Boolean> holds(Function<String, Optional<String>> values, Set<String> later) {
        boolean open = false;
        for (Test test : tests) {
            Optional<String> value = values.apply(test.name());
            String shown = test.name().substring(test.name().lastIndexOf('.') + 1);
            if (value.isEmpty() && later.contains(shown)) {
                open = true;
            } else if (!test.passes(value)) {
                return Optional.of(false);
            }
        }
        return open ? Optional.empty() : Optional.of(true);
    }

    /**
     * For people, such as “the mode is static”.
     *
     * @param title of a value, by its name
     */
    public String text(Function<String, String> title) {
        return tests.stream()
                .map(test -> title.apply(test.name()) + " " + test.wants())
                .collect(Collectors.joining(" and "));
    }
}
