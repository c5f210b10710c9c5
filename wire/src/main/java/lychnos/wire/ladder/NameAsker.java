package lychnos.wire.ladder;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import lychnos.core.address.Address;
import lychnos.core.proof.NameMarks;
import lychnos.wire.fault.WireFault;
import lychnos.wire.time.Ticker;
import lychnos.wire.vantage.Vantage;

/**
 * Asks name servers for many endpoints. A server that has just been silent is not waited for again and again: what it
 * would say is the same for all of them, and a dead one must not slow every check. Safe for use by many threads.
 */
public final class NameAsker {

    private static final Duration ASK = Duration.ofSeconds(2);
    private static final long SILENT_NANOS = Duration.ofSeconds(10).toNanos();

    private final Map<Address, Long> silentSince = new ConcurrentHashMap<>();
    private final Ticker ticker;

    public NameAsker(Ticker ticker) {
        this.ticker = ticker;
    }

    /** What each server says of a name. */
    Map<String, NameMarks.Said> ask(Vantage vantage, Map<String, Address> servers, String name, String type)
            throws WireFault {
        Map<String, NameMarks.Said> said = new LinkedHashMap<>();
        for (Map.Entry<String, Address> server : servers.entrySet()) {
            said.put(server.getKey(), ask(vantage, server.getValue(), name, type));
        }
        return said;
    }

    private NameMarks.Said ask(Vantage vantage, Address server, String name, String type) throws WireFault {
        Long since = silentSince.get(server);
        if (since != null && ticker.nanos() - since < SILENT_NANOS) {
            return NameMarks.Said.nothing(LadderText.NO_ANSWER.text());
        }
        try {
            List<String> data = vantage.resolve(server, name, type, ASK);
            silentSince.remove(server);
            // of an address there are several ways to write it (RFC 5952)
            return NameMarks.Said.of(data.stream()
                    .map(each -> type.equals("PTR")
                            ? each
                            : Address.tryParse(each).map(Address::toString).orElse(each))
                    .toList());
        } catch (WireFault e) {
            if (e.ours()) {
                throw e;
            }
            if (e.kind() == WireFault.Kind.SILENT) {
                silentSince.put(server, ticker.nanos());
            }
            return NameMarks.Said.nothing(
                    e.kind() == WireFault.Kind.SILENT ? LadderText.NO_ANSWER.text() : e.getMessage());
        }
    }
}
