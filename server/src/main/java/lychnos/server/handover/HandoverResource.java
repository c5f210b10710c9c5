package lychnos.server.handover;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.Request;
import jakarta.ws.rs.core.Response;
import jakarta.ws.rs.core.StreamingOutput;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import lychnos.core.record.PackHtml;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.ReadsOnly;
import lychnos.server.handover.chain.Chaining;
import lychnos.server.identity.caller.Who;
import lychnos.server.live.SharedViews;
import lychnos.server.units.BringUps;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponseSchema;
import org.jboss.resteasy.reactive.RestQuery;

/** Stage 5: what is handed over, signed, packed and given to others. */
@Path("/api")
@RolesAllowed("viewer")
public class HandoverResource {

    private final SharedViews shared;
    private final BringUps bringUps;
    private final Inventory inventory;
    private final SignOff signOff;
    private final OpenItems items;
    private final LifeAfter lifeAfter;
    private final Exports exports;
    private final Packs packs;
    private final Credentials credentials;
    private final Chaining chaining;
    private final Who who;

    HandoverResource(
            BringUps bringUps,
            Inventory inventory,
            SignOff signOff,
            OpenItems items,
            LifeAfter lifeAfter,
            Exports exports,
            Packs packs,
            Credentials credentials,
            Chaining chaining,
            Who who,
            SharedViews shared) {
        this.shared = shared;
        this.bringUps = bringUps;
        this.inventory = inventory;
        this.signOff = signOff;
        this.items = items;
        this.lifeAfter = lifeAfter;
        this.exports = exports;
        this.packs = packs;
        this.credentials = credentials;
        this.chaining = chaining;
        this.who = who;
    }

    /** One endpoint as the page shows it. */
    public record Line(
            long unitId,
            long claimId,
            String name,
            String role,
            String address,
            String serial,
            String certificate,
            Instant provenAt) {}

    /** What the page shows. */
    public record View(
            String name,
            List<Line> lines,
            List<SignOff.Standing> units,
            int proven,
            int names,
            List<OpenItems.View> items,
            List<OpenItems.Proposal> proposed,
            List<LifeAfter.Retired> retired,
            List<String> exports) {}

    @GET
    @Path("bring-ups/{id}/handover")
    @Transactional
    @ReadsOnly
    @APIResponseSchema(value = View.class, responseCode = "200")
    public Response view(long id, @Context Request request, @Context HttpHeaders headers) {
        return shared.of("handover " + id, id, request, headers, () -> view(id));
    }

    private View view(long id) {
        List<Inventory.Entry> entries = inventory.of(id, null);
        List<Line> lines = entries.stream()
                .map(each -> new Line(
                        each.unitId(),
                        each.claimId(),
                        each.endpoint().name(),
                        each.endpoint().role(),
                        each.endpoint().address(),
                        each.endpoint().serial(),
                        each.endpoint().certificate(),
                        each.endpoint().provenAt()))
                .toList();
        List<SignOff.Standing> units = signOff.standings(id, entries);
        int proven =
                (int) units.stream().filter(each -> each.provenAt() != null).count();
        return new View(
                bringUps.named(id).name(),
                lines,
                units,
                proven,
                exports.names(id),
                items.of(id),
                items.proposed(id),
                lifeAfter.retired(id),
                exports.fileNames(id));
    }

    /** What is to be signed. */
    public record Sign(List<SignOff.Seen> units) {}

    @POST
    @Path("bring-ups/{id}/signatures")
    @RolesAllowed("lead")
    public List<SignOff.Signed> sign(long id, Sign sign) {
        return signOff.sign(id, sign == null ? null : sign.units, who.person());
    }

    /** @param why the reason */
    public record Reopen(String why) {}

    @POST
    @Path("units/{id}/reopenings")
    @RolesAllowed("lead")
    public void reopen(long id, Reopen reopen) {
        signOff.reopen(id, reopen == null ? null : reopen.why, who.person());
    }

    /** The machines of a unit that can be replaced, with what tells them apart. */
    @GET
    @Path("units/{id}/members")
    public List<LifeAfter.Part> parts(long id) {
        return lifeAfter.parts(id);
    }

    @POST
    @Path("units/{id}/replacements")
    @RolesAllowed("lead")
    public void replace(long id, LifeAfter.New machine) {
        if (machine == null) {
            throw Refusal.bad("Say which machine is replaced, and its new serial and MAC addresses.");
        }
        lifeAfter.replace(id, machine, who.person());
    }

    /** @param why the reason */
    public record Retire(String why) {}

    @POST
    @Path("units/{id}/retirement")
    @RolesAllowed("lead")
    public void retire(long id, Retire retire) {
        lifeAfter.retire(id, retire == null ? null : retire.why, who.person());
    }

    @POST
    @Path("bring-ups/{id}/items")
    @RolesAllowed("lead")
    public Map<String, Long> note(long id, OpenItems.Note note) {
        return Map.of("id", items.note(id, note, who.person()));
    }

    @DELETE
    @Path("items/{id}")
    @RolesAllowed("lead")
    public void close(long id) {
        items.close(id, who.person());
    }

    /** Recomputes the chain of everything that was ever signed or noted. */
    @POST
    @Path("chain/verifications")
    @RolesAllowed("engineer")
    public Chaining.Looked verify() {
        return chaining.look();
    }

    @GET
    @Path("bring-ups/{id}/exports/{file:.+}")
    public Response export(long id, String file) {
        Exports.File found = exports.file(id, file);
        StreamingOutput stream = out -> {
            BufferedWriter writer = new BufferedWriter(new OutputStreamWriter(out, StandardCharsets.UTF_8));
            found.writer().write(writer);
            writer.flush();
        };
        return Response.ok(stream, found.type())
                .header("Content-Disposition", attachment(id, file.substring(file.lastIndexOf('/') + 1)))
                .build();
    }

    private String attachment(long id, String file) {
        String name = bringUps.named(id)
                .name()
                .toLowerCase(Locale.ROOT)
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-|-$", "");
        return "attachment; filename=\"" + name + "-" + file + "\"";
    }

    /** @param paper a4 or letter */
    @POST
    @Path("bring-ups/{id}/packs")
    @RolesAllowed("engineer")
    public Response pack(long id, @RestQuery String paper) throws IOException {
        java.nio.file.Path pack =
                packs.make(id, "letter".equals(paper) ? PackHtml.Paper.LETTER : PackHtml.Paper.A4, who.person());
        StreamingOutput stream = out -> {
            try {
                Files.copy(pack, out);
            } finally {
                Files.deleteIfExists(pack);
                Files.deleteIfExists(pack.getParent());
            }
        };
        return Response.ok(stream, "application/zip")
                .header("Content-Disposition", attachment(id, "pack.zip"))
                .build();
    }

    /** @param key a public key of OpenPGP, in ASCII armour */
    public record ForKey(String key) {}

    @POST
    @Path("bring-ups/{id}/credentials")
    @RolesAllowed("lead")
    public Response credentials(long id, ForKey forKey) {
        who.requireFreshPassword();
        String sealed = credentials.sealedFor(id, forKey == null ? null : forKey.key, who.person());
        return Response.ok(sealed, "application/pgp-encrypted")
                .header("Content-Disposition", attachment(id, "credentials.asc"))
                .header("Cache-Control", "no-store")
                .build();
    }
}
