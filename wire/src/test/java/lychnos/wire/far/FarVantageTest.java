package lychnos.wire.far;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;
import static org.junit.jupiter.api.Assertions.assertTrue;

import com.fasterxml.jackson.databind.JsonNode;
import java.io.IOException;
import java.lang.reflect.ParameterizedType;
import java.lang.reflect.Proxy;
import java.lang.reflect.RecordComponent;
import java.lang.reflect.Type;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.DynamicTest;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.TestFactory;

/** Everything that a place can be asked, asked over a link, against the same asked at the place itself. */
class FarVantageTest {

    private static final Address AT = Address.parse("10.40.24.7");

    private final Codec codec = new Codec();
    private final ExecutorService pool = Executors.newCachedThreadPool();
    private final List<Object[]> asked = new ArrayList<>();
    private final FarVantage far = new FarVantage("cage-4", codec, pool);
    private LineEvents there;
    private final BlockingQueue<String> told = new LinkedBlockingQueue<>();

    @AfterEach
    void close() {
        pool.shutdownNow();
    }

    /** A link in this process: what one end sends the other hears. */
    private Link link(Vantage vantage) {
        VantageHost host = new VantageHost(vantage, codec, pool);
        return message -> host.heard(travelled(message), back -> far.heard(travelled(back)));
    }

    @Test
    void whatOnlyTriesAPortIsAskedOfNetworksThatItIsNotFor() throws Exception {
        WireFault refused = new WireFault(WireFault.Kind.NOT_DECLARED, "not for this network");
        VantageHost host = new VantageHost(place(refused), place(null), codec, pool);
        far.linked(message -> host.heard(travelled(message), back -> far.heard(travelled(back))), true);
        Vantage vantage = far.vantage();
        Duration timeout = Duration.ofSeconds(2);
        assertEquals(Optional.of(AT), vantage.source(AT));
        assertEquals(PortState.values()[1], vantage.port(AT, 22, timeout));
        assertEquals("text", vantage.greeting(AT, 22, timeout));
        assertEquals(
                WireFault.Kind.NOT_DECLARED,
                assertThrows(WireFault.class, () -> vantage.tls(AT, 443, timeout))
                        .kind());
        assertEquals(
                WireFault.Kind.NOT_DECLARED,
                assertThrows(WireFault.class, () -> vantage.ping(AT, timeout)).kind());
    }

    /** A message as it arrives at the other end. */
    private LinkMessage travelled(LinkMessage message) {
        try {
            return codec.read(codec.write(message), LinkMessage.class);
        } catch (IOException e) {
            throw new AssertionError(e);
        }
    }

    /** A place that notes what it is asked, and answers a sample of what it would. */
    private Vantage place(WireFault fault) {
        return (Vantage) Proxy.newProxyInstance(
                Vantage.class.getClassLoader(), new Class<?>[] {Vantage.class}, (self, method, arguments) -> {
                    asked.add(arguments);
                    if (fault != null) {
                        throw fault;
                    }
                    if (method.getName().equals("line")) {
                        there = (LineEvents) arguments[2];
                        return new ConsoleLine() {
                            @Override
                            public void send(byte[] bytes) {
                                told.add("sent " + new String(bytes, StandardCharsets.US_ASCII));
                            }

                            @Override
                            public void sendBreak() {
                                told.add("break");
                            }

                            @Override
                            public void resize(int columns, int rows) {
                                told.add(columns + "x" + rows);
                            }

                            @Override
                            public void close() {
                                told.add("closed");
                            }
                        };
                    }
                    return sample(method.getGenericReturnType());
                });
    }

