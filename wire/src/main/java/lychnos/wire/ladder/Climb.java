package lychnos.wire.ladder;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.proof.Beside;
import lychnos.core.proof.ClockMark;
import lychnos.core.proof.NameMarks;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.SideMark;
import lychnos.core.proof.Trouble;
import lychnos.wire.Vantage;
import lychnos.wire.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.tcp.PortState;
import lychnos.wire.tls.TlsSeen;

/** Climbs the ladder of one endpoint, rung by rung, until one does not hold. One climb per object. */
public final class Climb {

    private static final Duration PING = Duration.ofSeconds(1);
    private static final Duration CONNECT = Duration.ofSeconds(3);
    private static final Duration ASK = Duration.ofSeconds(2);
    private static final Duration SHUT = Duration.ofMillis(800);

    private final Vantage vantage;
    private final Target target;
    private final Clock clock;
    private final List<Outcome> outcomes = new ArrayList<>();
    private List<Settings.Field> fields = List.of();
    private TlsSeen shown;
    private String firmware;
    private Duration roundTrip;
    private Optional<Mac> neighbour = Optional.empty();
    private Optional<Duration> clockAhead = Optional.empty();

    public Climb(Vantage vantage, Target target, Clock clock) {
        this.vantage = vantage;
        this.target = target;
        this.clock = clock;
    }

    /**
     * Climbs.
     *
     * @throws WireFault of kind {@link WireFault.Kind#NOT_DECLARED} alone: everything else is an outcome
     */
    public Climbed climb() throws WireFault {
        if (target.service() instanceof Target.DataAddress data) {
            if (answers()) {
                new DataWay(vantage, target, data).climb(this::add);
            }
        } else if (answers() && port() && tls()) {
            try (Way way = way()) {
                boolean ignored = add(way.service()) && add(way.identity()) && add(way.asPlanned()) && safe(way);
                fields = way.fields();
                firmware = way.firmware();
                clockAhead = way.clockAhead();
            }
        }
        for (int i = outcomes.size(); i < Rung.values().length; i++) {
            outcomes.add(Outcome.notReached(Rung.values()[i]));
        }
        return new Climbed(outcomes, beside(), fields, shown == null ? null : shown.fingerprint(), shown == null ? null : shown.notAfter(), firmware, roundTrip);
    }

    private Way way() {
        return target.service() instanceof Target.Redfish redfish
                ? new RedfishWay(vantage, target, redfish, clock)
                : new SignInWay(vantage, target, (Target.SignIn) target.service(), neighbour, shown.fingerprint());
    }

    private boolean holds(Rung rung, String seen) {
        return add(Outcome.holds(rung, seen));
    }

    private boolean broken(Rung rung, Trouble trouble, String seen) {
        return add(Outcome.broken(rung, trouble, seen));
    }

    private boolean add(Outcome outcome) {
        outcomes.add(outcome);
        return outcome.standing() != Outcome.Standing.BROKEN;
    }

    /** Names are asked whether or not the machine answers. */
    private List<Beside> beside() throws WireFault {
        Beside time = clockAhead.map(ClockMark::of).orElseGet(() -> Beside.notMeasured(SideMark.TIME, "its own clock is told by no standard interface"));
        Target.Names names = target.names();
        return List.of(
                NameMarks.forward(names.fqdn(), target.address().toString(), said(names.servers(), names.fqdn(), target.address().isV4() ? "A" : "AAAA")),
                NameMarks.reverse(target.address().toString(), names.fqdn(), said(names.reverse(), target.address().reverseName(), "PTR")),
                time);
    }

    private Map<String, NameMarks.Said> said(Map<String, Address> servers, String name, String type) throws WireFault {
        Map<String, NameMarks.Said> said = new LinkedHashMap<>();
        for (Map.Entry<String, Address> server : servers.entrySet()) {
            said.put(server.getKey(), said(server.getValue(), name, type));
        }
        return said;
    }

    private NameMarks.Said said(Address server, String name, String type) throws WireFault {
        try {
            // of an address there are several ways to write it (RFC 5952)
            return NameMarks.Said.of(vantage.resolve(server, name, type, ASK).stream().map(data -> type.equals("PTR") ? data : Address.tryParse(data).map(Address::toString).orElse(data)).toList());
        } catch (WireFault e) {
            if (e.kind() == WireFault.Kind.NOT_DECLARED) {
                throw e;
            }
            return NameMarks.Said.nothing("does not answer");
        }
    }

