package lychnos.server.configure.line;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Supplier;
import lychnos.core.dialogue.Blanker;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Mode;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.MemberValues;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.plan.ConsoleLines;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import lychnos.server.text.ConfigureText;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import org.jboss.logging.Logger;

/**
 * One member's line, its conversation, and those who look at it. Everything of one line happens one after the other;
 * what the conversation wants sent goes out only after the database has kept that it will.
 */
public final class MemberLine implements LineEvents, OpenLine {

    private static final Logger LOG = Logger.getLogger(MemberLine.class);

    private final Held held;
    private final long dialogueId;
    private final String member;
    private final ConsoleLines.OpenableLine address;
    private final Dialogue dialogue;
    private final MemberValues values;
    private final Conversation conversation;
    private final LineSurroundings around;
    private final InOrder inOrder;
    private final ScheduledExecutorService clockwork;
    private final Clock clock;
    private final LineTape tape;
    private final LineChanges changes;
    private final List<Effect> unsaved = new ArrayList<>();
    private final LineConnection line = new LineConnection();
    private final LineDecisions decisions;
    private final Keyboard keyboard = new Keyboard();
    private final Alarm alarm;
    private final RateDoubt rate;
    private boolean gone;
    /** Another server has it now. */
    private boolean lost;

    private boolean doneTold;
    private Mode mode;
    private LineStanding lastStanding;
    private volatile List<String> lacking = List.of();

    public MemberLine(
            Held held,
            ConsoleReader.KeptDialogue kept,
            ConsoleLines.OpenableLine address,
            Dialogue dialogue,
            MemberValues values,
            LineSurroundings around,
            Executor pool,
            ScheduledExecutorService clockwork,
            Clock clock) {
        this.held = held;
        this.dialogueId = kept.dialogue().id;
        this.member = kept.dialogue().member;
        this.address = address;
        this.dialogue = dialogue;
        this.values = values;
        this.around = around;
        this.inOrder = new InOrder(pool);
        this.clockwork = clockwork;
        this.clock = clock;
        mode = kept.dialogue().mode;
        conversation = kept.takenUp(dialogue, values, clock.instant());
        alarm = new Alarm(clockwork);
        Collection<Secret> secrets = values.secrets();
        tape = new LineTape(dialogueId, kept.tail(), kept.pieces(), new Blanker(() -> secrets), clockwork, clock);
        changes = new LineChanges(kept.dialogue(), kept.progress(), dialogue, conversation, tape);
        rate = new RateDoubt(changes, dialogue.line());
        decisions = new LineDecisions(conversation, dialogue, changes, this::apply);
    }

    @Override
    public long dialogueId() {
        return dialogueId;
    }

    Held held() {
        return held;
    }

    @Override
    public String member() {
        return member;
    }

    public ConsoleLines.OpenableLine address() {
        return address;
    }

    @Override
    public Dialogue dialogue() {
        return dialogue;
    }

    @Override
    public void open() {
        inOrder.add(this::tryToOpen);
    }

    private void tryToOpen() {
        if (gone) {
            return;
        }
        try {
            line.open(around, this);
        } catch (WireFault e) {
            notUp(e.getMessage());
        } catch (RuntimeException e) {
            LOG.warnf(e, "A line of run %d cannot be opened now; trying again.", held.runId());
            notUp(ConfigureText.LINE_CANNOT_BE_OPENED_NOW.text());
        }
    }

    private void notUp(String why) {
        boolean wasUp = line.wentDown();
        changes.note(why);
        apply(wasUp ? conversation.lineDown() : List.of());
        if (conversation.state() == Conversation.State.DONE) {
            return;
        }
        clockwork.schedule(this::open, line.pause().toMillis(), TimeUnit.MILLISECONDS);
    }

    @Override
    public void up() {
        inOrder.add(() -> {
            line.cameUp();
            rate.restart();
            changes.note("");
            apply(conversation.lineUp(clock.instant()));
        });
    }

    @Override
    public void received(byte[] bytes) {
        if (tape.received(new String(bytes, StandardCharsets.ISO_8859_1))) {
            clockwork.schedule(() -> inOrder.add(this::hear), LineTape.GATHERED_MILLIS, TimeUnit.MILLISECONDS);
        }
    }

    /** Takes in what came, before any decision on this line. */
    private void hear() {
        String text = tape.takeHeard();
        if (!text.isEmpty()) {
            rate.heard(text);
            apply(conversation.output(text, clock.instant()));
        }
    }

    @Override
    public List<Change.RecordingPiece> takePieces() {
        return tape.takePieces();
    }

    @Override
    public void down(String why) {
        inOrder.add(() -> {
            if (!gone) {
                hear();
                line.ended();
                notUp(why);
            }
        });
    }

    @Override
    public void noted(String sentence) {
        inOrder.add(() -> {
            changes.note(sentence);
            apply(List.of());
        });
    }

    @Override
    public boolean hostKey(String fingerprint) {
        boolean trusted = around.trusts(address.address().toString(), fingerprint);
        if (!trusted) {
            noted(ConfigureText.CONSOLE_SERVER_SHOWS_ANOTHER_KEY.text(address.address(), fingerprint));
        }
        return trusted;
    }

    /** Lets the line go without a word: another server has it, or its setup has ended. */
    @Override
    public void close() {
        inOrder.addFirst(() -> {
            gone = true;
            alarm.cancel();
            line.close();
        });
    }

    private void apply(List<Effect> effects) {
        unsaved.addAll(effects);
        rate.asks(conversation.hold());
        keepAndSend();
    }

