package lychnos.server.prepare;

import jakarta.annotation.security.PermitAll;
import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.EntityTag;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DryRun;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import lychnos.core.rule.Fix;
import lychnos.core.rule.Rule;
import lychnos.core.service.Measured;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.caller.Who;
import lychnos.server.kinds.Kinds;
import lychnos.server.live.SharedViews;
import lychnos.server.problem.IfMatch;
import lychnos.server.problem.Refusal;
import lychnos.server.store.BringUp;
import lychnos.server.store.ReadsOnly;
import lychnos.server.store.SiteResourceRow;
import lychnos.server.store.Unit;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponseSchema;
import org.jboss.resteasy.reactive.RestHeader;

/** Stage 1: bring-ups, label lists, the network. */
@Path("/api")
@RolesAllowed("viewer")
public class PrepareResource {

    private final SharedViews shared;
    private final BringUps bringUps;
    private final Labels labels;
    private final NetworkDefinitions networkDefinitions;
    private final Units units;
    private final Kinds kinds;
    private final Facts facts;
    private final Plans plans;
    private final Fixes fixes;
    private final Measures measures;
    private final SiteResources things;
    private final Who who;

    PrepareResource(
            BringUps bringUps,
            Labels labels,
            NetworkDefinitions networkDefinitions,
            Units units,
            Kinds kinds,
            Facts facts,
            Plans plans,
            Fixes fixes,
            Measures measures,
            SiteResources things,
            Who who,
            SharedViews shared) {
        this.shared = shared;
        this.units = units;
        this.kinds = kinds;
        this.facts = facts;
        this.plans = plans;
        this.fixes = fixes;
        this.measures = measures;
        this.things = things;
        this.bringUps = bringUps;
        this.labels = labels;
        this.networkDefinitions = networkDefinitions;
        this.who = who;
    }

    /** One line of the list of bring-ups. */
    public record Brief(long id, String name, LocalDate due, String site, String siteCode, long units, long signed) {

        static Brief of(BringUp bringUp, BringUps.Size size) {
            return new Brief(
                    bringUp.id,
                    bringUp.name,
                    bringUp.due,
                    bringUp.site.name,
                    bringUp.site.code,
                    size.units(),
                    size.signed());
        }
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
            String serial,
            String mac,
            String model,
            String firstAddress,
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
    public record Value(String value, String source) {}

    /** A row of the sheet: one member of a unit, or a unit that has one. */
    public record SheetRow(
            long unitId,
            String unit,
            String kind,
            int kindVersion,
            String member,
            boolean first,
            Map<String, Value> cells) {}

