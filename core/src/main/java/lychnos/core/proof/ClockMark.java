package lychnos.core.proof;

import java.time.Duration;
import java.time.Instant;
import java.time.OffsetDateTime;
import java.time.format.DateTimeParseException;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;

/**
 * Judges a machine's own clock, where a standard interface tells it, and the time servers that it follows as they are
 * seen from here.
 */
public final class ClockMark {

    /** Such interfaces tell whole seconds, and the exchange takes its part. */
    static final Duration IN_STEP = Duration.ofMillis(2500);

    private ClockMark() {}

    /**
     * Reads what a machine's clock says, such as {@code 2026-11-23T02:14:00Z}, {@code 2026-11-23 03:14:00+01:00} or
     * {@code 2026-11-23 02:14:00 UTC}.
     *
     * @return nothing for a time without a zone, which may be any, and for what is not a time
     */
    public static Optional<Instant> read(String shown) {
        String text = shown.strip().replaceFirst(" +UTC$", "Z").replaceFirst(" ", "T");
        try {
            return Optional.of(OffsetDateTime.parse(text).toInstant());
        } catch (DateTimeParseException e) {
            return Optional.empty();
        }
    }

    /**
     * How far a clock is ahead of ours at least, negative where it is behind: an exchange that took a while is no fault
     * of the clock's.
     *
     * @param told what the machine told
     * @param before when it was asked, by our clock
     * @param after when it had answered, by our clock
     */
    public static Duration ahead(Instant told, Instant before, Instant after) {
        return told.isAfter(after)
                ? Duration.between(after, told)
                : told.isBefore(before) ? Duration.between(before, told) : Duration.ZERO;
    }

    /**
     * Judges.
     *
     * @param ahead how far it is ahead of ours; negative where it is behind; nothing where it does not tell
     * @param servers its time servers, by what people call them
     */
    public static Beside of(Optional<Duration> ahead, List<Part> servers) {
        Optional<Duration> off = ahead.map(Duration::abs).filter(each -> each.compareTo(IN_STEP) > 0);
        if (off.isPresent()) {
            return Beside.broken(
                    SideMark.TIME,
                    Trouble.CLOCK_OFF,
                    (ahead.get().isNegative() ? ProofText.CLOCK_BEHIND : ProofText.CLOCK_AHEAD).text(text(off.get())),
                    servers);
        }
        String wrong = servers.stream()
                .filter(part -> part.standing() == Outcome.Standing.BROKEN)
                .map(part -> part.name() + " " + part.seen())
                .collect(Collectors.joining("; "));
        if (!wrong.isEmpty()) {
            return Beside.broken(
                    SideMark.TIME, Trouble.TIME_SERVER_OFF, ProofText.TIME_SERVERS_OFF.text(wrong), servers);
        }
        return ahead.isPresent()
                ? Beside.holds(SideMark.TIME, ProofText.CLOCK_CORRECT.text(), servers)
                : Beside.notMeasured(SideMark.TIME, ProofText.CLOCK_NOT_SHOWN.text())
                        .with(servers);
    }

    private static String text(Duration off) {
        if (off.toDays() > 1) {
            return ProofText.DAYS.text(off.toDays());
        }
        return off.toMinutes() > 1 ? ProofText.MINUTES.text(off.toMinutes()) : ProofText.SECONDS.text(off.toSeconds());
    }
}
