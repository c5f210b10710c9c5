package lychnos.server.configure.bench;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import lychnos.server.allocate.Plans;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.units.Unit;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;

/** A first look, right after a setup, at whether a unit's addresses answer. It proves nothing about who answers. */
@ApplicationScoped
public class Reach {

    private static final Duration PATIENCE = Duration.ofSeconds(2);
    private static final int SSH = 22;

    private final BringUps bringUps;
    private final Kinds kinds;
    private final Plans plans;
    private final Vantage vantage;

    Reach(BringUps bringUps, Kinds kinds, Plans plans, Vantage vantage) {
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.plans = plans;
        this.vantage = vantage;
    }

    /** What one address answered, in words. */
    public record ReachAnswer(String role, String address, boolean answers, String sentence, String from) {}

    private record ReachQuestion(List<Plans.PlannedSeat> seats, int port) {}

    List<ReachAnswer> ask(long unitId) {
        ReachQuestion asked = QuarkusTransaction.requiringNew().call(() -> asked(unitId));
        List<ReachAnswer> answers = new ArrayList<>();
        for (Plans.PlannedSeat seat : asked.seats) {
            answers.add(ask(seat, asked.port));
        }
        return answers;
    }

    private ReachQuestion asked(long unitId) {
        Unit unit = bringUps.unit(unitId);
        return new ReachQuestion(plans.seatsOf(unitId), kinds.of(unit).port());
    }

    private ReachAnswer ask(Plans.PlannedSeat seat, int port) {
        try {
            boolean echo = vantage.hearsSilence()
                    && vantage.ping(seat.address(), PATIENCE).state() != Echo.State.SILENT;
            PortState page = vantage.port(seat.address(), port, PATIENCE);
            PortState ssh = vantage.port(seat.address(), SSH, PATIENCE);
            String ping = vantage.hearsSilence()
                    ? (echo ? ConfigureText.ANSWERS_PING.text() : ConfigureText.DOES_NOT_ANSWER_PING.text()) + ", "
                    : "";
            String sentence = ping + "port " + port + " is " + word(page) + ", port " + SSH + " is " + word(ssh);
            return new ReachAnswer(
                    seat.role(), seat.address().toString(), echo || page == PortState.OPEN, sentence, vantage.name());
        } catch (WireFault e) {
            return new ReachAnswer(seat.role(), seat.address().toString(), false, e.getMessage(), vantage.name());
        }
    }

    private static String word(PortState state) {
        return state.name().toLowerCase(java.util.Locale.ROOT);
    }
}
