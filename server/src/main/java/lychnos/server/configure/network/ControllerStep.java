package lychnos.server.configure.network;

import java.time.Clock;
import java.time.Instant;
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
import lychnos.core.proof.Settings;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.ConfigureText;
import lychnos.wire.controller.ControllerSetup;
import lychnos.wire.controller.ControllerStop;
import lychnos.wire.controller.Move;
import lychnos.wire.fault.WireFault;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.vantage.Vantage;

/**
 * A member's server management controller, set up by the operations of {@link ControllerSetup}: found by its lease,
 * identified, given our password, time servers, name and fixed address, followed to that address and read back there.
 */
final class ControllerStep implements RemoteStep {

    /** Finds a controller that was never set up. */
    @FunctionalInterface
    interface Finding {
        Optional<FirstAddress.FoundAddress> find(Mac mac, int port) throws WireFault;
    }

    private static final String BOTH_REFUSED = ConfigureText.BOTH_PASSWORDS_ARE_REFUSED.text();

    private final int place;
    private final DialogueStep.Controller step;
    private final ControllerPlan plan;
    private final Vantage vantage;
    private final int port;
    private final Finding finding;
    private final BiPredicate<String, String> trusts;
    private final Clock clock;
    private Move move;
    private Instant movedAt = Instant.EPOCH;

    ControllerStep(
            int place,
            DialogueStep.Controller step,
            Values values,
            Vantage vantage,
            int port,
            Finding finding,
            BiPredicate<String, String> trusts,
            Clock clock) {
        this.place = place;
        this.step = step;
        this.plan = new ControllerPlan(step, values);
        this.vantage = vantage;
        this.port = port;
        this.finding = finding;
        this.trusts = trusts;
        this.clock = clock;
    }

    @Override
    public String what() {
        return ConfigureText.THE_CONTROLLER.text();
    }

    @Override
    public List<String> lacking() {
        return plan.lacking();
    }

    @Override
    public Optional<Hold> stops(Mode mode) {
        return plan.stops(place, mode);
    }

    @FunctionalInterface
    private interface Doing {
        Outcome run() throws WireFault, RedfishFault, ControllerStop;
    }

    private Outcome guarded(Doing doing) throws WireFault {
        try {
            return doing.run();
        } catch (ControllerStop e) {
            return stands(why(e.why()), e.getMessage() + " " + e.advice());
        } catch (Refusal e) {
            return stands(Why.UNREACHED, ConfigureText.TRY_AGAIN_ONCE_IT_ANSWERS.text(e.getMessage()));
        } catch (RedfishFault e) {
            return new Outcome.Stands(new Hold(
                    Why.PAGE, place, ConfigureText.CONTROLLER_ANSWERED.text(e.getMessage()), e.getMessage(), ""));
        }
    }

    private static Why why(ControllerStop.Cause cause) {
        return switch (cause) {
            case ANOTHER_MACHINE -> Why.WRONG_MACHINE;
            case NOT_IDENTIFIED -> Why.NOT_KNOWN;
            case ADDRESS_IN_USE, BACK_AT_OLD_ADDRESS, NOT_AS_PLANNED -> Why.PAGE;
        };
    }

    private Outcome stands(Why why, String sentence) {
        return new Outcome.Stands(new Hold(why, place, sentence, "", ""));
    }

    /** Where nothing is {@link #lacking}. */
    private ControllerSetup setup() {
        return new ControllerSetup(
                vantage,
                port,
                new ControllerSetup.Wanted(plan.mac().orElseThrow(), plan.serial(), plan.user(), plan.settings(), ""),
                this::open);
    }

    private RedfishClient open(Address at) throws WireFault, RedfishFault {
        RedfishClient client = new RedfishClient(vantage, at, port, null);
        client.root(); // without a log-in: to see the certificate
        if (!trusts.test("controller " + plan.mac().orElseThrow(), client.fingerprint())) {
            throw new WireFault(
                    WireFault.Kind.OTHER_CERTIFICATE,
                    ConfigureText.SHOWS_ANOTHER_CERTIFICATE_THAN_BEFORE.text(client.fingerprint()));
        }
        return client;
    }

    @Override
    public Outcome carryOut(boolean begun, Sending sending) throws WireFault {
        ControllerSetup setup = setup();
        try {
            return guarded(() -> set(setup, begun, sending));
        } catch (WireFault e) {
            if (!setup.refused()) {
                throw e;
            }
            return stands(Why.UNREACHED, ConfigureText.CONTROLLER_CANNOT_BE_REACHED.text(e.getMessage()));
        }
    }

