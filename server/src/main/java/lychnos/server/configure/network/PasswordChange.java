package lychnos.server.configure.network;

import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.fact.Secret;
import lychnos.core.order.SetupStep;
import lychnos.server.secrets.SealedStore.SealedState;
import lychnos.server.text.ConfigureText;
import lychnos.wire.controller.ControllerSetup;
import lychnos.wire.controller.ControllerStop;
import lychnos.wire.fault.WireFault;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;

/**
 * Replaces the password of a controller in use. The new one is sealed before it is sent, and the old one is kept until
 * the new one has logged in; whatever interrupts it, one of the two works and both are known.
 */
final class PasswordChange extends ControllerWork {

    PasswordChange(Means means) {
        super(means);
    }

    @Override
    String step(SetupStep step, boolean resumed, Hold hold) throws WireFault, RedfishFault, ControllerStop, Surprise {
        return switch (step) {
            case FIND -> find();
            case IDENTIFY -> identify();
            case SEAL_PASSWORD -> seal();
            case SET_PASSWORD -> set(resumed);
            case PROVE_PASSWORD -> provePassword();
            case PROVE -> prove();
            default -> throw new IllegalArgumentException("is no step of a password change: " + step);
        };
    }

    private Optional<Secret> old() {
        return sealed.open(unitId, SealedState.PROVEN);
    }

    private Optional<Secret> made() {
        return sealed.open(unitId, SealedState.MADE);
    }

    private String find() throws WireFault, Surprise {
        if (!controller.answersAt(planned, true)) {
            throw new Surprise(
                    ConfigureText.DOES_NOT_ANSWER_AT_ITS_ADDRESS.text(planned),
                    ConfigureText.CHECK_CABLE_AND_POWER.text());
        }
        foundAt = planned;
        return ConfigureText.ANSWERS.text(planned);
    }

    private String identify() throws WireFault, RedfishFault, ControllerStop, Surprise {
        boolean macSeen = controller.checkMac(foundAt);
        try (RedfishClient client = controller.open(foundAt)) {
            client.root();
            logInWith(client, Stream.concat(old().stream(), made().stream()).toList());
            return controller.identify(client, macSeen).evidence();
        }
    }

    private ControllerSetup.Entry logInWith(RedfishClient client, List<Secret> passwords)
            throws WireFault, RedfishFault, Surprise {
        return logIn(client, passwords)
                .orElseThrow(() -> new Surprise(
                        ConfigureText.CONTROLLER_REFUSES_THE_PASSWORD.text(),
                        ConfigureText.PASSWORD_MAY_HAVE_BEEN_CHANGED_SINCE.text()));
    }

    private String seal() {
        if (made().isPresent()) {
            return ConfigureText.ONE_SEALED_BEFORE_IS_USED.text();
        }
        sealed.seal(unitId, passwords.make(PASSWORD_LENGTH));
        return ConfigureText.PASSWORD_OF_CHARACTERS_IS_SEALED.text(PASSWORD_LENGTH);
    }

    private Secret wanted() throws Surprise {
        return made().orElseThrow(() -> new Surprise(
                ConfigureText.SEALED_PASSWORD_IS_GONE.text(), ConfigureText.TRY_AGAIN_FROM_THE_BEGINNING.text()));
    }

    private String set(boolean resumed) throws WireFault, RedfishFault, Surprise {
        Secret wanted = wanted();
        List<Secret> known = old().stream().toList();
        try (RedfishClient client = controller.open(foundAt)) {
            // after an interruption it is not known whether the new one was sent: it is tried first
            List<Secret> tried = resumed
                    ? Stream.concat(Stream.of(wanted), known.stream()).toList()
                    : Stream.concat(known.stream(), Stream.of(wanted)).toList();
            if (logInWith(client, tried).password().equals(wanted)) {
                return ConfigureText.HAD_TAKEN_THE_NEW_ONE_BEFORE.text();
            }
            return controller
                    .changePassword(client, account, wanted)
                    .map(unknown -> ConfigureText.NEXT_STEP_SHOWS_WHICH_PASSWORD.text(unknown))
                    .orElse(ConfigureText.PASSWORD_REPLACED.text());
        }
    }

    private String provePassword() throws WireFault, RedfishFault, ControllerStop, Surprise {
        Secret wanted = wanted();
        String evidence;
        try (RedfishClient client = controller.open(foundAt)) {
            logIn(client, List.of(wanted))
                    .orElseThrow(() -> new Surprise(
                            ConfigureText.CONTROLLER_REFUSES_THE_NEW_PASSWORD.text(),
                            ConfigureText.OLD_ONE_STAYS.text()));
            evidence = controller.confirm(client);
        }
        Optional<Secret> old = old();
        // from here on the new one is the one that works, whatever comes of the old one
        sealed.proven(unitId);
        if (old.isPresent() && stillAccepted(old.get())) {
            throw new Surprise(
                    ConfigureText.OLD_PASSWORD_STILL_WORKS.text(), ConfigureText.END_THE_OLD_PASSWORD_BY_HAND.text());
        }
        return ConfigureText.NEW_PASSWORD_WORKS_OLD_REFUSED.text(evidence);
    }

    private boolean stillAccepted(Secret old) throws WireFault, RedfishFault {
        try (RedfishClient client = controller.open(foundAt)) {
            return logIn(client, List.of(old)).isPresent();
        }
    }
}
