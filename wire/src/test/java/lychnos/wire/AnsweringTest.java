package lychnos.wire;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.lang.reflect.Proxy;
import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Answering;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.Test;

/** Three values: what may not be measured is neither an answer nor silence. */
class AnsweringTest {

    private static final Address ADDRESS = Address.parse("10.40.70.20");
    private static final Mac MAC = Mac.parse("02:4c:59:a1:00:07");

    private static Answering at(
            boolean hears, Echo.State echo, List<Mac> claimants, Map<Integer, PortState> ports, Optional<Mac> neighbour)
            throws WireFault {
        Vantage vantage = (Vantage) Proxy.newProxyInstance(
                Vantage.class.getClassLoader(),
                new Class<?>[] {Vantage.class},
                (self, method, arguments) -> switch (method.getName()) {
                    case "hearsSilence" -> hears;
                    case "ping" -> new Echo(echo, null);
                    case "claimants" -> claimants;
                    case "port" -> ports.getOrDefault((Integer) arguments[1], PortState.SILENT);
                    case "neighbour" -> neighbour;
                    default -> throw new AssertionError(method.getName() + " is not asked");
                });
        return Answering.at(vantage, ADDRESS, Duration.ofMillis(100));
    }

    @Test
    void anEchoIsEnoughWhereItMayBeSent() throws WireFault {
        assertEquals(Answering.ANSWERS, at(true, Echo.State.ANSWERED, List.of(), Map.of(), Optional.empty()));
        assertEquals(
                Answering.SILENT,
                at(true, Echo.State.SILENT, List.of(), Map.of(443, PortState.OPEN), Optional.empty()));
    }

    @Test
    void whereItMayNotBeSentNothingFoundIsNoAnswer() throws WireFault {
        assertEquals(Answering.SILENT, at(true, Echo.State.NOT_PERMITTED, List.of(), Map.of(), Optional.empty()));
    }

    @Test
    void theSegmentAndPortsAreAskedInstead() throws WireFault {
        assertEquals(Answering.ANSWERS, at(true, Echo.State.NOT_PERMITTED, List.of(MAC), Map.of(), Optional.empty()));
        assertEquals(
                Answering.ANSWERS,
                at(true, Echo.State.NOT_PERMITTED, List.of(), Map.of(22, PortState.OPEN), Optional.empty()));
        assertEquals(Answering.ANSWERS, at(true, Echo.State.NOT_PERMITTED, List.of(), Map.of(), Optional.of(MAC)));
    }

    @Test
    void onPlainLoopbackNothingCanBeSaid() throws WireFault {
        assertEquals(Answering.UNKNOWN, at(false, Echo.State.ANSWERED, List.of(MAC), Map.of(), Optional.empty()));
    }
}
