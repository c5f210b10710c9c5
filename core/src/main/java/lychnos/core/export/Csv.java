package lychnos.core.export;

import java.io.IOException;
import java.util.List;
import lychnos.core.fact.CsvText;
import org.apache.commons.csv.CSVFormat;
import org.apache.commons.csv.CSVPrinter;

/**
 * CSV for other programs (RFC 4180): CRLF and a heading. A value that a spreadsheet would take for a formula gets an
 * apostrophe in front, so that nothing that came from a label or a machine is ever carried out there.
 */
public final class Csv implements AutoCloseable {

    private final CSVPrinter printer;

    public Csv(Appendable out, String... heading) throws IOException {
        printer = new CSVPrinter(
                out, CSVFormat.RFC4180.builder().setHeader(heading).get());
    }

    public void line(Object... values) throws IOException {
        printer.printRecord(List.of(values).stream()
                .map(value -> CsvText.safe(value.toString()))
                .toList());
    }

    @Override
    public void close() throws IOException {
        printer.flush();
    }
}
