package lychnos.core;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.regex.MatchResult;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;

/** Every link in the documents leads to a file and a heading that are there. */
class DocLinksTest {

    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final Pattern LINK = Pattern.compile("]\\(([^)\\s]+)\\)");
    private static final Pattern HEADING = Pattern.compile("(?m)^#+ (.+)$");

    private static List<Path> documents() throws IOException {
        List<Path> documents = new ArrayList<>();
        try (Stream<Path> top = Files.list(ROOT);
                Stream<Path> docs = Files.walk(ROOT.resolve("docs"));
                Stream<Path> modules = Files.list(ROOT)) {
            top.filter(Files::isRegularFile).forEach(documents::add);
            docs.forEach(documents::add);
            modules.map(module -> module.resolve("README.md"))
                    .filter(Files::isRegularFile)
                    .forEach(documents::add);
        }
        return documents.stream()
                .filter(file -> file.toString().endsWith(".md"))
                .distinct()
                .toList();
    }

    /** As the usual readers of Markdown make it from a heading. */
    private static String anchor(MatchResult heading) {
        return heading.group(1)
                .toLowerCase(Locale.ROOT)
                .strip()
                .replaceAll("[^\\p{L}\\p{N}_ -]", "")
                .replace(' ', '-');
    }

    private static Set<String> anchors(Path file) throws IOException {
        return HEADING.matcher(Files.readString(file))
                .results()
                .map(DocLinksTest::anchor)
                .collect(Collectors.toSet());
    }

    private static boolean leadsSomewhere(Path from, String link) throws IOException {
        String[] parts = link.split("#", 2);
        Path to = parts[0].isEmpty() ? from : from.resolveSibling(parts[0]).normalize();
        return Files.exists(to)
                && (parts.length == 1
                        || !to.toString().endsWith(".md")
                        || anchors(to).contains(parts[1]));
    }

    @Test
    void everyLinkLeadsToSomethingThatIsThere() throws IOException {
        List<String> broken = new ArrayList<>();
        int links = 0;
        for (Path document : documents()) {
            for (String link : LINK.matcher(Files.readString(document))
                    .results()
                    .map(match -> match.group(1))
                    .toList()) {
                links++;
                if (!leadsSomewhere(document, link)) {
                    broken.add(ROOT.relativize(document) + ": " + link);
                }
            }
        }
        assertEquals(List.of(), broken);
        assertTrue(links > 100, "links were found at all: " + links);
    }
}
