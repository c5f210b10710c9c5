package lychnos.lab.image;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;
import java.util.List;
import java.util.Random;

/**
 * Makes the image files that the machines of the lab are deployed from: small ones, always of the same bytes, so that
 * the lists of the hall can state their digests. Most are packages with a description and a manifest (DMTF DSP0243),
 * the others a disk each.
 *
 * <pre>
 * MadeImages FOLDER      writes them, and prints their digests
 * </pre>
 */
public final class MadeImages {

    private static final int DISK_BYTES = 96 * 1024;
    private static final int BLOCK = 512;

    private static final List<MadeImage> ALL = List.of(
            new MadeImage("access-appliance.img", "Rossett access", "5.2", 4, 16, 200, List.of("management")),
            new MadeImage("mungris-air.img", "Mungris air", "3.8", 2, 8, 32, List.of("management", "service")),
            new MadeImage("rosthwaite-fleet.img", "Rosthwaite fleet", "2.4", 4, 16, 120, List.of("management")),
            new MadeImage("loweswater-balancer.img", "Loweswater", "9.1", 4, 8, 40, List.of("management", "in-band")),
            new MadeImage("ennerdale-node.img", "Ennerdale", "6.0", 4, 16, 60, List.of("management", "in-band")),
            new MadeImage("buttermere-licences.img", "Buttermere", "1.9", 2, 4, 40, List.of("management")),
            new MadeImage("ullscarf-clusters.img", "Ullscarf", "3.4", 4, 12, 80, List.of("management")),
            new MadeImage("dunmail-consoles.img", "", "", 0, 0, 0, List.of()),
            new MadeImage("crummock-console.img", "", "", 0, 0, 0, List.of()));

    private MadeImages() {}

    /** @param product empty for a disk that comes alone */
    private record MadeImage(
            String file,
            String product,
            String version,
            int cores,
            int gibibytes,
            int diskGibibytes,
            List<String> networks) {

        byte[] bytes() throws IOException {
            byte[] disk = disk();
            return product.isEmpty() ? disk : archive(disk);
        }

        private byte[] disk() {
            byte[] disk = new byte[DISK_BYTES];
            new Random(file.hashCode()).nextBytes(disk);
            // a disk that grows as it is written, of version 3
            byte[] mark = {'Q', 'F', 'I', (byte) 0xfb, 0, 0, 0, 3};
            System.arraycopy(mark, 0, disk, 0, mark.length);
            return disk;
        }

        private byte[] archive(byte[] disk) throws IOException {
            String stem = file.substring(0, file.lastIndexOf('.'));
            byte[] description = description(stem).getBytes(StandardCharsets.UTF_8);
            byte[] manifest = ("SHA256(" + stem + ".ovf)= " + digest(description) + "\nSHA256(" + stem
                            + "-disk.qcow2)= " + digest(disk) + "\n")
                    .getBytes(StandardCharsets.UTF_8);
            ByteArrayOutputStream out = new ByteArrayOutputStream();
            entry(out, stem + ".ovf", description);
            entry(out, stem + ".mf", manifest);
            entry(out, stem + "-disk.qcow2", disk);
            out.write(new byte[2 * BLOCK]);
            return out.toByteArray();
        }

        private String description(String stem) {
            StringBuilder items = new StringBuilder();
            item(items, 3, cores, "");
            item(items, 4, gibibytes, "<rasd:AllocationUnits>byte * 2^30</rasd:AllocationUnits>");
            networks.forEach(network -> item(items, 10, 1, "<rasd:Connection>" + network + "</rasd:Connection>"));
            return """
                    <?xml version="1.0" encoding="UTF-8"?>
                    <Envelope xmlns="http://schemas.dmtf.org/ovf/envelope/2"
                        xmlns:rasd=\
                    "http://schemas.dmtf.org/wbem/wscim/1/cim-schema/2/CIM_ResourceAllocationSettingData">
                      <References><File href="%1$s-disk.qcow2" id="file" size="%2$d"/></References>
                      <DiskSection><Info>disk</Info>
                        <Disk diskId="disk" fileRef="file" capacity="%3$d" capacityAllocationUnits="byte * 2^30"/>
                      </DiskSection>
                      <VirtualSystem id="%1$s">
                        <ProductSection><Product>%4$s</Product><Version>%5$s</Version></ProductSection>
                        <VirtualHardwareSection>
                    %6$s    </VirtualHardwareSection>
                      </VirtualSystem>
                    </Envelope>
                    """
                    .formatted(stem, DISK_BYTES, diskGibibytes, product, version, items);
        }

        private static void item(StringBuilder items, int type, int quantity, String more) {
            items.append("      <Item>")
                    .append(more)
                    .append("<rasd:ResourceType>")
                    .append(type)
                    .append("</rasd:ResourceType><rasd:VirtualQuantity>")
                    .append(quantity)
                    .append("</rasd:VirtualQuantity></Item>\n");
        }
    }

    /** One file of a tar archive (POSIX.1-1988 ustar). */
    private static void entry(ByteArrayOutputStream out, String name, byte[] content) throws IOException {
        byte[] head = new byte[BLOCK];
        put(head, 0, name);
        put(head, 100, "0000644\0");
        put(head, 108, "0000000\0");
        put(head, 116, "0000000\0");
        put(head, 124, "%011o\0".formatted(content.length));
        put(head, 136, "%011o\0".formatted(0));
        put(head, 148, "        ");
        put(head, 156, "0");
        put(head, 257, "ustar\00000");
        int sum = 0;
        for (byte each : head) {
            sum += each & 0xff;
        }
        put(head, 148, "%06o\0 ".formatted(sum));
        out.write(head);
        out.write(content);
        out.write(new byte[(BLOCK - content.length % BLOCK) % BLOCK]);
    }

    private static void put(byte[] head, int at, String text) {
        byte[] bytes = text.getBytes(StandardCharsets.US_ASCII);
        System.arraycopy(bytes, 0, head, at, bytes.length);
    }

    private static String digest(byte[] bytes) {
        try {
            return HexFormat.of().formatHex(MessageDigest.getInstance("SHA-256").digest(bytes));
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java platform has SHA-256", e);
        }
    }

    public static void main(String[] args) throws IOException {
        Path folder = Files.createDirectories(Path.of(args[0]));
        for (MadeImage image : ALL) {
            byte[] bytes = image.bytes();
            Files.write(folder.resolve(image.file), bytes);
            System.out.println(digest(bytes) + "  " + image.file);
        }
    }
}
