package lychnos.server.doctor;

/** How something stands that the server needs. */
public enum DoctorState {
    GOOD,
    /** It works, and something is worth a look. */
    LOOK,
    /** Something that the server needs is missing. */
    BAD
}
