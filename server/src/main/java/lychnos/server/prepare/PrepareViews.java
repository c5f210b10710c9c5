package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;
import lychnos.core.rule.Finding;
import lychnos.core.rule.Rule;
import lychnos.core.service.Measured;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.allocate.FreeAddresses;
import lychnos.server.allocate.Plans;
import lychnos.server.site.BringUp;
import lychnos.server.site.Measures;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.Labels;
import lychnos.server.units.Unit;
import org.jspecify.annotations.Nullable;

/** What the stage Prepare shows. */
@ApplicationScoped
public class PrepareViews {

    private final BringUps bringUps;
    private final Labels labels;
    private final NetworkDefinitions networkDefinitions;
    private final FreeAddresses freeAddresses;
    private final Facts facts;
    private final Plans plans;
    private final Measures measures;
    private final SiteResources resources;

    PrepareViews(
            BringUps bringUps,
            Labels labels,
            NetworkDefinitions networkDefinitions,
            FreeAddresses freeAddresses,
            Facts facts,
            Plans plans,
            Measures measures,
            SiteResources resources) {
        this.bringUps = bringUps;
        this.labels = labels;
        this.networkDefinitions = networkDefinitions;
        this.freeAddresses = freeAddresses;
        this.facts = facts;
        this.plans = plans;
        this.measures = measures;
        this.resources = resources;
    }

    /** A unit as its label shows it. */
    public record UnitLabel(
            long id,
            int number,
            String name,
            String kind,
            int kindVersion,
            int members,
            String position,
            @Nullable String serial,
            @Nullable String mac,
            String model,
            @Nullable String firstAddress,
            boolean known) {

        static UnitLabel of(Unit unit, boolean known) {
            return new UnitLabel(
                    unit.id,
                    unit.number,
                    unit.label(),
                    unit.kind,
                    unit.kindVersion,
                    unit.members,
                    unit.place(),
                    unit.serial,
                    unit.mac == null ? null : unit.mac.toString(),
                    unit.model,
                    unit.firstAddress == null ? null : unit.firstAddress.toString(),
                    known);
        }
    }

    /** A value in the sheet. */
    public record SheetValue(String value, String source) {}

    /** A row of the sheet: one member of a unit, or a unit that has one. */
    public record SheetRow(
            long unitId,
            String unit,
            String kind,
            int kindVersion,
            String member,
            boolean first,
            Map<String, SheetValue> cells) {}

    /** One fact that a kind asks for. */
    public record AskedField(
            String name,
            String title,
            String scope,
            String type,
            String example,
            String find,
            String asked,
            List<String> choices,
            boolean wanted,
            boolean permanent,
            boolean secret) {

        static AskedField of(FactSpec fact, String asked) {
            return new AskedField(
                    fact.name(),
                    fact.title(),
                    fact.scope().name(),
                    fact.type().word(),
                    fact.type().example(),
                    fact.find(),
                    asked,
                    fact.choices(),
                    fact.wanted(),
                    fact.is(FactSpec.Trait.PERMANENT),
                    fact.type() == FactType.SECRET);
        }
    }

    /** A kind as the stage shows it. */
    public record KindBrief(
            String id,
            int version,
            String title,
            String about,
            List<Integer> counts,
            List<String> bring,
            String plug,
            List<AskedField> facts) {

        static KindBrief of(int version, Kind kind) {
            return new KindBrief(
                    kind.id(),
                    version,
                    kind.title(),
                    kind.about(),
                    kind.members().counts(),
                    kind.bring(),
                    kind.plug(),
                    kind.facts().stream()
                            .map(fact -> AskedField.of(fact, kind.usedAt(fact)))
                            .toList());
        }
    }

    /** A sort of site resource with its fields. */
    public record SiteResourceSortView(String sort, String title, String example, List<AskedField> fields) {

        static SiteResourceSortView of(SiteResourceSort sort) {
            return new SiteResourceSortView(
                    sort.word(),
                    sort.title(),
                    sort.example(),
                    sort.fields().stream()
                            .map(field -> AskedField.of(field, field.asked()))
                            .toList());
        }
    }

    /** A resource of the site. */
    public record SiteResourceView(long id, String sort, String name, Map<String, String> values, String version) {}

    /** A network that may be chosen; what it leans on is proposed for others of the site. */
    public record NetworkChoice(
            long id,
            String name,
            String prefix,
            @Nullable Integer vlan,
            String purpose,
            String domain,
            List<String> nameServers,
            List<String> timeServers) {}

