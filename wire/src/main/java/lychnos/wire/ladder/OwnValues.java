package lychnos.wire.ladder;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.proof.ClockMark;
import lychnos.core.proof.OwnValue;
import lychnos.core.proof.Part;
import lychnos.core.proof.Traits;

/**
 * What a machine told of itself beside its settings.
 *
 * @param wanted what it should tell
 * @param shown what it told, as it stood there
 * @param before when it was asked, by our clock
 * @param after when it had answered, by our clock
 */
record OwnValues(Set<OwnValue> wanted, Map<OwnValue, String> shown, Instant before, Instant after) {

    /** Nothing was asked. */
    static final OwnValues NONE = new OwnValues(Set.of(), Map.of(), Instant.EPOCH, Instant.EPOCH);

    /** Firmware and model; the clock has a mark of its own. What it should tell and does not is not measured. */
    List<Part> parts() {
        List<Part> parts = new ArrayList<>();
        wanted.stream().sorted().filter(value -> value != OwnValue.CLOCK).forEach(value -> {
            String text = shown.get(value);
            parts.add(
                    text == null
                            ? Part.notMeasured(value.word(), LadderText.OWN_VALUE_NOT_SHOWN.text())
                            : Part.holds(value.word(), text));
        });
        return parts;
    }

    /** What is remembered of it, so that a change is noticed. */
    Map<String, String> traits() {
        return shown.containsKey(OwnValue.MODEL) ? Map.of(Traits.MODEL, shown.get(OwnValue.MODEL)) : Map.of();
    }

    /** The version of its software, or null. */
    String firmware() {
        return shown.get(OwnValue.FIRMWARE);
    }

    /** How far its clock is ahead of ours; nothing where it does not tell a time with its zone. */
    Optional<Duration> clockAhead() {
        return Optional.ofNullable(shown.get(OwnValue.CLOCK))
                .flatMap(ClockMark::read)
                .map(told -> ClockMark.ahead(told, before, after));
    }
}
