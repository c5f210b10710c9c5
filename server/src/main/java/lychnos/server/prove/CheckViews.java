package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.order.RunState;
import lychnos.core.proof.Beside;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.SharedCause;
import lychnos.core.proof.Trouble;
import lychnos.server.allocate.Claim;
import lychnos.server.allocate.Claims;
import lychnos.server.api.problem.Refusal;
import lychnos.server.configure.plan.Comparisons;
import lychnos.server.jobs.Run;
import lychnos.server.journal.Journal;
import lychnos.server.kinds.Kinds;
import lychnos.server.site.Network;
import lychnos.server.text.ProveText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** What screens show of checks. */
@ApplicationScoped
public class CheckViews {

    private static final int MOST_BEFORE = 40;

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Claims claims;
    private final Checks checks;
    private final SinceAccepted accepted;
    private final Certificates certificates;
    private final Comparisons comparisons;
    private final UnknownDevices unknownDevices;
    private final Journal journal;

    CheckViews(
            Session db,
            BringUps bringUps,
            Kinds kinds,
            Claims claims,
            Checks checks,
            SinceAccepted accepted,
            Certificates certificates,
            Comparisons comparisons,
            UnknownDevices unknownDevices,
            Journal journal) {
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.claims = claims;
        this.checks = checks;
        this.accepted = accepted;
        this.certificates = certificates;
        this.comparisons = comparisons;
        this.unknownDevices = unknownDevices;
        this.journal = journal;
    }

    /**
     * One endpoint as the stage shows it.
     *
     * @param role what the address is for within its unit
     * @param standings by rung, from the lowest; empty where it was never checked
     * @param beside by mark: name, reverse, time
     * @param checking whether a check is under way
     * @param settingUp whether its unit is in the middle of its setup
     * @param ready whether it can be expected to answer yet
     */
    public record EndpointView(
            long unitId,
            long claimId,
            String role,
            String name,
            String fqdn,
            String address,
            String position,
            @Nullable String serial,
            List<Outcome.Standing> standings,
            Map<String, Outcome.Standing> beside,
            int height,
            boolean proven,
            String sentence,
            @Nullable Instant at,
            @Nullable Double millis,
            boolean checking,
            boolean settingUp,
            boolean ready) {}

    /** What the stage shows. */
    public record ProveView(
            List<EndpointView> endpoints,
            int checking,
            int proven,
            @Nullable Instant lastAt,
            String vantage,
            int minutes,
            List<SharedCause> causes,
            List<SinceAccepted.TraitChangeView> changes,
            List<UnknownDevices.HeardDeviceView> unknownDevices) {}

    /**
     * What the stage shows.
     *
     * @param minutes after how many it is checked again; 0 where it is not
     */
    @Transactional
    public ProveView view(long bringUpId, String vantage, int minutes) {
        Map<Long, Proof> proofs =
                checks.all(bringUpId).stream().collect(Collectors.toMap(proof -> proof.claimId, Function.identity()));
        Set<Long> checking = busy(bringUpId, "prove");
        Set<Long> settingUp = new HashSet<>(busy(bringUpId, "configure"));
        settingUp.addAll(busy(bringUpId, "console"));
        Map<Long, Unit> units =
                bringUps.units(bringUpId).stream().collect(Collectors.toMap(unit -> unit.id, Function.identity()));
        List<Claim> live = claims.live(bringUpId);
        Map<Long, Claim> primaries = live.stream()
                .filter(claim -> claim.place == 0)
                .collect(Collectors.toMap(claim -> claim.unitId, Function.identity()));
        Set<Long> ready = checks.ready(bringUpId, units.values(), primaries.keySet());
        List<Claim> shown = live.stream()
                .filter(claim -> claim.place == 0
                        || !kinds.of(units.get(claim.unitId)).driven()
                        || claim.besideIpv4(primaries.get(claim.unitId)))
                .toList();
        List<EndpointView> endpoints = shown.stream()
                .map(claim -> endpoint(
                        units.get(claim.unitId),
                        claim,
                        proofs.get(claim.id),
                        checking.contains(claim.unitId),
                        settingUp.contains(claim.unitId),
                        ready.contains(claim.unitId)))
                .toList();
        int proven = (int) endpoints.stream().filter(EndpointView::proven).count();
        Instant last = proofs.values().stream()
                .map(proof -> proof.at)
                .max(Instant::compareTo)
                .orElse(null);
        return new ProveView(
                endpoints,
                checking.size(),
                proven,
                last,
                vantage,
                minutes,
                causes(bringUpId, shown, units, proofs),
                accepted.of(bringUpId, shown),
                unknownDevices.of(bringUpId));
    }

