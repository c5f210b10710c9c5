package lychnos.wire.console;

import io.vertx.core.Context;
import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.net.NetClient;
import io.vertx.core.net.NetSocket;
import java.net.InetSocketAddress;
import lychnos.core.dialogue.LineSettings;
import lychnos.wire.fault.Refused;

/** A line over TCP: raw, Telnet or RFC 2217. Everything of one line happens on one event loop. */
final class TcpLine implements ConsoleLine {

    private static final long BREAK_MILLIS = 250;
    /** What may wait while the serial server wants nothing sent. */
    private static final int MOST_KEPT_BACK = 16 * 1024;

    private final Vertx vertx;
    private final Context context;
    private final LineEvents events;
    private final LineAddress.Protocol protocol;
    private final TelnetCodec codec;
    private Buffer keptBack = Buffer.buffer();
    private NetSocket socket;
    private boolean paused;
    private boolean closed;

    TcpLine(
            Vertx vertx,
            NetClient client,
            InetSocketAddress peer,
            LineAddress.Protocol protocol,
            LineSettings settings,
            LineEvents events) {
        this.vertx = vertx;
        this.context = vertx.getOrCreateContext();
        this.protocol = protocol;
        this.events = events;
        codec = new TelnetCodec(protocol == LineAddress.Protocol.RFC2217 ? settings : null, new TelnetCodec.Out() {
            @Override
            public void send(byte[] bytes) {
                socket.write(Buffer.buffer(bytes));
            }

            @Override
            public void noted(String sentence) {
                events.noted(sentence);
            }

            @Override
            public void paused(boolean now) {
                pause(now);
            }
        });
        context.runOnContext(
                begin -> client.connect(peer.getPort(), peer.getAddress().getHostAddress())
                        .onSuccess(this::connected)
                        .onFailure(fault -> down(notTaken(peer, fault))));
    }

    private static String notTaken(InetSocketAddress peer, Throwable fault) {
        String where = ConsoleText.PEER.text(peer.getAddress().getHostAddress(), peer.getPort());
        return Refused.is(fault)
                ? ConsoleText.CONNECTION_REFUSED.text(where)
                : ConsoleText.CONNECTION_TIMED_OUT.text(where);
    }

    private void connected(NetSocket connected) {
        if (closed) {
            connected.close();
            return;
        }
        socket = connected;
        socket.handler(buffer -> received(buffer.getBytes()));
        socket.exceptionHandler(fault -> down(ConsoleText.LINE_BROKE.text(fault.getMessage())));
        socket.closeHandler(end -> down(ConsoleText.LINE_CLOSED.text()));
        if (protocol != LineAddress.Protocol.RAW) {
            codec.begin();
        }
        events.up();
    }

    private void received(byte[] bytes) {
        byte[] data = protocol == LineAddress.Protocol.RAW ? bytes : codec.receive(bytes);
        if (data.length > 0 && !closed) {
            events.received(data);
        }
    }

    private void down(String why) {
        if (!closed) {
            closed = true;
            events.down(why);
        }
    }

    private void pause(boolean now) {
        paused = now;
        if (!paused && keptBack.length() > 0) {
            socket.write(keptBack);
            keptBack = Buffer.buffer();
        }
    }

    @Override
    public void send(byte[] bytes) {
        context.runOnContext(now -> {
            if (socket == null || closed) {
                return;
            }
            Buffer data = Buffer.buffer(protocol == LineAddress.Protocol.RAW ? bytes : codec.data(bytes));
            if (!paused) {
                socket.write(data);
            } else if (keptBack.length() + data.length() <= MOST_KEPT_BACK) {
                keptBack.appendBuffer(data);
            } else {
                events.noted(ConsoleText.NO_INPUT_ACCEPTED.text());
            }
        });
    }

    @Override
    public void sendBreak() {
        context.runOnContext(now -> {
            if (socket == null || closed) {
                return;
            }
            if (protocol == LineAddress.Protocol.RAW) {
                events.noted(ConsoleText.NO_BREAK_ON_RAW_LINE.text());
                return;
            }
            codec.breakOn();
            vertx.setTimer(BREAK_MILLIS, over -> {
                if (!closed) {
                    codec.breakOff();
                }
            });
        });
    }

    @Override
    public void resize(int columns, int rows) {
        context.runOnContext(now -> {
            if (socket != null && !closed && protocol != LineAddress.Protocol.RAW) {
                codec.resize(columns, rows);
            }
        });
    }

    @Override
    public void close() {
        context.runOnContext(now -> {
            closed = true;
            if (socket != null) {
                socket.close();
            }
        });
    }
}
