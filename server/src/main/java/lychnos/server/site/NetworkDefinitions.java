package lychnos.server.site;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.persistence.PersistenceException;
import jakarta.transaction.Transactional;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.api.problem.Shapes;
import lychnos.server.database.Constraints;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** The networks of a bring-up: stated and changed. */
@ApplicationScoped
public class NetworkDefinitions {

    private final Session db;
    private final Sites sites;
    private final AddressesInUse inUse;
    private final OperatorReach reach;
    private final Shapes shapes;
    private final Journal journal;
    private final Live live;

    NetworkDefinitions(
            Session db,
            Sites sites,
            AddressesInUse inUse,
            OperatorReach reach,
            Shapes shapes,
            Journal journal,
            Live live) {
        this.db = db;
        this.sites = sites;
        this.inUse = inUse;
        this.reach = reach;
        this.shapes = shapes;
        this.journal = journal;
        this.live = live;
    }

    /** A row of addresses as it is typed: {@code 10.40.8.101-180}. */
    public record RangeText(String purpose, String run, @Size(max = 120, message = "NOTE") String note) {}

    /**
     * A network as it is typed. Empty texts stand for what is not stated.
     *
     * @param version the version that was seen; null overwrites any version
     */
    public record NetworkStatement(
            Long id,
            String name,
            String prefix,
            String gateway,
            @Nullable @Min(value = 1, message = "VLAN") @Max(value = 4094, message = "VLAN") Integer vlan,
            String domain,
            List<String> nameServers,
            List<String> timeServers,
            @Size(max = MOST_RANGES, message = "RANGES") List<@Valid RangeText> ranges,
            String purpose,
            @Size(max = 40, message = "SEGMENT") String segment,
            @Nullable @Min(value = 576, message = "MTU") @Max(value = 9216, message = "MTU") Integer mtu,
            Boolean permanent,
            @Size(max = 40, message = "REALM") String realm,
            String version) {

        static final int MOST_RANGES = 64;

        /** The same with other ranges. */
        public NetworkStatement withRanges(List<RangeText> others) {
            return new NetworkStatement(
                    id,
                    name,
                    prefix,
                    gateway,
                    vlan,
                    domain,
                    nameServers,
                    timeServers,
                    others,
                    purpose,
                    segment,
                    mtu,
                    permanent,
                    realm,
                    version);
        }

        /** The same, of which the request has seen this version. */
        NetworkStatement seen(String other) {
            return new NetworkStatement(
                    id,
                    name,
                    prefix,
                    gateway,
                    vlan,
                    domain,
                    nameServers,
                    timeServers,
                    ranges,
                    purpose,
                    segment,
                    mtu,
                    permanent,
                    realm,
                    other);
        }
    }

    @Transactional
    public List<AddressRange> ranges(long networkId) {
        return db.createQuery("from AddressRange where networkId = :id order by first", AddressRange.class)
                .setParameter("id", networkId)
                .getResultList();
    }

    /** The networks that a bring-up takes from, the one it is managed in first. */
    public List<Network> networks(BringUp bringUp) {
        List<Network> networks = db.createNativeQuery(
                        "select n.* from network n join bring_up_network b on b.network_id = n.id where "
                                + "b.bring_up_id = :id order by n.prefix",
                        Network.class)
                .setParameter("id", bringUp.id)
                .getResultList();
        List<Network> sorted = new ArrayList<>(networks);
        sorted.sort(java.util.Comparator.comparing(
                network -> bringUp.network == null || !network.id.equals(bringUp.network.id)));
        return sorted;
    }

    /** A network of the site of a bring-up. */
    @Transactional
    public NetworkStatement one(long bringUpId, long networkId) {
        Network network = db.find(Network.class, networkId);
        if (!ofSite(network, sites.bringUp(bringUpId).site.id)) {
            throw Refusal.notFound(PrepareText.NO_SUCH_NETWORK_AT_THIS_SITE.said());
        }
        return statement(network);
    }

