package lychnos.server.kinds;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.PrintStream;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

class KindMainTest {

    private static final String ID = "console-manager";

    @TempDir
    Path directory;

    private final ByteArrayOutputStream said = new ByteArrayOutputStream();

    private int run(String... args) {
        said.reset();
        return new KindMain(new PrintStream(said, true, StandardCharsets.UTF_8)).run(List.of(args));
    }

    private String said() {
        return said.toString(StandardCharsets.UTF_8);
    }

    private String file(String name, String text) throws IOException {
        return Files.writeString(directory.resolve(name), text).toString();
    }

    @Test
    void faultsAreToldWithTheirPlaces() throws IOException {
        String good = file("good.yaml", KindReader.asWritten(ID));
        String bad = file("bad.yaml", KindReader.asWritten(ID).replace("is: digest", "is: digst"));
        assertEquals(0, run("check", good));
        assertEquals(good + ": Console manager, no faults\n", said());
        assertEquals(1, run("check", good, bad));
        assertTrue(
                said().contains(bad + ":13:33: facts.image-digest.is: ")
                        && Texts.says("core.kind.KindFaultText.FACT_TYPE", said()),
                said());
        assertEquals(1, run("check", directory.resolve("none.yaml").toString()));
        assertTrue(said().contains("there is no such file"), said());
    }

    @Test
    void aRecordingIsPlayed() throws IOException {
        String kind = file("kind.yaml", KindReader.asWritten(ID));
        String recording = file("line.cast", Recording.shippedText(ID).orElseThrow());
        assertEquals(0, run("dry-run", kind, recording));
        assertTrue(said().contains(recording + ": 13 steps, no differences"), said());
        String other = file("other.yaml", KindReader.asWritten(ID).replace("router={gateway}", "gate={gateway}"));
        assertEquals(1, run("dry-run", other, recording));
        assertTrue(Texts.says("core.dialogue.DialogueText.RECORDING_DIFFERS", said()), said());
        assertEquals(1, run("dry-run", kind, file("no.cast", "[1]")));
        assertTrue(said().contains("no.cast: ") && Texts.says("core.kind.KindFileText.NO_HEADER", said()), said());
    }

    @Test
    void aPackageIsWrittenAndChecked() throws IOException {
        String kind = file("kind.yaml", KindReader.asWritten(ID));
        String recording = file("Row B.cast", Recording.shippedText(ID).orElseThrow());
        String target = directory.resolve("kind.zip").toString();
        assertEquals(0, run("export", kind, target, recording));
        assertTrue(said().contains(target + " row-b: 13 steps, no differences"), said());
        assertEquals(0, run("check", target));
        assertEquals(1, run("export", file("bad.yaml", "kind: x\n"), target));
        assertEquals(1, run("check", file("none.zip", "no archive")));
        assertTrue(said().contains("none.zip: ") && Texts.says("core.kind.KindFileText.NOT_A_ZIP", said()), said());
        assertEquals(2, run("export", kind, directory.resolve("kind.txt").toString()));
    }

    @Test
    void whatItCannotDoItSays() {
        assertEquals(2, run());
        assertEquals(2, run("check"));
        assertEquals(2, run("dry-run", "kind.yaml"));
        assertTrue(said().startsWith("Wanted is: kind check FILE"), said());
    }
}
