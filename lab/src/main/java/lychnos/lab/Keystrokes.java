package lychnos.lab;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * Counts what a person types and clicks for one unit of each kind, with this program and without. Without it: every
 * value once into a sheet and once at the machine, each name and each way back once for the name server; nothing for
 * looking whether it all answers. With it: every fact once, a key for what is proposed, and what the work stops for.
 * Nothing is taken as pasted in either.
 */
final class Keystrokes {

    /** Of a password that cannot be seen here: as long as those that are made. */
    private static final int PASSWORD = 16;

    private static final String RECORD = "update add  3600 A ";
    private static final int RECORDS_BOTH_WAYS = 2;

    private final Map<String, List<String>> facts = new HashMap<>();
    private int units;
    private int sheet;
    private int machine;
    private int records;
    private int given;
    private int decided;

    /** @param csv the sheet of facts: its first two columns are unit and member */
    Keystrokes(String csv) {
        csv.lines().skip(1).forEach(line -> {
            List<String> cells = List.of(line.split(",", -1));
            facts.computeIfAbsent(cells.get(0), none -> new java.util.ArrayList<>())
                    .addAll(cells.subList(2, cells.size()).stream()
                            .filter(cell -> !cell.isBlank())
                            .toList());
        });
    }

    /** Counts the first unit of each kind that was set up at a bench. */
    void count(Story person, JsonNode handover, Hands hands) throws IOException, InterruptedException {
        Set<String> kinds = new HashSet<>();
        for (JsonNode unit : handover.path("units")) {
            JsonNode bench = person.get("/api/units/" + unit.path("unitId").asLong() + "/bench");
            if (!bench.path("members").isEmpty() && kinds.add(unit.path("kind").asText()) && units < 9) {
                units++;
                one(bench, handover, unit.path("unitId").asLong(), hands);
            }
        }
    }

    private void one(JsonNode bench, JsonNode handover, long unit, Hands hands) {
        int facts = this.facts.getOrDefault(bench.path("name").asText(), List.of()).stream()
                .mapToInt(value -> value.length() + 1)
                .sum();
        sheet += facts;
        given += facts;
        for (JsonNode line : handover.path("lines")) {
            if (line.path("unitId").asLong() == unit) {
                int name = line.path("name").asText().length();
                int address = line.path("address").asText().length();
                sheet += name + address + 2;
                records += RECORDS_BOTH_WAYS * (RECORD.length() + name + address + 1);
            }
        }
        for (JsonNode member : bench.path("members")) {
            for (JsonNode step : member.path("steps")) {
                machine += typed(step.path("answer").asText());
                for (JsonNode field : step.path("fields")) {
                    machine += typed(field.asText());
                }
            }
            decided += hands.typedAt(member.path("dialogueId").asLong());
        }
        // to open it and to begin it, to take its addresses and to send its names, to sign it
        decided += 5;
    }

    private static int typed(String value) {
        return value.isEmpty() ? 0 : (value.startsWith("•") ? PASSWORD : value.length()) + 1;
    }

    String told() {
        int without = sheet + machine + records;
        int with = given + decided;
        return String.format(
                java.util.Locale.ROOT,
                "one unit of each of %d kinds, keys and clicks: %,d with a sheet and a terminal (%,d into the sheet, "
                        + "%,d at the machines, %,d for the name server);%n       %,d here (%,d facts, %,d to "
                        + "decide), %.2f of that",
                units,
                without,
                sheet,
                machine,
                records,
                with,
                given,
                decided,
                (double) with / without);
    }
}
