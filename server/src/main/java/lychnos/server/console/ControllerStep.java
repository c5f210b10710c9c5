package lychnos.server.console;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import lychnos.core.address.Address;
import lychnos.core.dialogue.ControllerPlan;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;
import lychnos.server.problem.Refusal;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.redfish.Controller;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Answering;
import lychnos.wire.vantage.Vantage;

/**
 * A member's server management controller: found by its lease, told by serial and hardware address, given our password,
 * its time servers, name and fixed address, followed to that address and read back there. Nothing is written before it
 * was told.
 */
final class ControllerStep implements RemoteStep {

    private static final Duration PING = Duration.ofSeconds(1);
    private static final Duration CONNECT = Duration.ofSeconds(2);

    /** Finds it where nobody has set it yet. */
    @FunctionalInterface
    interface Finding {
        Optional<FirstAddress.Found> find(Mac mac, int port) throws WireFault;
    }

    private final int place;
    private final DialogueStep.Controller step;
    private final ControllerPlan plan;
    private final Vantage vantage;
    private final int port;
    private final Finding finding;
    private final BiPredicate<String, String> trusts;
    /** Where it was before it moved, and whether it has left there. */
    private Address before;

    private boolean left;
    private long movedAt;

    ControllerStep(
            int place,
            DialogueStep.Controller step,
            Values values,
            Vantage vantage,
            int port,
            Finding finding,
            BiPredicate<String, String> trusts) {
        this.place = place;
        this.step = step;
        this.plan = new ControllerPlan(step, values);
        this.vantage = vantage;
        this.port = port;
        this.finding = finding;
        this.trusts = trusts;
    }

    @Override
    public String what() {
        return "the controller";
    }

    @Override
    public List<String> lacking() {
        return plan.lacking();
    }

    @Override
    public Optional<Hold> stops(Mode mode) {
        return plan.stops(place, mode);
    }

    /** Ends a step from within: a person is wanted. */
    private static final class Stop extends Exception {

        private final transient Hold hold;

        Stop(Hold hold) {
            super(hold.sentence());
            this.hold = hold;
        }
    }

    private Stop stop(Why why, String sentence) {
        return new Stop(new Hold(why, place, sentence, "", ""));
    }

    @FunctionalInterface
    private interface Doing {
        Outcome run() throws WireFault, RedfishFault, Stop;
    }

    private Outcome guarded(Doing doing) throws WireFault {
        try {
            return doing.run();
        } catch (Stop stop) {
            return new Outcome.Stands(stop.hold);
        } catch (Refusal e) {
            return new Outcome.Stands(
                    new Hold(Why.UNREACHED, place, e.getMessage() + " Going on tries it again.", "", ""));
        } catch (RedfishFault e) {
            return new Outcome.Stands(new Hold(
                    Why.PAGE,
                    place,
                    "The controller answered: " + e.getMessage() + ". See what it wants; going on sets it again.",
                    e.getMessage(),
                    ""));
        }
    }

    @Override
    public Outcome carryOut(boolean begun, Sending sending) throws WireFault {
        return guarded(() -> set(begun, sending));
    }

    private Outcome set(boolean begun, Sending sending) throws WireFault, RedfishFault, Stop {
        Settings wanted = plan.settings();
        Mac mac = plan.mac().orElseThrow();
        FirstAddress.Found found = answersAsOurs(wanted.address(), begun)
                ? new FirstAddress.Found(wanted.address(), "answers at its planned address")
                : find(mac);
        refuseOtherNeighbour(found.address(), mac);
        before = found.address();
        boolean ours;
        boolean told;
        try (RedfishClient client = client(found.address())) {
            Entered entered = enter(client, begun);
            ours = entered.ours;
            told = tellsWhichOneItIs(client, found.address(), mac);
            if (!sending.keep(wanted.address() + ", " + wanted.fqdn(), List.of(step.phrase()))) {
                return new Outcome.NotKept();
            }
            if (!ours) {
                setPassword(client, entered.account);
            }
        }
        try (RedfishClient client = client(found.address())) {
            enterWithOurs(client, ours ? "" : " The one on its tag may count still.");
            Controller controller = new Controller(client);
            if (!told) {
                refuseAnother(
                        controller.identity(),
                        mac,
                        "Its password was changed and is sealed; nothing else was written.");
            }
            if (agrees(wanted, controller.settings(mac))) {
                return done(found.how());
            }
            controller.setTime(wanted.timeServers());
            refuseStranger(wanted.address(), mac);
            move(controller, mac, wanted);
            movedAt = System.nanoTime();
        }
        return new Outcome.Works(found.how() + "; serial " + plan.serial() + " and " + mac + " as on its tag");
    }

