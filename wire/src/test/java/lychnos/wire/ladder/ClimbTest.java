package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.time.Clock;
import java.time.Duration;
import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;
import lychnos.core.proof.Verdict;
import lychnos.core.text.Texts;
import lychnos.lab.Quirk;
import lychnos.wire.LoopbackHall;
import org.junit.jupiter.api.Test;

/** Climbs against stand-ins that are right, or wrong in one way each. */
class ClimbTest {

    private static LoopbackHall ready(Quirk... quirks) {
        LoopbackHall lab = new LoopbackHall(quirks);
        var plan = LoopbackHall.plan();
        lab.machine()
                .controller()
                .preset(
                        LoopbackHall.OURS.use(text -> text),
                        plan.gateway().toString(),
                        plan.hostName(),
                        "ardal.example",
                        plan.nameServers(),
                        plan.timeServers());
        return lab;
    }

    /**
     * The machine is judged where it first answers, so only its address differs from the plan unless told otherwise.
     */
    private static Target at(LoopbackHall lab, Address address, String fingerprint) {
        Target target = lab.target(address, fingerprint);
        Target.Redfish redfish = redfish(target);
        var plan = redfish.plan();
        var here = new lychnos.core.proof.Settings(
                address,
                plan.mask(),
                plan.gateway(),
                plan.dhcp(),
                plan.hostName(),
                plan.fqdn(),
                plan.nameServers(),
                plan.timeServers(),
                plan.ntp());
        return new Target(
                address,
                target.port(),
                redfish.serial(),
                target.mac(),
                here,
                redfish.login(),
                fingerprint,
                redfish.factory(),
                target.ports().shut());
    }

    private static Target.Redfish redfish(Target target) {
        return (Target.Redfish) target.service();
    }

    private static Climbed climb(LoopbackHall lab, Target target) throws Exception {
        return new Climb(lab.vantage, target, Clock.systemUTC()).climb();
    }

    private static Verdict verdict(LoopbackHall lab, Target target) throws Exception {
        return Verdict.of(climb(lab, target).outcomes());
    }

    @Test
    void everyRungHoldsButTheOneThatLoopbackCannotMeasure() throws Exception {
        try (LoopbackHall lab = ready()) {
            Climbed climbed = climb(lab, at(lab, LoopbackHall.FIRST, null));
            Verdict verdict = Verdict.of(climbed.outcomes());
            assertTrue(verdict.proven(), verdict.sentence());
            assertEquals(6, verdict.height());
            assertEquals(
                    Outcome.Standing.NOT_MEASURED, climbed.outcomes().get(0).standing());
            assertEquals(64, climbed.fingerprint().length());
            assertEquals(
                    1, lab.machine().controller().refusedLogins(), "the factory password is tried once, and no more");
        }
    }

    private static void breaks(Rung rung, Trouble trouble, Verdict verdict) {
        assertEquals(rung, verdict.broken(), verdict.sentence());
        assertTrue(Texts.says(trouble, verdict.sentence()), verdict.sentence());
    }

    @Test
    void aRefusedPortBreaksTheSecondRung() throws Exception {
        try (LoopbackHall lab = ready()) {
            breaks(Rung.PORT, Trouble.PORT_REFUSED, verdict(lab, at(lab, Address.parse("127.40.8.250"), null)));
        }
    }

    @Test
    void whatSpeaksNoTlsBreaksTheThird() throws Exception {
        try (LoopbackHall lab = ready()) {
            var plain = lab.vertx.createNetServer().connectHandler(socket -> socket.write("hello\r\n")
                    .onComplete(done -> socket.close()));
            plain.listen(LoopbackHall.PORT, "127.40.8.77")
                    .toCompletionStage()
                    .toCompletableFuture()
                    .join();
            breaks(Rung.TLS, Trouble.NO_TLS, verdict(lab, at(lab, Address.parse("127.40.8.77"), null)));
        }
    }

    @Test
    void aChangedCertificateBreaksTheThird() throws Exception {
        try (LoopbackHall lab = ready()) {
            breaks(Rung.TLS, Trouble.CERTIFICATE_CHANGED, verdict(lab, at(lab, LoopbackHall.FIRST, "ab".repeat(32))));
        }
    }

