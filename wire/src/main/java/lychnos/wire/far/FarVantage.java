package lychnos.wire.far;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.time.Duration;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;
import java.util.function.Consumer;
import java.util.function.LongFunction;
import lychnos.core.dialogue.LineSettings;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;

/**
 * A place in another network, as it is used from here: every call goes over its link and is carried out there. Where no
 * link stands, calls end with {@link WireFault.Kind#NO_VANTAGE}: that says nothing of the machine.
 */
public final class FarVantage {

    /** Longer than any call itself takes: its own timeout, and the way there and back. */
    private static final Duration MORE = Duration.ofSeconds(20);

    private final String name;
    private final Codec codec;
    private final Vantage view = new View();
    private final AtomicLong numbers = new AtomicLong();
    private final Map<Long, CompletableFuture<JsonNode>> waiting = new ConcurrentHashMap<>();
    private final Map<Long, FarLine> lines = new ConcurrentHashMap<>();
    private final Executor events;
    private volatile Link link;
    private volatile boolean hearsSilence = true;

    /** @param events carries out what lines tell, each line's one after the other */
    public FarVantage(String name, Codec codec, Executor events) {
        this.name = name;
        this.codec = codec;
        this.events = events;
    }

    /** The place as everything else sees it. */
    public Vantage vantage() {
        return view;
    }

    public String name() {
        return name;
    }

    /** Whether a link stands. */
    public boolean linked() {
        return link != null;
    }

    /** A link stands from now on; a line that was open over an older one is gone. */
    public void linked(Link to, boolean hears) {
        cut();
        hearsSilence = hears;
        link = to;
    }

    /** This link is cut; false where another one stands by now. */
    public boolean cut(Link which) {
        if (link != which) {
            return false;
        }
        cut();
        return true;
    }

    /** Nothing that was asked will be answered. */
    private void cut() {
        link = null;
        waiting.values().forEach(each -> each.completeExceptionally(noVantage(LinkText.CUT_OFF_MEANWHILE)));
        waiting.clear();
        lines.values().forEach(line -> line.down(LinkText.DISCONNECTED.text(name)));
        lines.clear();
    }

    private WireFault noVantage(LinkText what) {
        return new WireFault(WireFault.Kind.NO_VANTAGE, what.text(name));
    }

    /**
     * Asks the far side for something that is not a call of its vantage.
     *
     * @return completes with the answer; with a {@link WireFault} or a {@link TimeoutException} where none came
     */
    public CompletableFuture<JsonNode> ask(JsonNode what, Duration timeout) {
        return ask(number -> new LinkMessage.Ask(number, what), timeout);
    }

    private CompletableFuture<JsonNode> ask(LongFunction<LinkMessage> question, Duration timeout) {
        Link now = link;
        if (now == null) {
            return CompletableFuture.failedFuture(noVantage(LinkText.NOT_CONNECTED));
        }
        long number = numbers.incrementAndGet();
        CompletableFuture<JsonNode> answer = new CompletableFuture<>();
        waiting.put(number, answer);
        answer.orTimeout(timeout.toMillis(), TimeUnit.MILLISECONDS)
                .whenComplete((value, fault) -> waiting.remove(number));
        try {
            now.send(question.apply(number));
        } catch (IllegalStateException e) {
            answer.completeExceptionally(noVantage(LinkText.CUT_OFF));
        }
        return answer;
    }

    /** Tells the far side something that has no answer; lost where no link stands. */
    private void tell(LinkMessage message) {
        Link now = link;
        if (now != null) {
            try {
                now.send(message);
            } catch (IllegalStateException e) {
                // cut at this moment: the cut is reported to all lines
            }
        }
    }

