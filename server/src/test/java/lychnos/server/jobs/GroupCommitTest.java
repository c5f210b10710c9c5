package lychnos.server.jobs;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import java.util.stream.IntStream;
import lychnos.server.jobs.GroupCommit.Outcome;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.Timeout;

@Timeout(60)
class GroupCommitTest {

    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final List<List<String>> transactions = Collections.synchronizedList(new ArrayList<>());
    private final CountDownLatch firstIsWriting = new CountDownLatch(1);
    private final CountDownLatch letFirstEnd = new CountDownLatch(1);

    /** An item named lost belongs to another server; one that contains bad fails its transaction. */
    private final GroupCommit<String, String> commits =
            new GroupCommit<>(3, item -> item.startsWith("alone"), this::transaction);

    @AfterEach
    void stop() {
        threads.shutdownNow();
    }

    private List<Outcome<String>> transaction(List<String> items) {
        transactions.add(items);
        if (items.contains("first")) {
            firstIsWriting.countDown();
            await(letFirstEnd);
        }
        if (items.stream().anyMatch(item -> item.contains("bad"))) {
            throw new IllegalArgumentException("bad item among " + items);
        }
        return items.stream()
                .map(item ->
                        item.equals("lost") ? Outcome.<String>lost("taken over") : Outcome.written(item + " written"))
                .toList();
    }

    private static void await(CountDownLatch latch) {
        try {
            latch.await();
        } catch (InterruptedException e) {
            throw new IllegalStateException(e);
        }
    }

    /** Hands in the first, and the others while it is being written, each of a thread of its own. */
    private List<Future<String>> commitWhileTheFirstIsWritten(String... items) throws Exception {
        List<Future<String>> futures = new ArrayList<>();
        futures.add(threads.submit(() -> commits.commit("first")));
        await(firstIsWriting);
        for (String item : items) {
            CompletableFuture<Thread> thread = new CompletableFuture<>();
            futures.add(threads.submit(() -> {
                thread.complete(Thread.currentThread());
                return commits.commit(item);
            }));
            Thread committing = thread.get();
            while (committing.getState() != Thread.State.WAITING) { // queued, and waiting for the lock
                Thread.onSpinWait();
            }
        }
        letFirstEnd.countDown();
        return futures;
    }

    @Test
    void whatComesWhileOneIsWrittenGoesTogetherInItsOrder() throws Exception {
        List<Future<String>> futures = commitWhileTheFirstIsWritten("a", "b", "c", "d", "e");
        assertEquals("first written", futures.get(0).get());
        assertEquals("e written", futures.get(5).get());
        assertEquals(List.of(List.of("first"), List.of("a", "b", "c"), List.of("d", "e")), transactions);
    }

    @Test
    void oneThatMustBeAloneIs() throws Exception {
        for (Future<String> each : commitWhileTheFirstIsWritten("a", "alone", "b", "c")) {
            each.get();
        }
        assertEquals(List.of(List.of("first"), List.of("a"), List.of("alone"), List.of("b", "c")), transactions);
    }

    @Test
    void aBadOneHarmsNoOther() throws Exception {
        List<Future<String>> futures = commitWhileTheFirstIsWritten("a", "bad", "b");
        assertEquals("a written", futures.get(1).get());
        assertEquals("b written", futures.get(3).get());
        ExecutionException fault =
                assertThrows(ExecutionException.class, () -> futures.get(2).get());
        assertEquals("bad item among [bad]", fault.getCause().getMessage());
    }

    @Test
    void oneThatAnotherServerHasTakenOverIsToldSo() throws Exception {
        List<Future<String>> futures = commitWhileTheFirstIsWritten("a", "lost", "b");
        ExecutionException lost =
                assertThrows(ExecutionException.class, () -> futures.get(2).get());
        assertTrue(lost.getCause() instanceof HoldLost, lost::toString);
        assertEquals("b written", futures.get(3).get());
    }

    @Test
    void nothingIsForgottenWhenManyWriteAtOnce() throws Exception {
        List<Future<String>> futures = IntStream.range(0, 2_000)
                .mapToObj(i -> threads.submit(() -> commits.commit("item " + i)))
                .toList();
        letFirstEnd.countDown();
        for (int i = 0; i < futures.size(); i++) {
            assertEquals("item " + i + " written", futures.get(i).get());
        }
        assertEquals(2_000, transactions.stream().mapToInt(List::size).sum());
    }

    @Test
    void aTransactionThatForgetsAnItemIsAFault() {
        GroupCommit<String, String> forgetful = new GroupCommit<>(9, item -> false, items -> List.of());
        assertThrows(IllegalStateException.class, () -> forgetful.commit("a"));
    }
}
