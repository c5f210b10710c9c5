package lychnos.wire.ladder;

import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.fact.Mac;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Traits;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.tcp.PortState;
import lychnos.wire.tls.TlsSeen;
import lychnos.wire.vantage.Vantage;

/**
 * The last rung: what must be shut is shut, from here and from elsewhere; it answers nowhere else; the factory's
 * log-ins are refused.
 */
final class SafeWay {

    private static final Duration SHUT = Duration.ofMillis(800);
    private static final Duration ELSEWHERE = Duration.ofMillis(400);

    private final Vantage vantage;
    private final Target target;
    private final Climb.Company company;
    private final TlsSeen shown;
    private final List<Part> parts = new ArrayList<>();

    SafeWay(Vantage vantage, Target target, Climb.Company company, TlsSeen shown) {
        this.vantage = vantage;
        this.target = target;
        this.company = company;
        this.shown = shown;
    }

    /** @param traits takes what was seen */
    Outcome judge(Way way, Map<String, String> traits) throws WireFault {
        Optional<String> open = open(traits);
        if (open.isPresent()) {
            return Outcome.broken(Rung.SAFE, Trouble.MUST_BE_SHUT, open.get()).with(parts);
        }
        Optional<Sources.SourceFault> source = new Sources(vantage, target, company.others()).judge(parts);
        if (source.isPresent()) {
            return Outcome.broken(
                            Rung.SAFE, source.get().trouble(), source.get().seen())
                    .with(parts);
        }
        if (answersToCommunity()) {
            return Outcome.broken(Rung.SAFE, Trouble.COMMUNITY_ANSWERS, target.community())
                    .with(parts);
        }
        Optional<String> elsewhere = elsewhere();
        if (elsewhere.isPresent()) {
            return Outcome.broken(Rung.SAFE, Trouble.ELSEWHERE, elsewhere.get()).with(parts);
        }
        Outcome refused = way.factoryRefused();
        refused.parts().forEach(parts::add);
        if (refused.trouble() == Trouble.FACTORY_ACCEPTED) {
            traits.put(Traits.FACTORY, "works");
        } else if (refused.parts().stream().anyMatch(part -> part.standing() == Outcome.Standing.HOLDS)) {
            traits.put(Traits.FACTORY, "refused");
        }
        if (refused.standing() == Outcome.Standing.BROKEN) {
            return refused.with(parts);
        }
        String ports = target.ports().shut().isEmpty()
                ? ""
                : LadderText.PORTS_CLOSED.text(
                        target.ports().shut().stream().map(String::valueOf).collect(Collectors.joining(", ")));
        String seen =
                Stream.of(refused.seen(), ports).filter(text -> !text.isEmpty()).collect(Collectors.joining("; "));
        return new Outcome(Rung.SAFE, refused.standing(), null, seen, parts);
    }

    /** The first port that answers and must not. */
    private Optional<String> open(Map<String, String> traits) throws WireFault {
        Optional<String> first = Optional.empty();
        for (int port : target.ports().shut()) {
            boolean open = vantage.port(target.address(), port, SHUT) == PortState.OPEN;
            traits.put(Traits.PORT + port, open ? "open" : "shut");
            parts.add(
                    open
                            ? Part.broken(LadderText.PORT.text(port), "open")
                            : Part.holds(LadderText.PORT.text(port), "closed"));
            first = first.or(() -> open ? Optional.of(String.valueOf(port)) : Optional.empty());
            for (Vantage other : company.others()) {
                Optional<Part> from = from(other, port);
                from.ifPresent(parts::add);
                first = first.or(() -> from.filter(part -> part.standing() == Outcome.Standing.BROKEN)
                        .map(part -> LadderText.SEEN_FROM.text(port, other.name())));
            }
        }
        return first;
    }

    private boolean answersToCommunity() throws WireFault {
        if (target.community().isEmpty()) {
            return false;
        }
        String name = LadderText.SNMP_COMMUNITY.text(target.community());
        try {
            boolean answers = vantage.answersTo(target.address(), target.community(), SHUT);
            parts.add(answers ? Part.broken(name, "answered") : Part.holds(name, LadderText.NOT_ANSWERED.text()));
            return answers;
        } catch (WireFault e) {
            if (e.ours()) {
                throw e;
            }
            parts.add(Part.notMeasured(name, e.getMessage()));
            return false;
        }
    }

    private Optional<Part> from(Vantage other, int port) {
        String name = LadderText.PORT_FROM.text(port, other.name());
        try {
            return Optional.of(
                    other.port(target.address(), port, SHUT) == PortState.OPEN
                            ? Part.broken(name, "open")
                            : Part.holds(name, "closed"));
        } catch (WireFault e) {
            return Optional.of(Part.notMeasured(name, e.getMessage()));
        }
    }

    /** Where it answers besides, told by its MAC address or by its certificate. */
    private Optional<String> elsewhere() {
        for (Map.Entry<Address, String> each : target.known().elsewhere().entrySet()) {
            String name = each.getKey() + ", " + each.getValue();
            try {
                if (vantage.hearsSilence()
                        && vantage.ping(each.getKey(), ELSEWHERE).state() == Echo.State.SILENT) {
                    parts.add(Part.holds(name, "silent"));
                } else if (isIt(each.getKey())) {
                    parts.add(Part.broken(name, LadderText.SAME_MACHINE_ANSWERS.text()));
                    return Optional.of(name);
                } else {
                    parts.add(Part.holds(name, LadderText.NOT_THIS_MACHINE.text()));
                }
            } catch (WireFault e) {
                parts.add(Part.notMeasured(name, e.getMessage()));
            }
        }
        return Optional.empty();
    }

    private boolean isIt(Address at) throws WireFault {
        Optional<Mac> neighbour = vantage.neighbour(at);
        if (target.mac() != null && neighbour.isPresent()) {
            return neighbour.get().equals(target.mac());
        }
        return vantage.port(at, target.port(), ELSEWHERE) == PortState.OPEN
                && vantage.tls(at, target.port(), SHUT).fingerprint().equals(shown.fingerprint());
    }
}
