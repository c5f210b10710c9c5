package lychnos.core.record;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.temporal.ChronoUnit;
import java.util.List;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/** Writes endpoints as CSV (RFC 4180): UTF-8, CRLF, a heading, times in UTC (RFC 3339). */
public final class HandoverCsv {

    private HandoverCsv() {}

    public static String write(List<HandoverLine> lines) {
        StringBuilder text = new StringBuilder();
        CSVFormat format = CSVFormat.RFC4180.builder()
                .setHeader("name", "address", "serial", "mac", "certificate_sha256", "proven_at")
                .get();
        try (CSVPrinter printer = new CSVPrinter(text, format)) {
            for (HandoverLine line : lines) {
                printer.printRecord(
                        line.name(),
                        line.address(),
                        line.serial(),
                        line.mac(),
                        line.fingerprint(),
                        line.provenAt() == null ? "" : line.provenAt().truncatedTo(ChronoUnit.SECONDS));
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        return text.toString();
    }
}
