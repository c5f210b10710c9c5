package lychnos.server.handover;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Response;
import jakarta.ws.rs.core.StreamingOutput;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.OutputStreamWriter;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.util.Locale;
import lychnos.server.identity.caller.Who;
import lychnos.server.units.BringUps;
import org.jboss.resteasy.reactive.RestQuery;

/** What is given to others: exports, packs, credentials. */
@Path("/api")
@RolesAllowed("viewer")
public class ExportsResource {

    private final BringUps bringUps;
    private final Exports exports;
    private final Packs packs;
    private final Credentials credentials;
    private final Who who;

    ExportsResource(BringUps bringUps, Exports exports, Packs packs, Credentials credentials, Who who) {
        this.bringUps = bringUps;
        this.exports = exports;
        this.packs = packs;
        this.credentials = credentials;
        this.who = who;
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
                packs.make(id, "letter".equals(paper) ? PackPage.Paper.LETTER : PackPage.Paper.A4, who.person());
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
    public record PublicKeyText(String key) {}

    @POST
    @Path("bring-ups/{id}/credentials")
    @RolesAllowed("lead")
    public Response credentials(long id, PublicKeyText forKey) {
        who.requireFreshPassword();
        String sealed = credentials.sealedFor(id, forKey == null ? null : forKey.key, who.person());
        return Response.ok(sealed, "application/pgp-encrypted")
                .header("Content-Disposition", attachment(id, "credentials.asc"))
                .header("Cache-Control", "no-store")
                .build();
    }
}
