package lychnos.server.configure.line;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import lychnos.core.dialogue.Dialogue;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.model.Change;

/** A member's line with the dialogue on it, whether it is carried on here or at a vantage. */
public interface OpenLine extends AtWork {

    long dialogueId();

    String member();

    Dialogue dialogue();

    void open();

    /** Shows what the line has said lately, and everything from now on. */
    void watch(Onlooker onlooker);

    void leave(Onlooker onlooker);

    /** Takes the keyboard. */
    void take(String login);

    CompletableFuture<Optional<String>> typed(String keys, String login);

    /**
     * Types a value of the member as a person would, without Enter, where the setup is by hand. A password goes to the
     * machine and nowhere else.
     */
    CompletableFuture<Optional<String>> typeValue(String name, String login);

    /** A person says that the setup by hand has come to its end. */
    CompletableFuture<Optional<String>> finish(String login);

    CompletableFuture<Optional<String>> sendBreak(String login);

    void resize(int columns, int rows);

    /** Another member has told that it is the one that takes setup. */
    void otherIsActive();

    /** What of the recording is not kept yet. */
    List<Change.RecordingPiece> takePieces();
}
