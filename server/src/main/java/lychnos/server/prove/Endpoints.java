package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.Collection;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.ControllerPlan;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.LookAgain;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindChecks;
import lychnos.core.sheet.MemberValues;
import lychnos.server.allocate.Claim;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.configure.plan.Answers;
import lychnos.server.jobs.Run;
import lychnos.server.kinds.Kinds;
import lychnos.server.secrets.SealedStore;
import lychnos.server.site.Network;
import lychnos.server.units.GivenFact.GivenFactKey;
import lychnos.server.units.OwnLogins;
import lychnos.server.units.Unit;
import lychnos.wire.ladder.Target;
import org.hibernate.Session;

/** The endpoints of units: each address that a unit has, with everything that is needed to judge what answers there. */
@ApplicationScoped
public class Endpoints {

    /** RFC 7143, section 15. */
    private static final int ISCSI = 3260;

    private final Session db;
    private final Kinds kinds;
    private final Targets targets;
    private final Answers answers;
    private final ConsoleReader consoles;
    private final SealedStore sealed;
    private final OwnLogins ownLogins;
    private final SeenSetups seenSetups;
    private final CheckedPages checkedPages;

    Endpoints(
            Session db,
            Kinds kinds,
            Targets targets,
            Answers answers,
            ConsoleReader consoles,
            SealedStore sealed,
            OwnLogins ownLogins,
            SeenSetups seenSetups,
            CheckedPages checkedPages) {
        this.db = db;
        this.kinds = kinds;
        this.targets = targets;
        this.answers = answers;
        this.consoles = consoles;
        this.sealed = sealed;
        this.ownLogins = ownLogins;
        this.seenSetups = seenSetups;
        this.checkedPages = checkedPages;
    }

    /** One of them; detached, for reading. */
    public record TargetEndpoint(Unit unit, Claim claim, Target target) {}

    /** All of a unit; none where its label is not read or it has no address. */
    public List<TargetEndpoint> of(long unitId) {
        return of(Set.of(unitId)).getOrDefault(unitId, List.of());
    }

    /** By unit, all endpoints of several. */
    @Transactional
    public Map<Long, List<TargetEndpoint>> of(Collection<Long> unitIds) {
        UnitRows rows = targets.read(unitIds);
        Map<EndpointKey, Map<Address, String>> elsewhere = targets.elsewhere(rows);
        Map<Long, Map<String, Secret>> secrets = sealed.open(unitIds, SealedStore.SealedState.PROVEN);
        Map<GivenFactKey, Secret> entered = ownLogins.entered(unitIds);
        Map<Long, Map<String, Secret>> typed = sealed.open(
                rows.units().values().stream()
                        .filter(unit -> typedByHand(kinds.of(unit)))
                        .map(unit -> unit.id)
                        .toList(),
                SealedStore.SealedState.MADE);
        Map<Long, List<TargetEndpoint>> all = new HashMap<>();
        rows.units().values().forEach(unit -> {
            EndpointsAbout about = new EndpointsAbout(
                    unit,
                    kinds.of(unit),
                    rows,
                    elsewhere,
                    secrets.getOrDefault(unit.id, Map.of()),
                    entered,
                    typed.getOrDefault(unit.id, Map.of()));
            all.put(
                    unit.id,
                    about.kind.driven()
                            ? targets.subject(rows, unit.id)
                                    .map(subject -> targets.endpoints(
                                            subject, rows, elsewhere, about.secrets.get(SealedStore.ONLY)))
                                    .orElse(List.of())
                            : dialogued(about));
        });
        return all;
    }

    /**
     * A unit with what was read for all that are looked at together.
     *
     * @param secrets its passwords that have logged in
     * @param entered those that a person has entered, of all units
     * @param typed those that were made here and typed on the machine by a person
     */
    record EndpointsAbout(
            Unit unit,
            Kind kind,
            UnitRows rows,
            Map<EndpointKey, Map<Address, String>> elsewhere,
            Map<String, Secret> secrets,
            Map<GivenFactKey, Secret> entered,
            Map<String, Secret> typed) {

        /** One that a person has entered was not made here, so that no setup has proven it: the check does. */
        Secret phrase(String name, String member) {
            Secret own = secrets.get(name);
            return own != null
                    ? own
                    : entered.getOrDefault(
                            new GivenFactKey(unit.id, member, name), entered.get(new GivenFactKey(unit.id, "", name)));
        }
    }

