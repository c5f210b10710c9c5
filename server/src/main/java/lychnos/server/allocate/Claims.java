package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.persistence.PersistenceException;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import lychnos.core.address.Address;
import lychnos.core.address.AddressSet;
import lychnos.core.kind.Kind;
import lychnos.core.name.NamePattern;
import lychnos.core.name.Records;
import lychnos.core.place.Fit;
import lychnos.core.place.Placer;
import lychnos.server.account.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.prepare.BringUps;
import lychnos.server.prepare.Groundworks;
import lychnos.server.problem.Refusal;
import lychnos.server.problem.Refusal.FieldFault;
import lychnos.server.store.BringUp;
import lychnos.server.store.Claim;
import lychnos.server.store.Network;
import lychnos.server.store.Unit;

/** Proposes addresses and names, and takes them. The database decides who was first. */
@ApplicationScoped
public class Claims {

    private final Session db;
    private final BringUps bringUps;
    private final Groundworks groundworks;
    private final Journal journal;
    private final Live live;
    private final Kind kind;
    private final Clock clock;

    Claims(Session db, BringUps bringUps, Groundworks groundworks, Journal journal, Live live, Kind kind, Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.groundworks = groundworks;
        this.journal = journal;
        this.live = live;
        this.kind = kind;
        this.clock = clock;
    }

    /** One unit's address and name, with the records that they need. */
    public record Line(long unitId, int number, String position, String serial, String address, String hostName, String fqdn, String forward, String reverse) {}

    /**
     * Addresses for all units that have none.
     *
     * @param reason why these
     * @param pattern the pattern of the names
     * @param fault why there is no proposal, or null
     */
    public record Proposal(List<Line> lines, String reason, String pattern, String fault) {}

    /** What is wanted: the address and the name of one unit. */
    public record Wanted(long unitId, String address, String hostName) {}

    /** A taking: several at once or none. */
    public record Taking(String pattern, List<Wanted> lines) {}

    public List<Claim> live(long bringUpId) {
        return db.createQuery("select c from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and c.releasedAt is null", Claim.class)
                .setParameter("id", bringUpId)
                .getResultList();
    }

    public Optional<Claim> ofUnit(long unitId) {
        return db.createQuery("from Claim where unitId = :id and releasedAt is null", Claim.class).setParameter("id", unitId).getResultStream().findFirst();
    }

    /**
     * Proposes.
     *
     * @param patternText the pattern for names, or null for the bring-up's own
     * @param from nothing below this address, or null
     */
    @Transactional
    public Proposal propose(long bringUpId, String patternText, String from) {
        BringUp bringUp = bringUps.get(bringUpId);
        String text = patternText == null || patternText.isBlank() ? bringUp.namePattern : patternText;
        if (bringUp.network == null) {
            return new Proposal(List.of(), "", text, "No network is stated yet: that is part of Prepare.");
        }
        Set<Long> placed = new HashSet<>();
        live(bringUpId).forEach(claim -> placed.add(claim.unitId));
        List<Unit> units = bringUps.units(bringUpId).stream().filter(unit -> !placed.contains(unit.id)).toList();
        if (units.isEmpty()) {
            return new Proposal(List.of(), "", text, null);
        }
        Network network = bringUp.network;
        Address start = from == null || from.isBlank() ? network.prefix.network() : read("from", from);
        Fit fit = new Placer(groundworks.ground(network)).fit(units.size(), start);
        if (!fit.found()) {
            return new Proposal(List.of(), "", text, fit.reason());
        }
        try {
            return new Proposal(lines(bringUp, units, fit.addresses(), NamePattern.parse(text)), fit.reason(), text, null);
        } catch (IllegalArgumentException e) {
            return new Proposal(List.of(), "", text, e.getMessage());
        }
    }

