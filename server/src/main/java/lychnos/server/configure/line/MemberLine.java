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
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.function.Consumer;
import java.util.function.Supplier;
import java.util.stream.Stream;
import lychnos.core.dialogue.Blanker;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.MemberValues;
import lychnos.server.configure.model.Change;
import lychnos.server.configure.model.ConsoleReader;
import lychnos.server.configure.model.HoldView;
import lychnos.server.configure.plan.ConsoleLines;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.server.jobs.InOrder;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import org.jboss.logging.Logger;

/**
 * One member's line, its conversation, and those who look at it. Everything of one line happens one after the other;
 * what the conversation wants sent goes out only after the database has kept that it will.
 */
public final class MemberLine implements LineEvents, OpenLine {

    private static final Logger LOG = Logger.getLogger(MemberLine.class);
    private static final long LONGEST_REOPEN_SECONDS = 10;

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
    private ConsoleLine line;
    private boolean lineUp;
    private boolean everUp;
    private boolean gone;
    /** Another server has it now. */
    private boolean lost;

    private boolean doneTold;
    private int reopened;
    private Mode mode;
    private String hand = "";
    private LineStanding lastStanding;
    private volatile List<String> lacking = List.of();
    private ScheduledFuture<?> alarm;

    public MemberLine(
            Held held,
            ConsoleReader.KeptDialogue kept,
            ConsoleLines.OpenableLine address,
            Dialogue dialogue,
            MemberValues values,
            LineSurroundings around,
            java.util.concurrent.Executor pool,
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
        boolean wiped = kept.dialogue().wiped;
        boolean identified = kept.dialogue().identified;
        conversation = new Conversation(dialogue, member, values, mode, clock.instant());
        boolean begun =
                wiped || kept.progress().stream().anyMatch(each -> each == Progress.SENT || each == Progress.DONE);
        if (begun || identified) {
            conversation.resume(
                    new Conversation.Left(wiped, identified, kept.progress(), kept.told(), kept.shown()),
                    clock.instant());
        }
        if (kept.dialogue().state == lychnos.server.configure.model.MemberDialogue.DialogueState.STOPPED) {
            conversation.halt();
        }
        Collection<Secret> secrets = values.secrets();
        tape = new LineTape(dialogueId, kept.tail(), kept.pieces(), new Blanker(() -> secrets), clockwork, clock);
        changes = new LineChanges(kept.dialogue(), kept.progress(), dialogue, conversation, tape);
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

    // --- the line ---

    @Override
    public void open() {
        inOrder.add(this::tryToOpen);
    }

    private void tryToOpen() {
        if (gone || lineUp) {
            return;
        }
        try {
            line = around.open(this);
        } catch (WireFault e) {
            notUp(e.getMessage());
        }
    }

    private void notUp(String why) {
        lineUp = false;
        changes.note(why);
        if (everUp) {
            apply(conversation.lineDown());
        } else {
            apply(List.of());
        }
        if (conversation.state() == Conversation.State.DONE) {
            return;
        }
        long seconds = Math.min(LONGEST_REOPEN_SECONDS, 1L << Math.min(reopened++, 4));
        clockwork.schedule(this::open, seconds, TimeUnit.SECONDS);
    }

    @Override
    public void up() {
        inOrder.add(() -> {
            lineUp = true;
            changes.note("");
            reopened = 0;
            List<Effect> effects = everUp ? conversation.lineUp(clock.instant()) : List.of();
            everUp = true;
            apply(effects);
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
                line = null;
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
            noted("The console server at " + address.address() + " shows another key than before: " + fingerprint
                    + ". Nothing was sent to it.");
        }
        return trusted;
    }

    /** Lets the line go without a word: another server has it, or its setup has ended. */
    @Override
    public void close() {
        inOrder.addFirst(() -> {
            gone = true;
            if (alarm != null) {
                alarm.cancel(false);
            }
            if (line != null) {
                line.close();
            }
        });
    }

    // --- what happens in the dialogue ---

    private void apply(List<Effect> effects) {
        unsaved.addAll(effects);
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
        lacking = lackedNow();
        List<Effect> effects = List.copyOf(unsaved);
        unsaved.clear();
        effects.forEach(this::carryOut);
        tellOnlookers();
        setAlarm(now);
        if (conversation.state() == Conversation.State.DONE && !doneTold) {
            doneTold = true;
            around.done(this);
        }
    }

    private void carryOut(Effect effect) {
        if (effect instanceof Effect.Send send) {
            send(send.text());
        } else if (effect instanceof Effect.SendSecret send) {
            send.secret().use(word -> {
                send(word + "\r");
                return null;
            });
        } else if (effect instanceof Effect.Read read) {
            around.told(this, read.name(), read.value());
        } else if (effect instanceof Effect.Identified) {
            around.identified(this);
        }
    }

    private void send(String text) {
        if (line != null && lineUp) {
            line.send(text.getBytes(StandardCharsets.ISO_8859_1));
        }
    }

    private void setAlarm(Instant now) {
        if (alarm != null) {
            alarm.cancel(false);
        }
        alarm = conversation
                .wakeAt(now)
                .map(at -> clockwork.schedule(
                        () -> inOrder.add(() -> apply(lineUp ? conversation.tick(clock.instant()) : List.of())),
                        Duration.between(now, at).toMillis() + 1,
                        TimeUnit.MILLISECONDS))
                .orElse(null);
    }

    // --- those who look, and those who decide ---

    private LineStanding standing() {
        List<String> progress = new ArrayList<>();
        for (int i = 0; i < conversation.steps().size(); i++) {
            progress.add(conversation.progress(i).name());
        }
        return new LineStanding(
                conversation.state().name(),
                mode.name(),
                HoldView.of(conversation.hold().orElse(null)),
                changes.note(),
                hand,
                lineUp,
                changes.identified(),
                progress,
                conversation.asking());
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
        CompletableFuture<Optional<String>> answer = new CompletableFuture<>();
        inOrder.add(() -> {
            if (hand.isEmpty()) {
                hand = login; // the first has the keyboard until another takes it over
            }
            if (gone) {
                answer.complete(Optional.of("This line is no longer open here."));
            } else if (!hand.equals(login)) {
                answer.complete(Optional.of(hand + " has the keyboard of this line. Take it over first."));
            } else {
                hear();
                changes.by(login);
                Optional<String> refused = act.get();
                answer.complete(lost ? Optional.of(TAKEN_OVER) : refused);
            }
        });
        return answer;
    }

    @Override
    public void take(String login) {
        inOrder.add(() -> {
            hand = login;
            apply(List.of());
        });
    }

    @Override
    public CompletableFuture<Optional<String>> typed(String keys, String login) {
        return decide(login, () -> {
            apply(conversation.typed(keys, clock.instant()));
            return Optional.empty();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> sendBreak(String login) {
        return decide(login, () -> {
            if (line != null) {
                line.sendBreak();
                tape.mark("break sent by " + login);
            }
            apply(List.of());
            return Optional.empty();
        });
    }

    @Override
    public void resize(int columns, int rows) {
        inOrder.add(() -> {
            if (line != null) {
                line.resize(columns, rows);
            }
        });
    }

    @Override
    public CompletableFuture<Optional<String>> mode(Mode next, String login) {
        return decide(login, () -> {
            mode = next;
            apply(conversation.mode(next, clock.instant()));
            return Optional.empty();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> goOn(String typed, String login) {
        return decide(login, () -> {
            Optional<Hold> before = conversation.hold();
            if (before.isEmpty()) {
                return Optional.of("No decision is needed here now.");
            }
            if (!before.get().why().passable()) {
                return Optional.of("This cannot be skipped. " + before.get().sentence());
            }
            apply(conversation.goOn(typed, clock.instant()));
            boolean stays =
                    conversation.hold().equals(before) && !before.get().typed().isEmpty();
            return stays
                    ? Optional.of("Wanted is “" + before.get().typed() + "”, typed letter by letter. Nothing was sent.")
                    : Optional.empty();
        });
    }

    @Override
    public CompletableFuture<Optional<String>> fetchLog(String login) {
        return decide(login, () -> {
            Optional<String> refused = conversation.fetchLog(clock.instant());
            apply(conversation.effects());
            return refused;
        });
    }

    /** Anybody may stop it, at once. */
    @Override
    public void halt(String login) {
        inOrder.addFirst(() -> {
            changes.note("Stopped by " + login + ".");
            apply(conversation.halt());
        });
    }

    @Override
    public CompletableFuture<Optional<String>> again(String login) {
        return decide(login, () -> {
            if (conversation.state() != Conversation.State.STOPPED) {
                return Optional.of("This line is not stopped.");
            }
            changes.note("");
            apply(conversation.again(clock.instant()));
            return Optional.empty();
        });
    }

    /** What the step lacks that a person or another team still has to say; empty where nothing is waited for. */
    @Override
    public List<String> lacks() {
        return lacking;
    }

    private List<String> lackedNow() {
        return conversation
                .hold()
                .filter(hold -> hold.why().endsWhenKnown() && hold.step() >= 0)
                .map(hold -> (Asked) conversation.steps().get(hold.step()))
                .map(asked -> Stream.concat(Stream.of(asked.after()), asked.answer().names().stream())
                        .filter(name -> !name.isEmpty() && values.text(name).isEmpty())
                        .toList())
                .orElse(List.of());
    }

    @Override
    public void otherIsActive() {
        inOrder.add(() -> apply(conversation.otherIsActive(clock.instant())));
    }

    /** Another member's line has told something. */
    @Override
    public void known(String name, String value) {
        inOrder.add(() -> apply(conversation.known(name, value, clock.instant())));
    }
}
