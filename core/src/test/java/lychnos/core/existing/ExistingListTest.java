package lychnos.core.existing;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.List;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

class ExistingListTest {

    private static List<String> read(String text) {
        return ExistingList.parse(text).uses().stream()
                .map(use -> use.address() + " " + use.name() + " "
                        + use.mac().map(Object::toString).orElse("-") + " " + use.source())
                .toList();
    }

    @Tag("wording")
    @Test
    void readsAHostsFile() {
        String text =
                "# the hall\n10.40.8.3\tNS1.ardal.example ns1 # first\n\n10.40.8.300 broken\nfd40:a4da:1:8::3 ns1\n";
        assertEquals(
                List.of("10.40.8.3 ns1.ardal.example - hosts file", "fd40:a4da:1:8::3 ns1 - hosts file"), read(text));
        assertEquals(4, ExistingList.parse(text).faults().get(0).line());
    }

    @Tag("wording")
    @Test
    void readsATable() {
        assertEquals(
                List.of("10.40.8.9 printer 02:4c:59:00:00:01 table"),
                read("Name;IP;MAC\nprinter;10.40.8.9;024C.5900.0001\n"));
        assertTrue(
                ExistingList.parse("name,place\nx,y\n").faults().get(0).reason().contains("“address”"));
    }

    @Tag("wording")
    @Test
    void theLastBlockOfALeaseFileCounts() {
        String text =
                """
                lease 10.40.8.10 {
                  starts 1 2026/11/23 08:00:00;
                  binding state active;
                  next binding state free;
                  hardware ethernet 02:4c:59:a1:00:01;
                  client-hostname "first";
                }
                lease 10.40.8.11 {
                  binding state active;
                  hardware ethernet 02:4c:59:a1:00:02;
                }
                lease 10.40.8.10 {
                  binding state free;
                }
                """;
        assertEquals(List.of("10.40.8.11  02:4c:59:a1:00:02 DHCP lease"), read(text));
    }

    @Tag("wording")
    @Test
    void readsALeaseTable() {
        String text = "address,hwaddr,client_id,valid_lifetime,expire,subnet_id,fqdn_fwd,fqdn_rev,hostname,state\n"
                + "10.40.8.12,02:4c:59:a1:00:03,,4000,1790000000,1,0,0,early,0\n"
                + "10.40.8.13,02:4c:59:a1:00:04,,4000,1790000000,1,0,0,gone,2\n";
        assertEquals(List.of("10.40.8.12 early 02:4c:59:a1:00:03 DHCP lease"), read(text));
    }

    @Tag("wording")
    @Test
    void boundsWhatItReads() {
        assertTrue(ExistingList.parse("x".repeat(4_000_001))
                .faults()
                .get(0)
                .reason()
                .contains("at most"));
        assertTrue(ExistingList.parse(" \n").faults().get(0).reason().contains("empty"));
        assertTrue(ExistingList.parse("address\n\"10.40.8.1")
                .faults()
                .get(0)
                .reason()
                .contains("never closed"));
    }
}