    private List<TargetEndpoint> dialogued(EndpointsAbout about) {
        Unit unit = about.unit;
        List<Claim> claims = about.rows.claims().getOrDefault(unit.id, List.of());
        Optional<Run> run = newest(unit.id);
        List<MemberDialogue> dialogues = run.map(each -> db.createQuery(
                                "from MemberDialogue where runId = :run order by place", MemberDialogue.class)
                        .setParameter("run", each.id)
                        .getResultList())
                .orElse(List.of());
        Map<String, MemberValues> values =
                answers.of(unit, run.map(each -> consoles.toldByAll(each.id)).orElse(Map.of()));
        Set<Address> planned = claims.stream().map(claim -> claim.address).collect(Collectors.toSet());
        return claims.stream()
                .map(claim -> new TargetEndpoint(unit, claim, target(about, claim, values, dialogues, planned)))
                .toList();
    }

    /** Whether its settings were entered by a person: so was its password. */
    private static boolean typedByHand(Kind kind) {
        return kind.byHand()
                || kind.dialogue()
                        .map(Dialogue::over)
                        .filter(over -> !over.reads().isEmpty())
                        .isPresent();
    }

    private Optional<Run> newest(long unitId) {
        return db.createQuery(
                        "from Run where unitId = :unit and purpose = 'console' and earlier = false order by id desc",
                        Run.class)
                .setParameter("unit", unitId)
                .setMaxResults(1)
                .getResultStream()
                .findFirst();
    }

    private Target target(
            EndpointsAbout about,
            Claim claim,
            Map<String, MemberValues> values,
            List<MemberDialogue> dialogues,
            Set<Address> planned) {
        Unit unit = about.unit;
        Kind kind = about.kind;
        Network network = db.find(Network.class, claim.networkId);
        String member = memberOf(claim.role, values);
        MemberValues own = values.get(member);
        KnownCertificate known = about.rows.remembered().get(UnitRows.key(claim));
        Optional<Target.Redfish> controller =
                kind.dialogue().flatMap(dialogue -> controller(about, claim.role, dialogue, member, own));
        Optional<Mac> mac = controller.map(Target.Redfish::mac).or(() -> hardware(kind, claim, member, own));
        Target.Service service = controller.isPresent()
                ? controller.get()
                : network.purpose.equals("management")
                        ? signIn(about, claim, member, own, dialogues)
                        : data(kind, claim, planned);
        KindChecks.Ports ports = kind.checks()
                .at(claim.role)
                .orElseGet(() -> network.purpose.equals("management")
                        ? kind.checks().ports()
                        : new KindChecks.Ports(List.of(), kind.shut(), List.of()));
        return new Target(
                claim.address,
                kind.port(),
                mac.orElse(null),
                known == null ? null : known.fingerprint,
                ports(ports, own),
                network.purpose.equals("management") ? kind.checks().community() : "",
                service,
                targets.names(unit, claim, network),
                targets.known(about.rows, about.elsewhere, unit, claim, network));
    }

    /** Where the sources of a restricted port are not known, nothing is said about it. */
    private static Target.Ports ports(KindChecks.Ports ports, MemberValues own) {
        return new Target.Ports(
                ports.open(),
                ports.shut(),
                ports.restricted().stream()
                        .flatMap(each -> own.text(each.from()).stream()
                                .map(from -> new Target.Restricted(each.port(), Prefix.parse(from))))
                        .toList());
    }

    private static Target.DataAddress data(Kind kind, Claim claim, Set<Address> planned) {
        return new Target.DataAddress(
                kind.checks().iscsi().contains(claim.role) ? ISCSI : 0,
                kind.checks().nfs().contains(claim.role),
                planned);
    }

    /** Whose address it is: the member that the role begins with, else the unit's own, told by its first member. */
    private static String memberOf(String role, Map<String, MemberValues> values) {
        return values.keySet().stream()
                .filter(member -> !member.isEmpty() && (role.equals(member) || role.startsWith(member + " ")))
                .findFirst()
                .orElse(values.keySet().iterator().next());
    }

