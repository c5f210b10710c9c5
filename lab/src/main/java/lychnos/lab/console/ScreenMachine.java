package lychnos.lab.console;

import java.util.List;

/**
 * A machine with one page of rows that is worked with cursor keys: Up and Down choose, Enter enters, Ctrl+L draws anew.
 */
abstract class ScreenMachine extends ConsoleMachine {

    private static final int BOTTOM = 22;
    private static final int FIRST_ROW = 4;

    private int marked;
    /** What it has to say about the last thing that was done. */
    private String word = "";

    ScreenMachine(ConsoleSpec spec, Memory memory, long restartMillis) {
        super(spec, memory, restartMillis);
    }

    /** The text at the top of every page. */
    abstract String title();

    abstract List<String> rows();

    /** What stands behind a row. */
    abstract String beside(String row);

    abstract void enter(String row) throws InterruptedException, Restart;

    /** Draws the page and does what the keys want, until it restarts. */
    final void work() throws InterruptedException, Restart {
        marked = 0;
        word = "";
        page();
        while (true) {
            char key = key();
            if (key == '\033') {
                cursor();
            } else if (key == '\f') {
                page();
            } else if (key == '\r') {
                List<String> before = rows();
                word = "";
                enter(before.get(marked));
                marked = before.equals(rows()) ? marked : 0;
                page();
            }
        }
    }

    final void say(String text) {
        word = text;
    }

    private void cursor() throws InterruptedException {
        if (key(100) != '[') {
            return;
        }
        char which = key(100);
        int before = marked;
        marked = Math.floorMod(which == 'A' ? marked - 1 : which == 'B' ? marked + 1 : marked, rows().size());
        draw(before);
        draw(marked);
    }

    final void header() {
        print("\033[2J\033[1;1H\033[1m" + title() + "\033[0m");
    }

    private void page() {
        header();
        for (int i = 0; i < rows().size(); i++) {
            draw(i);
        }
        print("\033[20;1HUp and Down choose, Enter changes, Ctrl+L draws anew.");
        if (!word.isEmpty()) {
            print("\033[21;1H" + word);
        }
        print("\033[1;1H");
    }

    private void draw(int row) {
        String text = String.format("%-22s %s", rows().get(row), beside(rows().get(row)));
        print("\033[" + (FIRST_ROW + row) + ";3H" + (row == marked ? "\033[7m" + text + "\033[0m" : text)
                + "\033[1;1H");
    }

    /** Asks at the bottom of the page, until somebody has logged in. */
    final void logIn(String user, String phrase) throws InterruptedException {
        header();
        while (true) {
            bottom();
            String who = ask("User: ");
            bottom();
            String word = ask("Phrase: ", false);
            if (who.equals(user) && word.equals(phrase)) {
                memory.add("seen.logins");
                return;
            }
            memory.add("seen.refusedLogins");
            pause(300);
            header();
            print("\033[21;1HNot kept: unknown user or phrase");
        }
    }

    final void bottom() {
        print("\033[" + BOTTOM + ";1H\033[K");
    }

    final String field(String prompt) throws InterruptedException {
        bottom();
        return ask(prompt + " ");
    }

    /** A new phrase, asked twice; kept under a name where both agree. */
    final void phrase(String name) throws InterruptedException {
        bottom();
        String first = ask("New phrase ", false);
        bottom();
        if (ask("Once more ", false).equals(first) && first.length() >= 8) {
            memory.put(name, first);
            memory.add("seen.phraseChanges");
        } else {
            say("Not kept: the two differ, or are shorter than eight");
        }
    }

    final void set(String row, String value) {
        if (!value.isEmpty()) {
            memory.put(row, value);
        }
    }

    static String choice(String typed, String suggestion) {
        return typed.isEmpty() ? suggestion : typed;
    }

    final void between(String text) {
        print("\033[21;1H\033[K" + text);
    }

    @Override
    void redraw(String prompt) {
        header();
        print("\033[" + BOTTOM + ";1H" + prompt);
    }

    @Override
    void chatter(String prompt, String typed) {
        // a page has no room for log lines
    }
}