    private Outcome set(ControllerSetup setup, boolean begun, Sending sending)
            throws WireFault, RedfishFault, ControllerStop {
        Settings settings = setup.wanted().settings();
        Optional<FirstAddress.FoundAddress> found = find(setup, begun);
        if (found.isEmpty()) {
            return stands(Why.UNREACHED, notFound(setup.wanted()));
        }
        Address at = found.get().address();
        boolean macSeen = setup.checkMac(at);
        String evidence;
        boolean complete;
        boolean ours;
        try (RedfishClient client = setup.open(at)) {
            // after an interruption it is not known whether the new one was taken: the likelier one is tried first
            Optional<ControllerSetup.Entry> entry = setup.logIn(
                    client, begun ? List.of(plan.ours(), plan.delivered()) : List.of(plan.delivered(), plan.ours()));
            if (entry.isEmpty()) {
                return stands(Why.PAGE, BOTH_REFUSED);
            }
            ours = entry.get().password().equals(plan.ours());
            ControllerSetup.Identified identified = setup.identify(client, macSeen);
            complete = identified.complete();
            evidence = identified.evidence();
            if (!sending.keep(settings.address() + ", " + settings.fqdn(), List.of(step.phrase()))) {
                return new Outcome.NotKept();
            }
            if (!ours) {
                setup.changePassword(client, entry.get().account(), plan.ours()); // the next log-in shows if it took it
            }
        }
        try (RedfishClient client = setup.open(at)) {
            if (setup.logIn(client, List.of(plan.ours())).isEmpty()) {
                return refused(ours ? "" : ConfigureText.FACTORY_PASSWORD_MAY_STILL_BE_VALID.text());
            }
            if (!complete) {
                evidence = setup.confirm(client);
            }
            move = setup.moveFrom(at);
            if (Settings.differences(setup.read(client)).isEmpty()) {
                return done(found.get().how() + "; " + evidence);
            }
            setup.setTime(client);
            setup.refuseUnknownDevice();
            setup.setNetwork(client);
            movedAt = clock.instant();
        }
        return new Outcome.Works(found.get().how() + "; " + evidence);
    }

    /** At its planned address after an interruption, else by its lease; set at its screen, it has no lease. */
    private Optional<FirstAddress.FoundAddress> find(ControllerSetup setup, boolean begun) throws WireFault {
        Address planned = setup.wanted().settings().address();
        Optional<FirstAddress.FoundAddress> there = Optional.of(
                new FirstAddress.FoundAddress(planned, ConfigureText.ANSWERS_AT_ITS_PLANNED_ADDRESS.text()));
        if (setup.answersAt(planned, begun)) {
            return there;
        }
        Optional<FirstAddress.FoundAddress> leased = finding.find(setup.wanted().mac(), port);
        boolean atScreen = leased.isEmpty() && !step.screen().isEmpty() && setup.answersAt(planned, true);
        return atScreen ? there : leased;
    }

    private String notFound(ControllerSetup.Wanted wanted) {
        Settings settings = wanted.settings();
        return step.screen().isEmpty()
                ? ConfigureText.NO_CONTROLLER_ANSWERS_AT_ITS_LEASE.text(wanted.mac())
                : ConfigureText.NO_CONTROLLER_ANSWERS_SET_IT_AT_ITS_SCREEN.text(
                        wanted.mac(),
                        step.screen(),
                        settings.address(),
                        settings.mask(),
                        settings.gateway() == null ? "-" : settings.gateway());
    }

    private Outcome refused(String more) {
        return stands(Why.PAGE, ConfigureText.CONTROLLER_REFUSES_OUR_PASSWORD.text(more));
    }

    @Override
    public Outcome look() throws WireFault {
        return guarded(() -> {
            ControllerSetup setup = setup();
            if (move == null) { // taken up after an interruption: where it was before is not known
                move = setup.moveFrom(setup.wanted().settings().address());
            }
            boolean late = clock.instant().isAfter(movedAt.plus(step.usually()));
            return move.arrived(late) ? readBack(setup) : new Outcome.Works("");
        });
    }

    private Outcome readBack(ControllerSetup setup) throws WireFault, RedfishFault, ControllerStop {
        Address planned = setup.wanted().settings().address();
        try (RedfishClient client = setup.open(planned)) {
            if (setup.logIn(client, List.of(plan.ours())).isEmpty()) {
                return refused("");
            }
            String evidence = setup.readBack(client);
            return done((move.from().equals(planned) ? "" : ConfigureText.CAME_FROM.text(move.from())) + evidence);
        }
    }

    private Outcome done(String evidence) {
        return new Outcome.Done(evidence, List.of(step.phrase()), Map.of());
    }
}
