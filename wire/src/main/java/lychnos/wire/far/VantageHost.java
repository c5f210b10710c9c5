package lychnos.wire.far;

import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.node.ObjectNode;
import java.io.IOException;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Type;
import java.util.Arrays;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.dialogue.LineSettings;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;

/**
 * The far side of a link: carries out with its own {@link Vantage} what is asked over it. What may be asked is that,
 * and no more.
 */
public final class VantageHost {

    /** For these nobody needs to be asked, or they go another way. */
    private static final Set<String> NOT_CALLED = Set.of("name", "hearsSilence", "at", "line");

    private static final long KEY_SECONDS = 20;
    private static final int MOST_LINES = 256;

    private final Vantage vantage;
    private final Codec codec;
    private final Executor pool;
    private final Map<String, Method> calls;
    private final Map<Long, Line> lines = new ConcurrentHashMap<>();

    public VantageHost(Vantage vantage, Codec codec, Executor pool) {
        this.vantage = vantage;
        this.codec = codec;
        this.pool = pool;
        calls = Arrays.stream(Vantage.class.getMethods())
                .filter(method -> !NOT_CALLED.contains(method.getName()))
                .collect(Collectors.toMap(Method::getName, Function.identity()));
    }

    /** Takes in a message; false where it is none that belongs here. */
    public boolean heard(JsonNode message, Link back) {
        if (message.has("call") && calls.containsKey(message.path("do").asText())) {
            pool.execute(() -> back.send(codec.write(answer(message))));
            return true;
        }
        if (message.has("line")) {
            line(message, back);
            return true;
        }
        return false;
    }

    /** The link is cut: lines that were open over it are closed, since nobody hears them. */
    public void cut() {
        lines.values().forEach(Line::close);
        lines.clear();
    }

    private ObjectNode answer(JsonNode message) {
        ObjectNode answer = codec.json()
                .createObjectNode()
                .put("answer", message.path("call").asLong());
        Method method = calls.get(message.path("do").asText());
        try {
            Type[] types = method.getGenericParameterTypes();
            Object[] arguments = new Object[types.length];
            for (int i = 0; i < types.length; i++) {
                arguments[i] = codec.read(message.path("with").path(i), types[i]);
            }
            answer.set("value", codec.tree(method.invoke(vantage, arguments)));
        } catch (InvocationTargetException e) {
            WireFault fault = e.getCause() instanceof WireFault known
                    ? known
                    : new WireFault(WireFault.Kind.UNKNOWN_OUTCOME, String.valueOf(e.getCause()), e.getCause());
            fault(answer, fault.kind(), fault.getMessage());
        } catch (IOException | IllegalAccessException | IllegalArgumentException e) {
            fault(answer, WireFault.Kind.GARBAGE, "what was asked cannot be read: " + e.getMessage());
        }
        return answer;
    }

    private static void fault(ObjectNode answer, WireFault.Kind kind, String message) {
        answer.putObject("fault").put("kind", kind.name()).put("message", message);
    }

    private void line(JsonNode message, Link back) {
        long number = message.path("line").asLong();
        Line line = lines.get(number);
        if (message.has("open")) {
            open(number, message, back);
        } else if (line == null) {
            return;
        } else if (message.has("trusts")) {
            line.trusted.complete(message.path("trusts").asBoolean());
        } else if (line.open == null) {
            return;
        } else if (message.has("send")) {
            line.send(message.path("send"));
        } else if (message.has("break")) {
            line.open.sendBreak();
        } else if (message.has("size")) {
            line.open.resize(
                    message.path("size").path(0).asInt(),
                    message.path("size").path(1).asInt());
        } else if (message.has("close")) {
            lines.remove(number);
            line.close();
        }
    }

    private void open(long number, JsonNode message, Link back) {
        Line line = new Line(number, back);
        if (lines.size() >= MOST_LINES) {
            line.tell("down", "More than " + MOST_LINES + " lines are open there.");
            return;
        }
        lines.put(number, line);
        try {
            line.open = vantage.line(
                    (LineAddress) codec.read(message.path("open"), LineAddress.class),
                    (LineSettings) codec.read(message.path("settings"), LineSettings.class),
                    line);
        } catch (WireFault | IOException e) {
            line.down(e.getMessage());
        }
    }

    /** A line that is open here, for somebody there. */
    private final class Line implements LineEvents {
        private final long number;
        private final Link back;
        private final CompletableFuture<Boolean> trusted = new CompletableFuture<>();
        private volatile ConsoleLine open;

        Line(long number, Link back) {
            this.number = number;
            this.back = back;
        }

        private void send(ObjectNode message) {
            try {
                back.send(codec.write(message));
            } catch (IllegalStateException e) {
                close(); // nobody hears it any more
            }
        }

        private ObjectNode event(String name) {
            return codec.json().createObjectNode().put("line", number).put("event", name);
        }

        private void tell(String name, String text) {
            send(event(name).put("text", text));
        }

        void send(JsonNode bytes) {
            try {
                open.send(bytes.binaryValue());
            } catch (IOException e) {
                noted("What was to be sent cannot be read.");
            }
        }

        void close() {
            if (open != null) {
                open.close();
            }
        }

        @Override
        public void up() {
            send(event("up"));
        }

        @Override
        public void received(byte[] bytes) {
            send(event("received").put("bytes", bytes));
        }

        @Override
        public void down(String why) {
            lines.remove(number);
            tell("down", why);
        }

        @Override
        public void noted(String sentence) {
            tell("noted", sentence);
        }

        @Override
        public boolean hostKey(String fingerprint) {
            tell("hostKey", fingerprint);
            try {
                return trusted.get(KEY_SECONDS, TimeUnit.SECONDS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return false;
            } catch (java.util.concurrent.ExecutionException | java.util.concurrent.TimeoutException e) {
                return false;
            }
        }
    }
}
