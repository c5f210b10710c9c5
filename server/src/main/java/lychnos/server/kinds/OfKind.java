package lychnos.server.kinds;

/** What is set up with a version of a kind, as it holds in a bring-up: a unit. */
public interface OfKind {

    String kindId();

    int versionOfKind();

    long ofBringUp();
}
