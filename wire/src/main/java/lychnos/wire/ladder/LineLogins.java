package lychnos.wire.ladder;

import java.util.List;
import java.util.Optional;
import java.util.Set;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Trouble;

/** Factory logins on a machine's own line. */
final class LineLogins {

    private LineLogins() {}

    /** A check has no line to the machine: its setup has tried the login there, and that has a date. */
    static Optional<Outcome> tried(Target.SetUp setUp, Set<String> untried, List<Part> parts) {
        List<String> ways = untried.stream().filter(Kind.LINE_WAYS::contains).toList();
        if (ways.isEmpty() || setUp == null || setUp.lineLogin() == Target.LineLogin.NOT_TRIED) {
            return Optional.empty();
        }
        boolean refused = setUp.lineLogin() == Target.LineLogin.REFUSED;
        String at = SignInWay.minute(setUp.at());
        for (String way : ways) {
            untried.remove(way);
            String name = LadderText.FACTORY_LOGIN.text(way);
            parts.add(
                    refused
                            ? Part.holds(name, LadderText.REFUSED_IN_SETUP.text(at))
                            : Part.broken(name, LadderText.NOT_REFUSED_IN_SETUP.text(at)));
        }
        return refused
                ? Optional.empty()
                : Optional.of(Outcome.broken(Rung.SAFE, Trouble.FACTORY_ACCEPTED, String.join(", ", ways)));
    }
}