    private FirstAddress.Found find(Mac mac) throws WireFault, Stop {
        return finding.find(mac, port)
                .orElseThrow(() -> stop(
                        Why.UNREACHED,
                        "No controller answers where DHCP has leased " + mac
                                + " an address. Look at the cable of its port, at the tag, and whether the "
                                + "DHCP server's lease file is stated; going on looks again."));
    }

    /** Whether this very controller answers at its planned address, as far as can be told without logging in. */
    private boolean answersAsOurs(Address planned, boolean begun) throws WireFault {
        if (!vantage.hearsSilence()) {
            return begun && vantage.port(planned, port, CONNECT) == PortState.OPEN;
        }
        return vantage.ping(planned, PING).state() != Echo.State.SILENT
                && vantage.neighbour(planned)
                        .filter(plan.mac().orElseThrow()::equals)
                        .isPresent()
                && vantage.port(planned, port, CONNECT) == PortState.OPEN;
    }

    private void refuseOtherNeighbour(Address at, Mac mac) throws WireFault, Stop {
        if (!vantage.hearsSilence()) {
            return;
        }
        vantage.ping(at, PING);
        Optional<Mac> other = vantage.neighbour(at).filter(neighbour -> !neighbour.equals(mac));
        if (other.isPresent()) {
            throw stop(
                    Why.WRONG_MACHINE,
                    at + " is leased to " + mac + " and answered by " + other.get()
                            + ". Nothing was written to it. Compare the tag with the machine.");
        }
    }

    private RedfishClient client(Address at) throws WireFault, RedfishFault {
        RedfishClient client = new RedfishClient(vantage, at, port, null);
        client.root(); // without a log-in: to see the certificate
        if (!trusts.test("controller " + plan.mac().orElseThrow(), client.fingerprint())) {
            throw new WireFault(
                    WireFault.Kind.OTHER_CERTIFICATE,
                    "it shows another certificate than before, " + client.fingerprint()
                            + "; nothing was sent to it under that one");
        }
        return client;
    }

    /** How it let us in: with our password already, and which account it wants changed first. */
    private record Entered(boolean ours, String account) {}

    /** One try each, the likelier one first: after an interruption nobody knows whether the new one was taken. */
    private Entered enter(RedfishClient client, boolean begun) throws WireFault, RedfishFault, Stop {
        for (boolean ours : begun ? new boolean[] {true, false} : new boolean[] {false, true}) {
            Optional<Optional<String>> account = tryLogIn(client, ours ? plan.ours() : plan.delivered());
            if (account.isPresent()) {
                return new Entered(ours, account.get().orElse(null));
            }
        }
        throw stop(
                Why.PAGE,
                "The controller refuses the password on its tag, and ours as well. Neither was tried again, so that "
                        + "no account is locked. Read the tag once more, or reset the controller; going on tries "
                        + "both once more.");
    }

    /** The account that is to be changed first, if there is one; nothing where the log-in is refused. */
    private Optional<Optional<String>> tryLogIn(RedfishClient client, Secret phrase) throws WireFault, RedfishFault {
        try {
            return Optional.of(client.logIn(plan.user(), phrase));
        } catch (RedfishFault e) {
            if (e.status() == 401) {
                return Optional.empty();
            }
            throw e;
        }
    }

    /** False where it tells its serial only after its password was changed; its hardware address was seen then. */
    private boolean tellsWhichOneItIs(RedfishClient client, Address at, Mac mac) throws WireFault, RedfishFault, Stop {
        try {
            refuseAnother(new Controller(client).identity(), mac, "Nothing was written to it.");
            return true;
        } catch (RedfishFault e) {
            if (!e.is("PasswordChangeRequired")) {
                throw e;
            }
            if (!vantage.hearsSilence()
                    || vantage.neighbour(at).filter(mac::equals).isEmpty()) {
                throw stop(
                        Why.NOT_KNOWN,
                        "It tells its serial only after its password was changed, and its hardware address cannot be "
                                + "seen from here. Compare the tag with the machine and change the password by hand.");
            }
            return false;
        }
    }

