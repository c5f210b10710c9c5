package lychnos.server.configure.model;

import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import lychnos.core.dialogue.Mode;
import lychnos.server.text.ConfigureText;

/**
 * A member's setup that this server works at: on its line, or on its pages. What people decide completes with why not,
 * or with nothing.
 */
public interface AtWork {

    /** Why not, where the hold on the run was lost before what was decided could be kept. */
    String TAKEN_OVER = ConfigureText.ANOTHER_SERVER_HAS_JUST_TAKEN_OVER_THIS_SETUP.text();

    CompletableFuture<Optional<String>> mode(Mode next, String login);

    CompletableFuture<Optional<String>> goOn(String typed, String login);

    CompletableFuture<Optional<String>> again(String login);

    /** Fetches the machine's own log; it is kept with the unit once the machine has shown it. */
    CompletableFuture<Optional<String>> fetchLog(String login);

    /** Anybody may stop it, at once. */
    void halt(String login);

    /** Lets it go without a word: another server has it, or its setup has ended. */
    void close();

    /** What the step lacks that a person or another member still has to say; empty where nothing is waited for. */
    List<String> lacks();

    /** Something that was not known is known now. */
    void known(String name, String value);
}
