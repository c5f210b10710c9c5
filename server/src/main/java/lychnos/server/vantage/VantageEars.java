package lychnos.server.vantage;

import com.fasterxml.jackson.databind.JsonNode;
import lychnos.wire.far.Link;

/** Those who want to hear from vantages more than answers to what was asked. */
public interface VantageEars {

    /**
     * A link stands.
     *
     * @param holding ids of dialogues that the vantage carries on, or has something to hand in of
     */
    void linked(String vantage, Link back, JsonNode holding);

    void cut(String vantage);

    /** Takes in a message; false where it is for somebody else. */
    boolean heard(String vantage, JsonNode message, Link back);
}
