package lychnos.wire.ladder;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Settings;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ssh.HostKey;

/**
 * How the upper rungs of one sort of service are climbed. Each is asked once, in this order, as long as the one below
 * holds.
 */
interface Way extends AutoCloseable {

    Outcome service() throws WireFault;

    Outcome identity() throws WireFault;

    Outcome asPlanned() throws WireFault;

    /** The part of {@link lychnos.core.proof.Rung#SAFE} that is about log-ins; ports are shut already. */
    Outcome factoryRefused() throws WireFault;

    /** What was planned and read back. */
    List<Settings.Field> fields();

    /** The machine's own version, or null. */
    String firmware();

    /** Its SSH host key, or null. */
    HostKey.Seen hostKey();

    /** What it shows of itself besides, by trait. */
    Map<String, String> traits();

    /** How far the machine's clock is ahead of ours, where it tells it. */
    Optional<Duration> clockAhead();

    @Override
    void close();
}
