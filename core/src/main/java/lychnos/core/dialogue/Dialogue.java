package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.function.UnaryOperator;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.proof.OwnValue;

/**
 * What the first setup of a kind of machine asks on its console.
 *
 * @param nudge what may be sent to wake a silent line because it does no harm there; empty where nothing may
 * @param chatter log lines that may come at any moment and mean nothing
 * @param paging by what the line shows when it waits for a key to go on, that key
 * @param refused how the machine says that it does not take an answer; its group {@code why} says why. Null where it
 * never says
 * @param identify how to tell what is on the line
 * @param logIn questions that may come at any time, before the machine is known too
 * @param wipe what makes a used machine blank
 * @param setup the first setup
 * @param oneByOne whether a member is set up only once the one before it is
 * @param pages what is set over the network, on web pages or in controllers, before the console or after it
 * @param over where those pages that can be are filled in without a person; null where none can
 * @param log how the machine's own log is fetched; null where nobody described it
 */
public record Dialogue(
        LineSettings line,
        String nudge,
        List<Look> chatter,
        Map<Look, String> paging,
        Look refused,
        Identify identify,
        List<DialogueStep> logIn,
        List<DialogueStep> wipe,
        List<DialogueStep> setup,
        boolean oneByOne,
        List<DialogueStep.Remote> pages,
        PageInterface over,
        MachineLog log) {

    /**
     * The machine's own log: a command on its console, or a resource of its interface.
     *
     * @param at the prompt where the command is sent, and that ends its output; null without a command
     * @param send a command that changes nothing; empty for a resource
     * @param resource the resource; empty for a command
     */
    public record MachineLog(Look at, String send, String resource) {

        /** Whether it is shown on the console. */
        public boolean onConsole() {
            return !send.isEmpty();
        }
    }

    /**
     * The documented interface of a machine's pages: JSON over HTTPS (RFC 9110), read with GET and written with PUT,
     * log-in by RFC 7617.
     *
     * @param at where its resources begin
     * @param phrase the name of the password that is ours
     * @param first the password that counts until ours has logged in
     * @param about the resource that tells which machine it is
     * @param must what that shows, by place
     * @param shows what that tells of the machine besides, and the place (RFC 6901) where it stands
     * @param reads what is only read, at each check, since a person enters it elsewhere
     * @param certificate where it makes signing requests and takes signed certificates; empty where it does neither
     */
    public record PageInterface(
            Template at,
            Template user,
            String phrase,
            String first,
            String about,
            Map<String, Template> must,
            Map<OwnValue, String> shows,
            List<DialogueStep.Page> reads,
            Optional<CertificatePages> certificate) {

        public PageInterface {
            must = Map.copyOf(must);
            shows = Map.copyOf(shows);
            reads = List.copyOf(reads);
        }

        /** Whether it comes with a password, which must be refused once ours counts. */
        public boolean hasFirst() {
            return !first.equals(phrase);
        }
    }

    /**
     * Where a documented interface replaces the certificate of its machine. Places are JSON Pointers (RFC 6901).
     *
     * @param request the resource that makes a new key, and a signing request for it, when the names are written there
     * @param name the place of the full name
     * @param names the place of the list of names and addresses; empty where it takes one name alone
     * @param shows the place of the signing request (PKCS #10, RFC 2986), in PEM
     * @param resource the resource that takes the signed certificate
     * @param chain the place of the certificate and of those above it, in PEM
     */
    public record CertificatePages(
            String request, String name, String names, String shows, String resource, String chain) {

        /** What is written to have a request made: by place, a name. */
        public Map<String, String> asks(String fqdn, String address) {
            Map<String, String> texts = new LinkedHashMap<>();
            texts.put(name, fqdn);
            if (!names.isEmpty()) {
                texts.put(names + "/0", fqdn);
                texts.put(names + "/1", address);
            }
            return texts;
        }
    }

    /**
     * How to tell the machine, before anything is written.
     *
     * @param see what it shows; named groups give values
     * @param must by group, what it must be
     * @param unused values of the group {@code state} for a machine that was never set up; any other is one that was
     * @param standby values of the group {@code state} for the wrong one of a pair; it takes no setup
     * @param probe a key that makes it say who it is where it asks for a log-in; empty where it says so without a key
     */
    public record Identify(
            Look see, Map<String, Template> must, Set<String> unused, Set<String> standby, String probe) {

        /** The group that tells whether the machine was set up before. */
        public static final String STATE = "state";

        public Identify {
            must = Map.copyOf(must);
            unused = Set.copyOf(unused);
            standby = Set.copyOf(standby);
        }

        /** Of a machine without a console: nothing it could show is the one that is wanted. */
        public static final Identify NOTHING = new Identify(Look.NOTHING, Map.of(), Set.of(), Set.of());

        /** The groups that tell more than which machine it is, such as its firmware. */
        public Set<String> tells() {
            return see.groups().stream()
                    .filter(group -> !group.equals(STATE) && !must.containsKey(group))
                    .collect(Collectors.toUnmodifiableSet());
        }

        /** A machine that says who it is without being asked. */
        public Identify(Look see, Map<String, Template> must, Set<String> unused, Set<String> standby) {
            this(see, must, unused, standby, "");
        }
    }

    public Dialogue {
        chatter = List.copyOf(chatter);
        paging = Map.copyOf(paging);
        logIn = List.copyOf(logIn);
        wipe = List.copyOf(wipe);
        setup = List.copyOf(setup);
        pages = List.copyOf(pages);
    }

    /** The same with the values in what is looked for on the line. */
    Dialogue filled(Function<String, Optional<String>> values) {
        UnaryOperator<Look> fill = look -> look == null ? null : look.filled(values);
        Map<Look, String> keys = new LinkedHashMap<>();
        paging.forEach((look, key) -> keys.put(fill.apply(look), key));
        return new Dialogue(
                line,
                nudge,
                chatter.stream().map(fill).toList(),
                keys,
                fill.apply(refused),
                new Identify(
                        fill.apply(identify.see), identify.must, identify.unused, identify.standby, identify.probe),
                logIn.stream().map(step -> step.filled(fill)).toList(),
                wipe.stream().map(step -> step.filled(fill)).toList(),
                setup.stream().map(step -> step.filled(fill)).toList(),
                oneByOne,
                pages,
                over,
                log == null || log.at() == null
                        ? log
                        : new MachineLog(fill.apply(log.at()), log.send(), log.resource()));
    }

    /** The names of what the machine shows or its pages tell on the way. */
    Set<String> shownLater() {
        Set<String> names = new TreeSet<>(identify.tells());
        Stream.of(logIn, wipe, setup).flatMap(List::stream).forEach(step -> {
            if (step instanceof DialogueStep.Asked asked && asked.read() != null) {
                names.addAll(asked.read().groups());
            }
        });
        pages.forEach(page ->
                names.addAll(page instanceof DialogueStep.Page own ? own.tells().keySet() : Set.of()));
        return names;
    }

    /** Whether a step is done with these values, or depends on what the machine has not shown yet. */
    public boolean mayApply(DialogueStep step, Function<String, Optional<String>> values) {
        return step.only().holds(values, shownLater()).orElse(true);
    }

    /** Everything that is looked for on the line. */
    private Stream<Look> looks(String member, boolean wiped) {
        return Stream.of(
                        chatter.stream(),
                        paging.keySet().stream(),
                        Stream.ofNullable(refused),
                        Stream.of(identify.see),
                        steps(member, wiped).stream().flatMap(DialogueStep::looks))
                .flatMap(Function.identity());
    }

    /** One without pages. */
    public Dialogue(
            LineSettings line,
            String nudge,
            List<Look> chatter,
            Map<Look, String> paging,
            Look refused,
            Identify identify,
            List<DialogueStep> logIn,
            List<DialogueStep> wipe,
            List<DialogueStep> setup,
            boolean oneByOne) {
        this(line, nudge, chatter, paging, refused, identify, logIn, wipe, setup, oneByOne, List.of(), null, null);
    }

    /** A machine that is not described: a person does the setup on a line with these settings. */
    public static Dialogue byHand(LineSettings line) {
        return new Dialogue(
                line, "", List.of(), Map.of(), null, Identify.NOTHING, List.of(), List.of(), List.of(), false);
    }

    /** Whether nothing is described, so that a person does the whole setup. */
    public boolean byHand() {
        return setup.isEmpty() && pages.isEmpty();
    }

    /** The steps of one member in their order. */
    public List<DialogueStep> steps(String member, boolean wiped) {
        List<DialogueStep> steps = new ArrayList<>(logIn);
        if (wiped) {
            steps.addAll(wipe);
        }
        steps.addAll(setup);
        return steps.stream()
                .filter(step -> step.on().isEmpty() || step.on().equals(member))
                .toList();
    }

    /** The names of everything that a member's line is answered and compared with. */
    public Set<String> names(String member, boolean wiped) {
        Set<String> names = new TreeSet<>();
        identify.must().values().forEach(must -> names.addAll(must.names()));
        looks(member, wiped).forEach(look -> names.addAll(look.names()));
        for (DialogueStep step : steps(member, wiped)) {
            names.addAll(step.only().names());
            if (step instanceof DialogueStep.Asked asked) {
                names.addAll(asked.answer().names());
                names.addAll(asked.after().isEmpty() ? Set.of() : Set.of(asked.after()));
            } else if (step instanceof DialogueStep.Summary summary) {
                summary.fields().values().forEach(field -> names.addAll(field.names()));
            }
        }
        return names;
    }

    /**
     * The names of every value that a member's setup can ask for, on any branch of its line, its pages and its
     * summaries; without those of steps and fields that are left out where there is no value for them, or under a
     * condition.
     *
     * @param member whose steps; empty for those of a single machine
     */
    public Set<String> needed(String member) {
        Set<String> names = new TreeSet<>();
        Stream.of(logIn, wipe, setup)
                .flatMap(List::stream)
                .filter(step -> step.on().isEmpty() || step.on().equals(member))
                .filter(step -> step.only().equals(Condition.ALWAYS))
                .forEach(step -> {
                    if (step instanceof DialogueStep.Asked asked && !asked.is(DialogueStep.Mark.OPTIONAL)) {
                        names.addAll(asked.answer().names());
                    } else if (step instanceof DialogueStep.Summary summary) {
                        summary.fields().values().forEach(field -> names.addAll(field.names()));
                    }
                });
        for (DialogueStep.Remote each : remote(member).toList()) {
            if (each instanceof DialogueStep.Page page) {
                names.addAll(page.open().names());
                page.fields().values().stream()
                        .filter(field -> !field.optional())
                        .forEach(field -> names.addAll(field.value().names()));
            }
        }
        return names;
    }

    /** The same with what is set over the network behind them, which no line asks. */
    public List<DialogueStep> withPages(String member, boolean wiped) {
        List<DialogueStep> all = new ArrayList<>(steps(member, wiped));
        remote(member).forEach(all::add);
        return all;
    }

    private Stream<DialogueStep.Remote> remote(String member) {
        return pages.stream().filter(page -> page.on().isEmpty() || page.on().equals(member));
    }

    /** Whether anything of a member is set over the network without a person. */
    public boolean drivesPages(String member) {
        return remote(member).anyMatch(DialogueStep.Remote::driven);
    }

    /** Whether something is done by hand before the line of a member is opened. */
    public boolean beginsByHand(String member) {
        return remote(member).anyMatch(DialogueStep.Remote::first);
    }

    Optional<String> pagingKey(String line) {
        return paging.entrySet().stream()
                .filter(entry -> entry.getKey().in(line))
                .map(Map.Entry::getValue)
                .findFirst();
    }
}
