package lychnos.server.http;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * The way to a value in JSON. An empty path and {@code $} are the whole; further ones:
 * {@code rows[0].cells['serial'].value}, {@code paths.'/api/people'.get}, {@code rows.member} (of every row),
 * {@code rows.find { it.id == 7 && it.name == 'left' }.value},
 * {@code rows.findAll { it.marks.contains('FIRST') }.name}, {@code rows.last()}.
 */
final class Path {

    private static final Pattern NAME = Pattern.compile("\\.?([A-Za-z_][\\w-]*)(?![\\w(]| \\{)");
    private static final Pattern INDEX = Pattern.compile("\\[(-?\\d+)]");
    private static final Pattern KEY = Pattern.compile("\\['([^']*)']");
    private static final Pattern QUOTED = Pattern.compile("\\.?'([^']*)'");
    private static final Pattern SEARCH = Pattern.compile("\\.?(find|findAll) \\{ (.*?) }");
    private static final Pattern LAST = Pattern.compile("\\.?last\\(\\)");
    private static final Pattern EQUALITY = Pattern.compile("it\\.(\\S+) (==|!=) (.+)");
    private static final Pattern TEST = Pattern.compile("it\\.(\\S+)\\.(contains|startsWith)\\((.+)\\)");

    private final List<UnaryOperator<Object>> steps = new ArrayList<>();

    private Path() {}

    /** @throws IllegalArgumentException where it is not written as above */
    static Path parse(String text) {
        Path path = new Path();
        String rest = text.equals("$") ? "" : text;
        while (!rest.isEmpty()) {
            rest = rest.substring(path.step(rest));
        }
        return path;
    }

    Object in(Object root) {
        Object value = root;
        for (UnaryOperator<Object> step : steps) {
            value = value == null ? null : step.apply(value);
        }
        return value;
    }

    /** Adds the step that the text begins with, and returns its length. */
    private int step(String text) {
        Matcher found;
        if ((found = SEARCH.matcher(text)).lookingAt()) {
            Predicate<Object> condition = condition(found.group(2));
            steps.add(
                    found.group(1).equals("find")
                            ? value -> list(value).stream()
                                    .filter(condition)
                                    .findFirst()
                                    .orElse(null)
                            : value -> list(value).stream().filter(condition).collect(Collectors.toList()));
        } else if ((found = LAST.matcher(text)).lookingAt()) {
            steps.add(value -> at(list(value), -1));
        } else if ((found = NAME.matcher(text)).lookingAt()
                || (found = KEY.matcher(text)).lookingAt()
                || (found = QUOTED.matcher(text)).lookingAt()) {
            String name = found.group(1);
            steps.add(value -> named(value, name));
        } else if ((found = INDEX.matcher(text)).lookingAt()) {
            int index = Integer.parseInt(found.group(1));
            steps.add(value -> at(list(value), index));
        } else {
            throw new IllegalArgumentException("no path: " + text);
        }
        return found.end();
    }

    private static List<?> list(Object value) {
        if (value instanceof List) {
            return (List<?>) value;
        }
        throw new AssertionError("no list: " + value);
    }

    private static Object at(List<?> list, int index) {
        int place = index < 0 ? list.size() + index : index;
        return place < 0 || place >= list.size() ? null : list.get(place);
    }

    private static Object named(Object value, String name) {
        if (value instanceof Map) {
            return ((Map<?, ?>) value).get(name);
        }
        List<Object> each = new ArrayList<>();
        for (Object entry : list(value)) {
            each.add(entry == null ? null : named(entry, name));
        }
        return each;
    }

    private static Predicate<Object> condition(String text) {
        Predicate<Object> all = each -> true;
        for (String one : text.split(" && ")) {
            all = all.and(clause(one));
        }
        return all;
    }

    private static Predicate<Object> clause(String text) {
        Matcher equality = EQUALITY.matcher(text);
        if (equality.matches()) {
            Path left = parse(equality.group(1));
            Object right = literal(equality.group(3));
            boolean equal = equality.group(2).equals("==");
            return each -> Objects.equals(plain(left.in(each)), right) == equal;
        }
        Matcher test = TEST.matcher(text);
        if (test.matches()) {
            Path left = parse(test.group(1));
            Object right = literal(test.group(3));
            return test.group(2).equals("contains")
                    ? each -> list(left.in(each)).stream().anyMatch(one -> Objects.equals(plain(one), right))
                    : each -> String.valueOf(left.in(each)).startsWith((String) right);
        }
        if (text.startsWith("it.")) {
            Path truth = parse(text.substring("it.".length()));
            return each -> Boolean.TRUE.equals(truth.in(each));
        }
        throw new IllegalArgumentException("no condition: " + text);
    }

    private static Object literal(String text) {
        if (text.startsWith("'")) {
            return text.substring(1, text.length() - 1);
        }
        return text.equals("null")
                ? null
                : text.equals("true") || text.equals("false") ? (Object) Boolean.valueOf(text) : Long.valueOf(text);
    }

    /** A whole number of either size is one number. */
    private static Object plain(Object value) {
        return value instanceof Integer ? Long.valueOf((Integer) value) : value;
    }
}
