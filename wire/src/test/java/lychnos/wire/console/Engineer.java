package lychnos.wire.console;

import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Secret;
import lychnos.wire.fault.WireFault;

/**
 * A person before a real line, who lets the tool run and says yes to everything that can be passed. Ends when the
 * dialogue is done, or with the first thing that saying yes does not help.
 */
final class Engineer implements LineEvents, AutoCloseable {

    private final ScheduledExecutorService thread = Executors.newSingleThreadScheduledExecutor();
    private final Dialogue dialogue;
    private final Lines lines;
    private final LineAddress address;
    private final Conversation conversation;
    private final CompletableFuture<Hold> end = new CompletableFuture<>();
    private final Map<String, String> read = new HashMap<>();
    private final Set<Hold.Why> lives;
    private java.util.function.Consumer<String> heard = text -> {};
    private java.util.function.Consumer<Secret> sent = keys -> {};
    private ConsoleLine line;
    private Engineer other;
    private boolean hasOther;
    private String member;
    private ScheduledFuture<?> alarm;

    /** @param lives reasons to hold at which this person ends although they could be passed */
    Engineer(Lines lines, LineAddress address, Dialogue dialogue, String member, Values values, Set<Hold.Why> lives) {
        this.lines = lines;
        this.address = address;
        this.dialogue = dialogue;
        this.member = member;
        this.lives = lives;
        conversation = new Conversation(dialogue, member, values, Mode.RUN, Instant.now());
    }

    /** What this one reads on its line the other one is told. */
    Engineer with(Engineer neighbour) {
        other = neighbour;
        neighbour.hasOther = true;
        return this;
    }

    /** Hands what the line shows, and what is typed, to somebody else too. */
    Engineer heardBy(java.util.function.Consumer<String> listener, java.util.function.Consumer<Secret> sending) {
        heard = listener;
        sent = sending;
        return this;
    }

    Engineer begin() {
        thread.execute(this::open);
        return this;
    }

    private void open() {
        try {
            line = lines.open(address, dialogue.line(), this);
        } catch (WireFault e) {
            end.completeExceptionally(e);
        }
    }

    /** Null where it was done. */
    Hold end(long seconds) throws Exception {
        try {
            return end.get(seconds, TimeUnit.SECONDS);
        } catch (java.util.concurrent.TimeoutException e) {
            throw new AssertionError(address + " is " + conversation.state() + " " + conversation.hold() + "\n"
                    + String.join("\n", conversation.screen().window()));
        }
    }

    Map<String, String> read() {
        return read;
    }

    private void otherIsActive() {
        thread.execute(() -> apply(conversation.otherIsActive(Instant.now())));
    }

    @Override
    public void up() {
        thread.execute(() -> {
            apply(conversation.lineUp(Instant.now()));
        });
    }

    @Override
    public void received(byte[] bytes) {
        heard.accept(new String(bytes, StandardCharsets.ISO_8859_1));
        thread.execute(() -> apply(conversation.output(new String(bytes, StandardCharsets.ISO_8859_1), Instant.now())));
    }

    @Override
    public void down(String why) {
        if (!thread.isShutdown()) {
            thread.execute(() -> apply(conversation.lineDown()));
            thread.schedule(this::open, 100, TimeUnit.MILLISECONDS);
        }
    }

    @Override
    public void noted(String sentence) {
        end.completeExceptionally(new AssertionError(sentence));
    }

    @Override
    public boolean hostKey(String fingerprint) {
        return true;
    }

    private void apply(List<Effect> effects) {
        for (Effect effect : effects) {
            if (effect instanceof Effect.Send send) {
                sent.accept(Secret.of(send.text()));
                line.send(send.text().getBytes(StandardCharsets.ISO_8859_1));
            } else if (effect instanceof Effect.SendSecret send) {
                send.secret().use(word -> {
                    sent.accept(Secret.of(word + "\r"));
                    line.send((word + "\r").getBytes(StandardCharsets.ISO_8859_1));
                    return null;
                });
            } else if (effect instanceof Effect.Identified && other != null) {
                other.otherIsActive();
            } else if (effect instanceof Effect.Read each) {
                read.put(each.name(), each.value());
                if (other != null) {
                    other.told(member + "." + each.name(), each.value());
                }
            }
        }
        if (conversation.state() == State.DONE) {
            end.complete(null);
        }
        conversation.hold().ifPresent(hold -> {
            if (hold.why().passable() && !lives.contains(hold.why())) {
                thread.execute(() -> apply(conversation.goOn(hold.typed(), Instant.now())));
            } else if (!hold.why().endsWhenKnown() && !(hold.why() == Hold.Why.STANDBY && hasOther)) {
                end.complete(hold);
            }
        });
        if (alarm != null) {
            alarm.cancel(false);
        }
        conversation
                .wakeAt()
                .ifPresent(at -> alarm = thread.schedule(
                        () -> apply(conversation.tick(Instant.now())),
                        Math.max(
                                        0,
                                        java.time.Duration.between(Instant.now(), at)
                                                .toMillis())
                                + 1,
                        TimeUnit.MILLISECONDS));
    }

    void told(String name, String value) {
        thread.execute(() -> apply(conversation.known(name, value, Instant.now())));
    }

    @Override
    public void close() {
        thread.shutdownNow();
        if (line != null) {
            line.close();
        }
    }
}
