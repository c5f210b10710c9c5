package lychnos.core.kind;

import java.time.Duration;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.fact.DataSize;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.Secret;
import lychnos.core.image.ImageFormat;
import lychnos.core.name.NamePattern;
import lychnos.core.place.Need;

/**
 * The description of one kind of equipment.
 *
 * @param id the word by which the kind is known, such as {@code server-controller}
 * @param title the name as people read it
 * @param shortName the word for the kind in host names
 * @param about one or two sentences
 * @param members the machines that make one unit
 * @param facts what has to be known, in the order of the sheet
 * @param atRack what to carry to the rack and what to check there
 * @param addresses what is placed together or not at all
 * @param names how the addresses are called
 * @param setup what its first setup can and cannot do
 * @param dialogue what its first setup asks on the console; empty where nobody described it
 * @param machine what it wants of a virtualisation host; empty for a machine of metal
 * @param logins every way in that the maker ships; each must be refused once the unit is set up
 * @param checks what is proven of it
 * @param waits how long its restart takes
 * @param flows what it must be able to reach, and who must reach it
 */
public record Kind(
        String id,
        String title,
        String shortName,
        String about,
        Members members,
        List<FactSpec> facts,
        AtRack atRack,
        List<AddressPlan> addresses,
        Names names,
        SetupWay setup,
        Optional<Dialogue> dialogue,
        Optional<Machine> machine,
        List<FactoryLogin> logins,
        KindChecks checks,
        Waits waits,
        List<Flow> flows) {

    /** Facts that a kind has without naming them. */
    public static final Set<String> STANDARD =
            Set.of("factory-user", "factory-password", "switch-port", "cable", "change-window");

    /** When the machines of a unit may be restarted or cut off, as {@link lychnos.core.fact.ChangeWindow} reads it. */
    public static final String CHANGE_WINDOW = "change-window";

    /** The facts that say where the console of a machine is: on a line server or this computer, or on its host. */
    public static final List<String> LINES = List.of("console", "line");

    public static final String SWITCH_PORT = "switch-port";
    public static final String CABLE = "cable";

    /** The ways in that need a line to the machine. */
    public static final Set<String> LINE_WAYS = Set.of("console", "screen");

    /** The fact that holds the user of a machine's own factory login, where it has one on its tag. */
    public static final String OWN_USER = "factory-user";

    /** The fact that holds the password of a machine's own factory login, where it has one on its tag. */
    public static final String OWN_PASSWORD = "factory-password";

    /** What a kind writes for the user of a way in that has no login. */
    public static final String NO_LOGIN = "none";

    /**
     * A log-in.
     *
     * @param user the account's name
     * @param phrase its password
     */
    public record Login(String user, Secret phrase) {}

    /**
     * The work at the rack.
     *
     * @param bring what to carry there
     * @param plug which port to use, or empty
     * @param checks what is ticked there, in the order of the list
     */
    public record AtRack(List<String> bring, String plug, List<RackCheck> checks) {}

    /**
     * Something that a person ticks at the rack, such as a power feed.
     *
     * @param text what must be so
     * @param scope whether it is ticked once for the unit or for each member
     * @param late whether it may come after the setup, such as a production cable
     */
    public record RackCheck(String text, FactSpec.Scope scope, boolean late) {}

    /** What to carry to the rack. */
    public List<String> bring() {
        return atRack.bring;
    }

    /** Which port to use, or empty. */
    public String plug() {
        return atRack.plug;
    }

    /** Whether a person does the whole setup on its console, since it is not described. */
    public boolean byHand() {
        return dialogue.filter(Dialogue::byHand).isPresent();
    }

    /** Where its first setup uses a fact, told from the dialogue, and what the description adds; or empty. */
    public String usedAt(FactSpec fact) {
        return dialogue.map(asking -> AskedWhere.of(fact, asking)).orElse(fact.asked());
    }

    /** A way in that the maker ships. */
    public record FactoryLogin(String way, Login login) {}

    /**
     * Names.
     *
     * @param unit the pattern for a unit's own name
     * @param roles by the pattern of a role, the pattern for the name of its address
     * @param aliases by the pattern of a role, the pattern for a second name (CNAME) of its address
     * @param longest how many characters the machine allows, 1 to 63
     */
    public record Names(
            NamePattern unit, Map<String, NamePattern> roles, Map<String, NamePattern> aliases, int longest) {}

    /**
     * What a virtual machine wants.
     *
     * @param networks the purposes of the networks it is joined to
     * @param line whether it has a line port
     * @param image what its image must be
     */
    public record Machine(
            int cores, DataSize memory, DataSize disk, List<String> networks, boolean line, ImageNeeds image) {}

    /**
     * What the image of a virtual machine must be.
     *
     * @param formats those that the maker ships; empty where any will do
     * @param from its oldest version; empty where any will do
     * @param hostFrom the oldest version of a virtualisation host that it runs on; empty where any will do
     */
    public record ImageNeeds(List<ImageFormat> formats, String from, String hostFrom) {

        public static final ImageNeeds NONE = new ImageNeeds(List.of(), "", "");
    }

    /** How long a restart usually takes, and after how long it is a fault. */
    public record Waits(Duration about, Duration atMost) {}

    /**
     * A flow that a firewall must let through.
     *
     * @param from roles, {@code all} or {@code engineers}
     * @param to a service of the site, roles, or {@code internet}
     * @param port such as {@code udp 53}
     * @param fallback the port that is used where the first does not answer; empty for none
     * @param hosts the names that it goes to on the internet, where the maker states them
     */
    public record Flow(String from, String to, String port, String fallback, List<String> hosts) {

        /** It as people write and read it, between an arrow of their choice. */
        String text(String arrow) {
            return from + arrow + to + " " + port
                    + (fallback.isEmpty() ? "" : " or " + fallback)
                    + (hosts.isEmpty() ? "" : " (" + String.join(", ", hosts) + ")");
        }
    }

    /** The first log-in that the maker ships. */
    public Login factory() {
        return logins.get(0).login();
    }

    /**
     * The same kind where one machine left the factory with a login of its own.
     *
     * @param user as on its tag, or null for the kind's
     * @param phrase as on its tag, or null for the kind's
     */
    public Kind withFactory(String user, Secret phrase) {
        KindCopy copy = new KindCopy(this);
        Login kinds = factory();
        List<FactoryLogin> own = new ArrayList<>(logins);
        own.set(
                0,
                new FactoryLogin(
                        logins.get(0).way(),
                        new Login(user == null ? kinds.user() : user, phrase == null ? kinds.phrase() : phrase)));
        copy.logins = List.copyOf(own);
        return copy.kind();
    }

    /**
     * The same kind with other account names, in the order of {@link #logins}.
     *
     * @throws IllegalArgumentException if there are not as many
     */
    public Kind withFactoryUsers(List<String> users) {
        if (users.size() != logins.size()) {
            throw new IllegalArgumentException(logins.size() + " accounts are expected, not " + users.size());
        }
        KindCopy copy = new KindCopy(this);
        copy.logins = IntStream.range(0, users.size())
                .mapToObj(i -> new FactoryLogin(
                        logins.get(i).way(),
                        new Login(users.get(i), logins.get(i).login().phrase())))
                .toList();
        return copy.kind();
    }

    /** The ways in, such as {@code console} or {@code web}, for which the maker ships a login. */
    public Set<String> shippedWays() {
        return logins.stream()
                .filter(login -> !login.login().user().equals(NO_LOGIN))
                .map(FactoryLogin::way)
                .collect(Collectors.toSet());
    }

    public int port() {
        return checks.port();
    }

    public List<Integer> shut() {
        return checks.shut();
    }

    public Duration restartAbout() {
        return waits.about();
    }

    public Duration restartAtMost() {
        return waits.atMost();
    }

    /** Whether the program itself sets such a machine up. */
    public boolean driven() {
        return setup.by().equals("redfish");
    }

    /** The documented interface that each check reads. */
    Optional<Dialogue.PageInterface> checkedPages() {
        return dialogue.map(Dialogue::over);
    }

    /** The same, where it is at an address of the machine's own and not at that of a controller inside it. */
    Optional<Dialogue.PageInterface> ownPages() {
        return dialogue.filter(each -> each.over() != null)
                .filter(each -> each.pages().stream()
                        .filter(DialogueStep.Controller.class::isInstance)
                        .map(DialogueStep.Controller.class::cast)
                        .noneMatch(controller -> each.over()
                                .at()
                                .names()
                                .contains(controller.role().replace(' ', '-') + ".address")))
                .map(Dialogue::over);
    }

    /** Where its documented interface replaces the certificate; empty where it does not. */
    public Optional<Dialogue.CertificatePages> certificatePages() {
        return ownPages().flatMap(Dialogue.PageInterface::certificate);
    }

    public Optional<FactSpec> fact(String name) {
        return facts.stream().filter(fact -> fact.name().equals(name)).findFirst();
    }

    /**
     * What a unit needs.
     *
     * @param count how many members it has
     * @param values facts of the unit, for entries that are repeated by one
     */
    public List<Need> needs(int count, Map<String, String> values) {
        return addresses.stream()
                .map(plan -> plan.need(members, count, times(plan, values)))
                .toList();
    }

    /**
     * By role, the host names of a unit's addresses.
     *
     * @param unitName the unit's own name
     */
    public Map<String, String> hostNames(String unitName, int count, Map<String, String> values) {
        return named(names.roles(), unitName, count, values);
    }

    /** By role, second names (CNAME) of a unit's addresses, where the kind has any. */
    public Map<String, String> aliases(String unitName, int count, Map<String, String> values) {
        return named(names.aliases(), unitName, count, values);
    }

    private Map<String, String> named(
            Map<String, NamePattern> patterns, String unitName, int count, Map<String, String> values) {
        Map<String, String> hostNames = new LinkedHashMap<>();
        for (AddressPlan plan : addresses) {
            for (AddressPlan.Role role : plan.roles(count, times(plan, values))) {
                NamePattern pattern = patterns.get(role.pattern());
                if (pattern != null) {
                    String member = role.member() > 0
                            ? members.labels().get(role.member() - 1).replace(" ", "-")
                            : "";
                    Map<String, String> words = Map.of(
                            "unit",
                            unitName,
                            "member",
                            member,
                            "m",
                            String.valueOf(role.member()),
                            "i",
                            String.valueOf(role.index()));
                    hostNames.put(role.name(members.labels()), pattern.name(words, 0));
                }
            }
        }
        return hostNames;
    }

    /** How often the repeated roles of an entry stand there for such a unit. */
    public int times(AddressPlan plan, Map<String, String> values) {
        if (plan.times().matches("[0-9]+")) {
            return Integer.parseInt(plan.times());
        }
        String value = values.get(plan.times());
        if (value == null) {
            value = fact(plan.times()).map(FactSpec::fallback).orElse(null);
        }
        return value != null && value.matches("[1-9][0-9]?") ? Integer.parseInt(value) : 1;
    }

    /** The same kind with its service at another port and without SSH, for a lab that cannot use the real ones. */
    public Kind withPort(int other) {
        KindCopy copy = new KindCopy(this);
        copy.checks = new KindChecks(
                other,
                new KindChecks.Ports(List.of(), checks.shut(), List.of()),
                "",
                false,
                Optional.empty(),
                Expectation.NOT_CHECKED,
                checks.iscsi(),
                checks.nfs(),
                checks.roles(),
                Map.of(),
                checks.webForm());
        return copy.kind();
    }

    /** The names that every description may use besides the facts of its own: addresses, names and services. */
    public static List<String> givenNames() {
        return DialogueNames.GIVEN;
    }

    /** The names that a description may use of the addresses of each role, such as {@code files.address}. */
    public List<String> roleNames() {
        return addresses.stream()
                .flatMap(plan -> plan.roles().stream())
                .flatMap(List::stream)
                .distinct()
                .flatMap(role -> DialogueNames.OF_ROLE.stream().map(each -> role.replace(' ', '-') + "." + each))
                .toList();
    }
}
