package lychnos.core.dialogue;

import java.util.Collection;
import java.util.List;
import java.util.stream.Collectors;
import lychnos.core.text.Sha256;

/**
 * The licence terms of a maker as a machine shows them, up to the question whether they are accepted.
 *
 * @param text lines without the space around them and without empty ones
 * @param digest SHA-256 of the text, as 64 hexadecimal digits
 */
public record TermsText(String text, String digest) {

    /**
     * What a machine shows since it was answered last, from behind the last line that tells which machine it is: two
     * machines that show the same terms have the same digest.
     *
     * @param names what tells this machine from others of its kind, such as its serial number
     */
    static TermsText of(List<String> shown, Collection<String> names) {
        int own = shown.size() - 1;
        while (own >= 0 && names.stream().noneMatch(shown.get(own)::contains)) {
            own--;
        }
        return of(shown.subList(own + 1, shown.size()).stream()
                .map(line -> line.strip().replaceAll("\\s+", " "))
                .filter(line -> !line.isEmpty())
                .collect(Collectors.joining("\n")));
    }

    /** Terms that are known word for word. */
    public static TermsText of(String text) {
        return new TermsText(text, Sha256.hex(text));
    }
}
