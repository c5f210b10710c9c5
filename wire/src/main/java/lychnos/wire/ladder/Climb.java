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
import lychnos.core.fact.Mac;
import lychnos.core.proof.Beside;
import lychnos.core.proof.CertificateNames;
import lychnos.core.proof.ClockMark;
import lychnos.core.proof.NameMarks;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Traits;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.tcp.PortState;
import lychnos.wire.time.Ticker;
import lychnos.wire.tls.TlsSeen;
import lychnos.wire.vantage.Vantage;

/** Climbs the ladder of one endpoint, rung by rung, until one does not hold. One climb per object. */
public final class Climb {

    private static final Duration CONNECT = Duration.ofSeconds(3);
    /** A small controller that is busy besides takes seconds for the arithmetic. */
    private static final Duration HANDSHAKE = Duration.ofSeconds(8);

    private final Vantage vantage;
    private final Target target;
    private final Clock clock;
    private final Company company;
    private final List<Outcome> outcomes = new ArrayList<>();
    private final Map<String, String> traits = new LinkedHashMap<>();
    private List<Settings.Field> fields = List.of();
    private TlsSeen shown;
    private HostKey.Seen hostKey;
    private String firmware;
    private Duration roundTrip;
    private Optional<Mac> neighbour = Optional.empty();
    private Optional<Duration> clockAhead = Optional.empty();

    /**
     * What climbs share, so that many of them cost no more than they must.
     *
     * @param patience how long to wait for echoes
     * @param names who asks name servers
     * @param others other places, from which what must be shut is tried as well
     */
    public record Company(Patience patience, NameAsker names, List<Vantage> others) {

        /** For one that climbs alone. */
        public static Company none() {
            return new Company(new Patience(), new NameAsker(Ticker.SYSTEM), List.of());
        }
    }

    public Climb(Vantage vantage, Target target, Clock clock) {
        this(vantage, target, clock, Company.none());
    }

    public Climb(Vantage vantage, Target target, Clock clock, Company company) {
        this.vantage = vantage;
        this.target = target;
        this.clock = clock;
        this.company = company;
    }

    /**
     * Climbs to the top.
     *
     * @throws WireFault of kind {@link WireFault.Kind#NOT_DECLARED} alone: everything else is an outcome
     */
    public Climbed climb() throws WireFault {
        return climb(Rung.SAFE, null);
    }

    /**
     * Climbs.
     *
     * @param upTo the rung that is looked at last; those above are given as not reached
     * @param heard an echo that was heard right before, or null
     * @throws WireFault of kind {@link WireFault.Kind#NOT_DECLARED} alone: everything else is an outcome
     */
    public Climbed climb(Rung upTo, Echo heard) throws WireFault {
        if (answers(heard)) {
            if (target.service() instanceof Target.DataAddress data) {
                DataWay way = new DataWay(vantage, target, data);
                way.climb(outcome -> goesOn(add(outcome), upTo), upTo);
                traits.putAll(way.traits());
            } else if (goesOn(true, upTo) && goesOn(port(), upTo) && goesOn(tls(), upTo)) {
                climb(upTo);
            }
        }
        for (int i = outcomes.size(); i < Rung.values().length; i++) {
            outcomes.add(Outcome.notReached(Rung.values()[i]));
        }
        List<Beside> beside = upTo == Rung.SAFE ? beside() : List.of();
        return new Climbed(outcomes, beside, fields, shown, hostKey, firmware, roundTrip, traits);
    }

    private boolean goesOn(boolean holds, Rung upTo) {
        return holds && outcomes.size() <= upTo.ordinal();
    }

    private void climb(Rung upTo) throws WireFault {
        try (Way way = way()) {
            boolean safe = goesOn(add(way.service()), upTo)
                    && goesOn(add(way.identity()), upTo)
                    && goesOn(add(way.asPlanned()), upTo);
            if (safe) {
                add(new SafeWay(vantage, target, company, shown).judge(way, traits));
            }
            fields = way.fields();
            firmware = way.firmware();
            hostKey = way.hostKey();
            clockAhead = way.clockAhead();
            traits.putAll(way.traits());
            fields.forEach(field -> traits.put(Traits.SETTING + field.name(), field.found()));
            if (firmware != null && !firmware.isEmpty()) {
                traits.put(Traits.FIRMWARE, firmware);
            }
        }
    }

