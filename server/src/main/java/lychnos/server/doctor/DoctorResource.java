package lychnos.server.doctor;

import jakarta.annotation.security.RolesAllowed;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.Path;
import java.util.List;

/** What the server needs, for those who run it. */
@Path("/api")
@RolesAllowed("lead")
public class DoctorResource {

    private final Doctor doctor;

    DoctorResource(Doctor doctor) {
        this.doctor = doctor;
    }

    @GET
    @Path("doctor")
    public List<DoctorLine> lines() {
        return doctor.lines();
    }
}
