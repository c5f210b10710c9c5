package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Duration;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Expectation;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Settings;
import lychnos.core.service.Measured;
import lychnos.core.service.ServiceKind;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.allocate.Claim;
import lychnos.server.kinds.Kinds;
import lychnos.server.secrets.SealedStore;
import lychnos.server.site.MeasuredService;
import lychnos.server.site.Measures;
import lychnos.server.site.Network;
import lychnos.server.site.SiteResources;
import lychnos.server.text.ProveText;
import lychnos.server.units.BringUps;
import lychnos.server.units.OwnLogins;
import lychnos.server.units.Unit;
import lychnos.wire.ladder.Target;
import org.hibernate.Session;

/** Puts together everything that is needed to set up or to judge the endpoint of a unit. */
@ApplicationScoped
public class Targets {

    /**
     * For how long an address that a unit has given back is still checked: forgotten addresses are found within weeks.
     */
    private static final Duration REMEMBERED = Duration.ofDays(30);

    private final Session db;
    private final BringUps bringUps;
    private final SealedStore sealed;
    private final SiteResources siteResources;
    private final Kinds kinds;
    private final OwnLogins ownLogins;
    private final Clock clock;

    Targets(
            Session db,
            BringUps bringUps,
            SealedStore sealed,
            SiteResources siteResources,
            Kinds kinds,
            OwnLogins ownLogins,
            Clock clock) {
        this.ownLogins = ownLogins;
        this.db = db;
        this.bringUps = bringUps;
        this.sealed = sealed;
        this.siteResources = siteResources;
        this.kinds = kinds;
        this.clock = clock;
    }

    /** An address that a unit has, and the network that it lies in. */
    public record Placed(Claim claim, Network network) {}

    /**
     * A unit with its address and its network; detached, for reading.
     *
     * @param six its IPv6 address beside the one of IPv4; empty where none is planned
     * @param vlan the VLAN that its own port is to be tagged with, or null
     */
    public record Subject(Unit unit, Claim claim, Network network, Optional<Placed> six, Integer vlan) {

        /** What is to be set on it. Name servers of the IPv6 network come behind those of the IPv4 network. */
        public Settings plan() {
            Stream<String> names = Stream.concat(
                    network.nameServers.stream(),
                    six.stream().flatMap(placed -> placed.network().nameServers.stream()));
            return new Settings(
                            claim.address,
                            network.prefix.subnetMask(),
                            network.gateway,
                            false,
                            claim.hostName,
                            claim.fqdn(),
                            names.distinct().toList(),
                            List.copyOf(network.timeServers),
                            true)
                    .withVlan(vlan)
                    .withIpv6(six.map(placed -> new Settings.Ipv6(
                                    placed.claim().address,
                                    placed.network().prefix.length(),
                                    placed.network().gateway))
                            .orElse(null));
        }
    }

    /** The unit, if its label is read and it has an address. */
    @Transactional
    public Optional<Subject> subject(long unitId) {
        return subject(read(Set.of(unitId)), unitId);
    }

    UnitRows read(Collection<Long> units) {
        return UnitRows.read(db, units, clock.instant().minus(REMEMBERED), ownLogins.of(units));
    }

    Optional<Subject> subject(UnitRows rows, long unitId) {
        Unit unit = rows.units().get(unitId);
        List<Claim> claims = rows.claims().getOrDefault(unitId, List.of());
        return claims.stream()
                .filter(claim -> claim.place == 0 && unit.known())
                .map(claim -> new Subject(
                        unit,
                        claim,
                        db.find(Network.class, claim.networkId),
                        claims.stream()
                                .filter(other -> other.besideIpv4(claim))
                                .map(other -> new Placed(other, db.find(Network.class, other.networkId)))
                                .findFirst(),
                        ownVlan(unit, rows)))
                .findFirst();
    }

    /** Other kinds use the fact in a way of their own. */
    private Integer ownVlan(Unit unit, UnitRows rows) {
        String vlan = kinds.of(unit).driven() ? rows.vlans().get(unit.id) : null;
        return vlan == null ? null : Integer.valueOf(vlan);
    }

    /** The endpoints of a unit that is set up over an interface of its own: one for each IP version. */
    @Transactional
    public List<Endpoints.TargetEndpoint> endpoints(Subject subject) {
        UnitRows rows = read(Set.of(subject.unit().id));
        return endpoints(
                subject,
                rows,
                elsewhere(rows),
                sealed.open(subject.unit().id, SealedStore.SealedState.PROVEN).orElse(null));
    }

    /**
     * @param elsewhere by endpoint, where its machine was before
     * @param ours the password that the machine was given, or null
     */
    List<Endpoints.TargetEndpoint> endpoints(
            Subject subject, UnitRows rows, Map<EndpointKey, Map<Address, String>> elsewhere, Secret ours) {
        return Stream.concat(Stream.of(new Placed(subject.claim(), subject.network())), subject.six().stream())
                .map(placed -> new Endpoints.TargetEndpoint(
                        subject.unit(), placed.claim(), target(subject, placed, rows, elsewhere, ours)))
                .toList();
    }