    /** Takes in a message; false where it is none that belongs here. */
    public boolean heard(LinkMessage message) {
        if (message instanceof LinkMessage.Answer answer) {
            CompletableFuture<JsonNode> question = waiting.remove(answer.number());
            if (question != null) {
                question.complete(answer.value());
            }
        } else if (message instanceof LinkMessage.Failed failed) {
            CompletableFuture<JsonNode> question = waiting.remove(failed.number());
            if (question != null) {
                question.completeExceptionally(new WireFault(failed.kind(), failed.message()));
            }
        } else if (message instanceof LinkMessage.LineUp up) {
            line(up.line(), FarLine::up);
        } else if (message instanceof LinkMessage.LineOutput output) {
            line(output.line(), line -> line.received(output.bytes()));
        } else if (message instanceof LinkMessage.LineNoted noted) {
            line(noted.line(), line -> line.noted(noted.sentence()));
        } else if (message instanceof LinkMessage.HostKeyShown shown) {
            line(shown.line(), line -> line.hostKey(shown.fingerprint()));
        } else if (message instanceof LinkMessage.LineDown down) {
            line(down.line(), line -> line.down(down.why()));
            lines.remove(down.line());
        } else {
            return false;
        }
        return true;
    }

    private void line(long number, Consumer<FarLine> event) {
        FarLine line = lines.get(number);
        if (line != null) {
            event.accept(line);
        }
    }

    /** The vantage itself. */
    private final class View extends CalledVantage {

        @Override
        public String name() {
            return name;
        }

        @Override
        public boolean hearsSilence() {
            return hearsSilence;
        }

        @Override
        public String toString() {
            return name;
        }

        @Override
        @SuppressWarnings("unchecked") // the answer is read as what the call gives back
        <T> T carryOut(VantageCall<T> call) throws WireFault {
            try {
                JsonNode answer = ask(
                                number -> new LinkMessage.Call(number, call),
                                call.timeout().plus(MORE))
                        .get();
                return (T) codec.read(answer, call.answerType());
            } catch (ExecutionException e) {
                if (e.getCause() instanceof WireFault fault) {
                    throw new WireFault(fault.kind(), fault.getMessage(), fault);
                }
                throw new WireFault(
                        WireFault.Kind.UNKNOWN_OUTCOME, LinkText.NO_ANSWER_IN_TIME.text(name), e.getCause());
            } catch (IOException e) {
                throw new WireFault(WireFault.Kind.GARBAGE, LinkText.ANSWER_UNREADABLE.text(name, e.getMessage()), e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new WireFault(WireFault.Kind.UNKNOWN_OUTCOME, "interrupted", e);
            }
        }

        @Override
        public ConsoleLine line(LineAddress address, LineSettings settings, LineEvents to) throws WireFault {
            if (link == null) {
                throw noVantage(LinkText.NOT_CONNECTED);
            }
            FarLine line = new FarLine(numbers.incrementAndGet(), to);
            lines.put(line.number, line);
            tell(new LinkMessage.OpenLine(line.number, address, settings));
            return line;
        }
    }

    /** A line that is open there. What it tells is carried out in order, away from the thread that reads the link. */
    private final class FarLine implements ConsoleLine {
        private final long number;
        private final LineEvents to;
        private CompletableFuture<Void> last = CompletableFuture.completedFuture(null);

        FarLine(long number, LineEvents to) {
            this.number = number;
            this.to = to;
        }

        private synchronized void inOrder(Runnable event) {
            last = last.thenRunAsync(event, events);
        }

        void up() {
            inOrder(to::up);
        }

        void received(byte[] bytes) {
            inOrder(() -> to.received(bytes));
        }

        void noted(String sentence) {
            inOrder(() -> to.noted(sentence));
        }

        void hostKey(String fingerprint) {
            inOrder(() -> tell(new LinkMessage.HostKeyTrusted(number, to.hostKey(fingerprint))));
        }

        void down(String why) {
            inOrder(() -> to.down(why));
        }

        @Override
        public void send(byte[] bytes) {
            tell(new LinkMessage.LineInput(number, bytes));
        }

        @Override
        public void sendBreak() {
            tell(new LinkMessage.LineBreak(number));
        }

        @Override
        public void resize(int columns, int rows) {
            tell(new LinkMessage.LineSize(number, columns, rows));
        }

        @Override
        public void close() {
            lines.remove(number);
            tell(new LinkMessage.CloseLine(number));
        }
    }
}
