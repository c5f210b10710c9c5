package lychnos.e2e;

import org.junit.jupiter.api.extension.BeforeTestExecutionCallback;
import org.junit.jupiter.api.extension.ExtensionContext;
import org.junit.jupiter.api.extension.TestExecutionExceptionHandler;

/** Adds to a failure what the screen showed: a control that was waited for in vain says nothing of what stood there. */
public final class ShowsTheScreen implements BeforeTestExecutionCallback, TestExecutionExceptionHandler {

    private static final int MOST_CHARACTERS = 4000;

    @Override
    public void beforeTestExecution(ExtensionContext context) {
        Screen.forgetLastSeen();
    }

    @Override
    public void handleTestExecutionException(ExtensionContext context, Throwable failure) throws Throwable {
        String seen = Screen.lastSeen().replaceAll("\\s*\\n\\s*", " / ");
        if (seen.isEmpty()) {
            throw failure;
        }
        throw new AssertionError(
                failure.getMessage()
                        + "\nThe screen showed: "
                        + seen.substring(0, Math.min(seen.length(), MOST_CHARACTERS)),
                failure);
    }
}
