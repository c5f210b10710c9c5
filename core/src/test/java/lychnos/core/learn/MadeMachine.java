package lychnos.core.learn;

import java.time.Duration;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.Deque;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;

/**
 * An unknown machine: its questions, their order, its prompts and its habits come from a seed. Two
 * machines of one seed ask alike and differ in their values. It notes what was typed at the wrong question, and which
 * password came where it shows what is typed.
 */
final class MadeMachine {

    /** A question, with the value that belongs there. */
    record Asked(String id, String text, boolean secret, String suggests) {}

    private record Out(Duration at, String text) {}

    private static final List<List<String>> WORDS = List.of(
            List.of("gateway", "Router", "Next hop", "Default gateway"),
            List.of("time-server-1", "NTP server", "Clock from", "Time server"),
            List.of("place", "Location", "Where does it stand", "Site text"),
            List.of("contact", "Contact", "Who looks after it", "Owner"),
            List.of("speed", "Port speed", "Link", "Uplink mode"));

    private static final List<List<String>> NAMES = List.of(
            List.of("name", "System name", "What is it called", "Host name"),
            List.of("fqdn", "Full name with the domain", "Name and domain"));

    private static final List<List<List<String>>> ADDRESSES = List.of(
            List.of(List.of("address/length", "Management address with length", "IP address/length")),
            List.of(List.of("address", "IP address", "Lives at"), List.of("mask", "Netmask", "Subnet mask")),
            List.of(List.of("address", "Address", "Management IP"), List.of("length", "Prefix length", "Length")));

    private static final List<List<List<String>>> RESOLVERS = List.of(
            List.of(
                    List.of("name-server-1", "First DNS server", "Primary resolver", "DNS server 1"),
                    List.of("name-server-2", "Second DNS server", "Secondary resolver", "DNS server 2")),
            List.of(List.of("name-servers", "DNS servers, a comma between them", "Resolvers")),
            List.of());

    private static final Set<String> ALWAYS = Set.of("gateway");

    final Map<String, String> wanted;
    final List<String> wrong = new ArrayList<>();
    final List<String> leaked = new ArrayList<>();
    final Map<String, String> taken = new LinkedHashMap<>();
    private final List<Asked> questions = new ArrayList<>();
    private final Deque<Out> outs = new ArrayDeque<>();
    private final String serial;
    private final String maker;
    private final String end;
    private final String prompt;
    private final String arrow;
    private final String chatter;
    private final boolean logsIn;
    private final boolean pages;
    private final boolean colours;
    private final boolean stars;
    private final int restart;
    private final boolean tellsLate;
    private final boolean anyKey;
    private final boolean interrupts;
    private final boolean commands;
    private final String refusal;
    private final StringBuilder keys = new StringBuilder();
    private Duration now = Duration.ZERO;
    private int place = -1;
    private boolean configured;
    private boolean paused;
    private int entered;
    boolean done;

    /**
     * Builds one.
     *
     * @param wanted by question, what belongs there; also {@code serial}, {@code user}, {@code factory} and {@code
     *     password}
     */
    MadeMachine(long seed, Map<String, String> wanted) {
        Random random = new Random(seed);
        this.wanted = wanted;
        serial = wanted.get("serial");
        maker = pick(random, "Skelwith node", "Dunnerdale array", "Wrynose switch", "Langstrath box");
        end = pick(random, ": ", " :: ", "? ", " > ", " = ");
        prompt = pick(random, "skel# ", "dunner> ", "top/ ", "$ ");
        arrow = pick(random, ": ", " -> ", " = ", "  ");
        chatter = pick(random, "", "fan| ", "[log] ", "<5> ");
        logsIn = random.nextBoolean();
        pages = random.nextBoolean();
        colours = random.nextInt(3) == 0;
        stars = random.nextBoolean();
        restart = 10 + random.nextInt(90);
        refusal = pick(random, "not taken: ", "error: ", "% bad value, ");
        tellsLate = logsIn && random.nextInt(3) == 0;
        anyKey = random.nextInt(4) == 0;
        interrupts = random.nextInt(3) == 0;
        commands = random.nextInt(3) == 0;
        List<List<Asked>> groups = new ArrayList<>();
        groups.add(List.of(question(NAMES.get(random.nextInt(NAMES.size())), random)));
        for (List<List<List<String>>> forms : List.of(ADDRESSES, RESOLVERS)) {
            groups.add(forms.get(random.nextInt(forms.size())).stream()
                    .map(words -> question(words, random))
                    .toList());
        }
        for (List<String> words : WORDS) {
            if (ALWAYS.contains(words.get(0)) || random.nextInt(3) > 0) {
                groups.add(List.of(question(words, random)));
            }
        }
        groups.add(List.of(
                new Asked("password", "New administrator password" + end, true, ""),
                new Asked("password", "The same once more" + end, true, "")));
        Collections.shuffle(groups, random);
        if (logsIn) {
            questions.add(new Asked("user", "login" + end, false, ""));
            questions.add(new Asked("factory", "password" + end, true, ""));
        }
        if (random.nextBoolean() && !commands) {
            questions.add(new Asked("begin", "Begin the first setup, yes or no" + end, false, ""));
        }
        if (random.nextInt(3) == 0 && !commands) {
            questions.add(new Asked("terms", "Licence terms, accept or decline" + end, false, ""));
        }
        groups.forEach(questions::addAll);
        questions.add(new Asked("save", "Save it, yes or no" + end, false, ""));
    }

