package lychnos.server.jobs;

/** Another server has taken over the job, or a person has cancelled it: the worker drops it. */
public class HoldLost extends Exception {

    public HoldLost(String message) {
        super(message);
    }
}
