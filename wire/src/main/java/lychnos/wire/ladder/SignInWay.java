package lychnos.wire.ladder;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Outcome.Standing;
import lychnos.core.proof.OwnValue;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Traits;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.pages.MachinePages;
import lychnos.wire.pages.PageFault;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.vantage.Vantage;

/**
 * The upper rungs of a machine that people sign in to. Which one it is, it tells over the interface of its pages, or by
 * its MAC address, or by the certificate that it has had since it told its serial in its setup.
 */
final class SignInWay implements Way {

    private static final String NOT_COMPARED = LadderText.NO_SERIAL_RECORDED.text();

    private final Vantage vantage;
    private final Target target;
    private final Target.SignIn expected;
    private final Optional<Mac> neighbour;
    private final String shown;
    private final List<Settings.Field> fields = new ArrayList<>();
    private final Map<String, String> traits = new LinkedHashMap<>();
    private final Clock clock;
    private HostKey.Seen hostKey;
    private MachinePages pages;
    private OwnValues byPages = OwnValues.NONE;
    private OwnValues overShell = OwnValues.NONE;

    /**
     * A way up.
     *
     * @param neighbour the MAC address that answered, where this place is on the segment
     * @param shown the certificate that was shown right before; everything goes to that one or not at all
     */
    SignInWay(
            Vantage vantage,
            Target target,
            Target.SignIn expected,
            Optional<Mac> neighbour,
            String shown,
            Clock clock) {
        this.vantage = vantage;
        this.target = target;
        this.expected = expected;
        this.neighbour = neighbour;
        this.shown = shown;
        this.clock = clock;
    }

    @Override
    public Outcome service() throws WireFault {
        List<Part> parts = new ArrayList<>();
        SignInPage.Seen page;
        try {
            page = SignInPage.open(vantage, target, shown);
        } catch (WireFault e) {
            return RedfishWay.brokenUnlessUndeclared(e, Rung.SERVICE, Trouble.NO_PAGE);
        }
        if (page.away().isPresent()) {
            parts.add(Part.broken("page", LadderText.REDIRECTS.text(page.away().get())));
            return Outcome.broken(Rung.SERVICE, Trouble.LEADS_AWAY, page.away().get())
                    .with(parts);
        }
        if (!page.fault().isEmpty()) {
            parts.add(Part.broken("page", page.fault()));
            return Outcome.broken(Rung.SERVICE, Trouble.NO_PAGE, page.fault()).with(parts);
        }
        parts.add(Part.holds(
                "page",
                page.title().isEmpty()
                        ? LadderText.PAGE.text(page.status())
                        : LadderText.PAGE_WITH_TITLE.text(page.status(), page.title())));
        Optional<Address> refused =
                expected.ssh() ? Sources.refused(vantage, target, SshGreeting.SSH) : Optional.empty();
        boolean greets = expected.ssh() && refused.isEmpty();
        refused.ifPresent(source -> parts.add(Part.notMeasured("SSH", LadderText.MUST_NOT_ANSWER.text(source))));
        Optional<Outcome> ssh = greets ? greeting(parts) : Optional.empty();
        if (ssh.isPresent()) {
            return ssh.get().with(parts);
        }
        return Outcome.holds(
                        Rung.SERVICE,
                        (greets ? LadderText.PAGE_AND_SSH : LadderText.PAGE_ONLY)
                                .text(
                                        page.title().isEmpty()
                                                ? LadderText.SIGN_IN_PAGE.text()
                                                : "“" + page.title() + "”"))
                .with(parts);
    }

    private Optional<Outcome> greeting(List<Part> parts) throws WireFault {
        SshGreeting greeting = new SshGreeting(vantage, target);
        Optional<Outcome> broken = greeting.look(parts);
        hostKey = greeting.hostKey();
        if (hostKey != null) {
            traits.put(Traits.HOST_KEY, hostKey.fingerprint());
        }
        return broken;
    }