    /** What a person answers whatever the machine is called. */
    static String choice(String id) {
        return switch (id) {
            case "save", "begin" -> "yes";
            case "terms" -> "accept";
            default -> null;
        };
    }

    /** What is typed for a question: the answer, or the command that takes it. */
    String right(Asked asked) {
        String value = choice(asked.id()) == null ? wanted.get(asked.id()) : choice(asked.id());
        return isCommand(asked) ? verb(asked) + value : value;
    }

    private static String verb(Asked asked) {
        return "set " + asked.id().replaceAll("-[0-9]$|/.*$", "") + (asked.id().endsWith("2") ? " second " : " ");
    }

    /** Whether it is set by a command instead of being asked for. */
    boolean isCommand(Asked asked) {
        return commands && !asked.secret() && !asked.id().equals("user") && choice(asked.id()) == null;
    }

    private Asked question(List<String> words, Random random) {
        String text = words.get(1 + random.nextInt(words.size() - 1));
        boolean suggests = words.get(0).equals("speed");
        return new Asked(
                words.get(0),
                text + (suggests ? " [auto]" : random.nextInt(4) == 0 ? " [none]" : "") + end,
                false,
                suggests ? "auto" : "");
    }

    private static String pick(Random random, String... texts) {
        return texts[random.nextInt(texts.length)];
    }

    /** The question that stands on the line; null at the prompt and while it works. */
    Asked asks() {
        return place >= 0 && place < questions.size() ? questions.get(place) : null;
    }

    boolean atPrompt() {
        return configured && place == questions.size() && !paused;
    }

    boolean paused() {
        return paused;
    }

    void begin() {
        say("\r\n\r\nconsole ready\r\n");
        if (anyKey) {
            paused = true;
            say("press any key");
        } else {
            greet();
        }
    }

    private void greet() {
        say("\r\n" + (tellsLate ? "" : greeting("factory settings")));
        next();
    }

    private String greeting(String state) {
        return maker + " " + serial + ", " + state + "\r\n";
    }

    private void say(String text) {
        outs.add(new Out(now, text));
    }

    /** Goes to the next question. */
    private void next() {
        place++;
        Asked asked = asks();
        if (asked != null && asked.id().equals("save")) {
            say("\r\nThis is to be saved\r\n" + listing());
        }
        if (asked != null) {
            ask(asked);
        }
    }

    private void ask(Asked asked) {
        String text = isCommand(asked) ? prompt() : asked.text();
        say(colours ? "\u001b[1m" + text + "\u001b[0m" : text);
        if (interrupts && !chatter.isEmpty() && place % 4 == 2) {
            say("\r\n" + chatter + "event " + place + " came in between\r\n");
        }
    }

    /** Its prompt bears its name once it has one. */
    private String prompt() {
        String name = taken.getOrDefault("name", "");
        return name.isEmpty() || !commands ? prompt : name + "# ";
    }

