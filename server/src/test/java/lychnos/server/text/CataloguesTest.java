package lychnos.server.text;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.sun.source.tree.AnnotationTree;
import com.sun.source.tree.ExpressionTree;
import com.sun.source.tree.MemberSelectTree;
import com.sun.source.tree.MethodInvocationTree;
import com.sun.source.tree.NewClassTree;
import com.sun.source.tree.Tree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.TreeScanner;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import javax.tools.ToolProvider;
import lychnos.core.text.Message;
import lychnos.server.api.problem.Reason;
import org.junit.jupiter.api.BeforeAll;
import org.junit.jupiter.api.Test;

/** The catalogues of the core, the wire and the server, and every place in their sources that says something. */
class CataloguesTest {

    private static final List<Path> SOURCES =
            List.of(Path.of("../core/src/main/java"), Path.of("../wire/src/main/java"), Path.of("src/main/java"));
    private static final int LONGEST_ON_THE_BOARD = 200;

    private static final Map<String, Message> MESSAGES = new HashMap<>();
    private static final Set<String> USED = new HashSet<>();
    private static final List<String> WRONG_COUNTS = new ArrayList<>();
    private static final List<String> OUTSIDE = new ArrayList<>();

    @BeforeAll
    static void read() throws IOException, ReflectiveOperationException {
        List<Path> files = new ArrayList<>();
        for (Path root : SOURCES) {
            try (Stream<Path> all = Files.walk(root)) {
                all.filter(each -> each.toString().endsWith(".java")).forEach(files::add);
            }
            for (Path each : files) {
                if (each.startsWith(root) && each.toString().endsWith("Text.java")) {
                    catalogue(root.relativize(each));
                }
            }
        }
        var compiler = ToolProvider.getSystemJavaCompiler();
        var manager = compiler.getStandardFileManager(null, null, null);
        JavacTask task = (JavacTask) compiler.getTask(
                null, manager, problem -> {}, List.of(), null, manager.getJavaFileObjectsFromPaths(files));
        task.parse()
                .forEach(unit -> unit.accept(new Sayings(unit.getSourceFile().getName()), null));
    }

    private static void catalogue(Path source) throws ReflectiveOperationException {
        String type = source.toString().replace(".java", "").replace('/', '.');
        Object[] constants = Class.forName(type).getEnumConstants();
        if (constants != null && constants[0] instanceof Message) {
            for (Object each : constants) {
                MESSAGES.put(type.substring(type.lastIndexOf('.') + 1) + "." + each, (Message) each);
            }
        }
    }

    /** What a file says. */
    private static final class Sayings extends TreeScanner<Void, Void> {

        private final String file;

        private Sayings(String file) {
            this.file = file;
        }

        @Override
        public Void visitMemberSelect(MemberSelectTree select, Void nothing) {
            if (MESSAGES.containsKey(select.toString())) {
                USED.add(select.toString());
            }
            return super.visitMemberSelect(select, nothing);
        }

        @Override
        public Void visitMethodInvocation(MethodInvocationTree call, Void nothing) {
            if (call.getMethodSelect() instanceof MemberSelectTree method) {
                Message said = MESSAGES.get(method.getExpression().toString());
                if (said != null
                        && Set.of("text", "said")
                                .contains(method.getIdentifier().toString())) {
                    int given = call.getArguments().size();
                    if (given != said.names().size()) {
                        WRONG_COUNTS.add(file + ": " + method.getExpression() + " with " + given + " values");
                    }
                }
                if (method.getExpression().toString().equals("Refusal")) {
                    call.getArguments().forEach(this::noSentence);
                }
            }
            return super.visitMethodInvocation(call, nothing);
        }

        @Override
        public Void visitAnnotation(AnnotationTree annotation, Void nothing) {
            annotation.getArguments().forEach(each -> {
                Matcher code = Pattern.compile("message = \"(\\w+)\"").matcher(each.toString());
                if (code.find()) {
                    USED.add("ShapeText." + ShapeText.valueOf(code.group(1)));
                }
            });
            return super.visitAnnotation(annotation, nothing);
        }

        @Override
        public Void visitNewClass(NewClassTree made, Void nothing) {
            if (made.getIdentifier().toString().endsWith("FieldFault")
                    && made.getArguments().size() == 2) {
                noSentence(made.getArguments().get(1));
            }
            return super.visitNewClass(made, nothing);
        }

        private void noSentence(ExpressionTree said) {
            said.accept(
                    new TreeScanner<Void, Void>() {
                        @Override
                        public Void visitLiteral(com.sun.source.tree.LiteralTree literal, Void nothing) {
                            if (literal.getKind() == Tree.Kind.STRING_LITERAL
                                    && literal.getValue().toString().contains(" ")) {
                                OUTSIDE.add(file + ": " + literal);
                            }
                            return null;
                        }

                        @Override
                        public Void visitMethodInvocation(MethodInvocationTree call, Void nothing) {
                            return null; // what is built on the way is looked at where it is said
                        }
                    },
                    null);
        }
    }

    private static Set<String> having(Pattern fault) {
        Set<String> found = new TreeSet<>();
        MESSAGES.forEach((code, message) -> {
            if (fault.matcher(message.pattern()).find()) {
                found.add(code + ": " + message.pattern());
            }
        });
        return found;
    }

    @Test
    void everyCodeHasASentenceAndEveryPlaceAValue() {
        assertTrue(MESSAGES.size() > 1000, () -> "only " + MESSAGES.size());
        assertEquals(Set.of(), having(Pattern.compile("^\\s*$")));
        assertEquals(List.of(), WRONG_COUNTS);
        assertEquals(
                Set.of(),
                having(Pattern.compile("\\{(?=[a-zA-Z])(?![a-zA-Z0-9]+(\\|[^|}]*\\|[^|}]*)?})")),
                "a place without a name");
    }

    @Test
    void everyTextIsSaidSomewhere() {
        USED.addAll(List.of("ShapeText.NAME", "ShapeText.REASON")); // defaults of our own constraints
        Set<String> unused = new TreeSet<>(MESSAGES.keySet());
        unused.removeAll(USED);
        assertEquals(Set.of(), unused);
    }

    @Test
    void refusalsAndFaultsOfFieldsSayWhatACatalogueHas() {
        assertEquals(List.of(), OUTSIDE);
    }

    @Test
    void sentencesThatStandAloneNameWhatTheyAreAbout() {
        assertEquals(Set.of(), having(Pattern.compile("^(It|Its|They|Their) .*\\.$")));
    }

    @Test
    void oneSentenceHasOneCodeInACatalogue() {
        Map<String, String> first = new HashMap<>();
        Set<String> twice = new TreeSet<>();
        MESSAGES.forEach((code, message) -> {
            String sentence = code.substring(0, code.indexOf('.')) + message.pattern();
            String other = first.put(sentence, code);
            if (other != null) {
                twice.add(code + " and " + other);
            }
        });
        assertEquals(Set.of(), twice);
    }

    @Test
    void limitsInASentenceAreThoseOfTheConstraint() {
        assertTrue(ShapeText.REASON.pattern().contains(" " + Reason.LONGEST + " "));
        assertTrue(ShapeText.SUMMARY.pattern().contains(" " + Reason.LONGEST + " "));
    }

    @Test
    void textsOfTheBoardFitIntoIt() {
        for (BoardText each : BoardText.values()) {
            assertTrue(each.pattern().length() <= LONGEST_ON_THE_BOARD, each::name);
        }
    }
}