    /** Some value of a type, built from its parts. */
    private Object sample(Type type) throws ReflectiveOperationException {
        if (type instanceof ParameterizedType generic) {
            Type[] of = generic.getActualTypeArguments();
            return generic.getRawType() == Optional.class
                    ? Optional.of(sample(of[0]))
                    : generic.getRawType() == Map.class ? Map.of(sample(of[0]), sample(of[1])) : List.of(sample(of[0]));
        }
        Class<?> plain = (Class<?>) type;
        if (plain.isEnum()) {
            return plain.getEnumConstants()[1];
        }
        Map<Class<?>, Object> known = Map.ofEntries(
                Map.entry(int.class, 7),
                Map.entry(long.class, 7L),
                Map.entry(Long.class, 8L),
                Map.entry(double.class, 1.5),
                Map.entry(boolean.class, true),
                Map.entry(String.class, "text"),
                Map.entry(Integer.class, 3),
                Map.entry(Duration.class, Duration.ofMillis(1234)),
                Map.entry(Instant.class, Instant.parse("2026-11-20T09:14:00.5Z")),
                Map.entry(Address.class, AT),
                Map.entry(Mac.class, Mac.parse("02:4c:59:a1:00:01")),
                Map.entry(Secret.class, Secret.of("word")),
                Map.entry(JsonNode.class, codec.tree(Map.of("type", "text"))),
                Map.entry(LineSettings.class, LineSettings.USUAL),
                Map.entry(Prefix.class, Prefix.parse("10.40.24.0/24")),
                Map.entry(byte[].class, new byte[] {1, -2, 3}));
        if (known.containsKey(plain)) {
            return known.get(plain);
        }
        if (plain == lychnos.core.address.AddressRun.class) {
            return lychnos.core.address.AddressRun.parse("10.40.24.1-9");
        }
        if (plain == java.util.Collection.class) {
            return List.of(AT);
        }
        RecordComponent[] parts = plain.getRecordComponents();
        Object[] values = new Object[parts.length];
        for (int i = 0; i < parts.length; i++) {
            values[i] = sample(parts[i].getGenericType());
        }
        return plain.getDeclaredConstructor(
                        Arrays.stream(parts).map(RecordComponent::getType).toArray(Class<?>[]::new))
                .newInstance(values);
    }

    /** As it would be written: what holds arrays is equal to nothing but itself. */
    private String written(Object value) {
        return codec.write(value);
    }

    @TestFactory
    Stream<DynamicTest> whatIsAskedAndAnsweredIsTheSame() {
        return Arrays.stream(Vantage.class.getMethods())
                .filter(method -> !List.of("name", "hearsSilence", "at", "line").contains(method.getName()))
                .map(method -> DynamicTest.dynamicTest(method.getName(), () -> {
                    far.linked(link(place(null)), true);
                    Object[] arguments = new Object[method.getParameterCount()];
                    for (int i = 0; i < arguments.length; i++) {
                        arguments[i] = sample(method.getGenericParameterTypes()[i]);
                    }
                    Object answer = method.invoke(far.vantage(), arguments);
                    assertEquals(written(sample(method.getGenericReturnType())), written(answer));
                    assertEquals(written(arguments), written(asked.get(asked.size() - 1)));
                    if (answer != null
                            && !written(answer).contains("\"AQ")
                            && !(answer instanceof lychnos.wire.http.HttpAnswer)) {
                        assertEquals(sample(method.getGenericReturnType()), answer);
                    }
                }));
    }

    @Test
    void everyMessageArrivesAsItWasSent() throws Exception {
        for (Class<?> type : LinkMessage.class.getPermittedSubclasses()) {
            LinkMessage sent = type == LinkMessage.Call.class
                    ? new LinkMessage.Call(7, new VantageCall.Ping(AT, Duration.ofSeconds(1)))
                    : (LinkMessage) sample(type);
            assertEquals(type, travelled(sent).getClass());
            assertEquals(written(sent), written(travelled(sent)));
        }
        assertEquals("{\"type\":\"alive\"}", written(new LinkMessage.Alive()));
    }

    @Test
    void aMessageOfAnotherVersionIsRefusedAndNotMisread() {
        for (String other : List.of(
                "{\"hello\":{\"hearsSilence\":true,\"holding\":[]}}",
                "{\"type\":\"newer\"}",
                "{\"type\":\"call\",\"number\":1,\"what\":{\"call\":\"newer\"}}",
                "[]")) {
            assertThrows(IOException.class, () -> codec.read(other, LinkMessage.class), other);
        }
    }

    @Test
    void aFaultComesBackAsItWas() {
        far.linked(link(place(new WireFault(WireFault.Kind.REFUSED, WireText.CONNECTION_REFUSED.text()))), true);
        WireFault fault = assertThrows(WireFault.class, () -> far.vantage().port(AT, 443, Duration.ofSeconds(1)));
        assertEquals(WireFault.Kind.REFUSED, fault.kind());
        assertEquals(WireText.CONNECTION_REFUSED.text(), fault.getMessage());
    }

    @Test
    void withoutALinkNothingIsSaidOfTheMachine() {
        WireFault fault = assertThrows(WireFault.class, () -> far.vantage().port(AT, 443, Duration.ofSeconds(1)));
        assertTrue(fault.ours(), fault.getMessage());
        assertEquals(LinkText.NOT_CONNECTED.text("cage-4"), fault.getMessage());
    }

