package lychnos.lab.console;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.regex.Pattern;

/**
 * A Buttermere host of licences in a virtual machine. Its line asks in whole questions; a second clock is wanted, as it
 * counts days. On its pages it is registered by a file, and takes authority over the licences of an account.
 */
final class LicenceHost extends Appliance {

    private static final String FACTORY = "warnscale-4";

    /** By what it keeps: the question. */
    private static final Map<String, String> QUESTIONS = new LinkedHashMap<>();

    static {
        QUESTIONS.put("called", "What is it called?");
        QUESTIONS.put("lives at", "Where does it live, with the length?");
        QUESTIONS.put("way out", "Which way leads out?");
        QUESTIONS.put("names", "Who knows names?");
        QUESTIONS.put("clock", "Whose clock does it follow?");
        QUESTIONS.put("spare clock", "And if that one fails?");
    }

    LicenceHost(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis, face);
        face.serve(new LicenceHostPages(this));
        face.overSsh(this);
    }

    @Override
    public String settings() {
        return "4800-8N1";
    }

    @Override
    String logLine(String text) {
        return "(books) " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "This is Buttermere licence host " + serial() + ", which " + (stored() ? "knows its place" : "is new");
    }

    @Override
    String refusal() {
        return "That will not do: ";
    }

    @Override
    boolean signsIn(String user, String phrase) {
        return user.equals("bookkeeper") && phrase.equals(memory.get("line password"));
    }

    @Override
    void show() {
        if (memory.has("lives at")) {
            face.show(bare(memory.get("lives at")));
        }
    }

    @Override
    void talk() throws InterruptedException, Restart {
        if (stored()) {
            line("Its books are open.");
        }
        admit("Bookkeeper, your password? ", FACTORY);
        if (!stored()) {
            firstSetup();
        }
        shell();
    }

    private void firstSetup() throws InterruptedException, Restart {
        do {
            password("line password", "Your own password from now on? ", "Once more? ");
            questions();
            listing();
        } while (!ask("Is all of that right, yes or no? ").equals("yes"));
        store("lives at");
    }

    private void questions() throws InterruptedException {
        for (Map.Entry<String, String> question : QUESTIONS.entrySet()) {
            String name = question.getKey();
            String prompt = question.getValue() + " ";
            if (name.equals("names") && spec.has(Habit.EXTRA_QUESTION)) {
                ask("What colour are its books? ");
            }
            if (name.equals("way out")) {
                hop(name, prompt);
            } else {
                given(name, prompt, form(name));
            }
        }
    }

    private static Pattern form(String name) {
        return switch (name) {
            case "called" -> NAME;
            case "lives at" -> WITH_LENGTH;
            default -> PLAIN;
        };
    }

    private void listing() {
        QUESTIONS.keySet().forEach(name -> line("* " + name + ": " + memory.get(name)));
        line("* edition: " + release("2.9.4"));
        line("* hour: " + clock());
    }

    @Override
    void shell() throws InterruptedException {
        while (true) {
            String typed = ask("Your wish? ");
            if (typed.equals("list")) {
                listing();
            } else if (!typed.isEmpty()) {
                refuse("it can only list");
            }
        }
    }
}
