package lychnos.wire.console;

import static org.junit.jupiter.api.Assertions.assertAll;
import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertNotNull;
import static org.junit.jupiter.api.Assertions.assertNull;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.lab.console.ConsoleSpec;
import lychnos.lab.console.Habit;
import org.junit.jupiter.api.Test;

/**
 * The shipped dialogues against the stand-in machines, over RFC 2217: the plain path, and what is said when it is left.
 */
class MisbehaviourTest extends LinesStage {

    /**
     * What a machine does and the result.
     *
     * @param why what the tool must hold for; null where it must reach its end anyway
     * @param part of what the tool must say beyond that: what the machine showed
     */
    private record Row(String model, Habit habit, Why why, String part) {}

    private static final List<Row> TABLE = List.of(
            new Row("orrel", Habit.WRONG_DEFAULT, null, ""),
            new Row("orrel", Habit.ORDER_CHANGED, null, ""),
            new Row("orrel", Habit.EXTRA_QUESTION, Why.UNFORESEEN, ""),
            new Row("orrel", Habit.REFUSED_ANSWER, Why.REFUSED, "that is not beside the address"),
            new Row("orrel", Habit.GARBAGE, null, ""),
            new Row("orrel", Habit.SLOW, null, ""),
            new Row("orrel", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("orrel", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("orrel", Habit.PEER_NOT_SEEN, Why.OVERDUE, "both pair"),
            new Row("orrel", Habit.ECHO_OFF, null, ""),
            new Row("orrel", Habit.CHATTER, null, ""),
            new Row("orrel", Habit.LINE_CUT, null, ""),
            new Row("orrel", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("orrel", Habit.USED, Why.USED, ""),
            new Row("orrel", Habit.ASKS_AGAIN, Why.REFUSED, ""),
            new Row("sallow", Habit.WRONG_DEFAULT, null, ""),
            new Row("sallow", Habit.ORDER_CHANGED, null, ""),
            new Row("sallow", Habit.EXTRA_QUESTION, Why.UNFORESEEN, ""),
            new Row("sallow", Habit.REFUSED_ANSWER, Why.REFUSED, "not in the network of the node"),
            new Row("sallow", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("sallow", Habit.CHATTER, null, ""),
            new Row("greenup", Habit.WRONG_DEFAULT, null, ""),
            new Row("greenup", Habit.LITTLE_MEMORY, Why.DIFFERS, "16"),
            new Row("greenup", Habit.REFUSED_ANSWER, Why.REFUSED, "not in the network of the address"),
            new Row("greenup", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("brathay", Habit.WRONG_DEFAULT, null, ""),
            new Row("brathay", Habit.ORDER_CHANGED, null, ""),
            new Row("brathay", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "cold aisle side"),
            new Row("brathay", Habit.REFUSED_ANSWER, Why.REFUSED, "no router in the network"),
            new Row("brathay", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199"),
            new Row("brathay", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("brathay", Habit.LETS_FACTORY_IN, Why.LET_IN, "brathay$"),
            new Row("brathay", Habit.CHATTER, null, ""),
            new Row("brathay", Habit.ECHO_OFF, null, ""),
            new Row("brathay", Habit.USED, Why.USED, ""),
            new Row("brathay", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("skeggle", Habit.ORDER_CHANGED, null, ""),
            new Row("skeggle", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "shelves with a lit lamp"),
            new Row("skeggle", Habit.REFUSED_ANSWER, Why.REFUSED, "is not in that network"),
            new Row("skeggle", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("skeggle", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("skeggle", Habit.CHATTER, null, ""),
            new Row("skeggle", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("skeggle", Habit.LINE_CUT, null, ""),
            new Row("wythop", Habit.STANDS_BY, Why.STANDBY, "standby"),
            new Row("wythop", Habit.WRONG_DEFAULT, Why.DIFFERS, "10.40.8.77"),
            new Row("wythop", Habit.REFUSED_ANSWER, Why.REFUSED, "no such router"),
            new Row("wythop", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("wythop", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("wythop", Habit.PEER_NOT_SEEN, Why.DIFFERS, ""),
            new Row("wythop", Habit.USED, Why.USED, ""),
            new Row("wythop", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("wythop", Habit.CHATTER, null, ""),
            new Row("ullock", Habit.ORDER_CHANGED, Why.DIFFERS, "network of the controller"),
            new Row("ullock", Habit.WRONG_DEFAULT, null, ""),
            new Row("ullock", Habit.REFUSED_ANSWER, Why.REFUSED, "no such hop"),
            new Row("ullock", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("ullock", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("mungris", Habit.WRONG_DEFAULT, null, ""),
            new Row("mungris", Habit.ORDER_CHANGED, null, ""),
            new Row("mungris", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "antenna gain"),
            new Row("mungris", Habit.REFUSED_ANSWER, Why.REFUSED, "outside of the network of the address"),
            new Row("mungris", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199"),
            new Row("mungris", Habit.USED, Why.USED, ""),
            new Row("mungris", Habit.CHATTER, null, ""),
            new Row("rossett", Habit.ORDER_CHANGED, null, ""),
            new Row("rossett", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "vault colour"),
            new Row("rossett", Habit.REFUSED_ANSWER, Why.REFUSED, "outside of the network"),
            new Row("rossett", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("rossett", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("rossett", Habit.USED, Why.USED, ""),
            new Row("rossett", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("rossett", Habit.CHATTER, null, ""),
            new Row("rosthwaite", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "colour of the fleet"),
            new Row("rosthwaite", Habit.REFUSED_ANSWER, Why.REFUSED, "not in the network"),
            new Row("rosthwaite", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("rosthwaite", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("rosthwaite", Habit.USED, Why.USED, ""),
            new Row("rosthwaite", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("loweswater", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "tagged by whom"),
            new Row("loweswater", Habit.REFUSED_ANSWER, Why.REFUSED, "outside of the network"),
            new Row("loweswater", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("loweswater", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("loweswater", Habit.LETS_FACTORY_IN, Why.LET_IN, "lw:"),
            new Row("loweswater", Habit.USED, Why.USED, ""),
            new Row("loweswater", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("loweswater", Habit.CHATTER, null, ""),
            new Row("ennerdale", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "flavour of the hash"),
            new Row("ennerdale", Habit.REFUSED_ANSWER, Why.REFUSED, "outside of the network"),
            new Row("ennerdale", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("ennerdale", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("ennerdale", Habit.USED, Why.USED, ""),
            new Row("ennerdale", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("ennerdale", Habit.CHATTER, null, ""),
            new Row("crummock", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "colour of its door"),
            new Row("crummock", Habit.REFUSED_ANSWER, Why.REFUSED, "outside of the network"),
            new Row("crummock", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("crummock", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("crummock", Habit.USED, Why.USED, ""),
            new Row("crummock", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("crummock", Habit.CHATTER, null, ""),
            new Row("buttermere", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "colour are its books"),
            new Row("buttermere", Habit.REFUSED_ANSWER, Why.REFUSED, "outside of the network"),
            new Row("buttermere", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("buttermere", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("buttermere", Habit.USED, Why.USED, ""),
            new Row("buttermere", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("buttermere", Habit.CHATTER, null, ""),
            new Row("ullscarf", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "colour of the fell"),
            new Row("ullscarf", Habit.REFUSED_ANSWER, Why.REFUSED, "outside of the network"),
            new Row("ullscarf", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("ullscarf", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("ullscarf", Habit.USED, Why.USED, ""),
            new Row("ullscarf", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("ullscarf", Habit.CHATTER, null, ""),
            new Row("dunmail", Habit.REFUSED_ANSWER, Why.REFUSED, "in another network"),
            new Row("dunmail", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("dunmail", Habit.KEEPS_LEFTOVER, Why.DIFFERS, "10.47.250.1/24"),
            new Row("dunmail", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("dunmail", Habit.USED, Why.USED, ""),
            new Row("dunmail", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("dunmail", Habit.LINE_CUT, null, ""),
            new Row("dunmail", Habit.CHATTER, null, ""),
            new Row("bannisdale", Habit.ORDER_CHANGED, null, ""),
            new Row("bannisdale", Habit.EXTRA_QUESTION, Why.UNFORESEEN, "Which aisle hears its fans"),
            new Row("bannisdale", Habit.REFUSED_ANSWER, Why.REFUSED, "no such hop"),
            new Row("bannisdale", Habit.OLD_ADDRESS, Why.DIFFERS, "127.40.9.199/24"),
            new Row("bannisdale", Habit.NEVER_RETURNS, Why.OVERDUE, ""),
            new Row("bannisdale", Habit.PEER_NOT_SEEN, Why.DIFFERS, ""),
            new Row("bannisdale", Habit.STANDS_BY, Why.STANDBY, "stand-by"),
            new Row("bannisdale", Habit.USED, Why.USED, ""),
            new Row("bannisdale", Habit.OTHER_SERIAL, Why.WRONG_MACHINE, ""),
            new Row("bannisdale", Habit.LINE_CUT, null, ""),
            new Row("bannisdale", Habit.CHATTER, null, ""));
    /** Models whose second member is one of the same. */
    private static final Map<String, String> PAIRED = Map.of("wythop", "wythop", "bannisdale", "bannisdale");

    /**
     * So many at once: machines keep time, and on a busy processor more of them would be slow besides what is wrong
     * with each.
     */
    private static final int AT_ONCE = 15;

    /** Each with a machine and an engineer of its own. */
    @Test
    void everyMisbehaviourIsNoticedAndSaid() throws Exception {
        List<org.junit.jupiter.api.function.Executable> verdicts = new ArrayList<>();
        for (int from = 0; from < TABLE.size(); from += AT_ONCE) {
            verdicts.addAll(verdicts(from, Math.min(TABLE.size(), from + AT_ONCE)));
        }
        assertAll(verdicts);
    }

    private List<org.junit.jupiter.api.function.Executable> verdicts(int from, int to) throws Exception {
        List<ConsoleSpec> specs = new ArrayList<>();
        for (int i = from; i < to; i++) {
            Row row = TABLE.get(i);
            specs.add(spec(row.model, 10 + i - from, Planned.firstPlace(row.model), row.habit));
            specs.add(spec(
                    PAIRED.getOrDefault(row.model, "orrel"),
                    110 + i - from,
                    PAIRED.containsKey(row.model) ? "2" : "right"));
        }
        power(specs.toArray(ConsoleSpec[]::new));
        List<Engineer> engineers = new ArrayList<>();
        for (int i = from; i < to; i++) {
            engineers.add(begin(TABLE.get(i), specs.get(2 * (i - from)), specs.get(2 * (i - from) + 1)));
        }
        Instant late = Instant.now().plusSeconds(90);
        List<org.junit.jupiter.api.function.Executable> verdicts = new ArrayList<>();
        for (int i = from; i < to; i++) {
            Row row = TABLE.get(i);
            String serial = specs.get(2 * (i - from)).serial();
            try {
                judge(
                        row,
                        serial,
                        engineers
                                .get(i - from)
                                .end(Math.max(
                                        1, Duration.between(Instant.now(), late).toSeconds())));
            } catch (AssertionError wrong) {
                verdicts.add(() -> {
                    throw wrong;
                });
            }
        }
        closeAll();
        return verdicts;
    }

    /** A hundred pairs; every fifth of the left ones misbehaves, and stands in nobody else's way. */
    @Test
    void twoHundredLinesAtOnceOfWhichATenthMisbehaves() throws Exception {
        List<Row> odd = TABLE.stream()
                .filter(row -> row.model.equals("orrel")
                        && !Set.of(Habit.SLOW, Habit.PEER_NOT_SEEN).contains(row.habit))
                .toList();
        Map<Integer, Row> rows = new java.util.TreeMap<>();
        List<ConsoleSpec> specs = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            Row row = i % 5 == 4 ? odd.get(i / 5 % odd.size()) : null;
            rows.put(i, row == null ? new Row("orrel", null, null, "") : row);
            specs.add(numbered(i, "left", row == null ? new Habit[0] : new Habit[] {row.habit}));
            specs.add(numbered(i, "right"));
        }
        power(specs.toArray(ConsoleSpec[]::new));
        List<Engineer> lefts = new ArrayList<>();
        List<Engineer> rights = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            Why why = rows.get(i).why;
            Engineer right = engineer(specs.get(2 * i + 1));
            Engineer left = engineer(
                            specs.get(2 * i), why == Why.USED || why == Why.OVERDUE ? new Why[] {why} : new Why[0])
                    .with(right);
            rights.add(right.begin());
            lefts.add(left.begin());
        }
        Instant late = Instant.now().plusSeconds(90);
        List<org.junit.jupiter.api.function.Executable> verdicts = new ArrayList<>();
        for (int i = 0; i < 100; i++) {
            Row row = rows.get(i);
            int pair = i;
            verdicts.add(() -> {
                judge(
                        row,
                        specs.get(2 * pair).serial(),
                        lefts.get(pair)
                                .end(Math.max(
                                        1, Duration.between(Instant.now(), late).toSeconds())));
                if (row.why == null) {
                    assertNull(
                            rights.get(pair)
                                    .end(Math.max(
                                            1,
                                            Duration.between(Instant.now(), late)
                                                    .toSeconds())),
                            () -> "the right one of pair " + pair);
                    assertEquals("yes", hall.kept(specs.get(2 * pair + 1).serial(), "paired"), row::toString);
                }
            });
        }
        assertEquals(20, rows.values().stream().filter(row -> row.habit != null).count());
        assertAll(verdicts);
    }

    private static ConsoleSpec numbered(int pair, String place, Habit... habits) {
        int number = 2 * pair + (place.equals("left") ? 1 : 2);
        return new ConsoleSpec(
                "orrel",
                "TH-" + number,
                String.format("02:4c:59:d9:00:%02x", number),
                5000 + number,
                "pair " + pair,
                place,
                "-",
                Set.copyOf(List.of(habits)));
    }

    private Engineer begin(Row row, ConsoleSpec odd, ConsoleSpec right) {
        boolean stops = row.why == Why.USED || row.why == Why.OVERDUE;
        Engineer engineer = engineer(odd, stops ? new Why[] {row.why} : new Why[0]);
        if (row.model.equals("orrel") && row.why == null || PAIRED.containsKey(row.model)) {
            Engineer atRight = engineer(right);
            engineer.with(atRight);
            atRight.begin();
        }
        return engineer.begin();
    }

    private void judge(Row row, String serial, Hold hold) {
        if (row.why == null) {
            assertNull(hold, row + ": " + hold);
            assertEquals(Planned.refusedLogins(row.model), hall.kept(serial, "seen.refusedLogins"), row::toString);
            assertEquals("1", hall.kept(serial, "seen.phraseChanges"), row::toString);
        } else {
            assertNotNull(hold, row + ": it went on to its end");
            assertEquals(row.why, hold.why(), row + ": " + hold);
            assertTrue((hold.sentence() + hold.shown()).contains(row.part), row + ": " + hold);
        }
    }
}
