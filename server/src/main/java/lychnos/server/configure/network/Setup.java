package lychnos.server.configure.network;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.order.SetupStep;
import lychnos.core.proof.Verdict;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.api.problem.Refusal;
import lychnos.server.jobs.HoldLost;
import lychnos.server.prove.Proofs;
import lychnos.server.prove.Targets;
import lychnos.server.secrets.SealedStore;
import lychnos.wire.controller.ControllerSetup;
import lychnos.wire.controller.ControllerStop;
import lychnos.wire.controller.Move;
import lychnos.wire.fault.WireFault;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;

/**
 * What each {@link SetupStep} does to one controller, by the operations of {@link ControllerSetup}. Every step can be
 * begun a second time after an interruption: it looks first at what is there already. Nothing is written before
 * {@link SetupStep#IDENTIFY} has passed.
 */
final class Setup {

    private static final Duration CONNECT = Duration.ofSeconds(3);
    private static final Duration FOLLOW_PAUSE = Duration.ofMillis(400);
    private static final int PASSWORD_LENGTH = 20;

    /** Asks whether this server still holds the run. */
    @FunctionalInterface
    interface Hold {
        void look() throws HoldLost;
    }

    private final Targets.Subject subject;
    private final Kind kind;
    private final Vantage vantage;
    private final FirstAddress firstAddress;
    private final Proofs proofs;
    private final SealedStore sealed;
    private final PasswordMaker passwords;
    private final Duration followAtMost;
    private final Clock clock;
    private final ControllerSetup controller;
    private final long unitId;
    private final Address planned;
    private Address foundAt;
    private Optional<String> account = Optional.empty();

    Setup(
            Targets.Subject subject,
            Kind kind,
            Vantage vantage,
            FirstAddress firstAddress,
            Targets targets,
            Proofs proofs,
            SealedStore sealed,
            PasswordMaker passwords,
            Duration followAtMost,
            Clock clock) {
        this.subject = subject;
        this.kind = kind;
        this.vantage = vantage;
        this.firstAddress = firstAddress;
        this.proofs = proofs;
        this.sealed = sealed;
        this.passwords = passwords;
        this.followAtMost = followAtMost;
        this.clock = clock;
        this.unitId = subject.unit().id;
        this.planned = subject.claim().address;
        this.controller = new ControllerSetup(
                vantage,
                kind.port(),
                new ControllerSetup.Wanted(
                        subject.unit().mac,
                        Optional.ofNullable(subject.unit().serial).orElse(""),
                        kind.factory().user(),
                        subject.plan(),
                        subject.unit().position().toString()),
                at -> new RedfishClient(vantage, at, kind.port(), targets.fingerprint(subject)));
    }

    Address foundAt() {
        return foundAt;
    }

    void foundAt(Address address) {
        foundAt = address;
    }

    /**
     * Carries a step out.
     *
     * @param resumed whether the step was begun before and interrupted
     * @return what was seen, for the record
     */
    String carryOut(SetupStep step, boolean resumed, Hold hold) throws Surprise, HoldLost {
        try {
            return switch (step) {
                case FIND -> find();
                case IDENTIFY -> identify();
                case SEAL_PASSWORD -> sealPassword();
                case SET_PASSWORD -> setPassword(resumed);
                case PROVE_PASSWORD -> provePassword();
                case SET_TIME -> setTime();
                case SET_NETWORK -> setNetwork(resumed);
                case FOLLOW -> follow(hold);
                case READ_BACK -> readBack();
                case PROVE -> prove();
            };
        } catch (ControllerStop e) {
            throw new Surprise(e.getMessage(), e.advice());
        } catch (WireFault e) {
            throw new Surprise(sentence(step, e), advice(e), e.passing() && !controller.refused());
        } catch (RedfishFault e) {
            throw new Surprise(
                    at(step) + "the controller answered: " + e.getMessage(),
                    "Correct the refused value, then try again.");
        }
    }

    private String sentence(SetupStep step, WireFault fault) {
        return switch (fault.kind()) {
            case OTHER_CERTIFICATE ->
                "This controller shows another certificate than when it was identified (" + fault.getMessage() + ").";
            case GARBAGE -> at(step) + "the controller sent an answer that cannot be read: " + fault.getMessage() + ".";
            case NOT_DECLARED -> fault.getMessage();
            default -> at(step) + foundAt + ": " + fault.getMessage() + ".";
        };
    }

    private static String at(SetupStep step) {
        return "At the step “" + step.doing() + "”, ";
    }