    /** The MAC address that must answer: known for the address that a machine is managed at. */
    private static Optional<Mac> hardware(Kind kind, Claim claim, String member, MemberValues own) {
        boolean its = claim.role.equals(member) || member.isEmpty() && claim.place == 0;
        return its
                ? kind.facts().stream()
                        .filter(fact ->
                                fact.type() == FactType.MAC && fact.name().equals("mac"))
                        .findFirst()
                        .flatMap(fact -> own.text(fact.name()))
                        .map(Mac::parse)
                : Optional.empty();
    }

    private Optional<Target.Redfish> controller(
            EndpointsAbout about, String role, Dialogue dialogue, String member, MemberValues own) {
        return dialogue.withPages(member, false).stream()
                .filter(DialogueStep.Controller.class::isInstance)
                .map(DialogueStep.Controller.class::cast)
                .filter(step -> role.equals((member + " " + step.role()).strip()))
                .filter(step -> new ControllerPlan(step, own).lacking().isEmpty())
                .findFirst()
                .map(step -> {
                    ControllerPlan plan = new ControllerPlan(step, own);
                    Secret ours = about.phrase(step.phrase(), member);
                    return new Target.Redfish(
                            plan.serial(),
                            plan.mac().orElseThrow(),
                            plan.settings(),
                            new Target.Login(plan.user(), ours),
                            new Kind.Login(plan.user(), plan.delivered()));
                });
    }

    private Target.SignIn signIn(
            EndpointsAbout about, Claim claim, String member, MemberValues own, List<MemberDialogue> dialogues) {
        Kind kind = about.kind;
        boolean shared = !claim.role.equals(member) && !claim.role.startsWith(member + " ");
        Optional<MemberDialogue> setUp = dialogues.stream()
                .filter(row -> row.state == MemberDialogue.DialogueState.DONE && row.endedAt != null)
                .filter(row ->
                        shared ? row.identified || row.line.isEmpty() || kind.byHand() : row.member.equals(member))
                .findFirst();
        Target.SetUp seen = setUp.map(
                        row -> seenSetups.of(kind, row, own.text("serial").orElse("")))
                .orElse(null);
        Target.Pages pages = kind.dialogue()
                .filter(dialogue -> dialogue.over() != null)
                .map(dialogue -> checkedPages.of(about, dialogue, claim, member, own, setUp.orElse(null)))
                .orElse(null);
        return new Target.SignIn(
                kind.checks().ssh(),
                seen,
                pages,
                shell(about, member, own, seen != null, shared),
                kind.shippedWays(),
                kind.checks()
                        .webForm()
                        .map(form -> new Target.FormWay(form, factory(about, member, "web")))
                        .orElse(null));
    }

    /** What the maker ships for a way in, or what stands on the tag of the machine in its place. */
    private static List<Kind.Login> factory(EndpointsAbout about, String member, String way) {
        return about.rows.with(about.kind, about.unit.id, member).logins().stream()
                .filter(login -> login.way().equals(way))
                .map(Kind.FactoryLogin::login)
                .toList();
    }

    /** Who signs in over SSH, where somebody does since the machine's setup. */
    private Target.ShellWay shell(
            EndpointsAbout about, String member, MemberValues own, boolean setUp, boolean shared) {
        Kind kind = about.kind;
        if (!setUp || kind.dialogue().isEmpty() || kind.checks().signsIn().isEmpty()) {
            return null;
        }
        KindChecks.SignsIn signsIn = kind.checks().signsIn().get();
        Target.Login ours = login(signsIn, about, member, own);
        return new Target.ShellWay(
                ours,
                factory(about, member, "ssh"),
                LookAgain.of(kind.dialogue().get(), member, own, shared)
                        .showing(kind.checks().shows()),
                signsIn.also().stream()
                        .map(each -> login(each, about, member, own))
                        .filter(each -> !each.user().isEmpty() && each.phrase() != null)
                        .toList());
    }

    /** An account, as far as its name and its password are known. */
    private static Target.Login login(
            KindChecks.SignsIn signsIn, EndpointsAbout about, String member, MemberValues own) {
        return new Target.Login(signsIn.user().fill(own::text).orElse(""), about.phrase(signsIn.phrase(), member));
    }
}
