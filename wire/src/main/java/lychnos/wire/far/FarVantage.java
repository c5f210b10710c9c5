package lychnos.wire.far;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.lang.reflect.InvocationHandler;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.time.Duration;
import java.util.Arrays;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.concurrent.atomic.AtomicLong;
import lychnos.core.dialogue.LineSettings;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpCall;
import lychnos.wire.vantage.Vantage;

/**
 * A place in another network, as it is used from here: every call goes over its link as {@code {"call": number, "do":
 * name, "with":
 * arguments}} and comes back as {@code {"answer": number, "value": …}} or with a {@code fault}. Where no link stands,
 * calls end with {@link WireFault.Kind#NO_VANTAGE}: that says nothing of the machine.
 */
public final class FarVantage implements InvocationHandler {

    /** Longer than any call itself takes: its own time-out, and the way there and back. */
    private static final Duration MORE = Duration.ofSeconds(20);

    private final String name;
    private final Codec codec;
    private final Vantage view;
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
        view = (Vantage) Proxy.newProxyInstance(Vantage.class.getClassLoader(), new Class<?>[] {Vantage.class}, this);
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
        waiting.values().forEach(each -> each.completeExceptionally(noVantage("was cut off in the middle of it")));
        waiting.clear();
        lines.values().forEach(line -> line.down("Vantage point " + name + " is disconnected."));
        lines.clear();
    }

    private WireFault noVantage(String what) {
        return new WireFault(
                WireFault.Kind.NO_VANTAGE, "Vantage point " + name + " " + what + "; its targets were not checked.");
    }

    @Override
    public Object invoke(Object proxy, Method method, Object[] given) throws Throwable {
        Object[] arguments = given == null ? new Object[0] : given;
        return switch (method.getName()) {
            case "name" -> name;
            case "hearsSilence" -> hearsSilence;
            case "at" -> proxy;
            case "line" -> open((LineAddress) arguments[0], (LineSettings) arguments[1], (LineEvents) arguments[2]);
            case "toString" -> name;
            case "equals" -> proxy == arguments[0];
            case "hashCode" -> name.hashCode();
            default -> codec.read(call(method, arguments), method.getGenericReturnType());
        };
    }

    private JsonNode call(Method method, Object[] arguments) throws WireFault {
        ObjectNode message = codec.json().createObjectNode().put("do", method.getName());
        message.set("with", codec.tree(Arrays.asList(arguments)));
        try {
            return ask(message, timeout(arguments)).get();
        } catch (ExecutionException e) {
            if (e.getCause() instanceof WireFault fault) {
                throw new WireFault(fault.kind(), fault.getMessage(), fault);
            }
            throw new WireFault(
                    WireFault.Kind.UNKNOWN_OUTCOME, "Vantage point " + name + " did not answer in time.", e.getCause());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new WireFault(WireFault.Kind.UNKNOWN_OUTCOME, "interrupted", e);
        }
    }

    private static Duration timeout(Object[] arguments) {
        Duration own = Duration.ofSeconds(10);
        for (Object argument : arguments) {
            own = argument instanceof Duration each ? each : argument instanceof HttpCall http ? http.timeout() : own;
        }
        return own.plus(MORE);
    }

    /**
     * Asks the far side for something.
     *
     * @param message gets its number here
     * @return completes with the answer's value; with a {@link WireFault} or a {@link TimeoutException} where none came
     */
    public CompletableFuture<JsonNode> ask(ObjectNode message, Duration timeout) {
        Link now = link;
        if (now == null) {
            return CompletableFuture.failedFuture(noVantage("is not connected"));
        }
        long number = numbers.incrementAndGet();
        CompletableFuture<JsonNode> answer = new CompletableFuture<>();
        waiting.put(number, answer);
        answer.orTimeout(timeout.toMillis(), TimeUnit.MILLISECONDS)
                .whenComplete((value, fault) -> waiting.remove(number));
        try {
            now.send(codec.write(message.put("call", number)));
        } catch (IllegalStateException e) {
            answer.completeExceptionally(noVantage("is cut off"));
        }
        return answer;
    }

    /** Tells the far side something that has no answer; lost where no link stands. */
    private void tell(ObjectNode message) {
        Link now = link;
        if (now != null) {
            try {
                now.send(codec.write(message));
            } catch (IllegalStateException e) {
                // cut at this moment: the cut is reported to all lines
            }
        }
    }

    /** Takes in a message; false where it is none that belongs here. */
    public boolean heard(JsonNode message) {
        if (message.has("answer")) {
            CompletableFuture<JsonNode> answer =
                    waiting.remove(message.path("answer").asLong());
            if (answer != null && message.has("fault")) {
                answer.completeExceptionally(new WireFault(
                        WireFault.Kind.valueOf(
                                message.path("fault").path("kind").asText("UNKNOWN_OUTCOME")),
                        message.path("fault").path("message").asText()));
            } else if (answer != null) {
                answer.complete(message.path("value"));
            }
            return true;
        }
        if (message.has("line")) {
            FarLine line = lines.get(message.path("line").asLong());
            if (line != null) {
                line.heard(message);
            }
            return true;
        }
        return false;
    }

    private ConsoleLine open(LineAddress address, LineSettings settings, LineEvents to) throws WireFault {
        if (link == null) {
            throw noVantage("is not connected");
        }
        FarLine line = new FarLine(numbers.incrementAndGet(), to);
        lines.put(line.number, line);
        ObjectNode message = codec.json().createObjectNode().put("line", line.number);
        message.set("open", codec.tree(address));
        message.set("settings", codec.tree(settings));
        tell(message);
        return line;
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

        private ObjectNode message() {
            return codec.json().createObjectNode().put("line", number);
        }

        private synchronized void inOrder(Runnable event) {
            last = last.thenRunAsync(event, events);
        }

        void down(String why) {
            inOrder(() -> to.down(why));
        }

        void heard(JsonNode event) {
            switch (event.path("event").asText()) {
                case "up" -> inOrder(to::up);
                case "received" -> {
                    byte[] bytes = bytes(event.path("bytes"));
                    inOrder(() -> to.received(bytes));
                }
                case "noted" -> inOrder(() -> to.noted(event.path("text").asText()));
                case "hostKey" ->
                    inOrder(() -> tell(message()
                            .put("trusts", to.hostKey(event.path("text").asText()))));
                case "down" -> {
                    lines.remove(number);
                    down(event.path("text").asText());
                }
                default -> throw new IllegalArgumentException("there is no such event");
            }
        }

        private static byte[] bytes(JsonNode node) {
            try {
                return node.binaryValue();
            } catch (IOException e) {
                throw new IllegalArgumentException("bytes come in base64", e);
            }
        }

        @Override
        public void send(byte[] bytes) {
            tell(message().put("send", bytes));
        }

        @Override
        public void sendBreak() {
            tell(message().put("break", true));
        }

        @Override
        public void resize(int columns, int rows) {
            ObjectNode message = message();
            message.putArray("size").add(columns).add(rows);
            tell(message);
        }

        @Override
        public void close() {
            lines.remove(number);
            tell(message().put("close", true));
        }
    }
}
