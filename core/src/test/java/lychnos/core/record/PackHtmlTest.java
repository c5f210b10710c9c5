package lychnos.core.record;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Document;

class PackHtmlTest {

    @Test
    void whateverAMachineSaidItStaysWellFormed() throws Exception {
        String odd = "<script>\u0000\u001b[31m & \"x\" \ud800 ]]>";
        StringBuilder html = new StringBuilder();
        PackHtml.write(
                html,
                PackHtml.Paper.LETTER,
                "Sans",
                new PackHtml.Front(odd, odd, "0".repeat(64), List.of(new PackHtml.Figure("1", odd)), List.of(odd)),
                List.of(new PackHtml.Line("u & 1", odd, odd, odd, odd, odd, odd)),
                List.of(new PackHtml.UnitSheet(
                        "u & 1", odd, odd, List.of(odd), List.of(odd), List.of(odd), List.of())));
        Document page = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(
                        html.toString().replace("<!DOCTYPE html>", "").getBytes(StandardCharsets.UTF_8)));
        assertEquals(0, page.getElementsByTagName("script").getLength());
        assertTrue(html.indexOf("size: letter") > 0);
        // the endpoint leads to its unit
        String link = page.getElementsByTagName("a")
                .item(0)
                .getAttributes()
                .getNamedItem("href")
                .getNodeValue();
        assertEquals(
                link.substring(1),
                page.getElementsByTagName("h3")
                        .item(0)
                        .getAttributes()
                        .getNamedItem("id")
                        .getNodeValue());
    }
}