    private MachinePages pages() throws WireFault {
        if (pages == null) {
            MachinePages opened = new MachinePages(vantage, expected.pages().at(), target.port());
            String known = Optional.ofNullable(expected.pages().certificate()).orElse(shown);
            String seen = opened.see();
            if (!seen.equals(known)) {
                throw new WireFault(
                        WireFault.Kind.OTHER_CERTIFICATE,
                        LadderText.PAGES_SHOW_OTHER_CERTIFICATE.text(opened.peer(), seen));
            }
            pages = opened;
        }
        return pages;
    }

    private MachinePages.Login login(Target.Login login) {
        return new MachinePages.Login(login.user(), login.phrase());
    }

    @Override
    public Outcome identity() throws WireFault {
        List<Part> parts = new ArrayList<>();
        if (expected.pages() != null && expected.pages().ours().phrase() != null) {
            Optional<Outcome> told = toldByPages(parts);
            if (told.isPresent()) {
                return told.get().with(parts);
            }
        }
        if (target.mac() != null && neighbour.isPresent()) {
            parts.add(Part.holds(
                    LadderText.MAC_ADDRESS.text(),
                    LadderText.MAC_AS_ON_LABEL.text(neighbour.get()))); // another one would have broken the first rung
        }
        if (expected.setUp() != null && expected.setUp().identifiedBy() instanceof Target.NotYet) {
            parts.add(Part.notMeasured("comparison", NOT_COMPARED));
        } else if (expected.setUp() != null) {
            boolean kept = target.fingerprint() != null;
            String seen = told(expected.setUp());
            parts.add(
                    kept
                            ? Part.holds("certificate", LadderText.SAME_AS_AFTER_SETUP.text(seen))
                            : Part.notMeasured("certificate", LadderText.FIRST_SEEN.text(seen)));
        }
        Optional<Part> holds =
                parts.stream().filter(part -> part.standing() == Standing.HOLDS).findFirst();
        if (holds.isPresent()) {
            return Outcome.holds(Rung.IDENTITY, holds.get().seen()).with(parts);
        }
        if (expected.setUp() == null) {
            return Outcome.broken(Rung.IDENTITY, Trouble.NOT_SET_UP, "").with(parts);
        }
        return expected.setUp().identifiedBy() instanceof Target.NotYet
                ? Outcome.notMeasured(Rung.IDENTITY, NOT_COMPARED).with(parts)
                : Outcome.holds(Rung.IDENTITY, parts.get(0).seen()).with(parts);
    }

    /** From whom its serial is known: from the machine, or from a person who read it there. */
    private static String told(Target.SetUp setUp) {
        return setUp.identifiedBy() instanceof Target.Person person
                ? LadderText.READ_BY_PERSON.text(person.login(), person.read(), minute(person.at()))
                : LadderText.SHOWN_IN_SETUP.text(setUp.serial(), minute(setUp.at()));
    }

    static String minute(Instant at) {
        return at.toString().substring(0, 16).replace('T', ' ');
    }

    /** What its pages tell of it; nothing where they tell that it is the one. */
    private Optional<Outcome> toldByPages(List<Part> parts) throws WireFault {
        try {
            Instant before = clock.instant();
            Map<String, String> about = pages().read(
                            expected.pages().about(), login(expected.pages().ours()));
            byPages = ownValues(about, before);
            for (Map.Entry<String, String> must : expected.pages().must().entrySet()) {
                String is = about.getOrDefault(must.getKey(), "nothing");
                if (!is.equals(must.getValue())) {
                    parts.add(Part.broken(LadderText.ITS_PAGES.text(), is));
                    return Optional.of(Outcome.broken(
                            Rung.IDENTITY,
                            Trouble.OTHER_MACHINE,
                            LadderText.PAGES_SHOW_OTHER.text(is, must.getValue())));
                }
            }
            parts.add(Part.holds(
                    LadderText.ITS_PAGES.text(),
                    LadderText.AS_ON_LABEL.text(
                            String.join(", ", expected.pages().must().values()))));
            return Optional.empty();
        } catch (PageFault e) {
            parts.add(Part.broken(LadderText.ITS_PAGES.text(), e.getMessage()));
            return Optional.of(Outcome.broken(
                    Rung.IDENTITY,
                    e.refusesLogin() ? Trouble.PAGES_REFUSED : Trouble.IDENTITY_UNREADABLE,
                    e.getMessage()));
        } catch (WireFault e) {
            return Optional.of(RedfishWay.brokenUnlessUndeclared(e, Rung.IDENTITY, Trouble.IDENTITY_UNREADABLE));
        }
    }

