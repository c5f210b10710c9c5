package lychnos.wire.far;

import java.util.Map;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.Executor;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.TimeoutException;
import java.util.function.Consumer;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;

/**
 * The far side of a link: carries out with its own {@link Vantage} what is asked over it. What may be asked is that,
 * and no more.
 */
public final class VantageHost {

    private static final long KEY_SECONDS = 20;
    private static final int MOST_LINES = 256;

    private final Vantage vantage;
    private final Vantage others;
    private final Codec codec;
    private final Executor pool;
    private final Map<Long, Line> lines = new ConcurrentHashMap<>();

    /** One that reaches every network in the same way. */
    public VantageHost(Vantage vantage, Codec codec, Executor pool) {
        this(vantage, vantage, codec, pool);
    }

    /**
     * @param vantage reaches the networks that this vantage point is for
     * @param others reaches the other networks too, for calls that only try a port
     */
    public VantageHost(Vantage vantage, Vantage others, Codec codec, Executor pool) {
        this.vantage = vantage;
        this.others = others;
        this.codec = codec;
        this.pool = pool;
    }

    /** Takes in a message; false where it is none that belongs here. */
    public boolean heard(LinkMessage message, Link back) {
        if (message instanceof LinkMessage.Call call) {
            pool.execute(() -> back.send(answer(call)));
        } else if (message instanceof LinkMessage.OpenLine open) {
            open(open, back);
        } else if (message instanceof LinkMessage.HostKeyTrusted answer) {
            line(answer.line(), line -> line.trusted.complete(answer.trusted()));
        } else if (message instanceof LinkMessage.LineInput input) {
            opened(input.line(), open -> open.send(input.bytes()));
        } else if (message instanceof LinkMessage.LineBreak pause) {
            opened(pause.line(), ConsoleLine::sendBreak);
        } else if (message instanceof LinkMessage.LineSize size) {
            opened(size.line(), open -> open.resize(size.columns(), size.rows()));
        } else if (message instanceof LinkMessage.CloseLine close) {
            line(close.line(), Line::close);
            lines.remove(close.line());
        } else {
            return false;
        }
        return true;
    }

    /** The link is cut: lines that were open over it are closed, since nothing they say can be passed on. */
    public void cut() {
        lines.values().forEach(Line::close);
        lines.clear();
    }

    private LinkMessage answer(LinkMessage.Call call) {
        try {
            return new LinkMessage.Answer(
                    call.number(), codec.tree(call.what().on(call.what().triesAPort() ? others : vantage)));
        } catch (WireFault e) {
            return new LinkMessage.Failed(call.number(), e.kind(), e.getMessage());
        } catch (RuntimeException e) {
            return new LinkMessage.Failed(call.number(), WireFault.Kind.UNKNOWN_OUTCOME, String.valueOf(e));
        }
    }

    private void line(long number, Consumer<Line> event) {
        Line line = lines.get(number);
        if (line != null) {
            event.accept(line);
        }
    }

    private void opened(long number, Consumer<ConsoleLine> event) {
        line(number, line -> {
            if (line.open != null) {
                event.accept(line.open);
            }
        });
    }

    private void open(LinkMessage.OpenLine order, Link back) {
        Line line = new Line(order.line(), back);
        if (lines.size() >= MOST_LINES) {
            line.send(new LinkMessage.LineDown(order.line(), LinkText.TOO_MANY_LINES.text(MOST_LINES)));
            return;
        }
        lines.put(order.line(), line);
        try {
            line.open = vantage.line(order.address(), order.settings(), line);
        } catch (WireFault e) {
            line.down(e.getMessage());
        }
    }

    /** A line that is open here, for the other end of the link. */
    private final class Line implements LineEvents {
        private final long number;
        private final Link back;
        private final CompletableFuture<Boolean> trusted = new CompletableFuture<>();
        private volatile ConsoleLine open;

        Line(long number, Link back) {
            this.number = number;
            this.back = back;
        }

        void send(LinkMessage message) {
            try {
                back.send(message);
            } catch (IllegalStateException e) {
                close(); // the link is cut
            }
        }

        void close() {
            if (open != null) {
                open.close();
            }
        }

        @Override
        public void up() {
            send(new LinkMessage.LineUp(number));
        }

        @Override
        public void received(byte[] bytes) {
            send(new LinkMessage.LineOutput(number, bytes));
        }

        @Override
        public void down(String why) {
            lines.remove(number);
            send(new LinkMessage.LineDown(number, why));
        }

        @Override
        public void noted(String sentence) {
            send(new LinkMessage.LineNoted(number, sentence));
        }

        @Override
        public boolean hostKey(String fingerprint) {
            send(new LinkMessage.HostKeyShown(number, fingerprint));
            try {
                return trusted.get(KEY_SECONDS, TimeUnit.SECONDS);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                return false;
            } catch (ExecutionException | TimeoutException e) {
                return false;
            }
        }
    }
}