    private void refuseAnother(Controller.Identity identity, Mac mac, String written) throws Stop {
        Optional<String> differs = identity.differsFrom(plan.serial(), mac);
        if (differs.isPresent()) {
            throw stop(
                    Why.WRONG_MACHINE,
                    "It is another machine: " + differs.get().replace("the label says", "its tag says") + ". " + written
                            + " Compare the tag with the machine.");
        }
    }

    private void setPassword(RedfishClient client, String account) throws WireFault, RedfishFault {
        try {
            new Controller(client).setPassword(plan.user(), account, plan.ours());
        } catch (WireFault e) {
            if (e.kind() != WireFault.Kind.UNKNOWN_OUTCOME) {
                throw e;
            }
            // the log-in that follows shows which password it has
        }
    }

    private void enterWithOurs(RedfishClient client, String more) throws WireFault, RedfishFault, Stop {
        if (tryLogIn(client, plan.ours()).isEmpty()) {
            throw stop(
                    Why.PAGE,
                    "The controller does not let us in with our password." + more
                            + " It was not tried again. Going on tries both once more.");
        }
    }

    private static boolean agrees(Settings wanted, Settings found) {
        return Settings.differences(wanted.compare(found)).isEmpty();
    }

    /** Asks the wire once more right before an address is written into a machine. */
    private void refuseStranger(Address planned, Mac mac) throws WireFault, Stop {
        if (Answering.at(vantage, planned, PING) != Answering.ANSWERS) {
            return;
        }
        Optional<Mac> there = vantage.neighbour(planned);
        if (there.filter(mac::equals).isEmpty()) {
            throw stop(
                    Why.PAGE,
                    planned + " answers already"
                            + there.map(other -> ": " + other).orElse("")
                            + ". A stranger has the controller's planned address; it was not set. Find it, or place "
                            + "this unit anew.");
        }
    }

    private static void move(Controller controller, Mac mac, Settings wanted) throws WireFault, RedfishFault {
        try {
            controller.setNetwork(mac, wanted);
        } catch (WireFault e) {
            if (e.kind() != WireFault.Kind.UNKNOWN_OUTCOME) {
                throw e;
            }
            // the connection ends as the address moves; it is looked for at the new one
        }
    }

    @Override
    public Outcome look() throws WireFault {
        return guarded(() -> {
            Settings wanted = plan.settings();
            if (answersAsOurs(wanted.address(), true)) {
                return readBack(wanted);
            }
            boolean atOld = before != null
                    && !before.equals(wanted.address())
                    && vantage.port(before, port, CONNECT) == PortState.OPEN;
            if (atOld && (left || System.nanoTime() - movedAt > step.usually().toNanos())) {
                throw stop(
                        Why.PAGE,
                        "The controller answers at its old address " + before + " instead of " + wanted.address()
                                + ": it did not keep the setting. Going on sets it again; if it stays so, set it at "
                                + "the machine.");
            }
            left |= !atOld;
            return new Outcome.Works("");
        });
    }

    private Outcome readBack(Settings wanted) throws WireFault, RedfishFault, Stop {
        try (RedfishClient client = client(wanted.address())) {
            enterWithOurs(client, "");
            List<Settings.Field> fields =
                    wanted.compare(new Controller(client).settings(plan.mac().orElseThrow()));
            String off = Settings.differences(fields);
            if (!off.isEmpty()) {
                throw stop(
                        Why.PAGE,
                        "The controller was set, and read back " + off
                                + ". Going on sets it again; if it stays so, set it at the machine.");
            }
            return done((before == null || before.equals(wanted.address()) ? "" : "came from " + before + "; ")
                    + fields.size() + " of " + fields.size() + " read back");
        }
    }

    private Outcome done(String evidence) {
        return new Outcome.Done(evidence, List.of(step.phrase()), Map.of());
    }
}
