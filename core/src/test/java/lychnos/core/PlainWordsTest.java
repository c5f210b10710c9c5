package lychnos.core;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileVisitResult;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.SimpleFileVisitor;
import java.nio.file.attribute.BasicFileAttributes;
import java.util.ArrayList;
import java.util.List;
import java.util.Set;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;

/** Texts, comments and documents are in plain words: none of the habits in {@code plain-words.txt} is found in them. */
class PlainWordsTest {

    private static final Path ROOT = Path.of("..").toAbsolutePath().normalize();
    private static final Set<String> NOT_OURS =
            Set.of(".git", ".tools", ".lychnos", "target", "node_modules", "screenshots");
    private static final Pattern READ = Pattern.compile(".*\\.(java|md|ts|svelte|yaml|sh|mjs|properties|html|json)");
    /** Files with such words for a reason, and the reason. */
    private static final List<Allowed> ALLOWED = List.of(
            new Allowed("lab/src/main/java/lychnos/lab/console/", "machines speak as their makers let them"),
            new Allowed("kinds/", "descriptions quote what machines ask"),
            new Allowed("docs/kind-reference.md", "written from the kinds"),
            new Allowed("core/src/test/java/lychnos/core/rule/ReadinessTest.java", "a value that a machine offers"),
            new Allowed(
                    "server/src/test/java/lychnos/server/database/UpgradeTest.java", "a table of an earlier version"),
            new Allowed("server/src/main/resources/db/migration/", "applied migrations never change"),
            new Allowed("CHANGELOG.md", "names what was renamed"),
            new Allowed("core/src/test/resources/plain-words.txt", "the words themselves"),
            new Allowed("web/tests/views/", "recorded: values that machines offer"),
            new Allowed("web/package-lock.json", "written by npm"));

    private record Habit(Pattern pattern, String better) {}

    private record Allowed(String path, String reason) {}

    private static List<Habit> habits() throws IOException {
        try (InputStream in = PlainWordsTest.class.getResourceAsStream("/plain-words.txt")) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(line -> !line.startsWith("#"))
                    .map(line -> line.split("\t"))
                    .map(parts -> new Habit(Pattern.compile(parts[0]), parts[1]))
                    .toList();
        }
    }

    private static List<String> files() throws IOException {
        List<String> files = new ArrayList<>();
        Files.walkFileTree(ROOT, new SimpleFileVisitor<>() {
            @Override
            public FileVisitResult preVisitDirectory(Path directory, BasicFileAttributes attributes) {
                return NOT_OURS.contains(directory.getFileName().toString())
                        ? FileVisitResult.SKIP_SUBTREE
                        : FileVisitResult.CONTINUE;
            }

            @Override
            public FileVisitResult visitFile(Path file, BasicFileAttributes attributes) {
                String name = ROOT.relativize(file).toString();
                if (READ.matcher(name).matches()
                        && ALLOWED.stream().noneMatch(allowed -> name.startsWith(allowed.path))) {
                    files.add(name);
                }
                return FileVisitResult.CONTINUE;
            }
        });
        return files;
    }

    private static List<String> lines(String file) {
        try {
            return Files.readAllLines(ROOT.resolve(file));
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Test
    void everyTextIsInPlainWords() throws IOException {
        List<Habit> habits = habits();
        // one look at the whole of a file first: most have none
        Pattern any = Pattern.compile(
                habits.stream().map(habit -> habit.pattern.pattern()).collect(Collectors.joining("|")));
        List<String> files = files();
        assertTrue(files.size() > 500, () -> "only " + files.size() + " files were read");
        List<String> found = new ArrayList<>();
        for (String file : files) {
            List<String> lines = lines(file);
            if (!any.matcher(String.join("\n", lines)).find()) {
                continue;
            }
            for (int i = 0; i < lines.size(); i++) {
                for (Habit habit : habits) {
                    if (habit.pattern.matcher(lines.get(i)).find()) {
                        found.add(file + ":" + (i + 1) + ": " + habit.better + ": "
                                + lines.get(i).strip());
                    }
                }
            }
        }
        assertEquals(List.of(), found);
    }

    @Test
    void exceptionsAreStillThere() {
        for (Allowed allowed : ALLOWED) {
            assertTrue(Files.exists(ROOT.resolve(allowed.path)), allowed.path + ": " + allowed.reason);
        }
    }
}
