package lychnos.wire.far;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import com.fasterxml.jackson.databind.JsonNode;
import java.util.List;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.LineSettings;
import lychnos.wire.console.LineAddress;
import lychnos.wire.fault.WireFault;

/**
 * What the two ends of a link say to each other: a vantage point, which dials in, and the server. Each message is one
 * JSON object whose {@code type} is the name of its record here, beginning with a small letter.
 *
 * <p>{@link Hello}, {@link TurnedAway} and {@link Alive} stay as they are in every version, so that the two ends can
 * always tell each other that they do not fit. Whatever else changes raises {@link #VERSION}.
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "type")
public sealed interface LinkMessage {

    /** Both ends speak the same version. Version 1 had no number and no types. */
    int VERSION = 6;

    // --- greeting ---

    /**
     * The first message of a vantage point.
     *
     * @param hearsSilence see {@link lychnos.wire.vantage.Vantage#hearsSilence()}
     * @param dialogues ids of the dialogues that it carries on, or has something to hand in of
     */
    record Hello(int version, boolean hearsSilence, List<Long> dialogues) implements LinkMessage {}

    /**
     * The server has taken the link, or networks have changed.
     *
     * @param networks those that the vantage point is for
     * @param others all other networks: what must not answer there is tried from this vantage point as well
     */
    record Welcome(String name, List<Prefix> networks, List<Prefix> others) implements LinkMessage {}

    /** The server does not take the link; {@code why} is for the people at the vantage point. */
    record TurnedAway(int version, String why) implements LinkMessage {}

    /** Sent by a vantage point every few seconds; the server sends it back. */
    record Alive() implements LinkMessage {}

    // --- questions and answers ---

    /** The server calls a method of the vantage. */
    record Call(long number, VantageCall<?> what) implements LinkMessage {}

    /** The server asks something that is not about a single exchange with a machine. */
    record Ask(long number, JsonNode what) implements LinkMessage {}

    record Answer(long number, JsonNode value) implements LinkMessage {}

    record Failed(long number, WireFault.Kind kind, String message) implements LinkMessage {}

    /** Either end tells the other something that needs no answer. */
    record Note(JsonNode what) implements LinkMessage {}

    // --- console lines, each by a number that the server gives it ---

    record OpenLine(long line, LineAddress address, LineSettings settings) implements LinkMessage {}

    record LineInput(long line, byte[] bytes) implements LinkMessage {}

    record LineBreak(long line) implements LinkMessage {}

    record LineSize(long line, int columns, int rows) implements LinkMessage {}

    record CloseLine(long line) implements LinkMessage {}

    record LineUp(long line) implements LinkMessage {}

    record LineOutput(long line, byte[] bytes) implements LinkMessage {}

    record LineNoted(long line, String sentence) implements LinkMessage {}

    record LineDown(long line, String why) implements LinkMessage {}

    /** The server behind the line has shown this host key; {@link HostKeyTrusted} is the answer. */
    record HostKeyShown(long line, String fingerprint) implements LinkMessage {}

    record HostKeyTrusted(long line, boolean trusted) implements LinkMessage {}
}
