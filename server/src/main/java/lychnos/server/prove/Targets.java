package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Settings;
import lychnos.core.site.ThingSort;
import lychnos.server.allocate.Claims;
import lychnos.server.prepare.BringUps;
import lychnos.server.prepare.Measures;
import lychnos.server.prepare.Things;
import lychnos.server.store.Claim;
import lychnos.server.store.EndpointKey;
import lychnos.server.store.KnownCertificate;
import lychnos.server.store.Network;
import lychnos.server.store.SealedStore;
import lychnos.server.store.Unit;
import lychnos.wire.ladder.Target;

/** Puts together everything that is needed to set up or to judge the endpoint of a unit. */
@ApplicationScoped
public class Targets {

    private final Session db;
    private final BringUps bringUps;
    private final Claims claims;
    private final SealedStore sealed;
    private final Things things;
    private final Kind kind;

    Targets(Session db, BringUps bringUps, Claims claims, SealedStore sealed, Things things, Kind kind) {
        this.db = db;
        this.bringUps = bringUps;
        this.claims = claims;
        this.sealed = sealed;
        this.things = things;
        this.kind = kind;
    }

    /** A unit with its claim and its network; detached, for reading. */
    public record Subject(Unit unit, Claim claim, Network network) {

        /** What is to be set on it. */
        public Settings plan() {
            return new Settings(
                    claim.address,
                    network.prefix.subnetMask(),
                    network.gateway,
                    false,
                    claim.hostName,
                    claim.fqdn(),
                    List.copyOf(network.nameServers),
                    List.copyOf(network.timeServers),
                    true);
        }
    }

    /** The unit, if its label is read and it has an address. */
    @Transactional
    public Optional<Subject> subject(long unitId) {
        Unit unit = bringUps.unit(unitId);
        return claims.ofUnit(unitId).filter(claim -> unit.known()).map(claim -> new Subject(unit, claim, db.find(Network.class, claim.networkId)));
    }

    @Transactional
    public Target target(Subject subject) {
        Secret ours = sealed.open(subject.unit().id, SealedStore.State.PROVEN).orElse(null);
        return new Target(
                subject.claim().address,
                kind.port(),
                subject.unit().serial,
                subject.unit().mac,
                subject.plan(),
                new Target.Login(kind.factory().user(), ours),
                fingerprint(subject),
                kind.factory(),
                kind.shut()).called(names(subject.unit(), subject.claim(), subject.network()));
    }

    /** What an endpoint is called, and every name server that its network leans on, where a zone is stated that it lies in. */
    Target.Names names(Unit unit, Claim claim, Network network) {
        Map<String, Address> servers = new LinkedHashMap<>();
        network.nameServers.forEach(server -> Address.tryParse(server).ifPresent(address -> servers.put(server, address)));
        List<String> zones = things.rows(bringUps.get(unit.bringUpId).site.id).stream().filter(row -> row.thing().sort() == ThingSort.DOMAIN).flatMap(row -> Measures.zones(row).stream()).toList();
        return new Target.Names(claim.fqdn(), lies(claim.fqdn(), zones) ? servers : Map.of(), lies(claim.address.reverseName(), zones) ? servers : Map.of());
    }

    private static boolean lies(String name, List<String> zones) {
        return zones.stream().anyMatch(zone -> name.endsWith("." + zone));
    }

    /** The certificate remembered, or null. */
    @Transactional
    public String fingerprint(Subject subject) {
        KnownCertificate known = db.find(KnownCertificate.class, new EndpointKey(subject.unit().id, subject.claim().role));
        return known == null ? null : known.fingerprint;
    }
}
