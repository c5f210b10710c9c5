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
import lychnos.core.fact.Secret;
import lychnos.core.order.SetupStep;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.api.problem.Refusal;
import lychnos.server.jobs.HoldLost;
import lychnos.server.prove.Targets;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import lychnos.wire.controller.ControllerSetup;
import lychnos.wire.controller.ControllerStop;
import lychnos.wire.controller.Move;
import lychnos.wire.fault.WireFault;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.tcp.PortState;

/**
 * What each {@link SetupStep} does to one controller, by the operations of {@link ControllerSetup}. Every step can be
 * begun a second time after an interruption: it looks first at what is there already. Nothing is written before
 * {@link SetupStep#IDENTIFY} has passed.
 */
final class Setup extends ControllerWork {

    private static final Duration CONNECT = Duration.ofSeconds(3);
    private static final Duration FOLLOW_PAUSE = Duration.ofMillis(400);

    private final FirstAddress firstAddress;
    private final Duration followAtMost;
    private final Clock clock;

    Setup(Means means, FirstAddress firstAddress, Duration followAtMost, Clock clock) {
        super(means);
        this.firstAddress = firstAddress;
        this.followAtMost = followAtMost;
        this.clock = clock;
    }

    @Override
    String step(SetupStep step, boolean resumed, Hold hold)
            throws WireFault, RedfishFault, ControllerStop, Surprise, HoldLost {
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
    }

    private String find() throws WireFault, Surprise {
        if (controller.answersAt(planned, hasOurPassword())) {
            foundAt = planned;
            return ConfigureText.ANSWERS_AT_PLANNED_ADDRESS_ALREADY.text(planned);
        }
        Address first = subject.unit().firstAddress;
        if (first != null && vantage.port(first, kind.port(), CONNECT) == PortState.OPEN) {
            foundAt = first;
            return ConfigureText.ANSWERS_AT_ITS_FIRST_ADDRESS_AS_ON_THE_LABEL.text(first);
        }
        FirstAddress.FoundAddress found = elsewhere().orElseThrow(() -> notFound(first));
        foundAt = found.address();
        return found.how();
    }

    private Optional<FirstAddress.FoundAddress> elsewhere() throws WireFault, Surprise {
        try {
            return firstAddress.of(unitId, subject.unit().mac, kind.port());
        } catch (Refusal e) {
            throw new Surprise(e.getMessage(), ConfigureText.CORRECT_THE_SETTING_OR_THE_FILE.text());
        }
    }

    private Surprise notFound(Address first) {
        if (!vantage.hearsSilence()) {
            return new Surprise(
                    first == null
                            ? ConfigureText.NO_FIRST_ADDRESS_IS_KNOWN.text()
                            : ConfigureText.NO_CONTROLLER_ANSWERS_AT_ITS_FIRST_ADDRESS.text(first),
                    ConfigureText.ENTER_ITS_FIRST_ADDRESS_WITH_THE_LABEL.text());
        }
        List<AddressRun> scopes = firstAddress.scopes(unitId);
        if (scopes.isEmpty()) {
            return new Surprise(
                    ConfigureText.FIRST_ADDRESS_IS_NOT_KNOWN.text(),
                    ConfigureText.DEFINE_THE_RANGE_THAT_DHCP_HANDS_OUT.text());
        }
        String where = scopes.stream().map(AddressRun::toString).collect(Collectors.joining(", "));
        return new Surprise(
                ConfigureText.NO_MACHINE_WITH_THIS_MAC_ANSWERS.text(subject.unit().mac, where),
                ConfigureText.CHECK_POWER_CABLE_AND_VLAN.text(subject.unit().position()));
    }

    private String identify() throws WireFault, RedfishFault, ControllerStop, Surprise {
        boolean macSeen = controller.checkMac(foundAt);
        try (RedfishClient client = controller.open(foundAt)) {
            client.root();
            List<Secret> expected =
                    Stream.concat(ours(), Stream.of(kind.factory().phrase())).toList();
            logIn(client, expected)
                    .orElseThrow(() -> refusesFactory(ConfigureText.OR_ENTER_THE_PASSWORD_IN_USE.text()));
            ControllerSetup.Identified identified = controller.identify(client, macSeen);
            proofs.remember(subject, client.fingerprint());
            return identified.evidence();
        }
    }

    private Surprise refusesFactory(String orElse) {
        return new Surprise(
                ConfigureText.CONTROLLER_REFUSES_THE_FACTORY_PASSWORD.text(),
                ConfigureText.MACHINE_HAS_BEEN_SET_UP_BEFORE.text(orElse));
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
                .orElseThrow(() -> new Surprise(
                        ConfigureText.SEALED_PASSWORD_IS_GONE.text(),
                        ConfigureText.TRY_AGAIN_FROM_THE_BEGINNING.text()));
    }