    private Way way() {
        return target.service() instanceof Target.Redfish redfish
                ? new RedfishWay(vantage, target, redfish, clock)
                : new SignInWay(
                        vantage, target, (Target.SignIn) target.service(), neighbour, shown.fingerprint(), clock);
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
        Target.Names names = target.names();
        Map<String, NameMarks.Said> forward = company.names.ask(
                vantage, names.servers(), names.fqdn(), target.address().isV4() ? "A" : "AAAA");
        Map<String, NameMarks.Said> reverse =
                company.names.ask(vantage, names.reverse(), target.address().reverseName(), "PTR");
        NameMarks.trait(forward).ifPresent(said -> traits.put(Traits.NAME, said));
        NameMarks.trait(reverse).ifPresent(said -> traits.put(Traits.REVERSE, said));
        Beside time = ClockMark.of(clockAhead, target.known().timeServers());
        if (clockAhead.isPresent()) {
            traits.put(Traits.CLOCK, time.trouble() == Trouble.CLOCK_OFF ? "off" : "in step");
        }
        return List.of(
                NameMarks.forward(names.fqdn(), target.address().toString(), forward),
                NameMarks.reverse(target.address().toString(), names.fqdn(), reverse),
                time);
    }

    private boolean answers(Echo heard) throws WireFault {
        if (!vantage.hearsSilence()) {
            outcomes.add(Outcome.notMeasured(Rung.ANSWERS, LadderText.LOOPBACK.text()));
            return true;
        }
        Echo echo = heard != null ? heard : vantage.ping(target.address(), company.patience.of(target.address()));
        roundTrip = echo.roundTrip();
        if (roundTrip != null) {
            company.patience.answered(target.address(), roundTrip);
        }
        if (echo.state() == Echo.State.NOT_PERMITTED) {
            // a connection attempt makes the kernel ask for the neighbour anyway
            vantage.port(target.address(), target.port(), CONNECT);
        }
        neighbour = vantage.neighbour(target.address());
        List<Part> parts = new ArrayList<>();
        if (neighbour.isPresent()) {
            List<Mac> claimants = vantage.claimants(target.address());
            if (claimants.size() > 1) {
                String all = claimants.stream().map(Mac::toString).collect(Collectors.joining(" and "));
                return add(Outcome.broken(
                                Rung.ANSWERS,
                                Trouble.TWO_MACHINES,
                                LadderText.CLAIMANTS.text(claimants.size(), target.address(), all))
                        .with(List.of(Part.broken("segment", all))));
            }
            if (claimants.size() == 1) {
                parts.add(Part.holds("segment", LadderText.ONE_DEVICE.text()));
            }
            traits.put(Traits.HARDWARE, neighbour.get().toString());
        }
        if (target.mac() != null && neighbour.isPresent() && !neighbour.get().equals(target.mac())) {
            return broken(
                    Rung.ANSWERS,
                    Trouble.OTHER_HARDWARE,
                    LadderText.OTHER_MAC.text(target.address(), neighbour.get(), target.mac()));
        }
        String arp = neighbour.map(mac -> "ARP " + mac).orElse("");
        return switch (echo.state()) {
            case ANSWERED ->
                add(Outcome.holds(
                                Rung.ANSWERS,
                                arp.isEmpty()
                                        ? LadderText.PING.text(millis(roundTrip))
                                        : LadderText.PING_AND_ARP.text(millis(roundTrip), arp))
                        .with(parts));
            case NOT_PERMITTED ->
                arp.isEmpty()
                        ? broken(Rung.ANSWERS, Trouble.SILENT, target.address().toString())
                        : add(Outcome.holds(Rung.ANSWERS, LadderText.ARP_ONLY.text(arp))
                                .with(parts));
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
            case OPEN -> others(port);
            case REFUSED -> broken(Rung.PORT, Trouble.PORT_REFUSED, port);
            case SILENT -> broken(Rung.PORT, Trouble.PORT_SILENT, port);
        };
    }

    /** The management port is open; what else must answer. */
    private boolean others(String port) throws WireFault {
        List<Part> parts = new ArrayList<>();
        for (int other : target.ports().open()) {
            PortState state = vantage.port(target.address(), other, CONNECT);
            if (state != PortState.OPEN) {
                parts.add(Part.broken(LadderText.PORT.text(other), state == PortState.REFUSED ? "refused" : "silent"));
                return add(Outcome.broken(
                                Rung.PORT,
                                state == PortState.REFUSED ? Trouble.PORT_REFUSED : Trouble.PORT_SILENT,
                                String.valueOf(other))
                        .with(parts));
            }
            parts.add(Part.holds(LadderText.PORT.text(other), "open"));
        }
        String all = Stream.concat(
                        Stream.of(port), target.ports().open().stream().map(String::valueOf))
                .collect(Collectors.joining(", "));
        return add(Outcome.holds(Rung.PORT, LadderText.PORTS_OPEN.text(all)).with(parts));
    }