    private static String advice(WireFault fault) {
        return switch (fault.kind()) {
            case OTHER_CERTIFICATE -> "Compare the serial at the rack. Nothing was sent under the new certificate.";
            case GARBAGE -> "Restart the management controller, then try again.";
            default -> "Check cable and power, then try again.";
        };
    }

    private String find() throws WireFault, Surprise {
        if (controller.answersAt(planned, hasOurPassword())) {
            foundAt = planned;
            return "answers at its planned address " + planned + " already";
        }
        Address first = subject.unit().firstAddress;
        if (first != null && vantage.port(first, kind.port(), CONNECT) == PortState.OPEN) {
            foundAt = first;
            return "answers at " + first + ", its first address as on the label";
        }
        FirstAddress.FoundAddress found = elsewhere().orElseThrow(() -> notFound(first));
        foundAt = found.address();
        return found.how();
    }

    private Optional<FirstAddress.FoundAddress> elsewhere() throws WireFault, Surprise {
        try {
            return firstAddress.of(unitId, subject.unit().mac, kind.port());
        } catch (Refusal e) {
            throw new Surprise(e.getMessage(), "Correct the setting or the file, then try again.");
        }
    }

    private Surprise notFound(Address first) {
        if (!vantage.hearsSilence()) {
            return new Surprise(
                    "No controller answers at its first address"
                            + (first == null ? ": none is known." : " " + first + "."),
                    "Enter its first address with the label, or define the DHCP server's lease file; MAC addresses "
                            + "cannot be asked for from here.");
        }
        List<AddressRun> scopes = firstAddress.scopes(unitId);
        if (scopes.isEmpty()) {
            return new Surprise(
                    "The first address of this controller is not known.",
                    "Define the range that DHCP hands out, or enter its first address with the label.");
        }
        String where = scopes.stream().map(AddressRun::toString).collect(Collectors.joining(", "));
        return new Surprise(
                "No machine with " + subject.unit().mac + " answers in " + where + ".",
                "Check power, cable and VLAN of " + subject.unit().position()
                        + "; compare the MAC address with the label.");
    }

    private String identify() throws WireFault, RedfishFault, ControllerStop, Surprise {
        boolean macSeen = controller.checkMac(foundAt);
        try (RedfishClient client = controller.open(foundAt)) {
            client.root();
            List<Secret> expected =
                    Stream.concat(ours(), Stream.of(kind.factory().phrase())).toList();
            logIn(client, expected).orElseThrow(() -> refusesFactory("or enter the password in use"));
            ControllerSetup.Identified identified = controller.identify(client, macSeen);
            proofs.remember(subject, client.fingerprint());
            return identified.evidence();
        }
    }

    private Surprise refusesFactory(String orElse) {
        return new Surprise(
                "This controller refuses the factory password.",
                "The machine has been set up before. Reset it to factory settings, " + orElse + ".");
    }

    /** The password that has logged in before, and the one that was made for it: at most one of the two is there. */
    private Stream<Secret> ours() {
        return Stream.of(SealedStore.SealedState.PROVEN, SealedStore.SealedState.MADE)
                .flatMap(state -> sealed.open(unitId, state).stream());
    }

    private boolean hasOurPassword() {
        return sealed.open(unitId, SealedStore.SealedState.PROVEN).isPresent();
    }

    private Secret ourPassword() throws Surprise {
        return ours().findFirst()
                .orElseThrow(() -> new Surprise("The sealed password is gone.", "Try again from the beginning."));
    }

    /** Tries these passwords once each; remembers which account is to be changed first. */
    private Optional<ControllerSetup.Entry> logIn(RedfishClient client, List<Secret> tried)
            throws WireFault, RedfishFault {
        Optional<ControllerSetup.Entry> entry = controller.logIn(client, tried);
        entry.flatMap(ControllerSetup.Entry::account).ifPresent(path -> account = Optional.of(path));
        return entry;
    }

    private String sealPassword() {
        if (ours().findFirst().isPresent()) {
            return "the one sealed before is used";
        }
        sealed.seal(unitId, passwords.make(PASSWORD_LENGTH));
        return "a password of " + PASSWORD_LENGTH + " characters is sealed";
    }

