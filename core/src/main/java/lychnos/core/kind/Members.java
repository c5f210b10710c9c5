package lychnos.core.kind;

import java.util.List;
import java.util.stream.IntStream;

/**
 * The machines that make one unit.
 *
 * @param labels what each is called, such as left and right; one empty text where there is a single machine
 * @param counts how many of them a unit may have, ascending
 */
public record Members(List<String> labels, List<Integer> counts) {

    public static final Members ONE = new Members(List.of(""), List.of(1));

    public Members {
        labels = List.copyOf(labels);
        counts = List.copyOf(counts);
    }

    /** Numbered members: {@code node 1}, {@code node 2} and so on. */
    public static Members numbered(String each, List<Integer> counts) {
        int most = counts.stream().max(Integer::compare).orElse(1);
        return new Members(
                IntStream.rangeClosed(1, most).mapToObj(n -> each + " " + n).toList(),
                counts.stream().sorted().toList());
    }

    public int most() {
        return counts.get(counts.size() - 1);
    }

    public int least() {
        return counts.get(0);
    }

    /** The labels of a unit with so many members. */
    public List<String> of(int count) {
        return labels.subList(0, count);
    }
}
