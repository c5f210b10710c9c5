package lychnos.wire.controller;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;
import lychnos.wire.controller.ControllerStop.Cause;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.redfish.Controller;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Answering;
import lychnos.wire.vantage.Vantage;

/**
 * What it takes to set up one management controller over Redfish (DMTF DSP0266): to recognize it, to give it our
 * password, time servers, names and fixed address, and to read them back. Callers decide the order and keep what was
 * done; each operation here may be repeated after an interruption. The rules that hold on every way are here: nothing
 * is written before the controller is identified, each password is tried once, and an address is written only when no
 * other device answers there. Blocks; for one thread.
 */
public final class ControllerSetup {

    private static final Duration PING = Duration.ofSeconds(1);
    private static final Duration CONNECT = Duration.ofSeconds(2);

    /**
     * Which controller is set up, and to what.
     *
     * @param mac as on its label
     * @param serial as on its label; empty where the label has none
     * @param user its account
     * @param settings what it is to have
     * @param place where to look for it, for people: {@code rack B03, unit 12}; may be empty
     */
    public record Wanted(Mac mac, String serial, String user, Settings settings, String place) {}

    /** Opens a connection to the address where the controller answers, under the known certificate. */
    @FunctionalInterface
    public interface Opening {

        /** @throws WireFault of kind OTHER_CERTIFICATE if it shows another certificate than before */
        RedfishClient open(Address at) throws WireFault, RedfishFault;
    }

    /**
     * A log-in that was accepted.
     *
     * @param password the one that was accepted, of those that were tried
     * @param account the path of the account whose password must be changed first, if there is one
     */
    public record Entry(Secret password, Optional<String> account) {}

    /**
     * How the controller was recognized.
     *
     * @param complete false if only its MAC address was seen, because it shows the rest once its password is changed
     */
    public record Identified(boolean complete, String evidence) {}

    private final Vantage vantage;
    private final int port;
    private final Wanted wanted;
    private final Opening opening;
    private boolean refused;

    public ControllerSetup(Vantage vantage, int port, Wanted wanted, Opening opening) {
        this.vantage = vantage;
        this.port = port;
        this.wanted = wanted;
        this.opening = opening;
    }

    public Wanted wanted() {
        return wanted;
    }

    public RedfishClient open(Address at) throws WireFault, RedfishFault {
        return opening.open(at);
    }

    /**
     * Whether this very controller answers at an address.
     *
     * @param known what to conclude where MAC addresses cannot be seen: whether it has been set up there before
     */
    public boolean answersAt(Address at, boolean known) throws WireFault {
        if (!vantage.hearsSilence()) {
            return known && portOpen(at);
        }
        return vantage.ping(at, PING).state() != Echo.State.SILENT && hasOurMac(at) && portOpen(at);
    }

    boolean portOpen(Address at) throws WireFault {
        return vantage.port(at, port, CONNECT) == PortState.OPEN;
    }

    /** Whether what answers at an address has the MAC address of the label, where that can be seen from here. */
    boolean mayBeOurs(Address at) throws WireFault {
        return !vantage.hearsSilence() || hasOurMac(at);
    }

    private boolean hasOurMac(Address at) throws WireFault {
        return vantage.neighbour(at).filter(wanted.mac()::equals).isPresent();
    }

    /**
     * Compares the MAC address behind an address with the label.
     *
     * @return whether it was seen and is the one; false where it cannot be seen from here
     */
    public boolean checkMac(Address at) throws WireFault, ControllerStop {
        if (!vantage.hearsSilence()) {
            return false;
        }
        vantage.ping(at, PING);
        Optional<Mac> seen = vantage.neighbour(at);
        if (seen.isPresent() && !seen.get().equals(wanted.mac())) {
            throw another(
                    ControllerText.ANSWERED_BY_ANOTHER.text(at, seen.get(), wanted.mac()),
                    ControllerText.NOTHING_WRITTEN);
        }
        return seen.isPresent();
    }

    private ControllerStop another(String what, ControllerText written) {
        String machine = wanted.place().isEmpty()
                ? ControllerText.THE_MACHINE.text()
                : ControllerText.MACHINE_AT.text(wanted.place());
        return new ControllerStop(
                Cause.ANOTHER_MACHINE, ControllerText.OTHER_MACHINE.text(what), written.text(machine));
    }

    /**
     * Tries passwords in their order, each once: a second attempt could lock the account.
     *
     * @return nothing if all are refused
     */
    public Optional<Entry> logIn(RedfishClient client, List<Secret> passwords) throws WireFault, RedfishFault {
        for (Secret password : passwords) {
            try {
                return Optional.of(new Entry(password, client.logIn(wanted.user(), password)));
            } catch (RedfishFault e) {
                if (e.status() != 401) {
                    throw e;
                }
                refused = true;
            }
        }
        return Optional.empty();
    }