    private static String version(Network network, String realm, List<RangeText> ranges) {
        List<String> state = new ArrayList<>(Stream.of(
                        network.name,
                        network.prefix,
                        network.gateway,
                        network.vlan,
                        network.domain,
                        network.nameServers,
                        network.timeServers,
                        network.purpose,
                        network.segment,
                        network.mtu,
                        network.permanent,
                        realm)
                .map(String::valueOf)
                .toList());
        ranges.forEach(range -> state.add(range.purpose + " " + range.run + " " + range.note));
        return IfMatch.version(state);
    }

    public NetworkStatement statement(Network network) {
        String realm = realmName(network.realmId);
        List<RangeText> texts = ranges(network.id).stream()
                .filter(range -> !range.purpose.equals(AddressRange.GROWTH))
                .map(range -> new RangeText(range.purpose, range.run().toString(), range.note))
                .toList();
        return new NetworkStatement(
                network.id,
                network.name,
                network.prefix.toString(),
                network.gateway == null ? "" : network.gateway.toString(),
                network.vlan,
                network.domain,
                network.nameServers,
                network.timeServers,
                texts,
                network.purpose,
                network.segment,
                network.mtu,
                network.permanent,
                realm,
                version(network, realm, texts));
    }

    private String realmName(long id) {
        return (String) db.createNativeQuery("select name from realm where id = :id", String.class)
                .setParameter("id", id)
                .getSingleResult();
    }

    /** Networks of a site, whichever realm they are of; a bring-up may use one of them instead of stating a new one. */
    public List<Network> ofSite(long siteId) {
        return db.createNativeQuery(
                        "select n.* from network n join realm r on r.id = n.realm_id where r.site_id = :site order "
                                + "by n.prefix",
                        Network.class)
                .setParameter("site", siteId)
                .getResultList();
    }

    private boolean ofSite(Network network, long siteId) {
        return network != null && ofSite(siteId).stream().anyMatch(each -> each.id.equals(network.id));
    }

    /** Gives back the ranges that were kept for units beside the addresses of these allocations. */
    public void giveBack(Collection<UUID> allocations, Collection<Long> units) {
        db.createMutationQuery("delete from AddressRange where allocation in :allocations and unitId in :units")
                .setParameter("allocations", allocations)
                .setParameter("units", units)
                .executeUpdate();
    }

    /** The networks of a vantage point are reached by the server again. */
    public void leaveVantage(long vantageId) {
        db.createMutationQuery("update Network set vantageId = null where vantageId = :id")
                .setParameter("id", vantageId)
                .executeUpdate();
    }

    /** Takes units' addresses from a network that is stated already. */
    @Transactional
    public void choose(long bringUpId, long networkId, Who.Person person) {
        BringUp bringUp = sites.bringUp(bringUpId);
        Network network = db.find(Network.class, networkId);
        if (!ofSite(network, bringUp.site.id)) {
            throw Refusal.notFound(PrepareText.NO_SUCH_NETWORK_AT_THIS_SITE.said());
        }
        use(bringUp, network);
        journal.write(person, bringUpId, null, PrepareText.CHOSE_NETWORK.text(network.prefix), null, null);
        live.tell(bringUpId, "prepare");
    }

    /** One bring-up takes an address from one network: what overlaps in another realm is another bring-up's. */
    private void use(BringUp bringUp, Network network) {
        networks(bringUp).stream()
                .filter(other -> !other.id.equals(network.id) && other.prefix.overlaps(network.prefix))
                .findFirst()
                .ifPresent(other -> {
                    throw Refusal.fields(List.of(new FieldFault(
                            "prefix",
                            PrepareText.OVERLAPS_A_NETWORK_IN_USE.said(network.prefix, other.name, other.prefix))));
                });
        db.createNativeMutationQuery(
                        "insert into bring_up_network (bring_up_id, network_id) values (:bringUp, :network) on "
                                + "conflict do nothing")
                .setParameter("bringUp", bringUp.id)
                .setParameter("network", network.id)
                .executeUpdate();
        if (network.purpose.equals("management") && network.prefix.network().isV4() && bringUp.network == null) {
            bringUp.network = network;
        }
    }

