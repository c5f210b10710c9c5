package lychnos.core.service;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * Judges time servers against each other. A server lies when its clock and that of most others differ by more than
 * their uncertainties allow; with fewer than three that agree nobody can say who is wrong, and nobody is accused. One
 * that stands alone is compared with our own clock.
 */
public final class TimeJudge {

    /**
     * Clocks that are nearer than this agree whatever they say of their uncertainty; log lines of two machines then
     * compare.
     */
    static final double CLOSE_MILLIS = 128;

    /** A single server that is further from our own clock than this is not taken at its word. */
    static final double FAR_MILLIS = 1000;

    private TimeJudge() {}

    /**
     * @param samples by address, in the order in which they are told to units; nothing where a server is silent
     */
    public static List<Measured> judge(Map<String, Optional<TimeSample>> samples, Instant at) {
        List<Measured> judged = new ArrayList<>();
        samples.forEach((address, sample) -> judged.add(sample.map(s -> one(address, s, samples, at))
                .orElseGet(
                        () -> new Measured(ServiceKind.TIME, address, Measured.State.SILENT, "silent", Map.of(), at))));
        return judged;
    }

    private static Measured one(String address, TimeSample sample, Map<String, Optional<TimeSample>> all, Instant at) {
        Optional<String> unfit = unfit(sample);
        if (unfit.isPresent()) {
            return measured(address, Measured.State.ODD, unfit.get(), sample, at);
        }
        List<TimeSample> fit = all.values().stream()
                .flatMap(Optional::stream)
                .filter(other -> unfit(other).isEmpty())
                .toList();
        long agree = fit.stream().filter(other -> agrees(sample, other)).count();
        long most = fit.stream()
                .mapToLong(each ->
                        fit.stream().filter(other -> agrees(each, other)).count())
                .max()
                .orElse(0);
        if (agree < most && most * 2 > fit.size()) {
            return measured(address, Measured.State.LIES, ServiceText.OFF.text(offset(sample), most), sample, at);
        }
        if (fit.size() == 1 && Math.abs(sample.offsetMillis()) > FAR_MILLIS) {
            return measured(address, Measured.State.ODD, ServiceText.ALONE.text(offset(sample)), sample, at);
        }
        if (fit.size() == 2 && agree == 1) {
            return measured(address, Measured.State.ODD, ServiceText.TWO_DISAGREE.text(offset(sample)), sample, at);
        }
        return measured(
                address, Measured.State.FINE, ServiceText.STRATUM.text(offset(sample), sample.stratum()), sample, at);
    }

    private static boolean agrees(TimeSample a, TimeSample b) {
        double slack = Math.max(
                CLOSE_MILLIS,
                a.delayMillis() / 2 + b.delayMillis() / 2 + a.rootDispersionMillis() + b.rootDispersionMillis());
        return Math.abs(a.offsetMillis() - b.offsetMillis()) <= Math.min(slack, 1000);
    }

    /** What makes an answer useless on its own. */
    static Optional<String> unfit(TimeSample sample) {
        if (!sample.answersUs()) {
            return Optional.of(ServiceText.OTHER_ANSWER.text());
        }
        if (sample.mode() != 4) {
            return Optional.of(ServiceText.ANSWERS_IN_MODE_NOT_AS_SERVER.text(sample.mode()));
        }
        if (sample.stratum() == 0) {
            return Optional.of(ServiceText.KISS_OF_DEATH.text());
        }
        if (sample.stratum() > 15 || sample.leap() == 3) {
            return Optional.of(ServiceText.CLOCK_NEVER_SET.text());
        }
        return Optional.empty();
    }

    private static String offset(TimeSample sample) {
        double millis = sample.offsetMillis();
        return Math.abs(millis) >= 1000
                ? String.format(Locale.ROOT, "%+.1f s", millis / 1000)
                : String.format(Locale.ROOT, "%+.1f ms", millis);
    }

    private static Measured measured(
            String address, Measured.State state, String sentence, TimeSample sample, Instant at) {
        Map<String, String> detail = new LinkedHashMap<>();
        detail.put("stratum", String.valueOf(sample.stratum()));
        detail.put("offset", String.format(Locale.ROOT, "%+.3f ms", sample.offsetMillis()));
        detail.put("delay", String.format(Locale.ROOT, "%.3f ms", sample.delayMillis()));
        detail.put("root dispersion", String.format(Locale.ROOT, "%.3f ms", sample.rootDispersionMillis()));
        detail.put("leap", String.valueOf(sample.leap()));
        return new Measured(ServiceKind.TIME, address, state, sentence, detail, at);
    }
}
