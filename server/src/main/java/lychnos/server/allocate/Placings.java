package lychnos.server.allocate;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.kind.Kind;
import lychnos.core.name.NamePattern;
import lychnos.core.place.FreeSpace;
import lychnos.core.place.Need;
import lychnos.core.place.NoFit;
import lychnos.core.place.Placement;
import lychnos.core.place.Placer;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.site.BringUp;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.AllocateText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.Unit;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Proposes addresses and names. Nothing is taken here. */
@ApplicationScoped
public class Placings {

    private static final int FITS = 4;

    private final Session db;
    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final Facts facts;

    Placings(
            Session db,
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            Facts facts) {
        this.db = db;
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.facts = facts;
    }

    /** One address of a unit and its name, with the records that they need. */
    public record ProposalLine(
            long unitId,
            String unit,
            int number,
            String position,
            @Nullable String serial,
            String role,
            long networkId,
            String address,
            String hostName,
            String fqdn,
            String forward,
            String reverse,
            @Nullable String alias) {}

    /** A run that is kept free for members to come. */
    public record Growth(long unitId, long networkId, String run) {}

    /** A unit that cannot be placed. */
    public record Unplaced(long unitId, String unit, String why) {}

    /**
     * Addresses for all units that have none.
     *
     * @param reason why these
     * @param pattern the pattern of the names of units that have none of their own
     * @param fault why there is no proposal at all, or null
     */
    public record PlacementProposal(
            List<ProposalLine> lines,
            List<Growth> growth,
            List<Unplaced> unplaced,
            String reason,
            String pattern,
            @Nullable String fault) {

        static PlacementProposal none(String pattern, String fault) {
            return new PlacementProposal(List.of(), List.of(), List.of(), "", pattern, fault);
        }
    }

    /** One way to place a unit. */
    public record Fit(List<ProposalLine> lines, List<Growth> growth, List<String> reasons) {}

    /** What one unit needs, and the ways to place it. */
    public record Fits(
            long unitId,
            String unit,
            String kind,
            String about,
            List<Fit> fits,
            @Nullable String almost,
            @Nullable String fault) {}

    private PlacementTable table(BringUp bringUp, Address from) {
        List<Network> networks = networkDefinitions.networks(bringUp);
        Placer placer = new Placer(
                networks.stream().map(network -> ground(network, from)).toList());
        Set<Long> placed = new HashSet<>(db.createQuery(
                        "select c.unitId from Claim c join Unit u on u.id = c.unitId where u.bringUpId = :id and "
                                + "c.releasedAt is null",
                        Long.class)
                .setParameter("id", bringUp.id)
                .getResultList());
        Set<String> usedNames = new HashSet<>(db.createQuery(
                        "select distinct c.hostName from Claim c where c.releasedAt is null and c.domain in :domains",
                        String.class)
                .setParameter(
                        "domains",
                        networks.stream().map(network -> network.domain).toList())
                .getResultList());
        return new PlacementTable(bringUp, networks, facts.of(bringUp), placed, usedNames, placer);
    }

    /** Nothing below the address where the engineer wants to begin. */
    private FreeSpace ground(Network network, Address from) {
        FreeSpace ground = freeAddresses.in(network);
        if (from == null || !network.prefix.contains(from) || from.equals(network.prefix.network())) {
            return ground;
        }
        List<AddressRun> kept = new ArrayList<>(ground.kept());
        kept.add(new AddressRun(network.prefix.network(), from.plus(-1)));
        return new FreeSpace(
                ground.purpose(),
                ground.network(),
                ground.gateway(),
                ground.pools(),
                kept,
                ground.taken(),
                ground.cooling());
    }

