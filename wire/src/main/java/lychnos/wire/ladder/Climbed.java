package lychnos.wire.ladder;

import java.time.Duration;
import java.time.Instant;
import java.util.List;
import lychnos.core.proof.Beside;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Settings;

/**
 * What a climb found.
 *
 * @param outcomes one for each rung
 * @param beside the marks beside the ladder
 * @param fields planned and read back, empty where it did not get so far
 * @param fingerprint of the certificate shown, or null
 * @param notAfter until when that is valid, or null
 * @param firmware the machine's own version, or null
 * @param roundTrip of the ping, or null
 */
public record Climbed(List<Outcome> outcomes, List<Beside> beside, List<Settings.Field> fields, String fingerprint, Instant notAfter, String firmware, Duration roundTrip) {}
