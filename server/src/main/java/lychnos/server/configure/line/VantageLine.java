package lychnos.server.configure.line;

import com.fasterxml.jackson.databind.JsonNode;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.Executor;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Supplier;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Mode;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleStore;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import lychnos.server.text.ConfigureText;
import lychnos.wire.far.Codec;
import lychnos.wire.far.FarVantage;
import lychnos.wire.far.Link;
import lychnos.wire.far.LinkMessage;
import lychnos.wire.fault.WireFault;
import org.jboss.logging.Logger;

/**
 * A line whose dialogue a vantage carries on. While the link stands nothing goes out there before it is kept here;
 * while it is cut the vantage keeps what happens and hands it in afterwards, and this server goes on holding the unit
 * for it.
 */
public final class VantageLine implements OpenLine {

    private static final Logger LOG = Logger.getLogger(VantageLine.class);
    private static final Duration PATIENCE = Duration.ofSeconds(15);
    private static final int TAIL = 16 * 1024;
    private static final long AGAIN_SECONDS = 3;

    private final Held held;
    private final long dialogueId;
    private final String member;
    private final Dialogue dialogue;
    private final Supplier<LineOrder> order;
    private final FarVantage vantage;
    private final Codec codec;
    private final LineSurroundings around;
    private final InOrder inOrder;
    private final ScheduledExecutorService clockwork;
    private final List<Onlooker> onlookers = new CopyOnWriteArrayList<>();
    private final StringBuilder tail = new StringBuilder();
    private volatile LineStanding standing;
    private volatile List<String> lacking = List.of();
    private volatile boolean gone;
    private volatile Instant cutAt;

    /** @param order how far the dialogue is, asked again for each beginning */
    public VantageLine(
            Held held,
            Openings.LineOpening opening,
            Supplier<LineOrder> order,
            FarVantage vantage,
            Codec codec,
            LineSurroundings around,
            Executor pool,
            ScheduledExecutorService clockwork) {
        this.held = held;
        this.dialogueId = opening.kept().dialogue().id;
        this.member = opening.kept().dialogue().member;
        this.dialogue = opening.dialogue();
        this.order = order;
        this.vantage = vantage;
        this.codec = codec;
        this.around = around;
        this.inOrder = new InOrder(pool);
        this.clockwork = clockwork;
        tail.append(opening.kept().tail());
        standing = new LineStanding(
                "UNSURE",
                opening.kept().dialogue().mode.name(),
                null,
                "",
                "",
                false,
                opening.kept().dialogue().identified,
                opening.kept().progress().stream().map(Enum::name).toList(),
                -1);
    }

    public String vantage() {
        return vantage.name();
    }

    @Override
    public long dialogueId() {
        return dialogueId;
    }

    @Override
    public String member() {
        return member;
    }

    @Override
    public Dialogue dialogue() {
        return dialogue;
    }

    // --- beginning, and beginning again ---

    @Override
    public void open() {
        inOrder.add(this::begin);
    }

    private void begin() {
        if (gone) {
            return;
        }
        if (!vantage.linked()) {
            say(ConfigureText.VANTAGE_POINT_IS_NOT_CONNECTED.text(vantage.name()));
            return;
        }
        ask(new DialogueMessage.Begin(order.get()))
                .whenComplete((answer, fault) -> inOrder.add(() -> begun(answer, fault)));
    }

    private void begun(JsonNode answer, Throwable fault) {
        if (fault != null || answer.isTextual()) {
            String why = fault == null ? answer.asText() : sentence(fault);
            LOG.infof("dialogue %d is not carried on at vantage %s yet: %s", dialogueId, vantage.name(), why);
            say(why);
            if (vantage.linked()) {
                clockwork.schedule(this::open, AGAIN_SECONDS, TimeUnit.SECONDS);
            }
        }
    }

    /** A link stands: what is under way there goes on, else it is begun. */
    public void linked() {
        cutAt = null;
        open();
    }

    /** The link is cut. */
    public void cut(Instant at) {
        cutAt = at;
        say("");
    }

    private void say(String sentence) {
        String more = cutAt == null
                ? ""
                : ConfigureText.VANTAGE_POINT_IS_DISCONNECTED.text(
                        vantage.name(), cutAt.toString().substring(11, 16));
        LineStanding now = standing;
        tell(new LineStanding(
                now.state(),
                now.mode(),
                now.hold(),
                sentence.isEmpty() ? more : sentence,
                now.hand(),
                false,
                now.identified(),
                now.progress(),
                -1));
    }

    private void tell(LineStanding now) {
        standing = now;
        onlookers.forEach(each -> each.changed(now));
    }

    private CompletableFuture<JsonNode> ask(DialogueMessage.Order order) {
        return vantage.ask(codec.tree(order), PATIENCE);
    }

    private static String sentence(Throwable fault) {
        Throwable cause = fault instanceof java.util.concurrent.CompletionException && fault.getCause() != null
                ? fault.getCause()
                : fault;
        return cause instanceof WireFault wire
                ? wire.getMessage()
                : ConfigureText.VANTAGE_POINT_DID_NOT_ANSWER_IN_TIME.text();
    }

    // --- what comes from there ---

    /** Takes in what the vantage says of this line. */
    public void heard(DialogueMessage message, Link back) {
        if (message instanceof DialogueMessage.Shown shown) {
            shown(shown.text());
            return;
        }
        inOrder.add(() -> {
            try {
                take(message, back);
            } catch (IllegalStateException e) {
                LOG.warnf(
                        "What vantage %s hands in of dialogue %d cannot be taken: %s",
                        vantage.name(), dialogueId, e.getMessage());
            }
        });
    }