    /** One fact that a kind asks for. */
    public record Asks(
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

        static Asks of(FactSpec fact) {
            return new Asks(
                    fact.name(),
                    fact.title(),
                    fact.scope().name(),
                    fact.type().word(),
                    fact.type().example(),
                    fact.find(),
                    fact.asked(),
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
            List<Asks> facts) {

        static KindBrief of(int version, Kind kind) {
            return new KindBrief(
                    kind.id(),
                    version,
                    kind.title(),
                    kind.about(),
                    kind.members().counts(),
                    kind.bring(),
                    kind.plug(),
                    kind.facts().stream().map(Asks::of).toList());
        }
    }

    /** A sort of thing with its fields. */
    public record Sort(String sort, String title, String example, List<Asks> fields) {

        static Sort of(SiteResourceSort sort) {
            return new Sort(
                    sort.word(),
                    sort.title(),
                    sort.example(),
                    sort.fields().stream().map(Asks::of).toList());
        }
    }

    /** A thing of the site. */
    public record Item(long id, String sort, String name, Map<String, String> values, String version) {}

    /** A network that may be chosen; what it leans on is proposed for others of the site. */
    public record Choice(
            long id,
            String name,
            String prefix,
            Integer vlan,
            String purpose,
            String domain,
            List<String> nameServers,
            List<String> timeServers) {}

    /** What the stage shows. */
    public record Sheet(
            NetworkDefinitions.View groundwork,
            List<Choice> choices,
            List<UnitLabel> units,
            List<KindBrief> kinds,
            List<SheetRow> rows,
            List<Measured> services,
            List<Item> things,
            int knownUnits) {}

    /** Cells that are set together. */
    record Cells(List<Facts.CellText> cells) {}

    record Chosen(long networkId) {}

    @GET
    @Path("bring-ups")
    @Transactional
    public List<Brief> list() {
        Map<Long, BringUps.Size> sizes = bringUps.sizes();
        return bringUps.all().stream()
                .map(each -> Brief.of(each, sizes.getOrDefault(each.id, BringUps.Size.EMPTY)))
                .toList();
    }

    @POST
    @Path("bring-ups")
    @RolesAllowed("engineer")
    public Brief begin(BringUps.Begin request) {
        BringUp begun = bringUps.begin(required(request), who.person());
        return Brief.of(begun, bringUps.sizes().getOrDefault(begun.id, BringUps.Size.EMPTY));
    }

    @GET
    @Path("bring-ups/{id}/prepare")
    @Transactional
    @ReadsOnly
    @APIResponseSchema(value = Sheet.class, responseCode = "200")
    public Response sheet(long id, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("prepare " + id, id, request, headers, () -> sheet(id));
    }

    private Sheet sheet(long id) {
        BringUp bringUp = bringUps.get(id);
        Map<Unit, UnitFacts> sheet = facts.of(bringUp);
        List<UnitLabel> labelled = sheet.entrySet().stream()
                .map(entry -> UnitLabel.of(entry.getKey(), entry.getValue().known()))
                .toList();
        List<Choice> choices = bringUp.network != null
                ? List.of()
                : networkDefinitions.ofSite(bringUp.site.id).stream()
                        .map(n -> new Choice(
                                n.id,
                                n.name,
                                n.prefix.toString(),
                                n.vlan,
                                n.purpose,
                                n.domain,
                                n.nameServers,
                                n.timeServers))
                        .toList();
        return new Sheet(
                networkDefinitions.view(bringUp, Rule.lookAt(plans.plan(bringUp, sheet)), labels.undoable(id)),
                choices,
                labelled,
                used(sheet),
                rows(sheet),
                measures.of(bringUp.site.id),
                things.rows(bringUp.site.id).stream().map(PrepareResource::item).toList(),
                (int) labelled.stream().filter(UnitLabel::known).count());
    }

    /** Each version of each kind that the units have, in the order of the units, as it holds in this bring-up. */
    private static List<KindBrief> used(Map<Unit, UnitFacts> sheet) {
        Map<String, KindBrief> used = new LinkedHashMap<>();
        sheet.forEach((unit, known) -> used.computeIfAbsent(
                unit.kind + " " + unit.kindVersion, key -> KindBrief.of(unit.kindVersion, known.kind())));
        return List.copyOf(used.values());
    }

    private static Item item(SiteResourceRow thing) {
        Map<String, String> values = new HashMap<>(thing.value);
        if (thing.sealed != null) {
            values.put("key", SiteResources.SEALED);
        }
        return new Item(thing.id, thing.sort, thing.name, values, SiteResources.version(thing));
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
    private static Map<String, Value> cells(UnitFacts known, String member) {
        Map<String, Value> cells = new HashMap<>();
        for (FactSpec spec : known.kind().facts()) {
            known.fact(spec.scope() == FactSpec.Scope.UNIT ? "" : member, spec.name())
                    .ifPresent(fact -> cells.put(
                            spec.name(), new Value(fact.value(), fact.source().word())));
        }
        return cells;
    }

    @GET
    @Path("kinds")
    public List<KindBrief> kinds() {
        return kinds.offered().stream()
                .map(each -> KindBrief.of(each.version(), each.kind()))
                .toList();
    }

    @GET
    @Path("kinds/kind.schema.json")
    @Produces("application/schema+json")
    @PermitAll
    public String schema() {
        return KindReader.schema();
    }

    /** Looks a description of a kind over. */
    @POST
    @Path("kinds/check")
    @Consumes(MediaType.TEXT_PLAIN)
    public List<KindFault> check(String yaml) {
        try {
            KindReader.read(yaml == null ? "" : yaml);
            return List.of();
        } catch (KindFaults e) {
            return e.faults();
        }
    }

    /**
     * A recorded line, and the description that is tried on it; without one, the shipped one of the recording's kind.
     */
    public record Trial(String description, String recording) {}

    /**
     * What came of it: {@code open} are steps that were not reached, {@code differences} what would have been done
     * otherwise.
     */
    public record Tried(boolean agrees, List<String> done, List<String> open, List<String> differences) {}

    /** Tries a description on a recorded line, without a machine. */
    @POST
    @Path("kinds/dry-run")
    @RolesAllowed("engineer")
    public Tried dryRun(Trial trial) {
        required(trial);
        try {
            Recording recording = Recording.read(trial.recording == null ? "" : trial.recording);
            Kind kind = trial.description == null || trial.description.isBlank()
                    ? kinds.newest(recording.kind()).kind()
                    : KindReader.read(trial.description);
            Dialogue dialogue = kind.dialogue()
                    .orElseThrow(() -> new IllegalArgumentException("The description says nothing of a console."));
            DryRun.Report report = recording.tryOn(dialogue);
            return new Tried(
                    report.agrees(),
                    report.done(),
                    report.open(),
                    report.differences().stream()
                            .map(DryRun.Difference::sentence)
                            .toList());
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }

    @GET
    @Path("things/sorts")
    public List<Sort> sorts() {
        return Stream.of(SiteResourceSort.values()).map(Sort::of).toList();
    }

    /** One thing; its tag goes into If-Match of whoever changes it. */
    @GET
    @Path("bring-ups/{id}/things/{thing}")
    @Transactional
    public Response oneThing(long id, long thing, @Context Request request) {
        Item item = item(things.one(id, thing));
        return tagged(item, item.version, request);
    }

    private static Response tagged(Object entity, String version, Request request) {
        EntityTag tag = new EntityTag(version);
        Response.ResponseBuilder unchanged = request.evaluatePreconditions(tag);
        return unchanged != null
                ? unchanged.tag(tag).build()
                : Response.ok(entity).tag(tag).build();
    }

    @PUT
    @Path("bring-ups/{id}/things")
    @RolesAllowed("engineer")
    public long stateThing(long id, @RestHeader("If-Match") String ifMatch, SiteResources.Statement statement) {
        SiteResources.Statement typed = required(statement);
        return things.state(
                id,
                new SiteResources.Statement(
                        typed.id(), typed.sort(), typed.name(), typed.values(), IfMatch.of(ifMatch, typed.version())),
                who.person());
    }

    @DELETE
    @Path("bring-ups/{id}/things/{thing}")
    @RolesAllowed("engineer")
    public void removeThing(long id, long thing, @RestHeader("If-Match") String ifMatch) {
        things.remove(id, thing, IfMatch.of(ifMatch, null), who.person());
    }

    @POST
    @Path("bring-ups/{id}/measure")
    @RolesAllowed("engineer")
    public void measure(long id) {
        measures.ask(id);
    }

    @POST
    @Path("bring-ups/{id}/mends")
    @RolesAllowed("engineer")
    public void mend(long id, Fix mend) {
        fixes.carryOut(id, required(mend), who.person());
    }

    @POST
    @Path("bring-ups/{id}/units")
    @RolesAllowed("engineer")
    public List<Long> announce(long id, Units.Announcement request) {
        return units.announce(id, required(request), who.person());
    }

    @DELETE
    @Path("units/{id}")
    @RolesAllowed("engineer")
    public void withdraw(long id) {
        units.withdraw(id, who.person());
    }

    /** A host name for one unit. */
    record Name(String name) {}

    /** Gives one unit a host name typed by hand, in place of the one by the pattern. */
    @PUT
    @Path("units/{id}/name")
    @Consumes(MediaType.APPLICATION_JSON)
    @RolesAllowed("engineer")
    public void rename(long id, Name name) {
        units.rename(id, required(name).name, who.person());
    }

    @PUT
    @Path("bring-ups/{id}/facts")
    @RolesAllowed("engineer")
    public Facts.Report setFacts(long id, Cells cells) {
        return facts.set(id, required(required(cells).cells), Fact.Source.TYPED, who.person());
    }

    @POST
    @Path("sheet-changes/{id}/undo")
    @RolesAllowed("engineer")
    public int undoFacts(long id) {
        return facts.undo(id, who.person());
    }

    @GET
    @Path("bring-ups/{id}/facts.csv")
    @Produces("text/csv; charset=UTF-8")
    public String factTable(long id) {
        return facts.table(id);
    }

    @POST
    @Path("bring-ups/{id}/facts.csv")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public Facts.TableReport readFacts(
            long id, @QueryParam("preview") boolean preview, @QueryParam("columns") String columns, String text) {
        return facts.readTable(id, text == null ? "" : text, preview, columns, who.person());
    }

    private static NetworkDefinitions.Statement seen(String ifMatch, NetworkDefinitions.Statement typed) {
        NetworkDefinitions.Statement s = required(typed);
        return new NetworkDefinitions.Statement(
                s.id(),
                s.name(),
                s.prefix(),
                s.gateway(),
                s.vlan(),
                s.domain(),
                s.nameServers(),
                s.timeServers(),
                s.ranges(),
                s.purpose(),
                s.segment(),
                s.mtu(),
                s.permanent(),
                s.realm(),
                IfMatch.of(ifMatch, s.version()));
    }

    /** One network; its tag goes into If-Match of whoever changes it. */
    @GET
    @Path("bring-ups/{id}/networks/{network}")
    public Response oneNetwork(long id, long network, @Context Request request) {
        NetworkDefinitions.Statement statement = networkDefinitions.one(id, network);
        return tagged(statement, statement.version(), request);
    }

    @PUT
    @Path("bring-ups/{id}/networks")
    @RolesAllowed("engineer")
    public void stateAnyNetwork(
            long id, @RestHeader("If-Match") String ifMatch, NetworkDefinitions.Statement statement) {
        networkDefinitions.stateAny(id, seen(ifMatch, statement), who.person());
    }

    @POST
    @Path("bring-ups/{id}/labels")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public Labels.Report readLabels(
            long id, @QueryParam("preview") boolean preview, @QueryParam("columns") String columns, String text) {
        return labels.read(
                id,
                text == null ? "" : text,
                preview,
                ColumnMappings.columns(ColumnMappings.parse(columns, ColumnMappings.labelWords())),
                who.person());
    }

    @POST
    @Path("label-imports/{id}/undo")
    @RolesAllowed("engineer")
    public void undoLabels(long id) {
        labels.undo(id, who.person());
    }

    @PUT
    @Path("bring-ups/{id}/network")
    @RolesAllowed("engineer")
    public void stateNetwork(long id, @RestHeader("If-Match") String ifMatch, NetworkDefinitions.Statement statement) {
        networkDefinitions.state(id, seen(ifMatch, statement), who.person());
    }

    @POST
    @Path("bring-ups/{id}/network/choice")
    @RolesAllowed("engineer")
    public void chooseNetwork(long id, Chosen chosen) {
        networkDefinitions.choose(id, required(chosen).networkId, who.person());
    }

    private static <T> T required(T body) {
        if (body == null) {
            throw Refusal.bad("The request has no body.");
        }
        return body;
    }
}