    private OwnValues ownValues(Map<String, String> about, Instant before) {
        Map<OwnValue, String> told = new EnumMap<>(OwnValue.class);
        expected.pages().shows().forEach((value, at) -> {
            if (about.containsKey(at)) {
                told.put(value, about.get(at));
            }
        });
        return new OwnValues(expected.pages().shows().keySet(), told, before, clock.instant());
    }

    @Override
    public Outcome asPlanned() throws WireFault {
        List<Part> parts = new ArrayList<>();
        PageRead pageRead = new PageRead(target.known().accepted());
        if (expected.setUp() != null && expected.setUp().readBack()) {
            parts.add(Part.holds(
                    LadderText.READ_BACK.text(),
                    LadderText.IN_SETUP.text(minute(expected.setUp().at()))));
        }
        if (expected.pages() != null && expected.pages().ours().phrase() != null) {
            for (Map.Entry<String, Target.Fill> fill : expected.pages().fills().entrySet()) {
                try {
                    Map<String, String> is = pages().read(
                                    fill.getValue().resource(),
                                    login(expected.pages().ours()));
                    parts.add(pageRead.judge(fill.getKey(), fill.getValue(), is, fields, traits));
                } catch (PageFault e) {
                    return Outcome.broken(
                                    Rung.AS_PLANNED,
                                    Trouble.SETTINGS_UNREADABLE,
                                    "“" + fill.getKey() + "”: " + e.getMessage())
                            .with(parts);
                } catch (WireFault e) {
                    return RedfishWay.brokenUnlessUndeclared(e, Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE)
                            .with(parts);
                }
            }
        }
        Optional<ShellRead> shell = shell().filter(
                        each -> expected.shell().ours().phrase() != null)
                .filter(each -> !expected.shell().asks().commands().isEmpty());
        Optional<Outcome> told =
                shell.isEmpty() ? Optional.empty() : shell.get().readBack(parts, fields, traits);
        overShell = shell.map(ShellRead::own).orElse(OwnValues.NONE);
        if (parts.isEmpty()) {
            return Outcome.notMeasured(Rung.AS_PLANNED, LadderText.NOTHING_READABLE.text());
        }
        parts.addAll(byPages.parts());
        parts.addAll(overShell.parts());
        traits.putAll(byPages.traits());
        traits.putAll(overShell.traits());
        if (told.isPresent()) {
            return told.get().with(parts);
        }
        String off = parts.stream()
                .filter(part -> part.standing() == Standing.BROKEN)
                .map(part -> part.name() + ": " + part.seen())
                .collect(Collectors.joining("; "));
        if (!off.isEmpty()) {
            return Outcome.broken(
                            Rung.AS_PLANNED,
                            fields.stream().allMatch(Settings.Field::agrees)
                                    ? Trouble.NOT_IN_STATE
                                    : Trouble.NOT_AS_PLANNED,
                            off)
                    .with(parts);
        }
        long agreeing = fields.size();
        LadderText where = expected.pages() != null && expected.pages().ours().phrase() != null
                ? LadderText.VALUES_ON_PAGES
                : LadderText.VALUES_OVER_SSH;
        return Outcome.holds(
                        Rung.AS_PLANNED,
                        agreeing > 0
                                ? where.text(agreeing, agreeing)
                                : parts.get(0).seen())
                .with(parts);
    }

