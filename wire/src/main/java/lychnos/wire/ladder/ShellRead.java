package lychnos.wire.ladder;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.address.Address;
import lychnos.core.dialogue.LookAgain;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Accepted;
import lychnos.core.proof.Outcome;
import lychnos.core.proof.Part;
import lychnos.core.proof.Rung;
import lychnos.core.proof.Settings;
import lychnos.core.proof.Traits;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ssh.Shell;
import lychnos.wire.vantage.Vantage;

/** What a machine tells over SSH of what it keeps, and whether a factory's log-in still works there. */
final class ShellRead {

    private static final int SSH = 22;
    private static final Duration PATIENCE = Duration.ofSeconds(15);

    private final Vantage vantage;
    private final Target target;
    private final Target.ShellWay way;
    private final String hostKey;
    private final Clock clock;
    private OwnValues own = OwnValues.NONE;

    /** @param hostKey seen right before; a password goes to that one or not at all */
    ShellRead(Vantage vantage, Target target, Target.ShellWay way, String hostKey, Clock clock) {
        this.vantage = vantage;
        this.target = target;
        this.way = way;
        this.hostKey = hostKey;
        this.clock = clock;
    }

    private Shell.Told run(String user, Secret phrase, List<LookAgain.Command> commands) throws WireFault {
        List<Shell.Command> typed = commands.stream()
                .map(command -> new Shell.Command(command.prompt().toString(), command.sends()))
                .toList();
        List<Shell.Press> paging = way.asks().paging().entrySet().stream()
                .map(each -> new Shell.Press(each.getKey().toString(), each.getValue()))
                .toList();
        Address at = target.address();
        return vantage.shell(at, SSH, new Shell.Script(user, phrase, hostKey, typed, paging), PATIENCE);
    }

    /**
     * Compares what it shows with what was planned.
     *
     * @param parts takes what was seen of each command
     * @param fields takes what was compared
     * @param traits takes the state that it told
     * @return what keeps the rung from holding, if anything does
     */
    Optional<Outcome> readBack(List<Part> parts, List<Settings.Field> fields, Map<String, String> traits)
            throws WireFault {
        List<LookAgain.Command> commands = way.asks().commands();
        Shell.Told told;
        Instant before = clock.instant();
        try {
            told = run(way.ours().user(), way.ours().phrase(), commands);
        } catch (WireFault e) {
            parts.add(Part.broken(LadderText.OVER_SSH.text(), e.getMessage()));
            return Optional.of(RedfishWay.brokenUnlessUndeclared(e, Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE));
        }
        if (!told.admitted()) {
            String seen = LadderText.SSH_REFUSES_PASSWORD.text(way.ours().user());
            parts.add(Part.broken(LadderText.OVER_SSH.text(), seen));
            return Optional.of(Outcome.broken(Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE, seen));
        }
        own = new OwnValues(way.asks().shows().keySet(), way.asks().shown(told.outputs()), before, clock.instant());
        List<String> off = new ArrayList<>();
        boolean settings = false;
        for (int i = 0; i < commands.size(); i++) {
            LookAgain.Command command = commands.get(i);
            LookAgain.Told seen = command.judge(told.outputs().get(i));
            List<Settings.Field> judged =
                    Accepted.apply(seen.fields(), target.known().accepted());
            fields.addAll(judged);
            String differs = Settings.differences(judged);
            String state = String.join(", ", seen.state());
            boolean missing = !seen.missing().isEmpty()
                    && !state.equals(target.known().accepted().get(Traits.STATE + command.title()));
            if (!command.expects().isEmpty()) {
                traits.put(
                        Traits.STATE + command.title(), state.isEmpty() ? LadderText.NOTHING_EXPECTED.text() : state);
            }
            String lacks = missing ? LadderText.OUTPUT_LACKS.text(String.join("”, “", seen.missing())) : "";
            String fault = differs.isEmpty() ? lacks : differs;
            if (fault.isEmpty()) {
                parts.add(Part.holds(command.title(), seen(judged, state)));
            } else {
                settings |= !differs.isEmpty();
                off.add(command.title() + ": " + fault);
                parts.add(Part.broken(command.title(), fault));
            }
        }
        return off.isEmpty()
                ? others(parts)
                : Optional.of(Outcome.broken(
                        Rung.AS_PLANNED,
                        settings ? Trouble.NOT_AS_PLANNED : Trouble.NOT_IN_STATE,
                        String.join("; ", off)));
    }

    /** Tries each further account once; gives what breaks the rung. */
    private Optional<Outcome> others(List<Part> parts) throws WireFault {
        for (Target.Login login : way.also()) {
            String name = LadderText.ACCOUNT_OVER_SSH.text(login.user());
            try {
                if (!run(login.user(), login.phrase(), List.of()).admitted()) {
                    parts.add(Part.broken(name, "refused"));
                    return Optional.of(Outcome.broken(Rung.AS_PLANNED, Trouble.ACCOUNT_REFUSED, login.user()));
                }
                parts.add(Part.holds(name, "let in"));
            } catch (WireFault e) {
                parts.add(Part.broken(name, e.getMessage()));
                return Optional.of(RedfishWay.brokenUnlessUndeclared(e, Rung.AS_PLANNED, Trouble.SETTINGS_UNREADABLE));
            }
        }
        return Optional.empty();
    }

    /** What the output told of the machine; nothing before it was read back. */
    OwnValues own() {
        return own;
    }

    private static String seen(List<Settings.Field> fields, String state) {
        String agree = fields.isEmpty() ? "" : LadderText.VALUES_AGREE.text(fields.size(), fields.size());
        return List.of(agree, state).stream().filter(text -> !text.isEmpty()).collect(Collectors.joining(", "));
    }

    /** Tries each account that the maker ships once; gives what breaks the rung. */
    Optional<Outcome> factory(List<Part> parts) throws WireFault {
        Set<String> tried = new HashSet<>();
        for (Kind.Login login : way.factory()) {
            if (!tried.add(login.user())) {
                continue;
            }
            String name = LadderText.FACTORY_PASSWORD_OVER_SSH.text(login.user());
            try {
                if (run(login.user(), login.phrase(), List.of()).admitted()) {
                    parts.add(Part.broken(name, "taken"));
                    return Optional.of(Outcome.broken(
                            Rung.SAFE, Trouble.FACTORY_ACCEPTED, LadderText.AS_USER_OVER_SSH.text(login.user())));
                }
                parts.add(Part.holds(name, "refused"));
            } catch (WireFault e) {
                parts.add(Part.broken(name, e.getMessage()));
                return Optional.of(RedfishWay.brokenUnlessUndeclared(e, Rung.SAFE, Trouble.FACTORY_UNCLEAR));
            }
        }
        return Optional.empty();
    }
}
