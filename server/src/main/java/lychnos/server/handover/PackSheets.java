package lychnos.server.handover;

import java.time.Instant;
import java.time.temporal.ChronoUnit;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import lychnos.server.text.HandoverText;

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
            case "NOT_MEASURED" ->
                HandoverText.NOT_MEASURED.text(text(rung, "what"), (seen.isEmpty() ? "" : ": " + seen));
            default -> "";
        };
    }

    static PackPage.UnitSheet sheet(Read unit) {
        List<String> known = new ArrayList<>();
        unit.list("accepted")
                .forEach(each -> known.add(HandoverText.IS_INSTEAD_OF.text(
                        text(each, "endpoint"),
                        text(each, "what"),
                        text(each, "now"),
                        text(each, "before"),
                        (text(each, "reason").isEmpty() ? "" : ", " + text(each, "reason")),
                        text(each, "by"))));
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
                        how.add(HandoverText.CONSOLE_RECORDING_SHA256.text(text(each, "file"), text(each, "sha256"))));
        List<String> seen = new ArrayList<>();
        for (Map<String, Object> each : unit.list("endpoints")) {
            String rungs = list(each, "seen").stream()
                    .map(PackSheets::rung)
                    .filter(text -> !text.isEmpty())
                    .collect(Collectors.joining("; "));
            seen.add(text(each, "name") + " " + text(each, "address")
                    + (text(each, "from").isEmpty() ? "" : ", from " + text(each, "from")) + ". " + rungs);
            if (!text(each, "certificate").isEmpty()) {
                seen.add(HandoverText.CERTIFICATE_SHA256.text(
                        text(each, "certificate"),
                        (text(each, "firmware").isEmpty() ? "" : ", firmware " + text(each, "firmware"))));
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
                HandoverText.SIGNED_BY.text(unit.text("signedBy"), minute(unit.record.signedAt), unit.record.digest),
                List.of(
                        new PackPage.UnitList("Values sent", facts),
                        new PackPage.UnitList(HandoverText.HOW_IT_WAS_SET_UP.text(), how),
                        new PackPage.UnitList(HandoverText.WHAT_WAS_SEEN.text(), seen),
                        new PackPage.UnitList(HandoverText.KNOWN_AND_ACCEPTED.text(), known)));
    }

    static String minute(Instant at) {
        return at.truncatedTo(ChronoUnit.MINUTES).toString().replace('T', ' ').replaceAll(":00Z$|Z$", "");
    }
}
