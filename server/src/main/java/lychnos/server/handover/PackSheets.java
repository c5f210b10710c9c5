package lychnos.server.handover;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;

/** What the printed pack says of each unit, from its signed record. */
final class PackSheets {

    private PackSheets() {}

    /** A record as it was signed, read again. */
    record Read(SignedRecord record, Map<String, Object> body) {

        String text(String name) {
            return PackSheets.text(body, name);
        }

        List<Map<String, Object>> list(String name) {
            return PackSheets.list(body, name);
        }
    }

    static String text(Map<String, Object> of, String name) {
        Object value = of.get(name);
        return value == null ? "" : value.toString();
    }

    @SuppressWarnings("unchecked")
    static List<Map<String, Object>> list(Map<String, Object> of, String name) {
        return of.get(name) instanceof List<?> list ? (List<Map<String, Object>>) list : List.of();
    }

    static List<PackPage.EndpointLine> lines(List<Read> signed) {
        List<PackPage.EndpointLine> lines = new ArrayList<>();
        for (Read unit : signed) {
            for (Map<String, Object> each : unit.list("endpoints")) {
                String certificate = text(each, "certificate");
                lines.add(new PackPage.EndpointLine(
                        unit.text("unit"),
                        text(each, "name"),
                        text(each, "role"),
                        text(each, "address"),
                        text(each, "serial"),
                        certificate.isEmpty() ? "" : certificate.substring(0, 12) + "…",
                        text(each, "provenAt").isEmpty() ? "" : minute(Instant.parse(text(each, "provenAt")))));
            }
        }
        return lines;
    }

    static String rung(Map<String, Object> rung) {
        String seen = text(rung, "seen");
        return switch (text(rung, "standing")) {
            case "HOLDS" -> seen.isEmpty() ? "" : text(rung, "what") + ": " + seen;
            case "NOT_MEASURED" -> text(rung, "what") + " not measured" + (seen.isEmpty() ? "" : ": " + seen);
            default -> "";
        };
    }

    static PackPage.UnitSheet sheet(Read unit) {
        List<String> known = new ArrayList<>();
        unit.list("accepted")
                .forEach(each -> known.add(text(each, "endpoint") + ", " + text(each, "what") + ": " + text(each, "now")
                        + " instead of " + text(each, "before")
                        + (text(each, "reason").isEmpty() ? "" : ", " + text(each, "reason")) + " (" + text(each, "by")
                        + ")"));
        unit.list("items").stream()
                .filter(each -> !text(each, "unit").isEmpty())
                .forEach(each -> known.add(text(each, "text") + ", due " + text(each, "due") + ": "
                        + text(each, "reason") + " (" + text(each, "lead") + ")"));
        List<String> how = new ArrayList<>();
        unit.list("journal")
                .forEach(each -> how.add(minute(Instant.parse(text(each, "at"))) + "  " + text(each, "actor") + " "
                        + text(each, "act")));
        unit.list("recordings")
                .forEach(each ->
                        how.add("Console recording " + text(each, "file") + ", sha256 " + text(each, "sha256")));
        List<String> seen = new ArrayList<>();
        for (Map<String, Object> each : unit.list("endpoints")) {
            String rungs = list(each, "seen").stream()
                    .map(PackSheets::rung)
                    .filter(text -> !text.isEmpty())
                    .collect(Collectors.joining("; "));
            seen.add(text(each, "name") + " " + text(each, "address")
                    + (text(each, "from").isEmpty() ? "" : ", from " + text(each, "from")) + ". " + rungs);
            if (!text(each, "certificate").isEmpty()) {
                seen.add("Certificate sha256 " + text(each, "certificate")
                        + (text(each, "firmware").isEmpty() ? "" : ", firmware " + text(each, "firmware")));
            }
        }
        List<String> facts = unit.list("facts").stream()
                .map(each -> (text(each, "member").isEmpty() ? "" : text(each, "member") + ", ") + text(each, "title")
                        + ": " + text(each, "value"))
                .toList();
        String place = unit.text("place");
        return new PackPage.UnitSheet(
                unit.text("unit"),
                unit.text("kindTitle")
                        + (place.isEmpty() ? "" : ", " + place)
                        + (unit.text("serial").isEmpty() ? "" : ", serial " + unit.text("serial")),
                "Signed by " + unit.text("signedBy") + " on " + minute(unit.record.signedAt) + ", record "
                        + unit.record.digest,
                List.of(
                        new PackPage.UnitList("Values sent", facts),
                        new PackPage.UnitList("How it was set up", how),
                        new PackPage.UnitList("What was seen", seen),
                        new PackPage.UnitList("Known and accepted", known)));
    }

    static String minute(Instant at) {
        return at.truncatedTo(ChronoUnit.MINUTES).toString().replace('T', ' ').replaceAll(":00Z$|Z$", "");
    }
}
