package lychnos.server.image;

import java.io.StringReader;
import java.math.BigInteger;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.xml.stream.XMLInputFactory;
import javax.xml.stream.XMLStreamConstants;
import javax.xml.stream.XMLStreamException;
import javax.xml.stream.XMLStreamReader;
import lychnos.core.fact.DataSize;
import lychnos.core.image.ImageDescription;
import lychnos.core.image.ImageDescription.DescribedFile;
import lychnos.server.text.ImageText;

/**
 * Reads the description file of a package: an OVF descriptor (DMTF DSP0243, version 1 or 2). Elements are told by their
 * local names, since each version has a namespace of its own. No entity is resolved.
 */
final class OvfReader {

    private static final int CPU = 3;
    private static final int MEMORY = 4;
    private static final int ETHERNET = 10;
    private static final BigInteger MEBIBYTE = BigInteger.valueOf(1024L * 1024);
    /** Units of DSP0004, annex C.1: {@code byte * 2^20}; also the older words. */
    private static final Pattern POWER = Pattern.compile("byte\\s*\\*\\s*2\\^([0-9]{1,2})");

    private static final Map<String, Integer> WORDS =
            Map.of("byte", 0, "", 0, "kilobytes", 10, "megabytes", 20, "mb", 20, "gigabytes", 30, "gb", 30);
    private static final int MOST_ENTRIES = 1000;

    private final List<DescribedFile> files = new ArrayList<>();
    private final List<String> networks = new ArrayList<>();
    private final Map<String, String> item = new HashMap<>();
    private BigInteger disk = BigInteger.ZERO;
    private BigInteger memory = BigInteger.ZERO;
    private int cores;
    private String product = "";
    private String version = "";

    private OvfReader() {}

    /**
     * What a descriptor says.
     *
     * @throws IllegalArgumentException with a sentence, if the text is no XML or not an OVF descriptor
     */
    static ImageDescription parse(String text) {
        XMLInputFactory factory = XMLInputFactory.newDefaultFactory();
        factory.setProperty(XMLInputFactory.SUPPORT_DTD, false);
        factory.setProperty(XMLInputFactory.IS_SUPPORTING_EXTERNAL_ENTITIES, false);
        OvfReader read = new OvfReader();
        boolean envelope = false;
        try {
            XMLStreamReader xml = factory.createXMLStreamReader(new StringReader(text));
            while (xml.hasNext()) {
                if (xml.next() == XMLStreamConstants.START_ELEMENT) {
                    envelope |= xml.getLocalName().equals("Envelope");
                    read.element(xml);
                } else if (xml.isEndElement() && isItem(xml.getLocalName())) {
                    read.endOfItem();
                }
            }
        } catch (XMLStreamException e) {
            throw new IllegalArgumentException(
                    e.getLocation() == null
                            ? ImageText.DESCRIPTION_IS_NO_XML.text()
                            : ImageText.DESCRIPTION_IS_NO_XML_AT.text(
                                    e.getLocation().getLineNumber()),
                    e);
        }
        if (!envelope) {
            throw new IllegalArgumentException(ImageText.DESCRIPTION_HAS_NO_ENVELOPE.text());
        }
        return read.description();
    }

    private static boolean isItem(String element) {
        return element.equals("Item") || element.equals("EthernetPortItem") || element.equals("StorageItem");
    }

    private void element(XMLStreamReader xml) throws XMLStreamException {
        String name = xml.getLocalName();
        if (files.size() + networks.size() > MOST_ENTRIES) {
            throw new IllegalArgumentException(ImageText.DESCRIPTION_HAS_TOO_MANY_ENTRIES.text(MOST_ENTRIES));
        }
        switch (name) {
            case "File" ->
                files.add(new DescribedFile(
                        withoutFolders(attribute(xml, "href")),
                        number(attribute(xml, "size"), BigInteger.valueOf(-1)).longValue()));
            case "Disk" ->
                disk = disk.add(number(attribute(xml, "capacity"), BigInteger.ZERO)
                        .multiply(unit(attribute(xml, "capacityAllocationUnits"))));
            case "Product" -> product = text(xml);
            case "Version" -> version = text(xml);
            case "ResourceType", "VirtualQuantity", "AllocationUnits", "Connection" -> item.put(name, text(xml));
            case "Item", "EthernetPortItem", "StorageItem" -> item.clear();
            default -> {
                // the rest says nothing that is compared
            }
        }
    }

    private void endOfItem() {
        BigInteger quantity = number(item.getOrDefault("VirtualQuantity", ""), BigInteger.ZERO);
        switch (number(item.getOrDefault("ResourceType", ""), BigInteger.ZERO).intValue()) {
            case CPU -> cores += quantity.min(BigInteger.valueOf(100_000)).intValue();
            case MEMORY -> memory = memory.add(quantity.multiply(unit(item.getOrDefault("AllocationUnits", "mb"))));
            case ETHERNET -> networks.add(item.getOrDefault("Connection", "unnamed"));
            default -> {
                // controllers and drives are not compared
            }
        }
        item.clear();
    }

    private ImageDescription description() {
        return new ImageDescription(product, version, cores, size(memory), size(disk), networks, files);
    }

    private static DataSize size(BigInteger bytes) {
        if (bytes.signum() <= 0) {
            return null;
        }
        BigInteger mebibytes = bytes.add(MEBIBYTE).subtract(BigInteger.ONE).divide(MEBIBYTE);
        return new DataSize(mebibytes.min(BigInteger.valueOf(Long.MAX_VALUE)).longValue());
    }

    private static BigInteger unit(String unit) {
        String plain = unit.strip().toLowerCase(Locale.ROOT);
        Matcher power = POWER.matcher(plain);
        if (power.matches()) {
            return BigInteger.TWO.pow(Integer.parseInt(power.group(1)));
        }
        return BigInteger.TWO.pow(WORDS.getOrDefault(plain, 0));
    }

    private static BigInteger number(String text, BigInteger otherwise) {
        return text.strip().matches("[0-9]{1,19}") ? new BigInteger(text.strip()) : otherwise;
    }

    private static String attribute(XMLStreamReader xml, String name) {
        for (int i = 0; i < xml.getAttributeCount(); i++) {
            if (xml.getAttributeLocalName(i).equals(name)) {
                return xml.getAttributeValue(i);
            }
        }
        return "";
    }

    private static String withoutFolders(String path) {
        return path.substring(Math.max(path.lastIndexOf('/'), path.lastIndexOf('\\')) + 1);
    }

    /** The text of an element; what has elements inside is passed over. */
    private static String text(XMLStreamReader xml) throws XMLStreamException {
        StringBuilder text = new StringBuilder();
        int depth = 1;
        while (depth > 0) {
            int event = xml.next();
            if (event == XMLStreamConstants.START_ELEMENT) {
                depth++;
            } else if (event == XMLStreamConstants.END_ELEMENT) {
                depth--;
            } else if (event == XMLStreamConstants.CHARACTERS && depth == 1) {
                text.append(xml.getText());
            }
        }
        return text.toString().strip();
    }
}
