package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import java.time.Clock;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.fact.ChangeWindow;
import lychnos.core.fact.Fact;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.text.Said;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.Unit;

/**
 * The change window of a unit: outside of it nothing is begun that restarts a machine or cuts a link, unless a person
 * gives a reason, which the journal records.
 */
@ApplicationScoped
public class ChangeWindows {

    private static final DateTimeFormatter MINUTE =
            DateTimeFormatter.ofPattern("uuuu-MM-dd HH:mm").withZone(ZoneOffset.UTC);

    private final Journal journal;
    private final Clock clock;

    ChangeWindows(Journal journal, Clock clock) {
        this.journal = journal;
        this.clock = clock;
    }

    /** The window of a unit, if one was agreed. */
    public Optional<ChangeWindow> of(UnitFacts known) {
        return known.fact("", Kind.CHANGE_WINDOW).map(Fact::value).map(ChangeWindow::parse);
    }

    public boolean isOpen(ChangeWindow window) {
        return window.contains(clock.instant());
    }

    /** Why a unit may not be changed now; empty where it may. */
    public Optional<Said> closed(Unit unit, UnitFacts known) {
        return of(known)
                .filter(window -> !isOpen(window))
                .map(window -> ConfigureText.OUTSIDE_THE_CHANGE_WINDOW.said(
                        unit.label(),
                        MINUTE.format(window.from()),
                        MINUTE.format(window.to()),
                        MINUTE.format(clock.instant())));
    }

    /** Refuses what is outside of the window and has no reason; with one, the reason is recorded. */
    public void refuse(Unit unit, UnitFacts known, String reason, Who.Person person) {
        closed(unit, known).ifPresent(closed -> {
            String why = reason == null ? "" : reason.strip();
            if (why.isEmpty()) {
                throw Refusal.conflict(closed, Map.of("reasonWanted", true));
            }
            if (why.length() < Setups.SHORTEST_REASON) {
                throw Refusal.fields(
                        List.of(new Refusal.FieldFault("reason", ConfigureText.REASON_IS_TOO_SHORT.said())));
            }
            journal.write(
                    person,
                    unit.bringUpId,
                    unit.id,
                    ConfigureText.WENT_ON_OUTSIDE_THE_CHANGE_WINDOW.text(why),
                    null,
                    null);
        });
    }
}