    private void take(DialogueMessage message, Link back) {
        if (gone) {
            return;
        }
        if (message instanceof DialogueMessage.HandIn handIn) {
            keep(handIn.step(), back);
        } else if (message instanceof DialogueMessage.StandingNow now) {
            tell(now.standing());
            lacking = now.lacks();
        } else if (message instanceof DialogueMessage.Told told) {
            around.told(this, told.name(), told.value());
        } else if (message instanceof DialogueMessage.Identified identified) {
            around.identified(this);
        } else if (message instanceof DialogueMessage.Done done) {
            around.done(this);
        } else if (message instanceof DialogueMessage.KeyShown key) {
            ask(new DialogueMessage.TrustKey(
                    dialogueId, key.fingerprint(), around.trusts(key.server(), key.fingerprint())));
        } else {
            LOG.warnf("Vantage %s sent a message of dialogue %d that only a server sends", vantage.name(), dialogueId);
        }
    }

    private void keep(LineOrder.HandedStep step, Link back) {
        DialogueMessage answer = new DialogueMessage.Kept(dialogueId, step.number());
        try {
            if (step.state() == null) {
                around.save(held, step.pieces());
            } else {
                around.save(held, step.change(dialogueId, dialogue, member), step.pieces());
            }
        } catch (ConsoleStore.KeptBefore e) {
            LOG.debugf("dialogue %d: a step was handed in twice", dialogueId);
        } catch (HoldLost e) {
            answer = new DialogueMessage.Lost(dialogueId);
            around.lost(this);
        } catch (RuntimeException e) {
            LOG.warnf(
                    "A step of dialogue %d cannot be kept now (%s); the vantage hands it in again.",
                    dialogueId, e.getMessage());
            answer = new DialogueMessage.HandInAgain(dialogueId);
        }
        back.send(new LinkMessage.Note(codec.tree(answer)));
    }

    private synchronized void shown(String text) {
        tail.append(text);
        if (tail.length() > 2 * TAIL) {
            tail.delete(0, tail.length() - TAIL);
        }
        onlookers.forEach(each -> each.shown(text));
    }

    // --- those who look, and those who decide ---

    @Override
    public void watch(Onlooker onlooker) {
        synchronized (this) {
            onlooker.shown(tail.toString());
            onlookers.add(onlooker);
        }
        onlooker.changed(standing);
    }

    @Override
    public void leave(Onlooker onlooker) {
        onlookers.remove(onlooker);
    }

    /** Completes with why not, or with nothing. */
    private CompletableFuture<Optional<String>> decide(DialogueMessage.Order order) {
        return ask(order)
                .handle((answer, fault) -> fault != null
                        ? Optional.of(sentence(fault))
                        : Optional.ofNullable(answer.isTextual() ? answer.asText() : null));
    }

    @Override
    public void take(String login) {
        ask(new DialogueMessage.TakeKeyboard(dialogueId, login));
    }

    @Override
    public CompletableFuture<Optional<String>> typed(String keys, String login) {
        return decide(new DialogueMessage.TypeKeys(dialogueId, keys, login));
    }

    @Override
    public CompletableFuture<Optional<String>> typeValue(String name, String login) {
        return notByHand();
    }

    @Override
    public CompletableFuture<Optional<String>> finish(String login) {
        return notByHand();
    }

    /** The dialogue of a setup by hand stays on the server. */
    private static CompletableFuture<Optional<String>> notByHand() {
        return CompletableFuture.completedFuture(Optional.of(ConfigureText.SETUP_IS_NOT_BY_HAND.text()));
    }

    @Override
    public CompletableFuture<Optional<String>> sendBreak(String login) {
        return decide(new DialogueMessage.SendBreak(dialogueId, login));
    }

    @Override
    public void resize(int columns, int rows) {
        ask(new DialogueMessage.Resize(dialogueId, columns, rows));
    }

    @Override
    public CompletableFuture<Optional<String>> mode(Mode next, String login) {
        return decide(new DialogueMessage.SetMode(dialogueId, next, login));
    }

    @Override
    public CompletableFuture<Optional<String>> goOn(String typed, String login) {
        return decide(new DialogueMessage.GoOn(dialogueId, typed == null ? "" : typed, login));
    }

    @Override
    public CompletableFuture<Optional<String>> again(String login) {
        return decide(new DialogueMessage.SendAgain(dialogueId, login));
    }

    @Override
    public CompletableFuture<Optional<String>> fetchLog(String login) {
        return decide(new DialogueMessage.FetchLog(dialogueId, login));
    }

    @Override
    public void halt(String login) {
        ask(new DialogueMessage.Halt(dialogueId, login)).exceptionally(fault -> {
            inOrder.add(() -> say(ConfigureText.LINE_COULD_NOT_BE_STOPPED.text(sentence(fault))));
            return null;
        });
    }

    @Override
    public void otherIsActive() {
        ask(new DialogueMessage.OtherIsActive(dialogueId));
    }

    @Override
    public void known(String name, String value) {
        ask(new DialogueMessage.Known(dialogueId, name, value));
    }

    @Override
    public List<String> lacks() {
        return lacking;
    }

    /** The vantage hands them in itself. */
    @Override
    public List<Change.RecordingPiece> takePieces() {
        return List.of();
    }

    @Override
    public void close() {
        gone = true;
        ask(new DialogueMessage.Close(dialogueId, held.fence()));
    }
}