    private String sealPassword() {
        if (ours().findFirst().isPresent()) {
            return ConfigureText.ONE_SEALED_BEFORE_IS_USED.text();
        }
        sealed.seal(unitId, passwords.make(PASSWORD_LENGTH));
        return ConfigureText.PASSWORD_OF_CHARACTERS_IS_SEALED.text(PASSWORD_LENGTH);
    }

    private String setPassword(boolean resumed) throws WireFault, RedfishFault, Surprise {
        if (hasOurPassword()) {
            return ConfigureText.HAS_OURS_ALREADY.text();
        }
        Secret made = ourPassword();
        Secret factory = kind.factory().phrase();
        try (RedfishClient client = controller.open(foundAt)) {
            // after an interruption it is not known whether the new one was sent: it is tried first
            Secret taken = logIn(client, resumed ? List.of(made, factory) : List.of(factory, made))
                    .map(ControllerSetup.Entry::password)
                    .orElseThrow(() -> refusesFactory(ConfigureText.THEN_TRY_AGAIN.text()));
            if (taken.equals(made)) {
                return resumed
                        ? ConfigureText.HAD_TAKEN_THE_NEW_ONE_BEFORE.text()
                        : ConfigureText.HAS_THE_SEALED_ONE_ALREADY.text();
            }
            return controller
                    .changePassword(client, account, made)
                    .map(unknown -> ConfigureText.NEXT_STEP_SHOWS_WHICH_PASSWORD.text(unknown))
                    .orElse(ConfigureText.FACTORY_PASSWORD_REPLACED.text());
        }
    }

    private String provePassword() throws WireFault, RedfishFault, ControllerStop, Surprise {
        String evidence;
        try (RedfishClient client = controller.open(foundAt)) {
            logIn(client, List.of(ourPassword()))
                    .orElseThrow(() -> new Surprise(
                            ConfigureText.CONTROLLER_REFUSES_THE_NEW_PASSWORD.text(),
                            ConfigureText.OLD_ONE_STAYS.text()));
            evidence = controller.confirm(client);
        }
        sealed.proven(unitId);
        return ConfigureText.NEW_PASSWORD_HAS_LOGGED_IN_WITH_EVIDENCE.text(evidence);
    }

    @FunctionalInterface
    private interface LoggedIn<T> {
        T run(RedfishClient client) throws WireFault, RedfishFault, ControllerStop;
    }

    private <T> T loggedIn(LoggedIn<T> work) throws WireFault, RedfishFault, ControllerStop, Surprise {
        Secret ours = sealed.open(unitId, SealedStore.SealedState.PROVEN)
                .orElseThrow(() -> new Surprise(
                        ConfigureText.SEALED_PASSWORD_IS_GONE.text(),
                        ConfigureText.TRY_AGAIN_FROM_THE_BEGINNING.text()));
        try (RedfishClient client = controller.open(foundAt)) {
            logIn(client, List.of(ours))
                    .orElseThrow(() -> new Surprise(
                            ConfigureText.CONTROLLER_REFUSES_THE_PASSWORD.text(),
                            ConfigureText.PASSWORD_MAY_HAVE_BEEN_CHANGED_SINCE.text()));
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
            return ConfigureText.HAD_MOVED_BEFORE_THE_INTERRUPTION.text();
        }
        controller.refuseUnknownDevice();
        try {
            ControllerSetup.Written written = loggedIn(controller::setNetwork);
            return written.unknown()
                    .map(unknown -> ConfigureText.CONNECTION_ENDED_AS_THE_ADDRESS_MOVED.text())
                    .orElse(orWarnings(written.warnings(), written(subject)));
        } catch (WireFault e) {
            if (resumed && e.passing()) {
                return ConfigureText.CONNECTION_ENDED_AS_THE_ADDRESS_MOVED.text();
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
                return ConfigureText.ANSWERS.text(planned);
            }
            pause(FOLLOW_PAUSE);
        }
        if (move.arrived(true)) {
            foundAt = planned;
            return ConfigureText.ANSWERS.text(planned);
        }
        throw new Surprise(
                move.from().equals(planned)
                        ? ConfigureText.CONTROLLER_HAS_NOT_COME_BACK.text(planned, followAtMost.toSeconds())
                        : ConfigureText.CONTROLLER_HAS_NOT_COME_BACK_TO_EITHER.text(
                                planned, move.from(), followAtMost.toSeconds()),
                subject.vlan() == null
                        ? ConfigureText.CHECK_ITS_POWER.text()
                        : ConfigureText.CHECK_ITS_VLAN_AND_POWER.text(subject.vlan()));
    }

    static void pause(Duration time) throws HoldLost {
        try {
            Thread.sleep(time.toMillis());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new HoldLost(ConfigureText.STOPS_HERE.text());
        }
    }

    private String readBack() throws WireFault, RedfishFault, ControllerStop, Surprise {
        return loggedIn(controller::readBack);
    }
}
