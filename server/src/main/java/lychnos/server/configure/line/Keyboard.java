package lychnos.server.configure.line;

import java.util.Optional;
import lychnos.server.text.ConfigureText;

/** Who may type on a line and decide for it: one person at a time. */
final class Keyboard {

    private String holder = "";

    /** The login of the person who has it; empty if it is free. */
    String holder() {
        return holder;
    }

    void take(String login) {
        holder = login;
    }

    /** Gives it to the first who asks, until another takes it over; says why not to everybody else. */
    Optional<String> ask(String login) {
        if (holder.isEmpty()) {
            holder = login;
        }
        return holder.equals(login)
                ? Optional.empty()
                : Optional.of(ConfigureText.HAS_THE_KEYBOARD_OF_THIS_LINE.text(holder));
    }
}
