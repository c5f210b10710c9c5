package lychnos.wire.ladder;

import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Settings;

/**
 * An endpoint, with everything that is needed to judge it.
 *
 * @param serial as on the label
 * @param mac as on the label
 * @param plan what was planned
 * @param login our own log-in; its phrase is null while no password of ours is on the machine
 * @param fingerprint the certificate remembered, or null
 * @param factory the log-in that must be refused
 * @param shut ports that must not answer
 */
public record Target(
        Address address, int port, String serial, Mac mac, Settings plan, Login login, String fingerprint, Kind.Login factory, List<Integer> shut) {

    /** A log-in of ours. */
    public record Login(String user, Secret phrase) {}
}
