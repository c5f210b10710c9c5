package lychnos.wire.ladder;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.proof.Part;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;

/** Tries ports that must answer some sources and no others, from every vantage point, with the address it has there. */
final class Sources {

    private static final int SSH = 22;
    private static final Duration ANSWER = Duration.ofSeconds(4);

    private final Vantage vantage;
    private final Target target;
    private final List<Vantage> others;

    Sources(Vantage vantage, Target target, List<Vantage> others) {
        this.vantage = vantage;
        this.target = target;
        this.others = others;
    }

    /** What is wrong with a restricted port. */
    record SourceFault(Trouble trouble, String seen) {}

    /**
     * The own address from which a port cannot be tried, since it must not answer there; empty where it may be tried.
     *
     * @throws WireFault if this vantage point cannot say which address that is
     */
    static Optional<Address> refused(Vantage from, Target target, int port) throws WireFault {
        for (Target.Restricted each : target.ports().restricted()) {
            Optional<Address> source = each.port() == port ? from.source(target.address()) : Optional.empty();
            if (source.isPresent() && !each.from().contains(source.get())) {
                return source;
            }
        }
        return Optional.empty();
    }

    /**
     * Tries every restricted port.
     *
     * @param parts takes what was seen
     * @return the first fault
     */
    Optional<SourceFault> judge(List<Part> parts) {
        List<SourceFault> faults = new ArrayList<>();
        for (Target.Restricted each : target.ports().restricted()) {
            boolean outside = false;
            for (Vantage from :
                    Stream.concat(Stream.of(vantage), others.stream()).toList()) {
                outside |= tryFrom(from, each, parts, faults);
            }
            if (!outside) {
                parts.add(Part.notMeasured(
                        LadderText.FROM_OUTSIDE.text(name(each), each.from()), LadderText.NO_PLACE_OUTSIDE.text()));
            }
        }
        return faults.stream().findFirst();
    }

    /** Whether it was tried with an address that must not be answered. */
    private boolean tryFrom(Vantage from, Target.Restricted port, List<Part> parts, List<SourceFault> faults) {
        String name = LadderText.FROM_PLACE.text(name(port), from.name());
        try {
            Optional<Address> source = from.source(target.address());
            if (source.isEmpty()) {
                parts.add(Part.notMeasured(name, LadderText.NO_ROUTE.text(target.address())));
                return false;
            }
            String by = name + " (" + source.get() + ")";
            boolean allowed = port.from().contains(source.get());
            boolean answers = answers(from, port.port());
            String seen = answers ? "answers" : LadderText.NO_ANSWER.text();
            parts.add(answers == allowed ? Part.holds(by, seen) : Part.broken(by, seen));
            if (answers && !allowed) {
                faults.add(new SourceFault(
                        Trouble.SOURCE_ADMITTED,
                        LadderText.ANSWERS_FORBIDDEN.text(name(port), source.get(), port.from())));
            } else if (allowed && !answers) {
                faults.add(new SourceFault(
                        Trouble.SOURCE_REFUSED, LadderText.REFUSES_ALLOWED.text(name(port), source.get())));
            }
            return !allowed;
        } catch (WireFault e) {
            parts.add(Part.notMeasured(name, e.getMessage()));
            return false;
        }
    }

    /** A machine that admits by source may take the connection and end it at once: what greets counts for SSH. */
    private boolean answers(Vantage from, int port) throws WireFault {
        if (port != SSH) {
            return from.port(target.address(), port, ANSWER) == PortState.OPEN;
        }
        try {
            from.greeting(target.address(), port, ANSWER);
            return true;
        } catch (WireFault e) {
            if (e.ours() || e.kind() == WireFault.Kind.NO_VANTAGE) {
                throw e;
            }
            return false;
        }
    }

    private static String name(Target.Restricted port) {
        return port.port() == SSH ? "SSH" : LadderText.PORT.text(port.port());
    }
}
