package lychnos.server.handover;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.io.ByteArrayInputStream;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.xml.parsers.DocumentBuilderFactory;
import lychnos.server.text.HandoverText;
import org.junit.jupiter.api.Test;
import org.w3c.dom.Document;

class PackPageTest {

    @Test
    void whateverAMachineSaidItStaysWellFormed() throws Exception {
        String odd = "<script>\u0000\u001b[31m & \"x\" \ud800 ]]>";
        String html = new PackPage(
                        PackPage.Paper.LETTER,
                        "Sans",
                        new PackPage.Front(
                                odd, odd, "0".repeat(64), List.of(new PackPage.Figure("1", odd)), List.of(odd)),
                        List.of(new PackPage.EndpointLine("u & 1", odd, odd, odd, odd, odd, odd)),
                        List.of(new PackPage.UnitSheet(
                                "u & 1",
                                odd,
                                odd,
                                List.of(
                                        new PackPage.UnitList("Values sent", List.of(odd)),
                                        new PackPage.UnitList(HandoverText.KNOWN_AND_ACCEPTED.text(), List.of())))))
                .xhtml();
        Document page = DocumentBuilderFactory.newInstance()
                .newDocumentBuilder()
                .parse(new ByteArrayInputStream(
                        html.replace("<!DOCTYPE html>", "").getBytes(StandardCharsets.UTF_8)));
        assertEquals(0, page.getElementsByTagName("script").getLength());
        assertTrue(html.indexOf("size: letter") > 0);
        assertFalse(
                html.contains(HandoverText.KNOWN_AND_ACCEPTED.text()), "a heading with nothing below it is left out");
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