    private boolean tls() throws WireFault {
        try {
            shown = vantage.tls(target.address(), target.port(), HANDSHAKE);
        } catch (WireFault e) {
            if (e.ours()) {
                throw e;
            }
            return broken(Rung.TLS, Trouble.NO_TLS, e.getMessage());
        }
        traits.put(Traits.CERTIFICATE, shown.fingerprint());
        List<Part> parts = List.of(validity(), key(), names(), chain(), handshake());
        Optional<Part> off = parts.stream()
                .filter(part -> part.standing() == Outcome.Standing.BROKEN)
                .findFirst();
        if (off.isPresent() && off.get().name().equals("valid")) {
            boolean over = clock.instant().isAfter(shown.notAfter());
            return add(Outcome.broken(
                            Rung.TLS,
                            over ? Trouble.CERTIFICATE_EXPIRED : Trouble.CERTIFICATE_NOT_YET,
                            day(over ? shown.notAfter() : shown.notBefore()))
                    .with(parts));
        }
        if (target.fingerprint() != null && !target.fingerprint().equals(shown.fingerprint())) {
            return add(Outcome.broken(
                            Rung.TLS,
                            Trouble.CERTIFICATE_CHANGED,
                            LadderText.CHANGED.text(
                                    target.fingerprint().substring(0, 8),
                                    shown.fingerprint().substring(0, 8)))
                    .with(parts));
        }
        if (off.isPresent()) {
            Trouble trouble = off.get().name().equals("key")
                    ? Trouble.WEAK_KEY
                    : off.get().name().equals("names") ? Trouble.CERTIFICATE_NAMES : Trouble.CHAIN_BROKEN;
            return add(Outcome.broken(Rung.TLS, trouble, off.get().seen()).with(parts));
        }
        return add(Outcome.holds(
                        Rung.TLS,
                        (shown.selfSigned() ? LadderText.SELF_SIGNED : LadderText.SIGNED)
                                .text(shown.protocol(), day(shown.notAfter())))
                .with(parts));
    }

    private Part validity() {
        Instant now = clock.instant();
        String days = LadderText.VALID.text(day(shown.notBefore()), day(shown.notAfter()));
        return now.isAfter(shown.notAfter()) || now.isBefore(shown.notBefore())
                ? Part.broken("valid", days)
                : Part.holds("valid", days);
    }

    private Part handshake() {
        return Part.holds(
                "handshake",
                shown.provider().isEmpty()
                        ? shown.protocol()
                        : LadderText.HANDSHAKE.text(shown.protocol(), shown.provider()));
    }

    private Part key() {
        return shown.weakKey() ? Part.broken("key", shown.key()) : Part.holds("key", shown.key());
    }

    /** A name in a self-signed certificate says nothing; one that an authority signed must be the planned one. */
    private Part names() {
        String made = shown.names().isEmpty()
                ? LadderText.NO_NAME.text()
                : Stream.concat(
                                shown.names().stream().limit(4),
                                shown.names().size() > 4 ? Stream.of("…") : Stream.of())
                        .collect(Collectors.joining(", "));
        if (shown.selfSigned()) {
            return Part.notMeasured("names", LadderText.SELF_SIGNED_NAMES.text(made));
        }
        String fqdn = target.names().fqdn();
        boolean covered =
                CertificateNames.cover(shown.names(), fqdn, target.address().toString());
        return covered
                ? Part.holds("names", made)
                : Part.broken("names", LadderText.NAMES_DIFFER.text(made, fqdn.isEmpty() ? target.address() : fqdn));
    }

    private Part chain() {
        if (!shown.chainFault().isEmpty()) {
            return Part.broken("chain", shown.chainFault());
        }
        if (shown.selfSigned()) {
            return Part.notMeasured("chain", "self-signed");
        }
        return shown.pem().size() == 1
                ? Part.broken("chain", LadderText.CHAIN_ALONE.text(shown.issuer()))
                : Part.holds("chain", LadderText.CHAIN_COMPLETE.text(shown.pem().size()));
    }

    private static String day(Instant instant) {
        return instant.toString().substring(0, 10);
    }
}