    private String listing() {
        StringBuilder text = new StringBuilder();
        taken.forEach((id, value) -> {
            boolean shown = !List.of("user", "factory", "password").contains(id) && choice(id) == null;
            text.append(shown ? "  " + label(id) + arrow + value + "\r\n" : "");
        });
        return text.toString();
    }

    private static String label(String id) {
        return switch (id) {
            case "name-server-1" -> "resolver 1";
            case "name-server-2" -> "resolver 2";
            case "time-server-1" -> "clock";
            case "name-servers" -> "resolvers";
            case "gateway" -> "router";
            default -> id;
        };
    }

    /** Takes a key. */
    void key(char key, Duration at) {
        now = at;
        if (paused) {
            paused = false;
            if (place < 0 && !configured) {
                greet();
            } else {
                say("\r          \r" + "  state" + arrow + "running\r\n" + prompt());
            }
            return;
        }
        Asked asked = asks();
        boolean hides = asked != null && asked.secret();
        if (key == '\r') {
            String line = keys.toString();
            keys.setLength(0);
            say("\r\n");
            entered(line);
        } else if (key == '\b' || key == 0x7f) {
            keys.setLength(Math.max(0, keys.length() - 1));
            say(hides && !stars ? "" : "\b \b");
        } else {
            keys.append(key);
            say(hides ? stars ? "*" : "" : String.valueOf(key));
        }
    }

    private void entered(String line) {
        entered++;
        if (!chatter.isEmpty() && entered % 3 == 0) {
            say(chatter + "event " + entered + " of no interest\r\n");
        }
        if (configured && place == questions.size()) {
            command(line);
            return;
        }
        Asked asked = asks();
        if (asked == null) {
            return;
        }
        String value = line.isEmpty() && !asked.suggests().isEmpty() ? asked.suggests() : line;
        String right = right(asked);
        if (!asked.secret() && (line.equals(wanted.get("password")) || line.equals(wanted.get("factory")))) {
            leaked.add(asked.text());
        }
        if (!value.equals(right)) {
            if (!value.startsWith("mistyped")) {
                wrong.add(asked.text() + line);
            }
            say(refusal + "try again\r\n");
            ask(asked);
            return;
        }
        taken.put(asked.id(), isCommand(asked) ? wanted.get(asked.id()) : value);
        if (asked.id().equals("save")) {
            save();
        } else if (configured && asked.id().equals("factory")) {
            place = questions.size();
            say(prompt());
        } else {
            if (tellsLate && asked.id().equals("factory")) {
                say(greeting("factory settings"));
            }
            next();
        }
    }

    private void save() {
        say("saved\r\n");
        now = now.plusSeconds(restart);
        configured = true;
        say("\r\n" + greeting("in service") + "all services are up\r\n");
        questions.removeIf(each -> !logsIn || !Set.of("user", "factory").contains(each.id()));
        if (logsIn) {
            wanted.put("factory", wanted.get("password"));
            place = -1;
            next();
        } else {
            place = questions.size();
            say(prompt());
        }
    }

    private void command(String line) {
        if (line.isEmpty()) {
            say(prompt());
        } else if (!line.equals("show settings") && !line.equals("show health")) {
            wrong.add(prompt() + line);
            say(prompt());
        } else if (line.equals("show health")) {
            done = true;
            say("  health" + arrow + "good\r\n" + prompt());
        } else if (pages) {
            paused = true;
            say(listing() + "-- more --");
        } else {
            say(listing() + prompt());
        }
    }

    /** What it has said by then. */
    List<SetupLog.Shown> said(Duration until) {
        List<SetupLog.Shown> said = new ArrayList<>();
        while (!outs.isEmpty() && outs.peek().at().compareTo(until) <= 0) {
            Out out = outs.poll();
            if (!out.text().isEmpty()) {
                said.add(new SetupLog.Shown(out.at(), out.text()));
            }
        }
        return said;
    }

    /** When it says something next. */
    Duration nextAt(Duration otherwise) {
        return outs.isEmpty() ? otherwise : outs.peek().at();
    }

    static String[] letters(String text) {
        return Arrays.stream(text.split("")).filter(each -> !each.isEmpty()).toArray(String[]::new);
    }
}
