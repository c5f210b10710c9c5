package lychnos.server.jobs;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.ArrayList;
import java.util.List;
import org.junit.jupiter.api.Test;

class InOrderTest {

    private final List<Runnable> pool = new ArrayList<>();
    private final InOrder inOrder = new InOrder(pool::add);
    private final List<String> done = new ArrayList<>();

    private void run() {
        while (!pool.isEmpty()) {
            pool.remove(0).run();
        }
    }

    @Test
    void whatIsUrgentGoesToTheFront() {
        inOrder.add(() -> done.add("first"));
        inOrder.add(() -> done.add("second"));
        inOrder.addFirst(() -> done.add("urgent"));
        assertEquals(1, pool.size(), "one thread at a time");
        run();
        assertEquals(List.of("urgent", "first", "second"), done);
    }

    @Test
    void whatFailsDoesNotHoldUpTheRest() {
        inOrder.add(() -> {
            throw new IllegalStateException("not now");
        });
        inOrder.add(() -> {
            throw new StackOverflowError("a pattern that goes too deep");
        });
        inOrder.add(() -> done.add("next"));
        run();
        inOrder.add(() -> done.add("later"));
        run();
        assertEquals(List.of("next", "later"), done);
    }
}
