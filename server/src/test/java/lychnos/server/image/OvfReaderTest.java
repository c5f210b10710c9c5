package lychnos.server.image;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import lychnos.core.fact.DataSize;
import lychnos.core.image.ImageDescription;
import lychnos.core.image.ImageDescription.DescribedFile;
import lychnos.core.text.Texts;
import lychnos.server.text.ImageText;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OvfReaderTest {

    static final String DESCRIPTOR =
            """
            <?xml version="1.0"?>
            <Envelope xmlns="http://schemas.dmtf.org/ovf/envelope/1" xmlns:ovf="http://schemas.dmtf.org/ovf/envelope/1"
                xmlns:rasd="http://schemas.dmtf.org/wbem/wscim/1/cim-schema/2/CIM_ResourceAllocationSettingData">
              <References><File ovf:href="parts/disk.img" ovf:id="d" ovf:size="%s"/></References>
              <DiskSection><Disk ovf:diskId="disk" ovf:fileRef="d" ovf:capacity="40"
                ovf:capacityAllocationUnits="byte * 2^30"/></DiskSection>
              <VirtualSystem ovf:id="ard">
                <ProductSection><Product>Rossett access</Product><Version>5.2</Version></ProductSection>
                <VirtualHardwareSection>
                  <Item><rasd:ResourceType>3</rasd:ResourceType><rasd:VirtualQuantity>4</rasd:VirtualQuantity></Item>
                  <Item><rasd:AllocationUnits>byte * 2^20</rasd:AllocationUnits>
                    <rasd:ResourceType>4</rasd:ResourceType><rasd:VirtualQuantity>8192</rasd:VirtualQuantity></Item>
                  <Item><rasd:Connection>management</rasd:Connection><rasd:ResourceType>10</rasd:ResourceType></Item>
                </VirtualHardwareSection>
              </VirtualSystem>
            </Envelope>
            """;

    @Test
    void saysWhatTheMachineWants() {
        ImageDescription read = OvfReader.parse(DESCRIPTOR.formatted("1234").strip());
        assertEquals(
                new ImageDescription(
                        "Rossett access",
                        "5.2",
                        4,
                        DataSize.parse("8 GiB"),
                        DataSize.parse("40 GiB"),
                        List.of("management"),
                        List.of(new DescribedFile("disk.img", 1234))),
                read);
    }

    @ParameterizedTest
    @CsvSource({"byte * 2^30, 40 GiB", "MegaBytes, 40 MiB", "byte * 2^40, 40 TiB", "'', 1 MiB", "furlongs, 1 MiB"})
    void readsTheUnitsOfBothVersions(String unit, String size) {
        ImageDescription read =
                OvfReader.parse(DESCRIPTOR.formatted("1").strip().replace("byte * 2^30", unit));
        assertEquals(DataSize.parse(size), read.disk());
    }

    @Test
    void whatIsNotSaidIsUnknown() {
        ImageDescription read = OvfReader.parse("<Envelope><References><File href='a'/></References></Envelope>");
        assertNull(read.memory());
        assertNull(read.disk());
        assertEquals(0, read.cores());
        assertEquals(List.of(new DescribedFile("a", -1)), read.files());
    }

    @Test
    void aBrokenOneNamesItsLine() {
        String why = assertThrows(IllegalArgumentException.class, () -> OvfReader.parse("<Envelope>\n<a>\n</Envelope>"))
                .getMessage();
        assertEquals(ImageText.DESCRIPTION_IS_NO_XML_AT.text(3), why);
        assertEquals(
                ImageText.DESCRIPTION_HAS_NO_ENVELOPE.text(),
                assertThrows(IllegalArgumentException.class, () -> OvfReader.parse("<html/>"))
                        .getMessage());
    }

    /** A hostile description reads no file of the server, and does not grow. */
    @Test
    void resolvesNoEntity() {
        String outside = "<!DOCTYPE a [<!ENTITY e SYSTEM \"file:///etc/hostname\">]><Envelope><Product>&e;</Product>"
                + "</Envelope>";
        String growing = "<!DOCTYPE a [<!ENTITY e \"" + "x".repeat(1000) + "\"><!ENTITY f \"" + "&e;".repeat(1000)
                + "\">]><Envelope><Product>" + "&f;".repeat(1000) + "</Product></Envelope>";
        for (String text : List.of(outside, growing)) {
            try {
                assertEquals("", OvfReader.parse(text).product());
            } catch (IllegalArgumentException e) {
                assertTrue(Texts.says(ImageText.DESCRIPTION_IS_NO_XML_AT, e.getMessage()), e.getMessage());
            }
        }
    }

    @Test
    void tooManyEntriesAreRefused() {
        String many = "<Envelope>" + "<File href='a'/>".repeat(5000) + "</Envelope>";
        assertThrows(IllegalArgumentException.class, () -> OvfReader.parse(many));
    }
}
