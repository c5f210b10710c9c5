package lychnos.core.kind;

import java.time.Duration;
import java.util.List;
import lychnos.core.fact.Secret;
import lychnos.core.name.NamePattern;

/**
 * The description of one kind of equipment.
 *
 * @param id the word by which the kind is known, such as {@code server-controller}
 * @param title the name as people read it
 * @param shortName the word for the kind in host names
 * @param about one or two sentences
 * @param names the pattern for a unit's name
 * @param factory the log-in that the maker ships
 * @param port the TCP port of its management service
 * @param shut TCP ports that must not answer once the unit is set up
 * @param restartAbout how long a restart usually takes
 * @param restartAtMost after how long a restart is a fault
 */
public record Kind(
        String id,
        String title,
        String shortName,
        String about,
        NamePattern names,
        Login factory,
        int port,
        List<Integer> shut,
        Duration restartAbout,
        Duration restartAtMost) {

    /**
     * A log-in.
     *
     * @param user the account's name
     * @param phrase its password
     */
    public record Login(String user, Secret phrase) {}

    /** The same kind with its service at another port, for a lab that cannot use the real one. */
    public Kind withPort(int other) {
        return new Kind(id, title, shortName, about, names, factory, other, shut, restartAbout, restartAtMost);
    }
}
