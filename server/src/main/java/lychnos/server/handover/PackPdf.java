package lychnos.server.handover;

import com.openhtmltopdf.extend.FSSupplier;
import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;

/**
 * Makes a PDF of the pack's XHTML: tagged for people who hear it (PDF/UA, ISO 14289-1), with links inside and its font
 * along.
 */
final class PackPdf {

    static final String FONT = "Liberation Sans";
    /** It comes with the library that writes the file, and has what names and addresses need. */
    private static final String FILE = "/org/apache/pdfbox/resources/ttf/LiberationSans-Regular.ttf";

    private PackPdf() {}

    /** @param html well-formed; nothing outside of it is fetched */
    static void write(String html, OutputStream out) throws IOException {
        PdfRendererBuilder builder = new PdfRendererBuilder();
        builder.useFastMode();
        builder.usePdfUaAccessibility(true);
        builder.usePdfVersion(1.7f);
        builder.useUriResolver((base, uri) -> uri.startsWith("#") ? uri : null);
        FSSupplier<InputStream> font = () -> PackPdf.class.getResourceAsStream(FILE);
        builder.useFont(font, FONT, 400, FontStyle.NORMAL, true);
        builder.useFont(font, FONT, 700, FontStyle.NORMAL, true);
        builder.withProducer("Lychnos");
        builder.withHtmlContent(html, null);
        builder.toStream(out);
        builder.run();
    }
}
