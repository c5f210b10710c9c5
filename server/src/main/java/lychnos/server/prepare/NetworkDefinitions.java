package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.persistence.PersistenceException;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;
import lychnos.core.kind.KindReader;
import lychnos.core.name.Hostname;
import lychnos.core.place.FreeSpace;
import lychnos.core.rule.Finding;
import lychnos.server.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.problem.IfMatch;
import lychnos.server.problem.Refusal;
import lychnos.server.problem.Refusal.FieldFault;
import lychnos.server.store.AddressRange;
import lychnos.server.store.BringUp;
import lychnos.server.store.Constraints;
import lychnos.server.store.Network;
import lychnos.server.store.RowsAsRead;
import org.hibernate.Session;

/** The networks of a bring-up: stated, changed, and what is free in them. */
@ApplicationScoped
public class NetworkDefinitions {

    private static final int MOST_RANGES = 64;
    private static final int MOST_SERVERS = 8;

    private final Session db;
    private final RowsAsRead rows;
    private final BringUps bringUps;
    private final OperatorReach reach;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    NetworkDefinitions(
            Session db,
            RowsAsRead rows,
            BringUps bringUps,
            OperatorReach reach,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.rows = rows;
        this.bringUps = bringUps;
        this.reach = reach;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** A row of addresses as it is typed: {@code 10.40.8.101-180}. */
    public record RangeText(String purpose, String run, String note) {}

    /**
     * A network as it is typed. Empty texts stand for what is not stated.
     *
     * @param version the state that was seen; null changes whatever stands there
     */
    public record Statement(
            Long id,
            String name,
            String prefix,
            String gateway,
            Integer vlan,
            String domain,
            List<String> nameServers,
            List<String> timeServers,
            List<RangeText> ranges,
            String purpose,
            String segment,
            Integer mtu,
            Boolean permanent,
            String realm,
            String version) {}

    /** What is stated, and what would go wrong with it. */
    public record View(
            Statement network,
            List<Statement> networks,
            List<Finding> findings,
            long toPlace,
            long free,
            Long undoableImport) {}

    @Transactional
    public List<AddressRange> ranges(long networkId) {
        return db.createQuery("from AddressRange where networkId = :id order by first", AddressRange.class)
                .setParameter("id", networkId)
                .getResultList();
    }

    private static List<AddressRun> runs(List<AddressRange> ranges, boolean pools) {
        return ranges.stream()
                .filter(range -> range.purpose.equals(AddressRange.POOL) == pools)
                .map(AddressRange::run)
                .toList();
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

    /** What may be given out now. */
    public FreeSpace ground(Network network) {
        List<AddressRange> ranges = ranges(network.id);
        List<Address> taken = new ArrayList<>(
                rows.suffice()
                        ? rows.claimsIn(network.id).stream()
                                .map(claim -> claim.address)
                                .toList()
                        : db.createQuery(
                                        "select c.address from Claim c where c.networkId = :id and c.releasedAt "
                                                + "is null",
                                        Address.class)
                                .setParameter("id", network.id)
                                .getResultList());
        taken.addAll(db.createQuery("select s.key.address from Stranger s where s.key.networkId = :id", Address.class)
                .setParameter("id", network.id)
                .getResultList());
        return new FreeSpace(
                network.purpose,
                network.prefix,
                network.gateway,
                runs(ranges, true),
                runs(ranges, false),
                taken,
                cooling(network.id));
    }

    /** How many addresses may be given out now. */
    public long freeSize(Network network) {
        return rows.suffice()
                ? rows.once("free in " + network.id, () -> ground(network).freeSize())
                : ground(network).freeSize();
    }

    /** Every address of these networks that was given out here. */
    public Set<Address> taken(List<Network> networks) {
        return new HashSet<>(db.createQuery(
                        "select c.address from Claim c where c.networkId in :networks and c.releasedAt is null",
                        Address.class)
                .setParameter(
                        "networks", networks.stream().map(network -> network.id).toList())
                .getResultList());
    }

    /** Addresses that were released a short while ago. */
    public List<Address> cooling(long networkId) {
        return db.createQuery(
                        "select c.address from Claim c where c.networkId = :id and c.coolsUntil > :now", Address.class)
                .setParameter("id", networkId)
                .setParameter("now", clock.instant())
                .getResultList();
    }

    /** How many units of a bring-up have no address yet. */
    public long toPlace(long bringUpId) {
        if (rows.suffice()) {
            Set<Long> placed =
                    rows.claims(bringUpId).stream().map(claim -> claim.unitId).collect(Collectors.toSet());
            return rows.units(bringUpId).stream()
                    .filter(unit -> !placed.contains(unit.id))
                    .count();
        }
        return db.createQuery(
                        "select count(*) from Unit u where u.bringUpId = :id and not exists (select 1 from Claim c "
                                + "where c.unitId = u.id and c.releasedAt is null)",
                        Long.class)
                .setParameter("id", bringUpId)
                .getSingleResult();
    }

    /** A network of the site of a bring-up. */
    @Transactional
    public Statement one(long bringUpId, long networkId) {
        Network network = db.find(Network.class, networkId);
        if (!ofSite(network, bringUps.get(bringUpId).site.id)) {
            throw Refusal.notFound("There is no such network at this site.");
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

    public Statement statement(Network network) {
        String realm = realmName(network.realmId);
        List<RangeText> texts = ranges(network.id).stream()
                .filter(range -> !range.purpose.equals(AddressRange.GROWTH))
                .map(range -> new RangeText(range.purpose, range.run().toString(), range.note))
                .toList();
        return new Statement(
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

    public View view(BringUp bringUp, List<Finding> findings, Long undoableImport) {
        Network network = bringUp.network;
        return new View(
                network == null ? null : statement(network),
                networks(bringUp).stream().map(this::statement).toList(),
                findings,
                toPlace(bringUp.id),
                network == null ? 0 : freeSize(network),
                undoableImport);
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

    /** Takes units' addresses from a network that is stated already. */
    @Transactional
    public void choose(long bringUpId, long networkId, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        Network network = db.find(Network.class, networkId);
        if (!ofSite(network, bringUp.site.id)) {
            throw Refusal.notFound("There is no such network at this site.");
        }
        use(bringUp, network);
        journal.write(person, bringUpId, null, "chose network " + network.prefix, null, null);
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
                            network.prefix + " overlaps " + other.name + " " + other.prefix
                                    + ", which this bring-up takes from already.")));
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
    public void state(long bringUpId, Statement statement, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        state(bringUp, bringUp.network == null ? new Network() : bringUp.network, statement, person);
    }

    /** States a further network that a bring-up takes from, or changes the one whose id is given. */
    @Transactional
    public void stateAny(long bringUpId, Statement statement, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        Network network = statement.id() == null ? new Network() : db.find(Network.class, statement.id());
        if (statement.id() != null && !ofSite(network, bringUp.site.id)) {
            throw Refusal.notFound("There is no such network at this site.");
        }
        state(bringUp, network, statement, person);
    }

    private void state(BringUp bringUp, Network network, Statement statement, Who.Person person) {
        long bringUpId = bringUp.id;
        db.lock(bringUp, LockModeType.PESSIMISTIC_WRITE);
        Read read = new Read(statement);
        if (network.id != null) {
            db.refresh(network);
        }
        Statement before = network.id == null ? null : statement(network);
        if (before != null) {
            IfMatch.require(statement.version, before.version, "The network " + before.name);
        }
        if (network.permanent && !read.prefix.equals(network.prefix)) {
            throw Refusal.fields(List.of(new FieldFault(
                    "prefix",
                    network.prefix + " was typed into machines that never forget it; it cannot be changed.")));
        }
        if (network.id == null || !read.prefix.equals(network.prefix)) {
            reach.refuses(read.prefix).ifPresent(why -> {
                throw Refusal.fields(List.of(new FieldFault("prefix", why)));
            });
        }
        refuseServersOutOfReach(read);
        read.into(network);
        long realm = bringUps.realm(bringUp.site.id, read.realm);
        if (network.id != null && realm != network.realmId && anyTaken(network.id)) {
            throw Refusal.fields(List.of(new FieldFault(
                    "realm",
                    "Addresses are taken from " + network.prefix
                            + "; release them before it becomes part of another realm.")));
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
                        read.prefix + " overlaps a network that is stated already in the realm “" + read.realm
                                + "”. Where the two cannot reach each other, name another realm.")));
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
                (before == null ? "stated" : "changed") + " network " + network.prefix,
                before,
                statement);
        live.tell(bringUpId, "prepare");
    }

    private void refuseServersOutOfReach(Read read) {
        List<FieldFault> faults = new ArrayList<>();
        Map<String, List<String>> servers = Map.of("nameServers", read.nameServers, "timeServers", read.timeServers);
        servers.forEach((field, texts) -> texts.forEach(text -> Address.tryParse(text)
                .flatMap(address -> reach.refuses(address, false))
                .ifPresent(why -> faults.add(new FieldFault(field, why)))));
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
    }

    /** Addresses of old takings keep the realm that they were taken in, so even a released one holds it fast. */
    private boolean anyTaken(long networkId) {
        return db.createQuery("select count(*) from Claim where networkId = :id", Long.class)
                        .setParameter("id", networkId)
                        .getSingleResult()
                > 0;
    }

    private void refuseIfClaimsFallOut(Network network, Read read) {
        if (network.id == null) {
            return;
        }
        List<Address> taken = db.createQuery(
                        "select c.address from Claim c where c.networkId = :id and c.releasedAt is null", Address.class)
                .setHint("org.hibernate.flushMode", "MANUAL")
                .setParameter("id", network.id)
                .getResultList();
        taken.stream()
                .filter(address -> !read.prefix.contains(address))
                .findFirst()
                .ifPresent(address -> {
                    throw Refusal.fields(List.of(new FieldFault(
                            "prefix", address + " is taken and would lie outside " + read.prefix + ".")));
                });
    }

    /** Reads what was typed; every wrong field is named, not only the first. */
    private static final class Read {

        private final List<FieldFault> faults = new ArrayList<>();
        private final List<AddressRange> ranges = new ArrayList<>();
        private final String name;
        private final Prefix prefix;
        private final Address gateway;
        private final Integer vlan;
        private final String domain;
        private final List<String> nameServers;
        private final List<String> timeServers;
        private final String purpose;
        private final String segment;
        private final String realm;
        private final Integer mtu;
        private final boolean permanent;

        Read(Statement statement) {
            name = field("name", statement.name(), Read::name);
            prefix = field("prefix", statement.prefix(), Prefix::parse);
            gateway = blank(statement.gateway()) ? null : field("gateway", statement.gateway(), Address::parse);
            vlan = statement.vlan();
            if (vlan != null && (vlan < 1 || vlan > 4094)) {
                faults.add(new FieldFault("vlan", "A VLAN goes from 1 to 4094."));
            }
            purpose = blank(statement.purpose()) ? "management" : statement.purpose();
            if (!KindReader.PURPOSES.contains(purpose)) {
                faults.add(
                        new FieldFault("purpose", "A network is for " + String.join(", ", KindReader.PURPOSES) + "."));
            }
            segment = blank(statement.segment()) ? "" : statement.segment().strip();
            if (segment.length() > 40) {
                faults.add(new FieldFault("segment", "A segment's name has at most 40 letters."));
            }
            realm = blank(statement.realm())
                    ? BringUps.REALM
                    : statement.realm().strip().toLowerCase(Locale.ROOT);
            if (realm.length() > 40) {
                faults.add(new FieldFault("realm", "A realm's name has at most 40 letters."));
            }
            mtu = statement.mtu();
            if (mtu != null && (mtu < 576 || mtu > 9216)) {
                faults.add(new FieldFault("mtu", "An MTU goes from 576 to 9216 bytes."));
            }
            permanent = Boolean.TRUE.equals(statement.permanent());
            domain = field("domain", statement.domain(), text -> Hostname.requireDomain(text.toLowerCase(Locale.ROOT)));
            nameServers = servers("nameServers", statement.nameServers(), text -> Address.parse(text)
                    .toString());
            timeServers = servers("timeServers", statement.timeServers(), Read::timeServer);
            List<RangeText> texts = statement.ranges() == null ? List.of() : statement.ranges();
            if (texts.size() > MOST_RANGES) {
                faults.add(new FieldFault("ranges", "At most " + MOST_RANGES + " ranges."));
            } else {
                for (int i = 0; i < texts.size(); i++) {
                    range(i, texts.get(i));
                }
                overlaps();
            }
            refuseGateway();
            if (!faults.isEmpty()) {
                throw Refusal.fields(faults);
            }
        }

        private void refuseGateway() {
            if (prefix != null
                    && gateway != null
                    && prefix.length() == prefix.network().family().bits()) {
                faults.add(new FieldFault("gateway", "A network of a single address has no gateway."));
            } else if (prefix != null && gateway != null && !prefix.hosts().contains(gateway)) {
                faults.add(new FieldFault("gateway", gateway + " is no host address of " + prefix + "."));
            }
        }

        private static boolean blank(String text) {
            return text == null || text.isBlank();
        }

        private static String name(String text) {
            if (text.length() > 80 || text.chars().anyMatch(Character::isISOControl)) {
                throw new IllegalArgumentException("A name has at most 80 characters, in one line.");
            }
            return text;
        }

        private static String timeServer(String text) {
            return Address.tryParse(text)
                    .map(Address::toString)
                    .orElseGet(() -> Hostname.requireDomain(text.toLowerCase(Locale.ROOT)));
        }

        private <T> T field(String field, String text, Function<String, T> parser) {
            if (blank(text)) {
                faults.add(new FieldFault(field, "This is missing."));
                return null;
            }
            try {
                return parser.apply(text.strip());
            } catch (IllegalArgumentException e) {
                faults.add(new FieldFault(field, e.getMessage()));
                return null;
            }
        }

        private List<String> servers(String field, List<String> texts, Function<String, String> parser) {
            LinkedHashSet<String> servers = new LinkedHashSet<>();
            for (String text : texts == null ? List.<String>of() : texts) {
                if (!blank(text)) {
                    String server = field(field, text, parser);
                    if (server != null) {
                        servers.add(server);
                    }
                }
            }
            if (servers.size() > MOST_SERVERS) {
                faults.add(new FieldFault(field, "At most " + MOST_SERVERS + " servers."));
            }
            return List.copyOf(servers);
        }

        private void range(int index, RangeText text) {
            String field = "ranges." + index;
            if (!List.of(AddressRange.POOL, AddressRange.KEPT, AddressRange.DHCP)
                    .contains(text.purpose())) {
                faults.add(new FieldFault(field, "A range is a pool, kept, or handed out by DHCP."));
                return;
            }
            AddressRun run = field(field, expand(text.run()), AddressRun::parse);
            if (run == null) {
                return;
            }
            if (prefix != null && !prefix.contains(run)) {
                faults.add(new FieldFault(field, run + " reaches past " + prefix + "."));
                return;
            }
            AddressRange range = new AddressRange();
            range.purpose = text.purpose();
            range.first = run.first();
            range.last = run.last();
            range.note = text.note() == null ? "" : text.note().strip();
            if (range.note.length() > 120) {
                faults.add(new FieldFault(field, "A note has at most 120 letters."));
            }
            ranges.add(range);
        }

        /** {@code .101-.180} is taken to lie in the prefix, and {@code 101-180} alike. */
        private String expand(String text) {
            boolean brief = text != null && text.strip().matches("\\.?[0-9]{1,3}(\\s*[-–]\\s*\\.?[0-9]{1,3})?");
            if (prefix == null || !prefix.network().isV4() || !brief) {
                return text;
            }
            String base = prefix.network().toString();
            String last = text.strip();
            return base.substring(0, base.lastIndexOf('.')) + (last.startsWith(".") ? last : "." + last);
        }

        private void overlaps() {
            for (int i = 0; i < ranges.size(); i++) {
                for (int j = 0; j < i; j++) {
                    if (ranges.get(i).run().overlaps(ranges.get(j).run())
                            && ranges.get(i).purpose.equals(ranges.get(j).purpose)) {
                        faults.add(new FieldFault(
                                "ranges." + i,
                                ranges.get(i).run() + " overlaps "
                                        + ranges.get(j).run() + "."));
                    }
                }
            }
        }

        void into(Network network) {
            network.name = name;
            network.prefix = prefix;
            network.gateway = gateway;
            network.vlan = vlan;
            network.domain = domain;
            network.nameServers = nameServers;
            network.timeServers = timeServers;
            network.purpose = purpose;
            network.segment = segment;
            network.mtu = mtu;
            network.permanent = permanent;
        }
    }
}