    private void keepAndSend() {
        if (gone) {
            return;
        }
        Instant now = clock.instant();
        List<Change.RecordingPiece> taken = List.of();
        try {
            Change change = changes.of(unsaved, mode, standing(), lastStanding, now);
            if (change != null) {
                taken = tape.takePieces();
                around.save(held, change, taken);
                changes.remember(change);
            }
        } catch (HoldLost e) {
            LOG.infof("let go of a line of run %d: %s", held.runId(), e.getMessage());
            lost = true;
            around.lost(this);
            return;
        } catch (RuntimeException e) {
            // nothing goes out that was not kept: it is tried again until the database takes it
            LOG.warnf("A dialogue cannot be kept now (%s); nothing is sent until it is.", e.getMessage());
            tape.giveBack(taken);
            clockwork.schedule(() -> inOrder.addFirst(this::keepAndSend), 1, TimeUnit.SECONDS);
            return;
        }
        lacking = decisions.lacks(values);
        List<Effect> effects = List.copyOf(unsaved);
        unsaved.clear();
        effects.forEach(this::carryOut);
        tellOnlookers();
        alarm.set(
                line.up() ? conversation.wakeAt().map(at -> Duration.between(clock.instant(), at)) : Optional.empty(),
                () -> inOrder.add(() -> apply(line.up() ? conversation.tick(clock.instant()) : List.of())));
        if (conversation.state() == Conversation.State.DONE && !doneTold) {
            doneTold = true;
            around.done(this);
        }
    }

    private void carryOut(Effect effect) {
        if (effect instanceof Effect.Send send) {
            if (dialogue.byHand() && line.up()) {
                tape.typed(send.text());
            }
            line.send(send.text());
        } else if (effect instanceof Effect.SendSecret send) {
            line.send(send.secret());
        } else if (effect instanceof Effect.Read read) {
            around.told(this, read.name(), read.value());
        } else if (effect instanceof Effect.Identified) {
            around.identified(this);
        }
    }

    private LineStanding standing() {
        return LineStanding.of(conversation, mode, changes, keyboard.holder(), line.up());
    }

    private void tellOnlookers() {
        LineStanding now = standing();
        if (!now.equals(lastStanding)) {
            lastStanding = now;
            tape.forEach(each -> each.changed(now));
        }
    }

    /** Tells how it stands, once everything that came before is done. */
    public void ask(Consumer<LineStanding> who) {
        inOrder.add(() -> who.accept(standing()));
    }

    @Override
    public void watch(Onlooker onlooker) {
        tape.watch(onlooker);
        inOrder.add(() -> onlooker.changed(standing()));
    }

    @Override
    public void leave(Onlooker onlooker) {
        tape.leave(onlooker);
    }

    /** Does what a person wants, if that person has the keyboard; completes with why not, or with nothing. */
    private CompletableFuture<Optional<String>> decide(String login, Supplier<Optional<String>> act) {
        return inOrder.answer(() -> {
            if (gone) {
                return Optional.of(ConfigureText.LINE_IS_NO_LONGER_OPEN.text());
            }
            Optional<String> refused = keyboard.ask(login);
            if (refused.isEmpty()) {
                hear();
                changes.by(login);
                refused = act.get();
            }
            return lost ? Optional.of(TAKEN_OVER) : refused;
        });
    }

    /** The same for what cannot be refused once the person has the keyboard. */
    private CompletableFuture<Optional<String>> act(String login, Supplier<List<Effect>> act) {
        return decide(login, () -> {
            apply(act.get());
            return Optional.empty();
        });
    }

    @Override
    public void take(String login) {
        inOrder.add(() -> {
            keyboard.take(login);
            apply(List.of());
        });
    }

    @Override
    public CompletableFuture<Optional<String>> typed(String keys, String login) {
        return act(login, () -> conversation.typed(keys, clock.instant()));
    }

    @Override
    public CompletableFuture<Optional<String>> typeValue(String name, String login) {
        return decide(login, () -> decisions.typeValue(name, values, clock.instant()));
    }

    @Override
    public CompletableFuture<Optional<String>> finish(String login) {
        return decide(login, decisions::finish);
    }

    @Override
    public CompletableFuture<Optional<String>> sendBreak(String login) {
        return act(login, () -> {
            if (line.sendBreak()) {
                tape.mark(ConfigureText.BREAK_SENT.text(login));
            }
            return List.of();
        });
    }

    @Override
    public void resize(int columns, int rows) {
        inOrder.add(() -> line.resize(columns, rows));
    }

    @Override
    public CompletableFuture<Optional<String>> mode(Mode next, String login) {
        return act(login, () -> {
            mode = next;
            return conversation.mode(next, clock.instant());
        });
    }

    @Override
    public CompletableFuture<Optional<String>> goOn(String typed, String login) {
        return decide(login, () -> decisions.goOn(typed, clock.instant()));
    }

    @Override
    public CompletableFuture<Optional<String>> fetchLog(String login) {
        return decide(login, () -> decisions.fetchLog(clock.instant()));
    }

    @Override
    public void halt(String login) {
        inOrder.addFirst(() -> {
            changes.note(ConfigureText.STOPPED.text(login));
            apply(conversation.halt());
        });
    }

    @Override
    public CompletableFuture<Optional<String>> again(String login) {
        return decide(login, () -> decisions.again(clock.instant()));
    }

    @Override
    public List<String> lacks() {
        return lacking;
    }

    @Override
    public void otherIsActive() {
        inOrder.add(() -> apply(conversation.otherIsActive(clock.instant())));
    }

    @Override
    public void known(String name, String value) {
        inOrder.add(() -> apply(conversation.known(name, value, clock.instant())));
    }
}
