package lychnos.server.configure.line;

import lychnos.core.dialogue.LineSettings;

/** A page in a browser that has a serial port (Web Serial), as the line sees it. Nothing here waits. */
public interface CablePage {

    /** Opens the port with these settings; the page tells when that is done. */
    void open(LineSettings settings);

    /**
     * Writes to the port; the page confirms the number once the port has taken the bytes.
     *
     * @param number of this writing since the port was opened, from 1
     * @param text one byte a character
     */
    void write(long number, String text);

    /** Holds the break condition for a moment. */
    void sendBreak();

    /** Wants a sign of life. */
    void ask();

    /** Closes the port, and the connection to the page. */
    void end();
}
