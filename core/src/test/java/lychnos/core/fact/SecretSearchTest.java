package lychnos.core.fact;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.stream.IntStream;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.CharRange;
import net.jqwik.api.constraints.Size;
import net.jqwik.api.constraints.StringLength;
import org.junit.jupiter.api.Test;

class SecretSearchTest {

    private static SecretSearch of(List<String> words) {
        return new SecretSearch(words.stream().map(Secret::of).toList());
    }

    @Property
    void findsWhatAPlainSearchFinds(
            @ForAll @CharRange(from = 'a', to = 'c') @StringLength(max = 60) String text,
            @ForAll @Size(max = 6)
                    List<@CharRange(from = 'a', to = 'c') @StringLength(min = 4, max = 7) String> words) {
        char[] wanted = text.toCharArray();
        int found = 0;
        for (String word : words.stream().distinct().toList()) {
            for (int at = text.indexOf(word); at >= 0; at = text.indexOf(word, at + 1)) {
                found++;
                for (int i = at; i < at + word.length(); i++) {
                    wanted[i] = '•';
                }
            }
        }
        assertEquals(
                new SecretSearch.Blanked(new String(wanted), found), of(words).blank(text));
    }

    @Test
    void aShortWordIsInAnyText() {
        assertEquals(0, of(List.of("abc")).blank("abcabc").found());
    }

    @Test
    void manyPasswordsCostNoMoreThanAFew() {
        String text = "the machine says something, again and again\r\n".repeat(40_000);
        List<String> words = IntStream.range(0, 20_000)
                .mapToObj(i -> "Tarn-" + i + "-rb7sLx")
                .toList();
        SecretSearch.Blanked blanked = of(words).blank(text + words.get(19_999) + text);
        assertEquals(1, blanked.found());
    }
}