    /** The networks of a bring-up, and what would go wrong with them. */
    public record SiteNetworks(
            NetworkDefinitions.@Nullable NetworkStatement network,
            List<NetworkDefinitions.NetworkStatement> networks,
            List<Finding> findings,
            long toPlace,
            long free,
            @Nullable Long undoableImport) {}

    /** What the stage shows. */
    public record PrepareView(
            SiteNetworks site,
            List<NetworkChoice> choices,
            List<UnitLabel> units,
            List<KindBrief> kinds,
            List<SheetRow> rows,
            List<Measured> services,
            List<SiteResourceView> siteResources,
            int knownUnits) {}

    private SiteNetworks networks(BringUp bringUp, List<Finding> findings, Long undoableImport) {
        Network network = bringUp.network;
        return new SiteNetworks(
                network == null ? null : networkDefinitions.statement(network),
                networkDefinitions.networks(bringUp).stream()
                        .map(networkDefinitions::statement)
                        .toList(),
                findings,
                freeAddresses.unitsWithout(bringUp.id),
                network == null ? 0 : freeAddresses.count(network),
                undoableImport);
    }

    /** The whole of a bring-up. Called in a transaction. */
    PrepareView sheet(long id) {
        BringUp bringUp = bringUps.get(id);
        Map<Unit, UnitFacts> sheet = facts.of(bringUp);
        List<UnitLabel> labelled = sheet.entrySet().stream()
                .map(entry -> UnitLabel.of(entry.getKey(), entry.getValue().known()))
                .toList();
        List<NetworkChoice> choices = bringUp.network != null
                ? List.of()
                : networkDefinitions.ofSite(bringUp.site.id).stream()
                        .map(n -> new NetworkChoice(
                                n.id,
                                n.name,
                                n.prefix.toString(),
                                n.vlan,
                                n.purpose,
                                n.domain,
                                n.nameServers,
                                n.timeServers))
                        .toList();
        return new PrepareView(
                networks(bringUp, Rule.lookAt(plans.plan(bringUp, sheet)), labels.undoable(id)),
                choices,
                labelled,
                used(sheet),
                rows(sheet),
                measures.of(bringUp.site.id),
                resources.rows(bringUp.site.id).stream().map(PrepareViews::item).toList(),
                (int) labelled.stream().filter(UnitLabel::known).count());
    }

    /** Each version of each kind that the units have, in the order of the units, as it holds in this bring-up. */
    private static List<KindBrief> used(Map<Unit, UnitFacts> sheet) {
        Map<String, KindBrief> used = new LinkedHashMap<>();
        sheet.forEach((unit, known) -> used.computeIfAbsent(
                unit.kind + " " + unit.kindVersion, key -> KindBrief.of(unit.kindVersion, known.kind())));
        return List.copyOf(used.values());
    }

    static SiteResourceView item(SiteResourceRow resource) {
        Map<String, String> values = new HashMap<>(resource.value);
        if (resource.sealed != null) {
            values.put("key", SiteResources.SEALED);
        }
        return new SiteResourceView(resource.id, resource.sort, resource.name, values, SiteResources.version(resource));
    }

    private static List<SheetRow> rows(Map<Unit, UnitFacts> sheet) {
        List<SheetRow> rows = new ArrayList<>();
        sheet.forEach((unit, known) -> {
            List<String> members = known.kind().members().of(known.members());
            for (int i = 0; i < members.size(); i++) {
                rows.add(new SheetRow(
                        unit.id,
                        unit.label(),
                        unit.kind,
                        unit.kindVersion,
                        members.get(i),
                        i == 0,
                        cells(known, members.get(i))));
            }
        });
        return rows;
    }

    /**
     * The unit's own values stand in the row of its first member, and in the others too, so that each row can be read
     * alone.
     */
    private static Map<String, SheetValue> cells(UnitFacts known, String member) {
        Map<String, SheetValue> cells = new HashMap<>();
        for (FactSpec spec : known.kind().facts()) {
            known.fact(spec.scope() == FactSpec.Scope.UNIT ? "" : member, spec.name())
                    .ifPresent(fact -> cells.put(
                            spec.name(),
                            new SheetValue(fact.value(), fact.source().word())));
        }
        return cells;
    }
}