    private static EndpointKey key(Claim claim) {
        return new EndpointKey(claim.unitId, claim.role);
    }

    private List<SharedCause> causes(
            long bringUpId, List<Claim> shown, Map<Long, Unit> units, Map<Long, Proof> proofs) {
        Map<Long, Network> networks = new HashMap<>();
        List<SharedCause.Off> off = new ArrayList<>();
        Map<String, Integer> sizes = new HashMap<>();
        for (Claim claim : shown) {
            Unit unit = units.get(claim.unitId);
            sizes.merge(unit.label(), 1, Integer::sum);
            Proof proof = proofs.get(claim.id);
            Network network = networks.computeIfAbsent(claim.networkId, id -> db.find(Network.class, id));
            if (proof != null) {
                String zone = claim.address.reverseName().replaceFirst("^[^.]+\\.", "");
                String gateway = network.gateway == null ? "" : network.gateway.toString();
                proof.outcomes.stream()
                        .filter(outcome -> outcome.trouble() != null)
                        .forEach(outcome -> off.add(new SharedCause.Off(
                                claim.hostName,
                                unit.label(),
                                rack(unit),
                                network.name,
                                gateway,
                                zone,
                                outcome.trouble(),
                                outcome.seen(),
                                outcome.parts(),
                                proof.fields)));
                proof.beside.stream()
                        .filter(mark -> mark.trouble() != null)
                        .forEach(mark -> off.add(new SharedCause.Off(
                                claim.hostName,
                                unit.label(),
                                rack(unit),
                                network.name,
                                gateway,
                                zone,
                                mark.trouble(),
                                mark.seen(),
                                mark.parts(),
                                proof.fields)));
            }
        }
        Set<String> silent = Set.copyOf(db.createNativeQuery(
                        "select host(address) from measured where kind = 'GATEWAY' and state = 'SILENT' and site_id "
                                + "= (select site_id from bring_up where id = :id)",
                        String.class)
                .setParameter("id", bringUpId)
                .getResultList());
        return SharedCause.of(off, silent, sizes);
    }

    private static String rack(Unit unit) {
        return unit.place().split(" ")[0];
    }

    private Set<Long> busy(long bringUpId, String purpose) {
        String states = purpose.equals("prove") ? "r.state in (WAITING, RUNNING)" : "r.state = RUNNING";
        return Set.copyOf(db.createQuery(
                        "select r.unitId from Run r join Unit u on u.id = r.unitId where u.bringUpId = :id and "
                                + "r.purpose = :purpose and "
                                + states,
                        Long.class)
                .setParameter("id", bringUpId)
                .setParameter("purpose", purpose)
                .getResultList());
    }

    private static EndpointView endpoint(
            Unit unit, Claim claim, Proof proof, boolean checking, boolean settingUp, boolean ready) {
        return new EndpointView(
                unit.id,
                claim.id,
                claim.role,
                claim.hostName,
                claim.fqdn(),
                claim.address.toString(),
                unit.place(),
                unit.serial,
                proof == null
                        ? List.of()
                        : proof.outcomes.stream().map(Outcome::standing).toList(),
                proof == null
                        ? Map.of()
                        : proof.beside.stream()
                                .collect(Collectors.toMap(mark -> mark.mark().name(), Beside::standing)),
                proof == null ? 0 : proof.height,
                proof != null && proof.proven,
                proof == null ? "" : proof.sentence,
                proof == null ? null : proof.at,
                proof == null ? null : proof.millis,
                checking,
                settingUp,
                ready);
    }

    /** One rung, or one mark beside the ladder, with what was seen on it and what it is made of. */
    public record RungView(String title, Outcome.Standing standing, String seen, List<Part> parts) {}

    /**
     * What it came to before, newest first.
     *
     * @param standings by rung, one letter: h holds, b broken, n not reached, m not measured
     */
    public record EarlierCheck(Instant at, int height, boolean proven, String sentence, String standings) {}

    /**
     * A signing request that is open.
     *
     * @param request PKCS #10 in PEM
     * @param way how the certificate comes onto the machine
     * @param chain the signed chain that a person installs at the machine, in PEM
     */
    public record SigningStep(String request, CertificateWay way, @Nullable String chain) {}

