package lychnos.lab.console;

import java.util.List;
import java.util.regex.Matcher;
import java.util.regex.Pattern;

/**
 * A Loweswater load balancer in a virtual machine. It is told in short sentences where it belongs; its line and its
 * pages have passwords of their own. On the address of its segment it answers ping and no service.
 */
final class LoadBalancer extends Appliance {

    private static final String FACTORY = "hause-point-7";

    private static final String ADDRESS = "\\d+\\.\\d+\\.\\d+\\.\\d+";

    /** A sentence that it understands, and the names under which it keeps what the sentence says. */
    private record Sentence(Pattern form, List<String> names) {}

    private static final List<Sentence> SENTENCES = List.of(
            new Sentence(
                    Pattern.compile("reach (" + ADDRESS + "/\\d+) via (" + ADDRESS + ")"), List.of("reach", "via")),
            new Sentence(Pattern.compile("called ([a-z][a-z0-9.-]+)"), List.of("called")),
            new Sentence(Pattern.compile("resolve by (" + ADDRESS + ")"), List.of("resolver")),
            new Sentence(Pattern.compile("clock by (" + ADDRESS + ")"), List.of("clock")),
            new Sentence(
                    Pattern.compile("segment (\\d{1,4}) at (" + ADDRESS + "/\\d+)"), List.of("segment", "segment at")));

    LoadBalancer(ConsoleSpec spec, Memory memory, long restartMillis, Face face) {
        super(spec, memory, restartMillis, face);
        face.serve(new LoadBalancerPages(this));
    }

    @Override
    public String settings() {
        return "115200-8N1";
    }

    @Override
    String logLine(String text) {
        return "~~ " + text + "\r\n";
    }

    @Override
    String greeting() {
        return "Loweswater balancer " + serial() + ", " + (stored() ? "claimed" : "unclaimed");
    }

    @Override
    String refusal() {
        return "cannot: ";
    }

    @Override
    void show() {
        if (memory.has("reach")) {
            face.show(bare(memory.get("reach")));
        }
        if (memory.has("segment at")) {
            face.showQuietly(bare(memory.get("segment at")));
        }
    }

    @Override
    void talk() throws InterruptedException, Restart {
        if (stored()) {
            line("balancer serves");
        }
        admit("ferryman's word ", FACTORY);
        shell();
    }

    @Override
    void shell() throws InterruptedException, Restart {
        while (true) {
            String typed = ask("lw: ");
            if (typed.equals("show")) {
                listing();
            } else if (typed.equals("keep") && !stored()) {
                keep();
            } else if (typed.equals("word")) {
                password("line password", "new word ", "new word again ");
                line("noted");
            } else if (!typed.isEmpty()) {
                sentence(typed);
            }
        }
    }

    private void sentence(String typed) throws InterruptedException {
        if (typed.startsWith("segment") && spec.has(Habit.EXTRA_QUESTION)) {
            ask("tagged by whom ");
        }
        for (Sentence sentence : SENTENCES) {
            Matcher said = sentence.form.matcher(typed);
            if (said.matches()) {
                note(sentence, said);
                return;
            }
        }
        refuse("that is no sentence of mine");
    }

    private void note(Sentence sentence, Matcher said) {
        if (sentence.names.contains("via") && refusesOnce()) {
            refuse("the hop lies outside of the network");
            return;
        }
        for (int i = 0; i < sentence.names.size(); i++) {
            memory.put(sentence.names.get(i), said.group(i + 1));
        }
        line("noted");
    }

    private void listing() {
        for (Sentence sentence : SENTENCES) {
            for (String name : sentence.names) {
                line("   " + name + " is " + (memory.has(name) ? memory.get(name) : "not said"));
            }
        }
    }

    private void keep() throws InterruptedException, Restart {
        if (SENTENCES.stream().flatMap(each -> each.names.stream()).anyMatch(name -> !memory.has(name))) {
            refuse("something was not said");
        } else if (!memory.has("line password")) {
            refuse("the word is the maker's still");
        } else if (ask("keep all of it and restart, do or drop ").equals("do")) {
            store("reach");
        }
    }
}
