package lychnos.core.record;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.time.Instant;
import java.util.List;
import org.junit.jupiter.api.Test;

class HandoverCsvTest {

    @Test
    void writesAHeadingQuotesAndUtcTimes() {
        String csv = HandoverCsv.write(List.of(
                new HandoverLine("a.ardal.example", "10.40.8.101", "BF \"1\", x", "02:4c:59:a1:00:01", "ab", Instant.parse("2026-11-23T09:14:05.678Z")),
                new HandoverLine("b.ardal.example", "10.40.8.102", null, "", null, null)));
        assertEquals(
                "name,address,serial,mac,certificate_sha256,proven_at\r\n"
                        + "a.ardal.example,10.40.8.101,\"BF \"\"1\"\", x\",02:4c:59:a1:00:01,ab,2026-11-23T09:14:05Z\r\n"
                        + "b.ardal.example,10.40.8.102,,,,\r\n",
                csv);
    }
}
