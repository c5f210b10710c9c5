package lychnos.server.configure.line;

/** A screen that looks at a line. */
public interface Onlooker {

    /** What the line showed, without secrets. */
    void shown(String text);

    /** Something about the dialogue has changed. */
    void changed(LineStanding standing);
}
