package lychnos.server.vantage;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.util.List;
import lychnos.wire.far.Link;

/** Those who want to hear from vantages more than answers to what was asked. */
public interface VantageEars {

    /**
     * A link stands.
     *
     * @param dialogues ids of dialogues that the vantage carries on, or has something to hand in of
     */
    void linked(String vantage, Link back, List<Long> dialogues);

    void cut(String vantage);

    /**
     * A vantage tells something that needs no answer.
     *
     * @throws IOException where it cannot be read
     */
    void noted(String vantage, JsonNode note, Link back) throws IOException;
}
