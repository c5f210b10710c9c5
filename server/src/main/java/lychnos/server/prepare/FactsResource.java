package lychnos.server.prepare;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.Produces;
import jakarta.ws.rs.QueryParam;
import jakarta.ws.rs.core.MediaType;
import java.util.List;
import lychnos.core.fact.Fact;
import lychnos.core.rule.Fix;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.units.ColumnMappings;
import lychnos.server.units.FactChanges;
import lychnos.server.units.FactTables;
import lychnos.server.units.Labels;

/** What is known of units: facts typed or read from tables, label lists, and fixes of findings. */
@Path("/api")
@RolesAllowed("viewer")
public class FactsResource {

    private final FactChanges factChanges;
    private final FactTables tables;
    private final Labels labels;
    private final Fixes fixes;
    private final Who who;

    FactsResource(FactChanges factChanges, FactTables tables, Labels labels, Fixes fixes, Who who) {
        this.factChanges = factChanges;
        this.tables = tables;
        this.labels = labels;
        this.fixes = fixes;
        this.who = who;
    }

    /** Cells that are set together. */
    record FactCells(List<FactChanges.FactCell> cells) {}

    @PUT
    @Path("bring-ups/{id}/facts")
    @RolesAllowed("engineer")
    public FactChanges.FactsReport setFacts(long id, FactCells cells) {
        return factChanges.set(id, Refusal.required(Refusal.required(cells).cells), Fact.Source.TYPED, who.person());
    }

    @POST
    @Path("sheet-changes/{id}/undo")
    @RolesAllowed("engineer")
    public int undoFacts(long id) {
        return factChanges.undo(id, who.person());
    }

    @GET
    @Path("bring-ups/{id}/facts.csv")
    @Produces("text/csv; charset=UTF-8")
    public String factTable(long id) {
        return tables.table(id);
    }

    @POST
    @Path("bring-ups/{id}/facts.csv")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public FactTables.FactTableReport readFacts(
            long id, @QueryParam("preview") boolean preview, @QueryParam("columns") String columns, String text) {
        return tables.readTable(id, text == null ? "" : text, preview, columns, who.person());
    }

    @POST
    @Path("bring-ups/{id}/labels")
    @Consumes(MediaType.TEXT_PLAIN)
    @RolesAllowed("engineer")
    public Labels.LabelReport readLabels(
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

    @POST
    @Path("bring-ups/{id}/fixes")
    @RolesAllowed("engineer")
    public void fix(long id, Fix fix) {
        fixes.carryOut(id, Refusal.required(fix), who.person());
    }
}