    private static Address read(String field, String text) {
        try {
            return Address.parse(text.strip());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault(field, e.getMessage())));
        }
    }

    /** Names go on from the number after the last one that is used, so that a second bring-up does not begin at 1 again. */
    private List<Line> lines(BringUp bringUp, List<Unit> units, List<Address> addresses, NamePattern pattern) {
        String domain = bringUp.network.domain;
        Set<String> used = new HashSet<>(db.createQuery("select c.hostName from Claim c where c.domain = :domain and c.releasedAt is null", String.class)
                .setParameter("domain", domain)
                .getResultList());
        List<Line> lines = new ArrayList<>();
        int number = 1;
        for (int i = 0; i < units.size(); i++) {
            Unit unit = units.get(i);
            Map<String, String> words = Map.of("site", bringUp.site.code, "kind", kind.shortName(), "rack", unit.rack, "u", String.valueOf(unit.rackUnit));
            String name = pattern.name(words, number);
            String first = name;
            while (!used.add(name)) {
                name = pattern.name(words, ++number);
                if (name.equals(first)) {
                    throw new IllegalArgumentException("The name " + name + " is taken already; add {n} to the pattern.");
                }
            }
            number++;
            Records records = Records.of(name, domain, addresses.get(i));
            lines.add(new Line(
                    unit.id, unit.number, unit.position().toString(), unit.serial, addresses.get(i).toString(), name, records.fqdn(), records.forwardLine(), records.reverseLine()));
        }
        return lines;
    }

    /**
     * Takes addresses for units, all or none.
     *
     * @return the id by which the taking can be undone
     * @throws Refusal 409 when somebody was quicker; {@link #propose} then gives another
     */
    public UUID take(long bringUpId, Taking taking, Who.Person person) {
        try {
            return io.quarkus.narayana.jta.QuarkusTransaction.requiringNew().call(() -> insert(bringUpId, taking, person));
        } catch (PersistenceException | io.quarkus.narayana.jta.QuarkusTransactionException e) {
            String text = causes(e);
            if (text.contains("claim_live_")) {
                String what = text.contains("claim_live_address") ? "One of these addresses" : text.contains("claim_live_name") ? "One of these names" : "One of these units' addresses";
                throw Refusal.conflict(what + " was taken by somebody else a moment ago. Here is the next fit.", Map.of("proposal", propose(bringUpId, taking.pattern(), null)));
            }
            throw e;
        }
    }

    private static String causes(Throwable e) {
        StringBuilder text = new StringBuilder();
        for (Throwable cause = e; cause != null; cause = cause.getCause()) {
            text.append(cause.getMessage()).append('\n');
        }
        return text.toString();
    }

    private UUID insert(long bringUpId, Taking taking, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        if (bringUp.network == null || taking.lines() == null || taking.lines().isEmpty()) {
            throw Refusal.bad("There is nothing to take.");
        }
        AddressSet free = groundworks.ground(bringUp.network).free();
        Map<Long, Unit> units = new HashMap<>();
        bringUps.units(bringUpId).forEach(unit -> units.put(unit.id, unit));
        UUID id = UUID.randomUUID();
        for (Wanted wanted : taking.lines()) {
            Unit unit = units.get(wanted.unitId());
            if (unit == null) {
                throw Refusal.bad("One of the units is not in this bring-up.");
            }
            Address address = read("address", wanted.address());
            if (!free.contains(address)) {
                throw Refusal.conflict(
                        address + " is not free any more, or lies in no pool. Here is the next fit.", Map.of("proposal", propose(bringUpId, taking.pattern(), null)));
            }
            free.remove(address);
            db.persist(claim(bringUp, unit, address, wanted.hostName(), id, person));
        }
        if (taking.pattern() != null) {
            bringUp.namePattern = pattern(taking.pattern());
        }
        db.flush();
        journal.write(person, bringUpId, null, "took " + taking.lines().size() + " addresses from " + bringUp.network.prefix, null, taking.lines());
        live.tell(bringUpId, "allocate");
        return id;
    }

    private static String pattern(String text) {
        try {
            return NamePattern.parse(text).toString();
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault("pattern", e.getMessage())));
        }
    }

    private Claim claim(BringUp bringUp, Unit unit, Address address, String hostName, UUID taking, Who.Person person) {
        Claim claim = new Claim();
        claim.unitId = unit.id;
        claim.networkId = bringUp.network.id;
        claim.realmId = bringUp.realmId;
        claim.address = address;
        try {
            claim.hostName = lychnos.core.name.Hostname.require(hostName == null ? "" : hostName);
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault("hostName", e.getMessage())));
        }
        claim.domain = bringUp.network.domain;
        claim.taking = taking;
        claim.takenBy = person.id();
        claim.takenAt = clock.instant();
        return claim;
    }

    /** Takes a taking back, as long as no machine was told. */
    @Transactional
    public void undo(long bringUpId, UUID taking, Who.Person person) {
        List<?> told = db.createNativeQuery("select 1 from claim c join run r on r.unit_id = c.unit_id and r.purpose = 'configure'"
                        + " where c.taking = :taking and c.released_at is null limit 1", Integer.class)
                .setParameter("taking", taking)
                .getResultList();
        if (!told.isEmpty()) {
            throw Refusal.conflict("A machine of this taking was told its address already, or is about to be.");
        }
        int released = db.createMutationQuery("update Claim set releasedAt = :now where taking = :taking and releasedAt is null and unitId in (select u.id from Unit u where u.bringUpId = :bringUp)")
                .setParameter("now", clock.instant())
                .setParameter("taking", taking)
                .setParameter("bringUp", bringUpId)
                .executeUpdate();
        if (released == 0) {
            throw Refusal.conflict("That taking is undone already.");
        }
        journal.write(person, bringUpId, null, "undid the taking of " + released + " addresses", null, null);
        live.tell(bringUpId, "allocate");
    }
}
