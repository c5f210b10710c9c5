package lychnos.wire.ladder;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import lychnos.core.proof.Beside;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Settings;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.tls.TlsSeen;

/**
 * What a climb found.
 *
 * @param outcomes one for each rung
 * @param beside the marks beside the ladder
 * @param fields planned and read back, empty where it did not get so far
 * @param tls what it showed in the TLS handshake, or null
 * @param hostKey its SSH host key, or null
 * @param firmware the machine's own version, or null
 * @param roundTrip of the ping, or null
 * @param traits what it showed of itself, to compare with later
 */
public record Climbed(
        List<Outcome> outcomes,
        List<Beside> beside,
        List<Settings.Field> fields,
        TlsSeen tls,
        HostKey.Seen hostKey,
        String firmware,
        Duration roundTrip,
        Map<String, String> traits) {

    /** Of the certificate shown, or null. */
    public String fingerprint() {
        return tls == null ? null : tls.fingerprint();
    }
}
