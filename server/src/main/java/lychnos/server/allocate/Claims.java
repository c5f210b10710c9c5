package lychnos.server.allocate;

import io.quarkus.narayana.jta.QuarkusTransaction;
import io.quarkus.narayana.jta.QuarkusTransactionException;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.PersistenceException;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.AddressSet;
import lychnos.core.name.Hostname;
import lychnos.core.name.NamePattern;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.database.Constraints;
import lychnos.server.database.Rows;
import lychnos.server.database.RowsAsRead;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.site.AddressRange;
import lychnos.server.site.BringUp;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.AllocateText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Takes addresses and gives them back. The database decides who was first. */
@ApplicationScoped
public class Claims {

    /** By constraint, what two claims cannot both have. */
    private static final Map<String, String> UNIQUE_WHILE_LIVE = Map.of(
            "claim_live_address", AllocateText.ONE_OF_THESE_ADDRESSES.text(),
            "claim_live_name", AllocateText.ONE_OF_THESE_NAMES.text(),
            "claim_live_unit", AllocateText.ONE_OF_THESE_UNITS_ADDRESSES.text());

    private final Session db;
    private final RowsAsRead rows;
    private final ClaimsAsRead read;
    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final Placings placings;
    private final AddressProbes addressProbes;
    private final Names names;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    Claims(
            Session db,
            RowsAsRead rows,
            ClaimsAsRead read,
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            Placings placings,
            AddressProbes addressProbes,
            Names names,
            Journal journal,
            Live live,
            Clock clock) {
        this.db = db;
        this.rows = rows;
        this.read = read;
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.placings = placings;
        this.addressProbes = addressProbes;
        this.names = names;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /** What is wanted: an address and its name for one role of a unit. Without a role it is the unit's only one. */
    public record ClaimWanted(
            long unitId, String role, Long networkId, String address, String hostName, String alias) {}

    /** Addresses to allocate, all of them or none. */
    public record NewClaims(String pattern, List<ClaimWanted> lines, List<Placings.Growth> growth) {}

    /** All live addresses of a bring-up, unit by unit in the order of their places. */
    public List<Claim> live(long bringUpId) {
        if (rows.suffice()) {
            return read.claims(bringUpId);
        }
        return db.createQuery(
                        "select c from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and "
                                + "c.releasedAt is null order by u.number, c.place",
                        Claim.class)
                .setParameter("id", bringUpId)
                .getResultList();
    }

    /** By unit, the address that it is managed at. */
    public Map<Long, Claim> primaries(long bringUpId) {
        return live(bringUpId).stream()
                .filter(claim -> claim.place == 0)
                .collect(Collectors.toMap(claim -> claim.unitId, Function.identity()));
    }

    /** The address that a unit is managed at. */
    public Optional<Claim> ofUnit(long unitId) {
        return db.createQuery("from Claim where unitId = :id and place = 0 and releasedAt is null", Claim.class)
                .setParameter("id", unitId)
                .getResultStream()
                .findFirst();
    }

    /**
     * Takes addresses for units, all or none. The wire is asked first: what answers there is an unknown device.
     *
     * @return the id by which the allocation can be undone
     * @throws Refusal 409 when somebody was quicker or an address answers; {@link Placings#propose} then gives another
     */
    public UUID allocate(long bringUpId, NewClaims allocation, Who.Person person) {
        if (allocation.lines() == null || allocation.lines().isEmpty()) {
            throw Refusal.bad(AllocateText.NO_ADDRESSES_WERE_SENT_TO_ALLOCATE.said());
        }
        refuseUnknownDevices(bringUpId, allocation);
        try {
            return QuarkusTransaction.requiringNew().call(() -> insert(bringUpId, allocation, person));
        } catch (PersistenceException | QuarkusTransactionException e) {
            String what = Constraints.violated(e).map(UNIQUE_WHILE_LIVE::get).orElseThrow(() -> e);
            throw Refusal.conflict(
                    AllocateText.HAS_JUST_BEEN_ALLOCATED_BY_SOMEBODY_ELSE.said(what),
                    Map.of("proposal", placings.propose(bringUpId, allocation.pattern(), null)));
        }
    }

    private void refuseUnknownDevices(long bringUpId, NewClaims allocation) {
        List<Address> addresses = allocation.lines().stream()
                .map(line -> read("address", line.address()))
                .toList();
        List<Network> networks =
                QuarkusTransaction.requiringNew().call(() -> networkDefinitions.networks(bringUps.get(bringUpId)));
        List<Address> declared = addresses.stream()
                .filter(address -> networks.stream().anyMatch(network -> network.prefix.contains(address)))
                .toList();
        Map<Address, AddressProbes.Heard> heard = addressProbes.heard(declared, networks);
        if (heard.isEmpty()) {
            return;
        }
        for (Network network : networks) {
            Map<Address, AddressProbes.Heard> here = new LinkedHashMap<>(heard);
            here.keySet().removeIf(address -> !network.prefix.contains(address));
            addressProbes.note(network, bringUpId, here);
        }
        Map.Entry<Address, AddressProbes.Heard> first =
                heard.entrySet().iterator().next();
        throw Refusal.conflict(
                AllocateText.UNKNOWN_DEVICE_USES_THIS_ADDRESS.said(
                        first.getKey(), first.getValue().sentence()),
                Map.of("proposal", placings.propose(bringUpId, allocation.pattern(), null)));
    }

    private static Address read(String field, String text) {
        try {
            return Address.parse(text == null ? "" : text.strip());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault(field, e.getMessage())));
        }
    }

    private UUID insert(long bringUpId, NewClaims allocation, Who.Person person) {
        BringUp bringUp = bringUps.get(bringUpId);
        Map<Long, Network> networks = networkDefinitions.networks(bringUp).stream()
                .collect(Collectors.toMap(network -> network.id, Function.identity()));
        Map<Long, AddressSet> free = new HashMap<>();
        networks.values()
                .forEach(network ->
                        free.put(network.id, freeAddresses.in(network).free()));
        Map<Long, Unit> units = new HashMap<>();
        bringUps.units(bringUpId).forEach(unit -> units.put(unit.id, unit));
        UUID id = UUID.randomUUID();
        Map<Long, Integer> places = new HashMap<>();
        List<Claim> claims = new ArrayList<>();
        for (ClaimWanted wanted : allocation.lines()) {
            Network network = wanted.networkId() == null ? bringUp.network : networks.get(wanted.networkId());
            if (units.get(wanted.unitId()) == null || network == null) {
                throw Refusal.bad(
                        network == null
                                ? AllocateText.ONE_OF_THE_NETWORKS_IS_NOT_OF_THIS_BRING.said()
                                : AllocateText.ONE_OF_THE_UNITS_IS_NOT_IN_THIS_BRING.said());
            }
            Address address = read("address", wanted.address());
            if (!free.get(network.id).contains(address)) {
                throw Refusal.conflict(
                        AllocateText.IS_NOT_FREE_ANY_MORE.said(address),
                        Map.of("proposal", placings.propose(bringUpId, allocation.pattern(), null)));
            }
            free.get(network.id).remove(address);
            claims.add(claim(
                    bringUp, network, wanted, address, id, places.merge(wanted.unitId(), 1, Integer::sum) - 1, person));
        }
        refuseHalves(bringUp, claims, units);
        keepGrowth(allocation, networks, free, id);
        if (allocation.pattern() != null) {
            bringUp.namePattern = pattern(allocation.pattern());
        }
        db.flush();
        store(claims);
        names.plan(bringUp.site.id, id, claims);
        journal.write(
                person,
                bringUpId,
                null,
                AllocateText.ALLOCATED_ADDRESSES_TO_UNITS.text(claims.size(), places.size()),
                null,
                allocation.lines());
        live.tell(bringUpId, "allocate");
        return id;
    }

    /** A unit is placed whole or not at all. */
    private void refuseHalves(BringUp bringUp, List<Claim> claims, Map<Long, Unit> units) {
        Map<Long, Set<String>> got = new HashMap<>();
        claims.forEach(claim ->
                got.computeIfAbsent(claim.unitId, unit -> new HashSet<>()).add(claim.role));
        Map<Long, Set<String>> whole = placings.wholeRoles(bringUp);
        got.forEach((unit, roles) -> {
            if (!whole.get(unit).equals(roles)) {
                Set<String> missing = new HashSet<>(whole.get(unit));
                missing.removeAll(roles);
                throw Refusal.bad(AllocateText.IS_PLACED_WHOLE_OR_NOT_AT_ALL.said(
                        units.get(unit).label(), String.join(", ", missing)));
            }
        });
    }

    private void keepGrowth(NewClaims allocation, Map<Long, Network> networks, Map<Long, AddressSet> free, UUID id) {
        for (Placings.Growth growth : allocation.growth() == null ? List.<Placings.Growth>of() : allocation.growth()) {
            AddressRun run = AddressRun.parse(growth.run());
            if (!networks.containsKey(growth.networkId())) {
                throw Refusal.bad(AllocateText.ONE_OF_THE_NETWORKS_IS_NOT_OF_THIS_BRING.said());
            }
            if (!free.get(growth.networkId()).contains(run.first())
                    || !free.get(growth.networkId()).contains(run.last())) {
                throw Refusal.conflict(AllocateText.GROWTH_RUN_IS_NO_LONGER_FREE.said(run));
            }
            AddressRange range = new AddressRange();
            range.networkId = growth.networkId();
            range.purpose = AddressRange.GROWTH;
            range.first = run.first();
            range.last = run.last();
            range.note = "growth";
            range.unitId = growth.unitId();
            range.allocation = id;
            db.persist(range);
        }
    }

    private static String pattern(String text) {
        try {
            return NamePattern.parse(text).toString();
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault("pattern", e.getMessage())));
        }
    }

    private Claim claim(
            BringUp bringUp,
            Network network,
            ClaimWanted wanted,
            Address address,
            UUID allocation,
            int place,
            Who.Person person) {
        Claim claim = new Claim();
        claim.unitId = wanted.unitId();
        claim.networkId = network.id;
        claim.realmId = network.realmId;
        claim.address = address;
        claim.role = wanted.role() == null ? "management" : wanted.role();
        claim.place = place;
        try {
            claim.hostName = Hostname.require(wanted.hostName() == null ? "" : wanted.hostName());
            claim.alias = wanted.alias() == null ? null : Hostname.require(wanted.alias());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault("hostName", e.getMessage())));
        }
        claim.domain = network.domain;
        claim.allocation = allocation;
        claim.takenBy = person.id();
        claim.takenAt = clock.instant();
        return claim;
    }

    /** All in one statement: ten thousand addresses are one plan. */
    private void store(List<Claim> claims) {
        Rows.of(claims)
                .column("bigint", claim -> claim.unitId)
                .column("bigint", claim -> claim.networkId)
                .column("bigint", claim -> claim.realmId)
                .column("inet", claim -> claim.address.toString())
                .column("text", claim -> claim.hostName)
                .column("text", claim -> claim.domain)
                .column("uuid", claim -> claim.allocation)
                .column("bigint", claim -> claim.takenBy)
                .column("timestamptz", claim -> claim.takenAt.toString())
                .column("text", claim -> claim.role)
                .column("integer", claim -> claim.place)
                .column("text", claim -> claim.alias)
                .write(
                        db,
                        "insert into claim (unit_id, network_id, realm_id, address, host_name, domain, allocation, "
                                + "taken_by, taken_at, role, place, alias) select * from %s");
    }
}