    private static Address read(String field, String text) {
        try {
            return Address.parse(text.strip());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault(field, e.getMessage())));
        }
    }

    /**
     * Proposes addresses and names for every unit that has none.
     *
     * @param patternText the pattern for names, or null for the bring-up's own
     * @param from nothing below this address, or null
     */
    @Transactional
    public PlacementProposal propose(long bringUpId, String patternText, String from) {
        BringUp bringUp = bringUps.get(bringUpId);
        String text = patternText == null || patternText.isBlank() ? bringUp.namePattern : patternText;
        if (bringUp.network == null) {
            return PlacementProposal.none(text, AllocateText.NO_NETWORK_IS_DEFINED_YET.text());
        }
        PlacementTable table = table(bringUp, from == null || from.isBlank() ? null : read("from", from));
        List<Unit> units = table.unplaced();
        if (units.isEmpty()) {
            return PlacementProposal.none(text, null);
        }
        try {
            return propose(table, units, NamePattern.parse(text), text);
        } catch (IllegalArgumentException e) {
            return PlacementProposal.none(text, e.getMessage());
        }
    }

    private PlacementProposal propose(PlacementTable table, List<Unit> units, NamePattern pattern, String text) {
        List<ProposalLine> lines = new ArrayList<>();
        List<Growth> growth = new ArrayList<>();
        List<Unplaced> unplaced = new ArrayList<>();
        Map<Unit, Placement> rows =
                inOneRow(table, units.stream().filter(unit -> unit.name == null).toList());
        AtomicInteger counter = new AtomicInteger();
        for (Unit unit : units) {
            Optional<Placement> placed = Optional.ofNullable(rows.get(unit));
            if (placed.isEmpty()) {
                placed = table.placer().place(table.needs(unit)).fold(Optional::of, none -> {
                    unplaced.add(new Unplaced(unit.id, unit.label(), none.why()));
                    return Optional.empty();
                });
            }
            placed.ifPresent(placement -> {
                lines.addAll(table.lines(unit, placement, table.name(unit, pattern, counter)));
                growth.addAll(table.growth(unit, placement));
            });
        }
        String row = rows.size() > 1
                ? AllocateText.LOWEST_RUN_OF_IN_A_ROW.text(rows.size())
                : lines.size() == 1
                        ? AllocateText.LOWEST_FREE_ADDRESS.text()
                        : AllocateText.EACH_UNIT_AT_ITS_LOWEST_FIT.text();
        String fault = lines.isEmpty() ? unplaced.get(0).why() : null;
        return new PlacementProposal(lines, growth, unplaced, row, text, fault);
    }

    /** Units without a name of their own that need one address each lie in one row where there is one. */
    private static Map<Unit, Placement> inOneRow(PlacementTable table, List<Unit> units) {
        List<Unit> alike = units.stream()
                .filter(unit -> table.needs(unit).equals(table.needs(units.get(0)))
                        && table.needs(unit).size() == 1
                        && table.needs(unit).get(0).length() == 1)
                .toList();
        Map<Unit, Placement> rows = new LinkedHashMap<>();
        if (alike.size() < 2) {
            return rows;
        }
        Need one = table.needs(alike.get(0)).get(0);
        List<String> roles = alike.stream().map(unit -> String.valueOf(unit.id)).toList();
        table.placer()
                .place(List.of(new Need(roles, one.networks(), one.start(), 0, one.paths(), one.ipv6())))
                .fold(
                        placement -> {
                            for (Unit unit : alike) {
                                // one for each network of the purpose, IPv6 beside IPv4
                                List<Placement.Seat> own = placement.seats().stream()
                                        .filter(seat -> seat.role().equals(String.valueOf(unit.id)))
                                        .map(seat ->
                                                new Placement.Seat(one.roles().get(0), seat.network(), seat.address()))
                                        .toList();
                                rows.put(unit, new Placement(own, List.of(), List.of()));
                            }
                            return null;
                        },
                        none -> null);
        return rows;
    }

    /**
     * The ways to place one unit, best first.
     *
     * @param at where the engineer wants it to begin, or null
     */
    @Transactional
    public Fits fits(long bringUpId, long unitId, String at) {
        BringUp bringUp = bringUps.get(bringUpId);
        PlacementTable table = table(bringUp, null);
        Unit unit = table.units().stream()
                .filter(each -> each.id == unitId)
                .findFirst()
                .orElseThrow(() -> Refusal.notFound(AllocateText.NO_SUCH_UNIT.said()));
        List<Need> needs = table.needs(unit);
        Kind kind = table.kind(unit);
        String name = table.name(unit, NamePattern.parse(bringUp.namePattern), new AtomicInteger());
        if (at != null && !at.isBlank()) {
            return table.placer()
                    .placeAt(needs, read("at", at))
                    .fold(
                            placement -> new Fits(
                                    unitId,
                                    name,
                                    kind.title(),
                                    kind.about(),
                                    List.of(new Fit(
                                            table.lines(unit, placement, name),
                                            table.growth(unit, placement),
                                            List.of("where you pointed"))),
                                    null,
                                    null),
                            none -> new Fits(unitId, name, kind.title(), kind.about(), List.of(), null, none.why()));
        }
        List<Fit> fits = table.placer().fits(needs, FITS, wish(unit)).stream()
                .map(placement ->
                        new Fit(table.lines(unit, placement, name), table.growth(unit, placement), placement.reasons()))
                .toList();
        String fault = fits.isEmpty() ? table.placer().place(needs).fold(placement -> null, NoFit::why) : null;
        return new Fits(
                unitId,
                name,
                kind.title(),
                kind.about(),
                fits,
                table.placer().almost(needs).map(NoFit::why).orElse(null),
                fault);
    }

    /** People carry on behind the last one of the same kind. */
    private Placer.Wish wish(Unit unit) {
        return db.createQuery(
                        "select c, u from Claim c join Unit u on u.id = c.unitId where u.kind = :kind and "
                                + "c.releasedAt is null"
                                + " and exists (select 1 from BringUp b where b.id = u.bringUpId and b.site.id = "
                                + "(select bb.site.id from BringUp bb where bb.id = :bringUp)) order by "
                                + "function('family', c.address), c.address desc",
                        Object[].class)
                .setParameter("kind", unit.kind)
                .setParameter("bringUp", unit.bringUpId)
                .setMaxResults(1)
                .getResultStream()
                .map(row -> new Placer.Wish(
                        ((Claim) row[0]).address,
                        ((Unit) row[1]).name == null ? ((Claim) row[0]).hostName : ((Unit) row[1]).name))
                .findFirst()
                .orElse(Placer.Wish.NONE);
    }

    /** By unit, the roles that it is placed with or not at all. */
    Map<Long, Set<String>> wholeRoles(BringUp bringUp) {
        Map<Long, Set<String>> roles = new HashMap<>();
        facts.of(bringUp).forEach((unit, known) -> {
            Set<String> all = new HashSet<>();
            known.kind().needs(known.members(), known.unitValues()).forEach(need -> all.addAll(need.roles()));
            roles.put(unit.id, all);
        });
        return roles;
    }
}
