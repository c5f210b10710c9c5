package lychnos.e2e;

import java.util.LinkedHashMap;
import java.util.Map;

/** What is known of the machines of {@link KindsJourneyTest}. */
final class KindsFacts {

    /** What is known of each, by member, as the fact sheet calls it. */
    static final Map<String, Map<String, String>> ALL = new LinkedHashMap<>();

    private static void fact(String unit, String member, String... titlesAndValues) {
        Map<String, String> row = ALL.computeIfAbsent(unit + "," + member, key -> new LinkedHashMap<>());
        for (int i = 0; i < titlesAndValues.length; i += 2) {
            row.put(titlesAndValues[i], titlesAndValues[i + 1]);
        }
    }

    static {
        String serial = "serial";
        String mac = "MAC address";
        String place = "location";
        String line = "console line";
        fact(
                "kin-iog-1",
                "",
                serial,
                "KI-1",
                mac,
                "02:4c:59:e7:01:01",
                place,
                "R1 u1",
                line,
                "6101",
                "fabric",
                "compute",
                "subnet manager priority",
                "15");
        fact("kin-bch-1", "bay 1", serial, "KC-1", mac, "02:4c:59:e7:02:01", place, "R1 u3", line, "6102");
        fact("kin-bch-1", "bay 2", mac, "02:4c:59:e7:02:02", line, "6103");
        fact(
                "kin-fil-1",
                "",
                serial,
                "KF-1",
                mac,
                "02:4c:59:e7:03:01",
                place,
                "R1 u13",
                line,
                "6104",
                "data VLAN",
                "409",
                "directory",
                "10.40.8.21",
                "account that joins",
                "joins-arrays");
        fact(
                "kin-fil-1",
                "",
                "password on its card",
                "ferry-hazel-31-loft",
                "password of the account that joins",
                "peat-and-heather-2",
                "group that may manage",
                "storage-team",
                "directory account",
                "night-visitor",
                "password of the directory account",
                "over-the-fell-9");
        fact(
                "kin-fil-1",
                "",
                "mail sender",
                "files@ardal.example",
                "mail recipient",
                "operations@ardal.example",
                "group that may only read",
                "storage-readers",
                "directory account that may only read",
                "day-visitor",
                "password of the account that may only read",
                "under-the-fell-3");
        fact("kin-srh-001-oob", "", serial, "KU-1", mac, "02:4c:59:e7:04:01", place, "R1 u16", line, "6105");
        fact(
                "kin-air-1",
                "",
                serial,
                "KM-1",
                "virtualisation host",
                "hv-11",
                "line port",
                "6103",
                "image file",
                "mungris-air.img",
                "image size",
                "4 GiB",
                "directory",
                "10.40.8.21",
                "licence of the radios",
                "K8-AIR-KIN-51",
                "image digest",
                "sha256:" + "5d".repeat(32));
        fact(
                "kin-lbc-1",
                "",
                serial,
                "KL-1",
                "virtualisation host",
                "hv-11",
                "line port",
                "6104",
                "image file",
                "crummock-console.qcow2",
                "image size",
                "4 GiB",
                "image digest",
                "sha256:" + "6d".repeat(32),
                "SSH only from",
                "10.40.0.0/16");
        fact("kin-air-1", "", "DHCP server for clients", "10.40.8.22", "roaming group", "ardal-air");
        fact(
                "kin-blk-1",
                "controller a",
                serial,
                "KB-1",
                mac,
                "02:4c:59:e7:06:01",
                place,
                "R1 u18",
                line,
                "6106",
                "federation name",
                "ardal-blocks",
                "data VLAN",
                "409",
                "licence key",
                "K7-ARD-118");
        fact(
                "kin-blk-1",
                "controller a",
                "mail sender",
                "arrays@ardal.example",
                "mail recipient",
                "operations@ardal.example",
                "proxy",
                "yes");
        fact("kin-blk-1", "controller b", mac, "02:4c:59:e7:06:02", line, "6107");
        fact(
                "kin-idx-1",
                "",
                serial,
                "KH-1",
                mac,
                "02:4c:59:e7:07:01",
                place,
                "R1 u22",
                "mail sender",
                "index@ardal.example",
                "mail recipient",
                "operations@ardal.example");
        fact(
                "kin-obj-1",
                "node 1",
                serial,
                "KS-1",
                "controller's MAC address",
                "02:4c:59:e7:08:01",
                "controller's password",
                "tag-of-the-first",
                place,
                "R1 u24",
                "cluster name",
                "ardal-backup");
        fact(
                "kin-obj-1",
                "node 2",
                serial,
                "KS-2",
                "controller's MAC address",
                "02:4c:59:e7:08:08",
                "controller's password",
                "tag-of-the-second",
                place,
                "R1 u26");
    }

    private KindsFacts() {}
}
