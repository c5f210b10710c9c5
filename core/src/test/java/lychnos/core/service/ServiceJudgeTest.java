package lychnos.core.service;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.text.Texts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ServiceJudgeTest {

    private static final Instant AT = Instant.parse("2026-11-23T09:20:00Z");

    private static Optional<TimeSample> clock(double offsetMillis) {
        return Optional.of(new TimeSample(3, 0, 4, offsetMillis, 0.4, 1.2, true));
    }

    private static List<Measured.State> states(List<Optional<TimeSample>> samples) {
        Map<String, Optional<TimeSample>> byAddress = new LinkedHashMap<>();
        samples.forEach(sample -> byAddress.put("10.40.8." + (6 + byAddress.size()), sample));
        return TimeJudge.judge(byAddress, AT).stream().map(Measured::state).toList();
    }

    @Test
    void namesTheClockThatLies() {
        assertEquals(
                List.of(Measured.State.FINE, Measured.State.FINE, Measured.State.LIES),
                states(List.of(clock(0.4), clock(-0.2), clock(120_000))));
        assertEquals(
                List.of(Measured.State.FINE, Measured.State.SILENT, Measured.State.FINE),
                states(List.of(clock(0.4), Optional.empty(), clock(90))));
    }

    @Test
    void accusesNobodyWhereTwoDisagree() {
        assertEquals(List.of(Measured.State.ODD, Measured.State.ODD), states(List.of(clock(0), clock(5000))));
        assertEquals(
                List.of(Measured.State.FINE),
                states(List.of(clock(900))),
                "one alone that is about right by our own clock");
        assertEquals(
                List.of(Measured.State.ODD),
                states(List.of(clock(5000))),
                "one alone that is far from our own: either may be wrong");
    }

    @Test
    void aLargeUncertaintyExcusesNoMoreThanASecond() {
        Optional<TimeSample> vague = Optional.of(new TimeSample(3, 0, 4, 60_000, 1, 90_000, true));
        assertEquals(
                Measured.State.LIES, states(List.of(clock(0), clock(1), vague)).get(2));
    }

    @ParameterizedTest
    @CsvSource({
        "0, 0, 4, true, KISS_OF_DEATH",
        "16, 0, 4, true, CLOCK_NEVER_SET",
        "3, 3, 4, true, CLOCK_NEVER_SET",
        "3, 0, 3, true, ANSWERS_IN_MODE_NOT_AS_SERVER",
        "3, 0, 4, false, OTHER_ANSWER"
    })
    void refusesAnswersThatAreNoAnswers(int stratum, int leap, int mode, boolean answersUs, ServiceText why) {
        assertTrue(Texts.says(
                why,
                TimeJudge.unfit(new TimeSample(stratum, leap, mode, 0, 1, 1, answersUs))
                        .orElseThrow()));
    }

    private static NameSample names(boolean udp, boolean tcp, Map<String, Long> serials) {
        return new NameSample(udp, tcp, serials, false, List.of(), "");
    }

    @Test
    void namesTheServerThatLags() {
        Map<String, NameSample> samples = new LinkedHashMap<>();
        samples.put("10.40.8.3", names(true, true, Map.of("ardal.example", 2026112304L)));
        samples.put("10.40.8.4", names(true, true, Map.of("ardal.example", 2026112303L)));
        List<Measured> judged = NameJudge.judge(samples, List.of("ardal.example"), AT);
        assertEquals(ServiceText.SERIAL.text("2026112304"), judged.get(0).sentence());
        assertEquals(
                ServiceText.LAGS.text("ardal.example", "2026112303", "2026112304"),
                judged.get(1).sentence());
    }

    @Test
    void wantsBothTransportsAndTheZone() {
        Map<String, NameSample> samples = new LinkedHashMap<>();
        samples.put("a", names(true, false, Map.of("ardal.example", 1L)));
        samples.put("b", names(true, true, Map.of()));
        samples.put("c", names(false, false, Map.of()));
        List<Measured> judged = NameJudge.judge(samples, List.of("ardal.example"), AT);
        assertEquals(
                List.of(Measured.State.ODD, Measured.State.ODD, Measured.State.SILENT),
                judged.stream().map(Measured::state).toList());
        assertTrue(judged.get(1).sentence().contains(ServiceText.DOES_NOT_SERVE.text("ardal.example")));
    }

    @Test
    void comparesSerialsAcrossTheirWrap() {
        assertEquals(1, NameJudge.newer(4294967295L, 1));
        assertEquals(5, NameJudge.newer(5, 4));
    }
}
