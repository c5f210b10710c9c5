package lychnos.server.prove;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.DefaultValue;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.Context;
import jakarta.ws.rs.core.HttpHeaders;
import jakarta.ws.rs.core.MediaType;
import jakarta.ws.rs.core.Response;
import java.util.Set;
import lychnos.core.proof.Rung;
import lychnos.server.api.problem.Refusal;
import lychnos.server.database.ReadsOnly;
import lychnos.server.identity.caller.Who;
import lychnos.server.live.SharedViews;
import lychnos.server.text.ProveText;
import lychnos.wire.vantage.Vantage;
import org.eclipse.microprofile.openapi.annotations.media.Content;
import org.eclipse.microprofile.openapi.annotations.media.Schema;
import org.eclipse.microprofile.openapi.annotations.responses.APIResponse;
import org.jboss.resteasy.reactive.RestQuery;
import org.jspecify.annotations.Nullable;

/** Stage 4: how far up every endpoint answers. */
@Path("/api")
@RolesAllowed("viewer")
public class ProveResource {

    private final SharedViews shared;
    private final Checks checks;
    private final CheckViews checkViews;
    private final CheckSchedule checkSchedule;
    private final SinceAccepted accepted;
    private final Certificates certificates;
    private final Vantage vantage;
    private final Who who;

    ProveResource(
            Checks checks,
            CheckViews checkViews,
            CheckSchedule checkSchedule,
            SinceAccepted accepted,
            Certificates certificates,
            Vantage vantage,
            Who who,
            SharedViews shared) {
        this.shared = shared;
        this.accepted = accepted;
        this.certificates = certificates;
        this.checks = checks;
        this.checkViews = checkViews;
        this.checkSchedule = checkSchedule;
        this.vantage = vantage;
        this.who = who;
    }

    /**
     * What is to be checked.
     *
     * @param units which units, or null for all
     * @param rung up to which rung, or null for all of them
     */
    public record CheckRequest(Set<Long> units, Rung rung) {}

    /** How many checks were asked for. */
    public record ChecksAsked(int count) {}

    @GET
    @Path("bring-ups/{id}/prove")
    @Transactional
    @ReadsOnly
    @APIResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.APPLICATION_JSON,
                            schema = @Schema(implementation = CheckViews.ProveView.class)))
    public Response view(long id, @Context jakarta.ws.rs.core.Request request, @Context HttpHeaders headers) {
        return shared.of(
                "prove " + id, id, request, headers, () -> checkViews.view(id, vantage.name(), checkSchedule.of(id)));
    }

    @GET
    @Path("units/{id}/proof")
    public CheckViews.EndpointDetail detail(long id, @RestQuery @DefaultValue("0") long claim) {
        return checkViews.detail(id, claim);
    }

    /**
     * What becomes of a change.
     *
     * @param what what has changed
     * @param now the value that was looked at
     * @param accept whether it is taken for right; else it is held for a fault
     * @param reason wanted for a fault
     */
    public record TraitDecision(String what, String now, boolean accept, String reason) {}

    @POST
    @Path("endpoints/{claim}/changes")
    @RolesAllowed("engineer")
    public void decide(long claim, TraitDecision decide) {
        if (decide == null || decide.what == null || decide.now == null) {
            throw Refusal.bad(ProveText.WHICH_CHANGE.said());
        }
        accepted.decide(claim, decide.what, decide.now, decide.accept, decide.reason, who.person());
    }

    /** A machine's request for a certificate (PKCS #10), in PEM. */
    public record CertificateRequestText(String request) {}

    /** @param request that a person has made at the machine, in PEM; without it the machine is asked for one */
    public record CertificateRequestEntry(@Nullable String request) {}

    @POST
    @Path("endpoints/{claim}/certificate-request")
    @RolesAllowed("engineer")
    public CertificateRequestText request(long claim, @Nullable CertificateRequestEntry made) {
        String pem = made == null || made.request == null ? "" : made.request;
        return new CertificateRequestText(certificates.request(claim, pem, who.person()));
    }

    /** @param chain PEM, from the machine's own certificate upwards */
    public record CertificateChain(String chain) {}

    @POST
    @Path("endpoints/{claim}/certificate-chain")
    @RolesAllowed("engineer")
    public void chain(long claim, CertificateChain chain) {
        certificates.putIn(claim, chain == null || chain.chain == null ? "" : chain.chain, who.person());
    }

    /** A person has installed the signed chain on the machine's own page. */
    @POST
    @Path("endpoints/{claim}/certificate-installed")
    @RolesAllowed("engineer")
    public void installed(long claim) {
        certificates.installed(claim, who.person());
    }

    @POST
    @Path("bring-ups/{id}/checks")
    @RolesAllowed("engineer")
    public ChecksAsked ask(long id, CheckRequest ask) {
        return new ChecksAsked(checks.ask(
                id,
                ask == null ? null : ask.units,
                ask == null || ask.rung == null ? Rung.SAFE : ask.rung,
                who.person()));
    }

    /** @param minutes after how many everything is checked again; 0 for never */
    public record CheckPace(int minutes) {}

    @PUT
    @Path("bring-ups/{id}/checks/pace")
    @RolesAllowed("engineer")
    public void pace(long id, CheckPace pace) {
        if (pace == null) {
            throw Refusal.bad(ProveText.HOW_OFTEN.said());
        }
        checkSchedule.set(id, pace.minutes, who.person());
    }

    @POST
    @Path("bring-ups/{id}/checks/cancel")
    @RolesAllowed("engineer")
    public void cancel(long id) {
        checks.cancel(id, who.person());
    }
}