    /** The way in over SSH, where there is one and its host key was seen. */
    private Optional<ShellRead> shell() {
        return expected.shell() == null || hostKey == null
                ? Optional.empty()
                : Optional.of(new ShellRead(vantage, target, expected.shell(), hostKey.fingerprint(), clock));
    }

    @Override
    public Outcome factoryRefused() throws WireFault {
        List<Part> parts = new ArrayList<>();
        Set<String> untried = new TreeSet<>(expected.shipped());
        if (shell().isPresent()) {
            Optional<Outcome> accepted = shell().get().factory(parts);
            if (accepted.isPresent()) {
                return accepted.get().with(parts);
            }
            untried.remove("ssh");
        }
        if (expected.pages() != null && expected.pages().factory().phrase() != null) {
            Outcome pages = factoryRefusedByPages();
            parts.addAll(pages.parts());
            if (pages.standing() != Standing.HOLDS) {
                return pages.with(parts);
            }
            untried.remove("web");
        }
        if (expected.form() != null && untried.remove("web")) {
            Optional<Outcome> accepted = new FormRead(vantage, target, expected.form(), shown).factory(parts);
            if (accepted.isPresent()) {
                return accepted.get().with(parts);
            }
        }
        Optional<Outcome> letIn = LineLogins.tried(expected.setUp(), untried, parts);
        if (letIn.isPresent()) {
            return letIn.get().with(parts);
        }
        String refused = parts.isEmpty() ? "" : LadderText.FACTORY_REFUSED.text();
        if (untried.isEmpty()) {
            return Outcome.holds(Rung.SAFE, refused).with(parts);
        }
        untried.forEach(
                way -> parts.add(Part.notMeasured(LadderText.FACTORY_LOGIN.text(way), LadderText.NOT_TRIED.text())));
        String missing = LadderText.LOGINS_NOT_TRIED.text(
                untried.stream().map(LadderText.LOGIN::text).collect(Collectors.joining(", ")));
        return Outcome.notMeasured(Rung.SAFE, refused.isEmpty() ? missing : refused + "; " + missing)
                .with(parts);
    }

    private Outcome factoryRefusedByPages() throws WireFault {
        try {
            // one attempt and no more: a second one might lock the account
            pages().read(expected.pages().about(), login(expected.pages().factory()));
            return Outcome.broken(Rung.SAFE, Trouble.FACTORY_ACCEPTED, "")
                    .with(List.of(
                            Part.broken(LadderText.FACTORY_PASSWORD.text(), LadderText.ACCEPTED_BY_PAGES.text())));
        } catch (PageFault e) {
            return e.refusesLogin()
                    ? Outcome.holds(Rung.SAFE, "")
                            .with(List.of(
                                    Part.holds(LadderText.FACTORY_PASSWORD.text(), LadderText.REFUSED_BY_PAGES.text())))
                    : Outcome.broken(Rung.SAFE, Trouble.FACTORY_UNCLEAR, e.getMessage());
        } catch (WireFault e) {
            return RedfishWay.brokenUnlessUndeclared(e, Rung.SAFE, Trouble.FACTORY_UNCLEAR);
        }
    }

    @Override
    public List<Settings.Field> fields() {
        return List.copyOf(fields);
    }

    @Override
    public String firmware() {
        return overShell.firmware() == null ? byPages.firmware() : overShell.firmware();
    }

    @Override
    public HostKey.Seen hostKey() {
        return hostKey;
    }

    @Override
    public Map<String, String> traits() {
        return traits;
    }

    @Override
    public Optional<Duration> clockAhead() {
        return overShell.clockAhead().or(byPages::clockAhead);
    }

    @Override
    public void close() {}
}
