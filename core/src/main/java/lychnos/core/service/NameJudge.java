package lychnos.core.service;

import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;

/** Judges name servers, each alone and against each other. */
public final class NameJudge {

    private NameJudge() {}

    /** @param samples by address, in the order in which they are told to units */
    public static List<Measured> judge(Map<String, NameSample> samples, List<String> zones, Instant at) {
        Map<String, Long> newest = new LinkedHashMap<>();
        samples.values().forEach(sample -> sample.serials()
                .forEach((zone, serial) -> newest.merge(zone, serial, NameJudge::newer)));
        List<Measured> judged = new ArrayList<>();
        samples.forEach((address, sample) -> judged.add(one(address, sample, zones, newest, at)));
        return judged;
    }

    /** Serial number arithmetic (RFC 1982): the newer of two. */
    static long newer(long a, long b) {
        return (int) (a - b) >= 0 ? a : b;
    }

    private static Measured one(
            String address, NameSample sample, List<String> zones, Map<String, Long> newest, Instant at) {
        Map<String, String> detail = new LinkedHashMap<>();
        detail.put("UDP", sample.udp() ? "answers" : "silent");
        detail.put("TCP", sample.tcp() ? "answers" : "silent");
        detail.put("recursion", sample.recursion() ? "offered" : "not offered");
        sample.serials().forEach((zone, serial) -> detail.put(zone, ServiceText.SERIAL.text(serial)));
        sample.updates().forEach(reply -> detail.put("update " + reply.about(), reply.said()));
        if (!sample.udp() && !sample.tcp()) {
            return new Measured(
                    ServiceKind.NAME, address, Measured.State.SILENT, "silent", detail, sample.updates(), at);
        }
        Optional<String> odd = odd(sample, zones, newest);
        String fine = sample.serials().isEmpty()
                ? "answers"
                : ServiceText.SERIAL.text(new TreeSet<>(sample.serials().values()).first());
        return new Measured(
                ServiceKind.NAME,
                address,
                odd.isPresent() ? Measured.State.ODD : Measured.State.FINE,
                odd.orElse(fine),
                detail,
                sample.updates(),
                at);
    }

    private static Optional<String> odd(NameSample sample, List<String> zones, Map<String, Long> newest) {
        if (!sample.udp() || !sample.tcp()) {
            return Optional.of(sample.udp() ? ServiceText.UDP_ONLY.text() : ServiceText.TCP_ONLY.text());
        }
        for (String zone : zones) {
            if (!sample.serials().containsKey(zone)) {
                return Optional.of(ServiceText.DOES_NOT_SERVE.text(zone));
            }
            if (!sample.serials().get(zone).equals(newest.get(zone))) {
                return Optional.of(ServiceText.LAGS.text(zone, sample.serials().get(zone), newest.get(zone)));
            }
        }
        return Optional.empty();
    }
}
