package lychnos.server.run;

/** Another server has taken the run over, or a person has cancelled it: whoever worked on it lets go. */
public class HoldLost extends Exception {

    public HoldLost(String message) {
        super(message);
    }
}