    private String setPassword(boolean resumed) throws WireFault, RedfishFault, Surprise {
        if (hasOurPassword()) {
            return "it has ours already";
        }
        Secret made = ourPassword();
        Secret factory = kind.factory().phrase();
        try (RedfishClient client = controller.open(foundAt)) {
            // after an interruption it is not known whether the new one was sent: it is tried first
            Secret taken = logIn(client, resumed ? List.of(made, factory) : List.of(factory, made))
                    .map(ControllerSetup.Entry::password)
                    .orElseThrow(() -> refusesFactory("then try again"));
            if (taken.equals(made)) {
                return resumed ? "it had taken the new one before the interruption" : "it has the sealed one already";
            }
            return controller
                    .changePassword(client, account, made)
                    .map(unknown -> unknown + "; the next step shows which password it has")
                    .orElse("factory password replaced");
        }
    }

    private String provePassword() throws WireFault, RedfishFault, ControllerStop, Surprise {
        String evidence;
        try (RedfishClient client = controller.open(foundAt)) {
            logIn(client, List.of(ourPassword()))
                    .orElseThrow(() -> new Surprise(
                            "This controller refuses the new password.",
                            "The old one stays. Try again; if it still fails, reset the machine."));
            evidence = controller.confirm(client);
        }
        sealed.proven(unitId);
        return "the new password has logged in; " + evidence;
    }

    @FunctionalInterface
    private interface LoggedIn<T> {
        T run(RedfishClient client) throws WireFault, RedfishFault, ControllerStop;
    }

    private <T> T loggedIn(LoggedIn<T> work) throws WireFault, RedfishFault, ControllerStop, Surprise {
        Secret ours = sealed.open(unitId, SealedStore.SealedState.PROVEN)
                .orElseThrow(() -> new Surprise("The sealed password is gone.", "Try again from the beginning."));
        try (RedfishClient client = controller.open(foundAt)) {
            logIn(client, List.of(ours))
                    .orElseThrow(() -> new Surprise(
                            "This controller refuses the password that was set.",
                            "The password may have been changed since. Reset the machine, or enter the "
                                    + "password in use."));
            return work.run(client);
        }
    }

    private String setTime() throws WireFault, RedfishFault, ControllerStop, Surprise {
        return orWarnings(loggedIn(controller::setTime), String.join(", ", subject.network().timeServers));
    }

    private static String orWarnings(List<String> warnings, String written) {
        return warnings.isEmpty() ? written : written + "; warnings: " + String.join("; ", warnings);
    }

    private String setNetwork(boolean resumed) throws WireFault, RedfishFault, ControllerStop, Surprise {
        if (resumed && !foundAt.equals(planned) && controller.answersAt(planned, true)) {
            return "it had moved before the interruption";
        }
        controller.refuseUnknownDevice();
        try {
            ControllerSetup.Written written = loggedIn(controller::setNetwork);
            return written.unknown()
                    .map(unknown -> "the connection ended as the address moved")
                    .orElse(orWarnings(written.warnings(), written(subject)));
        } catch (WireFault e) {
            if (resumed && e.passing()) {
                return "the connection ended as the address moved";
            }
            throw e;
        }
    }

    private static String written(Targets.Subject subject) {
        return subject.claim().address
                + subject.six().map(six -> ", " + six.claim().address).orElse("") + ", " + subject.claim().hostName
                + (subject.vlan() == null ? "" : ", VLAN " + subject.vlan());
    }

    private String follow(Hold hold) throws WireFault, ControllerStop, Surprise, HoldLost {
        Instant deadline = clock.instant().plus(followAtMost);
        Move move = controller.moveFrom(foundAt);
        while (clock.instant().isBefore(deadline)) {
            hold.look();
            if (move.arrived(false)) {
                foundAt = planned;
                return "answers at " + planned;
            }
            pause(FOLLOW_PAUSE);
        }
        if (move.arrived(true)) {
            foundAt = planned;
            return "answers at " + planned;
        }
        throw new Surprise(
                "This controller has not come back: silent at " + planned
                        + (move.from().equals(planned) ? "" : " and " + move.from()) + " for "
                        + followAtMost.toSeconds() + " s.",
                (subject.vlan() == null
                                ? ""
                                : "Check that its switch port carries VLAN " + subject.vlan() + " tagged. ")
                        + "Check its power. If it restarts for longer, try again later; setup goes on from here.");
    }

    static void pause(Duration time) throws HoldLost {
        try {
            Thread.sleep(time.toMillis());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new HoldLost("this server is stopping");
        }
    }

    private String readBack() throws WireFault, RedfishFault, ControllerStop, Surprise {
        return loggedIn(controller::readBack);
    }

    private String prove() throws WireFault, Surprise {
        Verdict verdict = proofs.climb(subject);
        // a name that is missing is no reason to set a machine up again
        if (!verdict.ladder()) {
            throw new Surprise(verdict.sentence(), verdict.press());
        }
        return verdict.sentence();
    }
}