    private boolean answers() throws WireFault {
        if (!vantage.hearsSilence()) {
            outcomes.add(Outcome.notMeasured(Rung.ANSWERS, "every address answers on loopback"));
            return true;
        }
        Echo echo = vantage.ping(target.address(), PING);
        roundTrip = echo.roundTrip();
        if (echo.state() == Echo.State.NOT_PERMITTED) {
            // a connection attempt makes the kernel ask for the neighbour all the same
            vantage.port(target.address(), target.port(), CONNECT);
        }
        neighbour = vantage.neighbour(target.address());
        if (target.mac() != null && neighbour.isPresent() && !neighbour.get().equals(target.mac())) {
            return broken(Rung.ANSWERS, Trouble.OTHER_HARDWARE, target.address() + " is answered by " + neighbour.get() + ", the label says " + target.mac());
        }
        String heard = neighbour.map(mac -> "ARP " + mac).orElse("");
        return switch (echo.state()) {
            case ANSWERED -> holds(Rung.ANSWERS, "ping " + millis(roundTrip) + (heard.isEmpty() ? "" : ", " + heard));
            case NOT_PERMITTED -> heard.isEmpty()
                    ? broken(Rung.ANSWERS, Trouble.SILENT, target.address().toString())
                    : holds(Rung.ANSWERS, heard + "; ping is not permitted here");
            case SILENT -> broken(Rung.ANSWERS, Trouble.SILENT, target.address().toString());
        };
    }

    private static String millis(Duration duration) {
        return String.format(java.util.Locale.ROOT, "%.1f ms", duration.toNanos() / 1e6);
    }

    private boolean port() throws WireFault {
        PortState state = vantage.port(target.address(), target.port(), CONNECT);
        String port = String.valueOf(target.port());
        return switch (state) {
            case OPEN -> holds(Rung.PORT, port + " open");
            case REFUSED -> broken(Rung.PORT, Trouble.PORT_REFUSED, port);
            case SILENT -> broken(Rung.PORT, Trouble.PORT_SILENT, port);
        };
    }

    private boolean tls() throws WireFault {
        try {
            shown = vantage.tls(target.address(), target.port(), CONNECT);
        } catch (WireFault e) {
            if (e.kind() == WireFault.Kind.NOT_DECLARED) {
                throw e;
            }
            return broken(Rung.TLS, Trouble.NO_TLS, e.getMessage());
        }
        Instant now = clock.instant();
        if (now.isAfter(shown.notAfter())) {
            return broken(Rung.TLS, Trouble.CERTIFICATE_EXPIRED, day(shown.notAfter()));
        }
        if (now.isBefore(shown.notBefore())) {
            return broken(Rung.TLS, Trouble.CERTIFICATE_NOT_YET, day(shown.notBefore()));
        }
        if (target.fingerprint() != null && !target.fingerprint().equals(shown.fingerprint())) {
            return broken(Rung.TLS, Trouble.CERTIFICATE_CHANGED, target.fingerprint().substring(0, 8) + "… then, " + shown.fingerprint().substring(0, 8) + "… now");
        }
        return holds(Rung.TLS, shown.protocol() + (shown.selfSigned() ? ", self-signed" : "") + ", to " + day(shown.notAfter()));
    }

    private static String day(Instant instant) {
        return instant.toString().substring(0, 10);
    }

    private boolean safe(Way way) throws WireFault {
        List<Part> parts = new ArrayList<>();
        for (int port : target.shut()) {
            if (vantage.port(target.address(), port, SHUT) == PortState.OPEN) {
                parts.add(Part.broken("port " + port, "open"));
                outcomes.add(Outcome.broken(Rung.SAFE, Trouble.MUST_BE_SHUT, String.valueOf(port)).with(parts));
                return false;
            }
            parts.add(Part.holds("port " + port, "shut"));
        }
        Outcome refused = way.factoryRefused();
        parts.addAll(refused.parts());
        if (refused.standing() == Outcome.Standing.BROKEN) {
            return add(refused.with(parts));
        }
        String ports = target.shut().isEmpty() ? "" : target.shut().stream().map(String::valueOf).collect(Collectors.joining(", ")) + " shut";
        return add(Outcome.holds(Rung.SAFE, Stream.of(refused.seen(), ports).filter(text -> !text.isEmpty()).collect(Collectors.joining("; "))).with(parts));
    }
}