    @Test
    void whoIsCutOffInTheMiddleOfACallIsToldSo() throws Exception {
        Link deaf = message -> {};
        far.linked(deaf, true);
        var call = pool.submit(
                () -> assertThrows(WireFault.class, () -> far.vantage().port(AT, 443, Duration.ofSeconds(30))));
        while (!far.cut(deaf)) {
            Thread.onSpinWait();
        }
        assertTrue(call.get(20, TimeUnit.SECONDS).ours());
        assertTrue(!far.cut(deaf), "a link is cut once");
    }

    /** Hears a line. */
    private final LineEvents here = new LineEvents() {
        @Override
        public void up() {
            told.add("up");
        }

        @Override
        public void received(byte[] bytes) {
            told.add("received " + new String(bytes, StandardCharsets.US_ASCII));
        }

        @Override
        public void down(String why) {
            told.add("down " + why);
        }

        @Override
        public void noted(String sentence) {
            told.add("noted " + sentence);
        }

        @Override
        public boolean hostKey(String fingerprint) {
            return fingerprint.equals("SHA256:right");
        }
    };

    private void hears(String what) throws InterruptedException {
        assertEquals(what, told.poll(20, TimeUnit.SECONDS));
    }

    @Test
    void aLineIsTheSameOverALink() throws Exception {
        far.linked(link(place(null)), true);
        ConsoleLine line =
                far.vantage().line(LineAddress.ssh(AT, 22, "keeper", Secret.of("word")), LineSettings.USUAL, here);
        assertEquals(written(LineAddress.ssh(AT, 22, "keeper", Secret.of("word"))), written(asked.get(0)[0]));
        assertTrue(there.hostKey("SHA256:right"));
        there.up();
        hears("up");
        there.received("login: ".getBytes(StandardCharsets.US_ASCII));
        hears("received login: ");
        line.send("keeper\r".getBytes(StandardCharsets.US_ASCII));
        hears("sent keeper\r");
        line.sendBreak();
        hears("break");
        line.resize(100, 30);
        hears("100x30");
        there.noted("the rate was not taken");
        hears("noted the rate was not taken");
        there.down("The connection has ended.");
        hears("down The connection has ended.");
    }

    @Test
    void aLineIsGoneWithItsLink() throws Exception {
        Link link = link(place(null));
        far.linked(link, true);
        far.vantage().line(LineAddress.device("/dev/ttyS0"), LineSettings.USUAL, here);
        far.cut(link);
        hears("down " + LinkText.DISCONNECTED.text("cage-4"));
    }

    // --- several places as one ---

    @Test
    void eachAddressIsReachedFromItsPlace() throws Exception {
        List<String> places = new ArrayList<>();
        Vantage here = named("here", places);
        Vantage cage = named("cage-4", places);
        Vantage routed = new RoutedVantage(
                here,
                address -> Prefix.parse("10.40.24.0/24").contains(address) ? cage : here,
                name -> name.equals("cage-4") ? cage : null);
        routed.port(AT, 443, Duration.ofSeconds(1));
        routed.port(Address.parse("10.40.8.7"), 443, Duration.ofSeconds(1));
        routed.findByMac(
                Mac.parse("02:4c:59:a1:00:01"),
                lychnos.core.address.AddressRun.parse("10.40.24.1-9"),
                Duration.ofSeconds(1));
        routed.line(LineAddress.device("/dev/ttyUSB0@cage-4"), LineSettings.USUAL, this.here);
        assertEquals(List.of("cage-4", "here", "cage-4", "cage-4 /dev/ttyUSB0"), places);
        assertTrue(assertThrows(
                        WireFault.class,
                        () -> routed.line(LineAddress.device("/dev/ttyUSB0@nowhere"), LineSettings.USUAL, this.here))
                .ours());
        assertEquals(
                2,
                routed.sweep(List.of(AT, Address.parse("10.40.8.7")), Duration.ofSeconds(1))
                        .size());
    }

    private static Vantage named(String name, List<String> places) {
        return (Vantage) Proxy.newProxyInstance(
                Vantage.class.getClassLoader(),
                new Class<?>[] {Vantage.class},
                (self, method, arguments) -> switch (method.getName()) {
                    case "equals" -> self == arguments[0];
                    case "hashCode" -> name.hashCode();
                    case "sweep" ->
                        Map.of(
                                ((List<?>) arguments[0]).get(0),
                                new lychnos.wire.icmp.Echo(lychnos.wire.icmp.Echo.State.SILENT, null));
                    default -> {
                        places.add(name + (arguments[0] instanceof LineAddress line ? " " + line.device() : ""));
                        yield method.getReturnType() == Optional.class
                                ? Optional.empty()
                                : method.getReturnType() == PortState.class ? PortState.OPEN : null;
                    }
                });
    }
}
