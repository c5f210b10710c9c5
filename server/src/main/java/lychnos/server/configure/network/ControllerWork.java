package lychnos.server.configure.network;

import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.order.SetupStep;
import lychnos.core.proof.Verdict;
import lychnos.server.jobs.HoldLost;
import lychnos.server.prove.Proofs;
import lychnos.server.prove.Targets;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.ConfigureText;
import lychnos.wire.controller.ControllerSetup;
import lychnos.wire.controller.ControllerStop;
import lychnos.wire.fault.WireFault;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.vantage.Vantage;

/** Work on one management controller, step by step, by the operations of {@link ControllerSetup}. */
abstract class ControllerWork implements StepWork {

    static final int PASSWORD_LENGTH = 20;

    /**
     * What the work is done with.
     *
     * @param kind with the unit's own factory login, where its tag tells one
     */
    record Means(
            Targets.Subject subject,
            Kind kind,
            Vantage vantage,
            Targets targets,
            Proofs proofs,
            SealedStore sealed,
            PasswordMaker passwords) {}

    final Targets.Subject subject;
    final Kind kind;
    final Vantage vantage;
    final Proofs proofs;
    final SealedStore sealed;
    final PasswordMaker passwords;
    final ControllerSetup controller;
    final long unitId;
    final Address planned;
    Address foundAt;
    Optional<String> account = Optional.empty();

    ControllerWork(Means means) {
        this.subject = means.subject;
        this.kind = means.kind;
        this.vantage = means.vantage;
        this.proofs = means.proofs;
        this.sealed = means.sealed;
        this.passwords = means.passwords;
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
                at -> new RedfishClient(vantage, at, kind.port(), means.targets.fingerprint(subject)));
    }

    /** Carries one step out; what it throws is put into words by {@link #carryOut}. */
    abstract String step(SetupStep step, boolean resumed, Hold hold)
            throws WireFault, RedfishFault, ControllerStop, Surprise, HoldLost;

    @Override
    public Address foundAt() {
        return foundAt;
    }

    @Override
    public void foundAt(Address address) {
        foundAt = address;
    }

    @Override
    public String carryOut(SetupStep step, boolean resumed, Hold hold) throws Surprise, HoldLost {
        try {
            return step(step, resumed, hold);
        } catch (ControllerStop e) {
            throw new Surprise(e.getMessage(), e.advice());
        } catch (WireFault e) {
            throw new Surprise(sentence(step, e), advice(e), e.passing() && !controller.refused());
        } catch (RedfishFault e) {
            throw new Surprise(
                    ConfigureText.CONTROLLER_ANSWERED_AT_STEP.text(at(step), e.getMessage()),
                    ConfigureText.CORRECT_THE_REFUSED_VALUE.text());
        }
    }

    private String sentence(SetupStep step, WireFault fault) {
        return switch (fault.kind()) {
            case OTHER_CERTIFICATE -> ConfigureText.CONTROLLER_SHOWS_ANOTHER_CERTIFICATE.text(fault.getMessage());
            case GARBAGE -> ConfigureText.ANSWER_CANNOT_BE_READ.text(at(step), fault.getMessage());
            case NOT_DECLARED -> fault.getMessage();
            default -> at(step) + foundAt + ": " + fault.getMessage() + ".";
        };
    }

    private static String at(SetupStep step) {
        return ConfigureText.AT_THE_STEP.text(step.doing());
    }

    private static String advice(WireFault fault) {
        return switch (fault.kind()) {
            case OTHER_CERTIFICATE -> ConfigureText.COMPARE_THE_SERIAL_AT_THE_RACK.text();
            case GARBAGE -> ConfigureText.RESTART_THE_MANAGEMENT_CONTROLLER.text();
            default -> ConfigureText.CHECK_CABLE_AND_POWER.text();
        };
    }

    /** Tries these passwords once each; remembers which account is to be changed first. */
    Optional<ControllerSetup.Entry> logIn(RedfishClient client, List<Secret> tried) throws WireFault, RedfishFault {
        Optional<ControllerSetup.Entry> entry = controller.logIn(client, tried);
        entry.flatMap(ControllerSetup.Entry::account).ifPresent(path -> account = Optional.of(path));
        return entry;
    }

    String prove() throws WireFault, Surprise {
        Verdict verdict = proofs.climb(subject);
        // a name that is missing is no reason to set a machine up again
        if (!verdict.ladder()) {
            throw new Surprise(verdict.sentence(), verdict.press());
        }
        return verdict.sentence();
    }
}
