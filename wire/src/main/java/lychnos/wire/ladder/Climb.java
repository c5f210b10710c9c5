package lychnos.wire.ladder;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import lychnos.core.fact.Mac;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Trouble;
import lychnos.wire.Vantage;
import lychnos.wire.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.redfish.Controller;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.tls.TlsSeen;

/** Climbs the ladder of one endpoint, rung by rung, until one does not hold. One climb per object. */
public final class Climb {

    private static final Duration PING = Duration.ofSeconds(1);
    private static final Duration CONNECT = Duration.ofSeconds(3);
    private static final Duration SHUT = Duration.ofMillis(800);

    private final Vantage vantage;
    private final Target target;
    private final Clock clock;
    private final List<Outcome> outcomes = new ArrayList<>();
    private List<Settings.Field> fields = List.of();
    private TlsSeen shown;
    private String firmware;
    private Duration roundTrip;

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
        try (RedfishClient client = new RedfishClient(vantage, target.address(), target.port(), target.fingerprint())) {
            boolean ignored = answers() && port() && tls() && service(client) && identity(client) && asPlanned(client) && safe();
        }
        for (int i = outcomes.size(); i < Rung.values().length; i++) {
            outcomes.add(Outcome.notReached(Rung.values()[i]));
        }
        return new Climbed(
                outcomes, fields, shown == null ? null : shown.fingerprint(), shown == null ? null : shown.notAfter(), firmware, roundTrip);
    }

    private boolean holds(Rung rung, String seen) {
        outcomes.add(Outcome.holds(rung, seen));
        return true;
    }

    private boolean broken(Rung rung, Trouble trouble, String seen) {
        outcomes.add(Outcome.broken(rung, trouble, seen));
        return false;
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
        Optional<Mac> neighbour = vantage.neighbour(target.address());
        if (neighbour.isPresent() && !neighbour.get().equals(target.mac())) {
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

    private boolean service(RedfishClient client) throws WireFault {
        try {
            return holds(Rung.SERVICE, "Redfish " + client.root().json().path("RedfishVersion").asText());
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.SERVICE, Trouble.NO_SERVICE);
        } catch (RedfishFault e) {
            return broken(Rung.SERVICE, Trouble.NO_SERVICE, e.getMessage());
        }
    }

    private boolean brokenUnlessUndeclared(WireFault fault, Rung rung, Trouble trouble) throws WireFault {
        if (fault.kind() == WireFault.Kind.NOT_DECLARED) {
            throw fault;
        }
        return broken(rung, trouble, fault.getMessage());
    }

    private boolean identity(RedfishClient client) throws WireFault {
        if (target.login().phrase() == null) {
            return broken(Rung.IDENTITY, Trouble.IDENTITY_UNREADABLE, "no password of ours is on it yet");
        }
        try {
            client.logIn(target.login().user(), target.login().phrase());
            Controller.Identity identity = new Controller(client).identity();
            firmware = identity.firmware();
            Optional<String> other = identity.differsFrom(target.serial(), target.mac());
            if (other.isPresent()) {
                return broken(Rung.IDENTITY, Trouble.OTHER_MACHINE, other.get());
            }
            return holds(Rung.IDENTITY, "serial " + target.serial() + " and " + target.mac() + " as on the label");
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.IDENTITY, Trouble.IDENTITY_UNREADABLE);
        } catch (RedfishFault e) {
            boolean refused = e.status() == 401 || e.status() == 403;
            return broken(Rung.IDENTITY, refused ? Trouble.PASSWORD_REFUSED : Trouble.IDENTITY_UNREADABLE, e.getMessage());
        }
    }

    private boolean asPlanned(RedfishClient client) throws WireFault {
        try {
            fields = target.plan().compare(new Controller(client).settings(target.mac()));
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE);
        } catch (RedfishFault e) {
            return broken(Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE, e.getMessage());
        }
        String differences = Settings.differences(fields);
        if (differences.isEmpty()) {
            return holds(Rung.AS_PLANNED, fields.size() + " of " + fields.size() + " values");
        }
        return broken(Rung.AS_PLANNED, Trouble.NOT_AS_PLANNED, Character.toUpperCase(differences.charAt(0)) + differences.substring(1));
    }

    private boolean safe() throws WireFault {
        for (int port : target.shut()) {
            if (vantage.port(target.address(), port, SHUT) == PortState.OPEN) {
                return broken(Rung.SAFE, Trouble.MUST_BE_SHUT, String.valueOf(port));
            }
        }
        // one attempt and no more: a second one might lock the account
        try (RedfishClient client = new RedfishClient(vantage, target.address(), target.port(), shown.fingerprint())) {
            client.logIn(target.factory().user(), target.factory().phrase());
            return broken(Rung.SAFE, Trouble.FACTORY_ACCEPTED, "");
        } catch (RedfishFault e) {
            if (e.is("PasswordChangeRequired")) {
                return broken(Rung.SAFE, Trouble.FACTORY_ACCEPTED, "");
            }
            if (e.status() != 401 && e.status() != 403) {
                return broken(Rung.SAFE, Trouble.FACTORY_UNCLEAR, e.getMessage());
            }
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.SAFE, Trouble.FACTORY_UNCLEAR);
        }
        String ports = target.shut().stream().map(String::valueOf).collect(Collectors.joining(", "));
        return holds(Rung.SAFE, "factory password refused; " + ports + " shut");
    }
}