    private Target target(
            Subject subject,
            Placed placed,
            UnitRows rows,
            Map<EndpointKey, Map<Address, String>> elsewhere,
            Secret ours) {
        Unit unit = subject.unit();
        Kind kind = rows.with(kinds.of(unit), unit.id, "");
        Target.Redfish service = new Target.Redfish(
                unit.serial,
                unit.mac,
                subject.plan(),
                new Target.Login(kind.factory().user(), ours),
                kind.factory(),
                placed.claim().address.isV4() ? kind.checks().presence() : Expectation.NOT_CHECKED);
        KnownCertificate known = rows.remembered().get(UnitRows.key(placed.claim()));
        return new Target(
                placed.claim().address,
                kind.port(),
                unit.mac,
                known == null ? null : known.fingerprint,
                new Target.Ports(kind.checks().open(), kind.shut(), List.of()),
                kind.checks().community(),
                service,
                names(unit, placed.claim(), placed.network()),
                known(rows, elsewhere, unit, placed.claim(), placed.network()));
    }

    /**
     * What an endpoint is called, and every name server that its network leans on, where a zone is stated that it lies
     * in.
     */
    Target.Names names(Unit unit, Claim claim, Network network) {
        Map<String, Address> servers = new LinkedHashMap<>();
        network.nameServers.forEach(
                server -> Address.tryParse(server).ifPresent(address -> servers.put(server, address)));
        List<String> zones = siteResources.rows(bringUps.get(unit.bringUpId).site.id).stream()
                .filter(row -> row.resource().sort() == SiteResourceSort.DOMAIN)
                .flatMap(row -> Measures.zones(row).stream())
                .toList();
        return new Target.Names(
                claim.fqdn(),
                lies(claim.fqdn(), zones) ? servers : Map.of(),
                lies(claim.address.reverseName(), zones) ? servers : Map.of());
    }

    /** What is known of an endpoint from before. */
    Target.Known known(
            UnitRows rows, Map<EndpointKey, Map<Address, String>> elsewhere, Unit unit, Claim claim, Network network) {
        EndpointKey key = UnitRows.key(claim);
        KnownCertificate remembered = rows.remembered().get(key);
        return new Target.Known(
                remembered == null ? null : remembered.hostKey,
                elsewhere.getOrDefault(key, Map.of()),
                rows.accepted().getOrDefault(key, Map.of()),
                timeServers(unit, network));
    }

    /**
     * By endpoint, where its machine was before: its first address, one that was given back, the one that every copy
     * leaves the factory with.
     */
    Map<EndpointKey, Map<Address, String>> elsewhere(UnitRows rows) {
        Map<EndpointKey, Map<Address, String>> elsewhere = new HashMap<>();
        for (List<Claim> claims : rows.claims().values()) {
            for (Claim claim : claims) {
                Map<Address, String> before = new LinkedHashMap<>();
                rows.found()
                        .getOrDefault(claim.unitId, List.of())
                        .forEach(address -> before.put(address, "where it was before its setup"));
                rows.returned()
                        .getOrDefault(UnitRows.key(claim), List.of())
                        .forEach(address -> before.put(address, ProveText.WHICH_IT_HAD_BEFORE.text()));
                Kind own = kinds.of(rows.units().get(claim.unitId));
                if (own.setup().factoryAddress() != null) {
                    before.put(Address.parse(own.setup().factoryAddress()), ProveText.ITS_ADDRESS_AS_DELIVERED.text());
                }
                before.keySet().remove(claim.address);
                elsewhere.merge(UnitRows.key(claim), before, (one, other) -> {
                    one.putAll(other);
                    return one;
                });
            }
        }
        Set<Address> taken = UnitRows.taken(
                db,
                elsewhere.values().stream()
                        .flatMap(each -> each.keySet().stream())
                        .collect(Collectors.toSet()));
        elsewhere.values().forEach(each -> each.keySet().removeAll(taken));
        return elsewhere;
    }

    /** As they were measured last. */
    private List<Part> timeServers(Unit unit, Network network) {
        long site = bringUps.get(unit.bringUpId).site.id;
        return network.timeServers.stream()
                .map(server -> Address.tryParse(server)
                        .map(address -> db.find(
                                MeasuredService.class,
                                new MeasuredService.MeasuredServiceKey(site, ServiceKind.TIME, address)))
                        .orElse(null))
                .filter(java.util.Objects::nonNull)
                .map(row -> new Part(
                        row.key.address().toString(),
                        row.state == Measured.State.FINE
                                ? Outcome.Standing.HOLDS
                                : row.state == Measured.State.ODD
                                        ? Outcome.Standing.NOT_MEASURED
                                        : Outcome.Standing.BROKEN,
                        lower(row.sentence)))
                .toList();
    }

    private static String lower(String sentence) {
        return sentence.isEmpty()
                ? ""
                : Character.toLowerCase(sentence.charAt(0))
                        + sentence.substring(1).replaceFirst("\\.$", "");
    }

    private static boolean lies(String name, List<String> zones) {
        return zones.stream().anyMatch(zone -> name.endsWith("." + zone));
    }

    /** The certificate remembered, or null. */
    @Transactional
    public String fingerprint(Subject subject) {
        KnownCertificate known =
                db.find(KnownCertificate.class, new EndpointKey(subject.unit().id, subject.claim().role));
        return known == null ? null : known.fingerprint;
    }
}