    /** States the management network of a bring-up, or changes it. */
    @Transactional
    public void state(long bringUpId, NetworkStatement statement, Who.Person person) {
        BringUp bringUp = sites.bringUp(bringUpId);
        state(bringUp, bringUp.network == null ? new Network() : bringUp.network, statement, person);
    }

    /** States a further network that a bring-up takes from, or changes the one whose id is given. */
    @Transactional
    public void stateAny(long bringUpId, NetworkStatement statement, Who.Person person) {
        BringUp bringUp = sites.bringUp(bringUpId);
        Network network = statement.id() == null ? new Network() : db.find(Network.class, statement.id());
        if (statement.id() != null && !ofSite(network, bringUp.site.id)) {
            throw Refusal.notFound(PrepareText.NO_SUCH_NETWORK_AT_THIS_SITE.said());
        }
        state(bringUp, network, statement, person);
    }

    private void state(BringUp bringUp, Network network, NetworkStatement statement, Who.Person person) {
        long bringUpId = bringUp.id;
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        TypedNetwork read = new TypedNetwork(statement, shapes.faults(statement));
        if (network.id != null) {
            db.refresh(network);
        }
        NetworkStatement before = network.id == null ? null : statement(network);
        if (before != null) {
            IfMatch.require(statement.version, before.version, PrepareText.THE_NETWORK.text(before.name));
        }
        if (network.permanent && !read.prefix.equals(network.prefix)) {
            throw Refusal.fields(List.of(new FieldFault("prefix", PrepareText.PERMANENT_PREFIX.said(network.prefix))));
        }
        if (network.id == null || !read.prefix.equals(network.prefix)) {
            reach.refuses(read.prefix).ifPresent(why -> {
                throw Refusal.fields(List.of(new FieldFault("prefix", why)));
            });
        }
        refuseServersOutOfReach(read);
        read.into(network);
        long realm = sites.realm(bringUp.site.id, read.realm);
        if (network.id != null && realm != network.realmId && inUse.everAny(network.id)) {
            throw Refusal.fields(
                    List.of(new FieldFault("realm", PrepareText.ADDRESSES_ARE_TAKEN.said(network.prefix))));
        }
        network.realmId = realm;
        refuseIfClaimsFallOut(network, read);
        try {
            if (network.id == null) {
                db.persist(network);
            }
            db.flush();
        } catch (PersistenceException e) {
            if (Constraints.violated(e).filter("network_overlap"::equals).isPresent()) {
                throw Refusal.fields(List.of(new FieldFault(
                        "prefix",
                        PrepareText.OVERLAPS_AN_EXISTING_NETWORK_IN_THE_REALM.said(read.prefix, read.realm))));
            }
            throw e;
        }
        use(bringUp, network);
        db.createMutationQuery("delete from AddressRange where networkId = :id and purpose <> 'growth'")
                .setParameter("id", network.id)
                .executeUpdate();
        for (AddressRange range : read.ranges) {
            range.networkId = network.id;
            db.persist(range);
        }
        db.flush();
        journal.write(
                person,
                bringUpId,
                null,
                (before == null ? "added" : "changed") + " network " + network.prefix,
                before,
                statement);
        live.tell(bringUpId, "prepare");
    }

    private void refuseServersOutOfReach(TypedNetwork read) {
        List<FieldFault> faults = new ArrayList<>();
        Map<String, List<String>> servers = Map.of("nameServers", read.nameServers, "timeServers", read.timeServers);
        servers.forEach((field, texts) -> texts.forEach(text -> Address.tryParse(text)
                .flatMap(address -> reach.refuses(address, false))
                .ifPresent(why -> faults.add(new FieldFault(field, why)))));
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
    }

    private void refuseIfClaimsFallOut(Network network, TypedNetwork read) {
        if (network.id == null) {
            return;
        }
        inUse.now(network.id).stream()
                .filter(address -> !read.prefix.contains(address))
                .findFirst()
                .ifPresent(address -> {
                    throw Refusal.fields(List.of(new FieldFault(
                            "prefix", PrepareText.IS_TAKEN_AND_WOULD_LIE_OUTSIDE.said(address, read.prefix))));
                });
    }
}
