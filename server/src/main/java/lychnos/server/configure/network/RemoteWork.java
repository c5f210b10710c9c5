package lychnos.server.configure.network;

import java.time.Clock;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.ScheduledExecutorService;
import java.util.function.Supplier;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.server.configure.model.AtWork;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import lychnos.server.text.ConfigureText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;

/**
 * Sets what of a member is set over the network, one step after the other: its controller, its pages. To carry a step
 * out a second time does no harm, so that after an interruption it is simply done again.
 */
public final class RemoteWork implements AtWork {

    private final Held held;
    private final long dialogueId;
    private final PageSurroundings around;
    private final InOrder inOrder;
    private final StepLoop loop;

    public RemoteWork(
            Held held,
            Openings.LineOpening opening,
            Vantage vantage,
            PageSurroundings around,
            StepMaker maker,
            Executor pool,
            ScheduledExecutorService clockwork,
            Clock clock) {
        this.held = held;
        this.dialogueId = opening.kept().dialogue().id;
        this.around = around;
        this.inOrder = new InOrder(pool);
        loop = new StepLoop(this, opening, vantage, around, maker, inOrder, clockwork, clock);
    }

    public long dialogueId() {
        return dialogueId;
    }

    Held held() {
        return held;
    }

    public void begin() {
        inOrder.add(loop::work);
    }

    /** Over the page's documented interface, or over Redfish. */
    public RemoteStep overTheWire(int place, Remote step) {
        return loop.wire().step(place, step);
    }

    @Override
    public void close() {
        inOrder.addFirst(loop::end);
    }

    private CompletableFuture<Optional<String>> decide(Supplier<Optional<String>> act) {
        return inOrder.answer(() -> {
            Optional<String> refused =
                    loop.gone() ? Optional.of(ConfigureText.PAGES_ARE_NO_LONGER_FILLED.text()) : act.get();
            return loop.isLost() ? Optional.of(TAKEN_OVER) : refused;
        });
    }

    @Override
    public CompletableFuture<Optional<String>> mode(Mode next, String login) {
        return decide(() -> {
            loop.mode = next;
            if (next == Mode.WATCH) {
                return byHand();
            }
            if (loop.hold() != null && loop.hold().why() == Why.NEXT && next == Mode.RUN) {
                return loop.goOn();
            }
            loop.keep(RemoteChange.NOTHING);
            return Optional.empty();
        });
    }

    private Optional<String> byHand() {
        try {
            loop.end();
            around.byHand(this);
            return Optional.empty();
        } catch (HoldLost e) {
            around.lost(this);
            return Optional.of(ConfigureText.PAGES_ARE_NO_LONGER_FILLED.text());
        }
    }

    @Override
    public CompletableFuture<Optional<String>> goOn(String typed, String login) {
        return decide(() -> {
            Hold hold = loop.hold();
            Optional<String> refused = RemoteHolds.refusal(hold, typed);
            if (refused.isPresent()) {
                return refused;
            }
            if (hold.why() == Why.CONSENT) {
                try {
                    around.consented(this, login, loop.step(hold.step()).title(), typed.strip());
                } catch (HoldLost e) {
                    loop.lost();
                    return Optional.of(TAKEN_OVER);
                }
            }
            loop.approved = hold.step();
            if (hold.why() == Why.OVERDUE) {
                loop.waitLonger(hold.step());
                return Optional.empty();
            }
            return loop.goOn();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> again(String login) {
        return decide(() -> {
            if (loop.state() != State.STOPPED) {
                return Optional.of(ConfigureText.MEMBER_IS_NOT_STOPPED.text());
            }
            loop.note = "";
            return loop.goOn();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> fetchLog(String login) {
        return decide(() -> {
            try {
                String log = loop.wire().log();
                if (log.isBlank()) {
                    return Optional.of(ConfigureText.MACHINE_SHOWS_AN_EMPTY_LOG.text());
                }
                loop.keep(RemoteChange.logged(log));
                return Optional.empty();
            } catch (WireFault e) {
                return Optional.of(ConfigureText.LOG_CANNOT_BE_FETCHED.text(e.getMessage()));
            }
        });
    }

    @Override
    public void halt(String login) {
        inOrder.addFirst(() -> {
            if (loop.state() == State.DONE) {
                return;
            }
            loop.become(RemoteState.STOPPED);
            loop.note = ConfigureText.STOPPED.text(login);
            loop.keep(RemoteChange.NOTHING);
        });
    }

    @Override
    public List<String> lacks() {
        return loop.lacking();
    }

    @Override
    public void known(String name, String value) {
        inOrder.add(() -> loop.known(name, value));
    }
}
