package lychnos.wire.ladder;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.kind.Expectation;
import lychnos.core.proof.Accepted;
import lychnos.core.proof.ClockMark;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.redfish.Controller;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.rmcp.Presence;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.vantage.Vantage;

/** The upper rungs of a Redfish service (DMTF DSP0266). */
final class RedfishWay implements Way {

    private static final Duration PRESENCE = Duration.ofSeconds(2);

    private final Vantage vantage;
    private final Target target;
    private final Target.Redfish expected;
    private final Clock clock;
    private final RedfishClient client;
    private List<Settings.Field> fields = List.of();
    private String firmware;
    private Duration clockAhead;

    RedfishWay(Vantage vantage, Target target, Target.Redfish expected, Clock clock) {
        this.vantage = vantage;
        this.target = target;
        this.expected = expected;
        this.clock = clock;
        client = new RedfishClient(vantage, target.address(), target.port(), target.fingerprint());
    }

    static Outcome brokenUnlessUndeclared(WireFault fault, Rung rung, Trouble trouble) throws WireFault {
        if (fault.ours()) {
            throw fault;
        }
        return Outcome.broken(rung, trouble, fault.getMessage());
    }

    @Override
    public Outcome service() throws WireFault {
        List<Part> parts = new ArrayList<>();
        try {
            String version =
                    "Redfish " + client.root().json().path("RedfishVersion").asText();
            parts.add(Part.holds(LadderText.SERVICE_ROOT.text(), version));
            return presence(parts)
                    .orElseGet(
                            () -> Outcome.holds(Rung.SERVICE, pinged() ? LadderText.AND_RMCP.text(version) : version))
                    .with(parts);
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.SERVICE, Trouble.NO_SERVICE);
        } catch (RedfishFault e) {
            return Outcome.broken(Rung.SERVICE, Trouble.NO_SERVICE, e.getMessage());
        }
    }

    private boolean pinged() {
        return expected.presence() == Expectation.EXPECTED;
    }

    /** What keeps the rung from holding; nothing where it answers, or is not asked. */
    private Optional<Outcome> presence(List<Part> parts) throws WireFault {
        if (!pinged()) {
            return Optional.empty();
        }
        try {
            Presence.Seen seen = vantage.presence(target.address(), PRESENCE);
            parts.add(Part.holds(
                    LadderText.PRESENCE_PING.text(),
                    (seen.ipmi() ? LadderText.ANSWERED_IPMI : LadderText.ANSWERED).text()));
            return Optional.empty();
        } catch (WireFault e) {
            parts.add(Part.broken(LadderText.PRESENCE_PING.text(), e.getMessage()));
            return Optional.of(brokenUnlessUndeclared(e, Rung.SERVICE, Trouble.NO_PRESENCE));
        }
    }

    @Override
    public Outcome identity() throws WireFault {
        if (expected.login().phrase() == null) {
            return Outcome.broken(Rung.IDENTITY, Trouble.IDENTITY_UNREADABLE, LadderText.NO_PASSWORD_YET.text());
        }
        try {
            client.logIn(expected.login().user(), expected.login().phrase());
            Instant before = clock.instant();
            Controller.Identity identity = new Controller(client, expected.mac()).identity();
            firmware = identity.firmware();
            clockAhead = identity.clock()
                    .map(told -> ClockMark.ahead(told, before, clock.instant()))
                    .orElse(null);
            Optional<String> other = identity.differsFrom(expected.serial(), expected.mac());
            return other.isPresent()
                    ? Outcome.broken(Rung.IDENTITY, Trouble.OTHER_MACHINE, other.get())
                    : Outcome.holds(Rung.IDENTITY, identity.evidence(expected.serial(), expected.mac()));
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.IDENTITY, Trouble.IDENTITY_UNREADABLE);
        } catch (RedfishFault e) {
            boolean refused = e.status() == 401 || e.status() == 403;
            return Outcome.broken(
                    Rung.IDENTITY, refused ? Trouble.PASSWORD_REFUSED : Trouble.IDENTITY_UNREADABLE, e.getMessage());
        }
    }

    @Override
    public Outcome asPlanned() throws WireFault {
        List<Part> notShown;
        try {
            Settings found = new Controller(client, expected.mac()).settings();
            fields = Accepted.apply(
                    expected.plan().compare(found), target.known().accepted());
            notShown = found.notShown().stream()
                    .sorted()
                    .map(value -> Part.notMeasured(value.title(), LadderText.NOT_SHOWN_BY_CONTROLLER.text()))
                    .toList();
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE);
        } catch (RedfishFault e) {
            return Outcome.broken(Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE, e.getMessage());
        }
        String differences = Settings.differences(fields);
        return differences.isEmpty()
                ? Outcome.holds(Rung.AS_PLANNED, LadderText.VALUES.text(fields.size(), fields.size()))
                        .with(notShown)
                : Outcome.broken(
                        Rung.AS_PLANNED,
                        Trouble.NOT_AS_PLANNED,
                        Character.toUpperCase(differences.charAt(0)) + differences.substring(1));
    }

    @Override
    public Outcome factoryRefused() throws WireFault {
        List<Part> parts = new ArrayList<>();
        if (presenceForbidden(parts)) {
            return Outcome.broken(Rung.SAFE, Trouble.PRESENCE_ANSWERS, "").with(parts);
        }
        Outcome refused = loginRefused();
        parts.addAll(refused.parts());
        return refused.with(parts);
    }

    /** Whether it answers a presence ping although nobody should be told that it is there. */
    private boolean presenceForbidden(List<Part> parts) throws WireFault {
        if (expected.presence() != Expectation.FORBIDDEN) {
            return false;
        }
        try {
            vantage.presence(target.address(), PRESENCE);
            parts.add(Part.broken(LadderText.PRESENCE_PING.text(), "answered"));
            return true;
        } catch (WireFault e) {
            if (e.ours()) {
                throw e;
            }
            parts.add(Part.holds(LadderText.PRESENCE_PING.text(), LadderText.NOT_ANSWERED.text()));
            return false;
        }
    }

    /** One attempt and no more: a second one might lock the account. */
    private Outcome loginRefused() throws WireFault {
        try (RedfishClient other = new RedfishClient(vantage, target.address(), target.port(), client.fingerprint())) {
            other.logIn(expected.factory().user(), expected.factory().phrase());
            return Outcome.broken(Rung.SAFE, Trouble.FACTORY_ACCEPTED, "");
        } catch (RedfishFault e) {
            if (e.is("PasswordChangeRequired")) {
                return Outcome.broken(Rung.SAFE, Trouble.FACTORY_ACCEPTED, "");
            }
            if (e.status() != 401 && e.status() != 403) {
                return Outcome.broken(Rung.SAFE, Trouble.FACTORY_UNCLEAR, e.getMessage());
            }
        } catch (WireFault e) {
            return brokenUnlessUndeclared(e, Rung.SAFE, Trouble.FACTORY_UNCLEAR);
        }
        return Outcome.holds(Rung.SAFE, LadderText.FACTORY_REFUSED.text())
                .with(List.of(Part.holds(LadderText.FACTORY_PASSWORD.text(), LadderText.REFUSED_BY_REDFISH.text())));
    }

    @Override
    public List<Settings.Field> fields() {
        return fields;
    }

    @Override
    public String firmware() {
        return firmware;
    }

    @Override
    public HostKey.Seen hostKey() {
        return null;
    }

    @Override
    public Map<String, String> traits() {
        return Map.of();
    }

    @Override
    public Optional<Duration> clockAhead() {
        return Optional.ofNullable(clockAhead);
    }

    @Override
    public void close() {
        client.close();
    }
}
