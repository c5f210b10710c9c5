package lychnos.core.order;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertFalse;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Random;
import lychnos.core.Rounds;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RoundOrderTest {

    private static final Map<Character, RunState> STATES = Map.of(
            'w',
            RunState.WAITING,
            'r',
            RunState.RUNNING,
            'd',
            RunState.DONE,
            's',
            RunState.STOPPED,
            'c',
            RunState.CANCELLED,
            'a',
            RunState.SET_ASIDE);

    @ParameterizedTest
    @CsvSource({
        "wwww, 0, FIRST_GOES_ALONE",
        "rwww, '', FIRST_GOES_ALONE",
        "dwww, 1 2 3, NONE",
        "dwwwww, 1 2 3, ENOUGH_AT_ONCE",
        "drrwww, 3, ENOUGH_AT_ONCE",
        "drrrww, '', ENOUGH_AT_ONCE",
        "swww, '', SURPRISE",
        "drsww, '', SURPRISE",
        "awww, 1, FIRST_GOES_ALONE",
        "daww, 2 3, NONE",
        "dddd, '', NONE",
        "cccc, '', NONE",
        "dwcw, 1 3, NONE",
    })
    void decides(String states, String start, String hold) {
        RoundOrder.Decision decision = RoundOrder.decide(read(states), 3);
        assertEquals(
                Arrays.stream(start.split(" "))
                        .filter(word -> !word.isEmpty())
                        .map(Integer::valueOf)
                        .toList(),
                decision.start());
        assertEquals(hold, decision.hold().name());
    }

    private static List<RunState> read(String states) {
        return new ArrayList<>(
                states.chars().mapToObj(c -> STATES.get((char) c)).toList());
    }

    /**
     * Plays rounds with random ends: nothing runs beside the first, never more than so many run, nothing starts after a
     * surprise.
     */
    @Test
    void holdsItsPromisesInEveryPlay() {
        for (int seed = 0; seed < Rounds.of(300); seed++) {
            Random random = new Random(seed);
            List<RunState> states = read("w".repeat(1 + random.nextInt(12)));
            int width = 1 + random.nextInt(4);
            while (true) {
                List<Integer> start = RoundOrder.decide(states, width).start();
                assertTrue(start.isEmpty() || !states.contains(RunState.STOPPED));
                start.forEach(i -> states.set(i, RunState.RUNNING));
                List<Integer> running = new ArrayList<>();
                for (int i = 0; i < states.size(); i++) {
                    if (states.get(i) == RunState.RUNNING) {
                        running.add(i);
                    }
                }
                assertTrue(running.size() <= (states.contains(RunState.DONE) ? width : 1));
                if (running.isEmpty()) {
                    break;
                }
                states.set(
                        running.get(random.nextInt(running.size())),
                        random.nextInt(10) == 0 ? RunState.STOPPED : RunState.DONE);
            }
            assertTrue(
                    states.contains(RunState.STOPPED) || !states.contains(RunState.WAITING),
                    "a round without surprise ends");
        }
    }

    @Test
    void doneIsTakenUpAgainOnlyForWhatWasLeftForLater() {
        for (RunState next : RunState.values()) {
            assertEquals(next == RunState.WAITING, RunState.DONE.mayBecome(next), next.name());
        }
        assertTrue(RunState.STOPPED.mayBecome(RunState.WAITING));
        assertFalse(RunState.WAITING.mayBecome(RunState.DONE));
    }
}