    /**
     * Compares what a controller says of itself with the label, before anything is written to it.
     *
     * @param client logged in
     * @param macSeen what {@link #checkMac} has found
     */
    public Identified identify(RedfishClient client, boolean macSeen) throws WireFault, RedfishFault, ControllerStop {
        try {
            return new Identified(true, compare(client, ControllerText.NOTHING_WRITTEN));
        } catch (RedfishFault e) {
            if (!e.is("PasswordChangeRequired")) {
                throw e;
            }
            if (!macSeen) {
                throw new ControllerStop(
                        Cause.NOT_IDENTIFIED,
                        ControllerText.SERIAL_LATER.text(),
                        ControllerText.SERIAL_LATER_FIX.text());
            }
            return new Identified(false, ControllerText.KNOWN_BY_MAC.text(wanted.mac()));
        }
    }

    /** The same comparison after our password has been set, for controllers that show nothing before. */
    public String confirm(RedfishClient client) throws WireFault, RedfishFault, ControllerStop {
        return compare(client, ControllerText.PASSWORD_WRITTEN);
    }

    private String compare(RedfishClient client, ControllerText written)
            throws WireFault, RedfishFault, ControllerStop {
        Controller.Identity identity = controller(client).identity();
        Optional<String> other = identity.differsFrom(wanted.serial(), wanted.mac());
        if (other.isPresent()) {
            throw another(other.get(), written);
        }
        return identity.evidence(wanted.serial(), wanted.mac());
    }

    /**
     * Whether a password was refused so far. Then nothing that logs in may be repeated without a person: it would be
     * another attempt with the same password.
     */
    public boolean refused() {
        return refused;
    }

    private Controller controller(RedfishClient client) {
        return new Controller(client, wanted.mac());
    }

    /**
     * Replaces the password of the account. Sessions usually end with it.
     *
     * @param account where the service said the account lies, if it did
     * @return empty, or why it is unknown whether the controller has taken it: the next log-in shows
     */
    public Optional<String> changePassword(RedfishClient client, Optional<String> account, Secret password)
            throws WireFault, RedfishFault {
        return unlessUnknown(() -> controller(client).setPassword(wanted.user(), account.orElse(null), password));
    }

    /** @return the service's warnings */
    public List<String> setTime(RedfishClient client) throws WireFault, RedfishFault {
        return controller(client).setTime(wanted.settings().timeServers());
    }

    /** Asks once more, right before the planned address is written, whether another device answers there. */
    public void refuseUnknownDevice() throws WireFault, ControllerStop {
        Address planned = wanted.settings().address();
        if (Answering.at(vantage, planned, PING) != Answering.ANSWERS) {
            return;
        }
        Optional<Mac> there = vantage.neighbour(planned);
        if (there.filter(wanted.mac()::equals).isEmpty()) {
            throw new ControllerStop(
                    Cause.ADDRESS_IN_USE,
                    there.map(other -> ControllerText.ADDRESS_IN_USE_BY.text(planned, other))
                            .orElseGet(() -> ControllerText.ADDRESS_IN_USE.text(planned)),
                    ControllerText.ADDRESS_IN_USE_FIX.text());
        }
    }

    /**
     * What came of writing the network settings.
     *
     * @param unknown why the outcome is unknown; empty where the controller has answered
     */
    public record Written(List<String> warnings, Optional<String> unknown) {}

    /** Writes names, name servers, fixed address and VLAN. The controller may be gone from its address afterwards. */
    public Written setNetwork(RedfishClient client) throws WireFault, RedfishFault {
        List<String> warnings = new ArrayList<>();
        Optional<String> unknown =
                unlessUnknown(() -> warnings.addAll(controller(client).setNetwork(wanted.settings())));
        return new Written(warnings, unknown);
    }

    @FunctionalInterface
    private interface Writing {
        void run() throws WireFault, RedfishFault;
    }

    private static Optional<String> unlessUnknown(Writing writing) throws WireFault, RedfishFault {
        try {
            writing.run();
            return Optional.empty();
        } catch (WireFault e) {
            if (e.kind() != WireFault.Kind.UNKNOWN_OUTCOME) {
                throw e;
            }
            return Optional.of(e.getMessage());
        }
    }

    /** What is set in it now, value by value beside the plan. */
    public List<Settings.Field> read(RedfishClient client) throws WireFault, RedfishFault {
        return wanted.settings().compare(controller(client).settings());
    }

    /**
     * Reads everything back.
     *
     * @return how many values agree, for the record
     */
    public String readBack(RedfishClient client) throws WireFault, RedfishFault, ControllerStop {
        Settings found = controller(client).settings();
        List<Settings.Field> fields = wanted.settings().compare(found);
        String differences = Settings.differences(fields);
        if (!differences.isEmpty()) {
            throw new ControllerStop(
                    Cause.NOT_AS_PLANNED,
                    ControllerText.NOT_ALL_ACCEPTED.text(differences),
                    ControllerText.NOT_ALL_ACCEPTED_FIX.text());
        }
        return found.notShown().isEmpty()
                ? ControllerText.VALUES_AS_PLANNED.text(fields.size(), fields.size())
                : ControllerText.SHOWN_VALUES_AS_PLANNED.text(fields.size(), fields.size(), found.notShownTitles());
    }

    /** Where the controller is while it changes its address. */
    public Move moveFrom(Address old) {
        return new Move(this, old, wanted.settings());
    }
}