    /** Everything known about one endpoint. */
    public record EndpointDetail(
            EndpointView endpoint,
            String press,
            List<RungView> rungs,
            List<RungView> marks,
            List<Settings.Field> fields,
            @Nullable String firmware,
            @Nullable String fingerprint,
            @Nullable String shown,
            @Nullable String place,
            @Nullable Instant provenAt,
            List<EarlierCheck> before,
            List<SinceAccepted.TraitChangeView> changes,
            @Nullable String hostKey,
            @Nullable CertificateWay certificate,
            @Nullable SigningStep signing,
            @Nullable Long toCompare,
            List<Journal.JournalLine> journal) {}

    /** @param claimId which of the unit's addresses; 0 for the one that it is managed at */
    @Transactional
    public EndpointDetail detail(long unitId, long claimId) {
        Unit unit = bringUps.unit(unitId);
        Claim claim = db.createQuery(
                        "from Claim where unitId = :unit and releasedAt is null order by place", Claim.class)
                .setParameter("unit", unitId)
                .getResultStream()
                .filter(each -> claimId == 0 ? each.place == 0 : each.id == claimId)
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(
                        claimId == 0
                                ? ProveText.UNIT_HAS_NO_ADDRESS_YET.said()
                                : ProveText.UNIT_NO_LONGER_HAS_THAT_ADDRESS.said()));
        Proof proof = db.createQuery("from Proof where claimId = :claim", Proof.class)
                .setParameter("claim", claim.id)
                .getSingleResultOrNull();
        List<Run> runs = db.createQuery(
                        "from Run where unitId = :unit and (state in (WAITING, RUNNING) or purpose = 'console' and "
                                + "earlier = false and state = DONE)",
                        Run.class)
                .setParameter("unit", unitId)
                .getResultList();
        boolean checking = runs.stream().anyMatch(run -> run.purpose.equals("prove"));
        boolean settingUp =
                runs.stream().anyMatch(run -> !run.purpose.equals("prove") && run.state == RunState.RUNNING);
        boolean ready = kinds.of(unit).driven() || runs.stream().anyMatch(run -> run.state == RunState.DONE);
        EndpointView endpoint = endpoint(unit, claim, proof, checking, settingUp, ready);
        KnownCertificate known = db.find(KnownCertificate.class, key(claim));
        List<RungView> rungs = proof == null
                ? List.of()
                : proof.outcomes.stream()
                        .map(outcome -> new RungView(
                                Rung.values()[outcome.rung().ordinal()].title(),
                                outcome.standing(),
                                seen(outcome.trouble(), outcome.seen()),
                                outcome.parts()))
                        .toList();
        List<RungView> marks = proof == null
                ? List.of()
                : proof.beside.stream()
                        .map(mark -> new RungView(
                                mark.mark().title(), mark.standing(), seen(mark.trouble(), mark.seen()), mark.parts()))
                        .toList();
        List<EarlierCheck> before = db.createQuery(
                        "from ProofChange where claimId = :claim order by id desc", ProofChange.class)
                .setParameter("claim", claim.id)
                .setMaxResults(MOST_BEFORE)
                .getResultStream()
                .map(change ->
                        new EarlierCheck(change.at, change.height, change.proven, change.sentence, change.standings))
                .toList();
        return new EndpointDetail(
                endpoint,
                press(proof, kinds.of(unit).setup().recover()),
                rungs,
                marks,
                proof == null ? List.of() : proof.fields,
                proof == null ? null : proof.firmware,
                known == null ? null : known.fingerprint,
                proof == null ? null : proof.fingerprint,
                proof == null ? null : proof.place,
                proof == null ? null : proof.provenAt,
                before,
                accepted.of(unit.bringUpId, List.of(claim)),
                known == null ? null : known.hostKey,
                certificates.way(claim, proof).orElse(null),
                certificates
                        .waiting(claim.id)
                        .map(open -> new SigningStep(open.request, open.way, open.chain))
                        .orElse(null),
                comparisons.missing(unit, claim.role).orElse(null),
                journal.ofUnit(unitId, 30));
    }

    /** What to do about it; for a machine that does not answer any more, also how it gets its network back. */
    static String press(@Nullable Proof proof, String recover) {
        if (proof == null) {
            return "";
        }
        boolean silent = proof.outcomes.stream().anyMatch(outcome -> outcome.trouble() == Trouble.SILENT);
        return silent && !recover.isEmpty()
                ? proof.press + " " + ProveText.IF_ITS_NETWORK_IS_SET_WRONG.text(recover)
                : proof.press;
    }

    private static String seen(Trouble trouble, String seen) {
        return trouble == null ? seen : trouble.sentence(seen);
    }
}