    @Test
    void aCertificateThatRanOutBreaksTheThird() throws Exception {
        try (LoopbackHall lab = ready()) {
            Clock later = Clock.offset(Clock.systemUTC(), Duration.ofDays(1000));
            breaks(
                    Rung.TLS,
                    Trouble.CERTIFICATE_EXPIRED,
                    Verdict.of(new Climb(lab.vantage, at(lab, LoopbackHall.FIRST, null), later)
                            .climb()
                            .outcomes()));
        }
    }

    @Test
    void anotherMachineBreaksTheFifth() throws Exception {
        try (LoopbackHall lab = ready(Quirk.OTHER_SERIAL)) {
            breaks(Rung.IDENTITY, Trouble.OTHER_MACHINE, verdict(lab, at(lab, LoopbackHall.FIRST, null)));
        }
    }

    @Test
    void aPasswordThatSomebodyChangedBreaksTheFifth() throws Exception {
        try (LoopbackHall lab = ready()) {
            lab.machine().controller().setPhrase("somebody-elses-phrase");
            breaks(Rung.IDENTITY, Trouble.PASSWORD_REFUSED, verdict(lab, at(lab, LoopbackHall.FIRST, null)));
        }
    }

    @Test
    void aDifferenceBreaksTheSixthAndIsNamed() throws Exception {
        try (LoopbackHall lab = ready()) {
            Climbed climbed = climb(lab, lab.target(LoopbackHall.FIRST, null));
            breaks(Rung.AS_PLANNED, Trouble.NOT_AS_PLANNED, Verdict.of(climbed.outcomes()));
            assertEquals(
                    List.of("address"),
                    climbed.fields().stream()
                            .filter(field -> !field.agrees())
                            .map(field -> field.name())
                            .toList());
        }
    }

    @Test
    void aFactoryPasswordThatWorksBreaksTheSeventh() throws Exception {
        try (LoopbackHall lab = ready(Quirk.KEEPS_FACTORY)) {
            breaks(Rung.SAFE, Trouble.FACTORY_ACCEPTED, verdict(lab, at(lab, LoopbackHall.FIRST, null)));
        }
    }

    @Test
    void anOpenPortThatMustBeShutBreaksTheSeventh() throws Exception {
        try (LoopbackHall lab = ready()) {
            var open = lab.vertx.createNetServer().connectHandler(socket -> {});
            open.listen(18023, LoopbackHall.FIRST.toString())
                    .toCompletionStage()
                    .toCompletableFuture()
                    .join();
            Target target = at(lab, LoopbackHall.FIRST, null);
            Target strict = new Target(
                    target.address(),
                    target.port(),
                    target.mac(),
                    null,
                    List.of(18023),
                    target.service(),
                    target.names());
            breaks(Rung.SAFE, Trouble.MUST_BE_SHUT, verdict(lab, strict));
        }
    }

    @Test
    void aSecondPortThatMustAnswerIsPartOfTheSecondRung() throws Exception {
        try (LoopbackHall lab = ready()) {
            Target target = at(lab, LoopbackHall.FIRST, null);
            Target more = new Target(
                    target.address(),
                    target.port(),
                    target.mac(),
                    null,
                    new Target.Ports(List.of(18059), List.of(), List.of()),
                    "",
                    target.service(),
                    target.names(),
                    Target.Known.NOTHING);
            breaks(Rung.PORT, Trouble.PORT_REFUSED, verdict(lab, more));
            var open = lab.vertx.createNetServer().connectHandler(socket -> {});
            open.listen(18059, LoopbackHall.FIRST.toString())
                    .toCompletionStage()
                    .toCompletableFuture()
                    .join();
            assertEquals(
                    LadderText.PORTS_OPEN.text(LoopbackHall.PORT + ", 18059"),
                    climb(lab, more).outcomes().get(Rung.PORT.ordinal()).seen());
        }
    }

    @Test
    void withoutAPasswordOfOursNothingIsGuessed() throws Exception {
        try (LoopbackHall lab = ready()) {
            Target target = at(lab, LoopbackHall.FIRST, null);
            Target.Redfish known = redfish(target);
            Target unknown = new Target(
                    target.address(),
                    target.port(),
                    target.mac(),
                    null,
                    List.of(),
                    new Target.Redfish(
                            known.serial(),
                            known.mac(),
                            known.plan(),
                            new Target.Login("keeper", null),
                            known.factory()),
                    target.names());
            breaks(Rung.IDENTITY, Trouble.IDENTITY_UNREADABLE, verdict(lab, unknown));
            assertEquals(0, lab.machine().controller().refusedLogins());
        }
    }
}
