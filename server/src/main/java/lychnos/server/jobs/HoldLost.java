package lychnos.server.jobs;

/** Another server has taken the run over, or a person has cancelled it: the worker lets go of it. */
public class HoldLost extends Exception {

    public HoldLost(String message) {
        super(message);
    }
}
