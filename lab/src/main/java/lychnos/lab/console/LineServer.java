package lychnos.lab.console;

import io.vertx.core.Vertx;
import io.vertx.core.buffer.Buffer;
import io.vertx.core.net.NetServer;
import io.vertx.core.net.NetServerOptions;
import io.vertx.core.net.NetSocket;
import java.io.ByteArrayOutputStream;
import java.util.ArrayList;
import java.util.List;

/**
 * A line server: one TCP port a console, speaking Telnet (RFC 854) and letting its serial ports be set (RFC 2217). A
 * port with another rate than the machine passes garbage, as a real one does. One client a port; the next one
 * takes it over.
 */
final class LineServer implements AutoCloseable {

    private static final int IAC = 255;
    private static final int DONT = 254;
    private static final int DO = 253;
    private static final int WONT = 252;
    private static final int WILL = 251;
    private static final int SB = 250;
    private static final int BRK = 243;
    private static final int SE = 240;
    private static final int BINARY = 0;
    private static final int ECHO = 1;
    private static final int GO_AHEAD = 3;
    private static final int COM_PORT = 44;

    private final Vertx vertx;
    private final String address;
    private final List<NetServer> servers = new ArrayList<>();

    LineServer(Vertx vertx, String address) {
        this.vertx = vertx;
        this.address = address;
    }

    void plug(int port, SerialPort machine) {
        NetServer server =
                vertx.createNetServer(new NetServerOptions().setTcpNoDelay(true).setReuseAddress(true));
        Session[] current = new Session[1];
        server.connectHandler(socket -> {
            Session before = current[0];
            Session now = new Session(socket, machine);
            current[0] = now;
            if (before != null) {
                before.socket.close();
            }
            socket.closeHandler(end -> {
                // one that was taken over leaves the machine to the one that took it
                if (current[0] == now) {
                    current[0] = null;
                    machine.attach(null, null);
                }
            });
        });
        server.listen(port, address).toCompletionStage().toCompletableFuture().join();
        servers.add(server);
    }

    @Override
    public void close() {
        servers.forEach(server ->
                server.close().toCompletionStage().toCompletableFuture().join());
    }

    /** One client on one port. */
    private static final class Session {
        private final NetSocket socket;
        private final SerialPort machine;
        private final int[] set = {9600, 8, 1, 1};
        private boolean offered;
        private boolean controlled;
        private int state;
        private int verb;
        private final ByteArrayOutputStream sub = new ByteArrayOutputStream();

        Session(NetSocket socket, SerialPort machine) {
            this.socket = socket;
            this.machine = machine;
            socket.handler(this::receive);
            socket.exceptionHandler(fault -> socket.close());
            option(WILL, ECHO);
            option(WILL, GO_AHEAD);
            option(DO, BINARY);
            option(WILL, BINARY);
            machine.attach(this::say, socket::close);
        }

        private void option(int what, int code) {
            socket.write(Buffer.buffer(new byte[] {(byte) IAC, (byte) what, (byte) code}));
        }

        /** A client that never set the port is taken to have found it right. */
        private boolean right() {
            String parity = set[2] == 1 ? "N" : set[2] == 2 ? "O" : "E";
            return !controlled || machine.settings().equals(set[0] + "-" + set[1] + parity + set[3]);
        }

        private void say(byte[] bytes) {
            Buffer buffer = Buffer.buffer(bytes.length);
            for (byte each : bytes) {
                byte seen = right() ? each : (byte) (each * 7 | 0x81);
                buffer.appendByte(seen);
                if ((seen & 0xff) == IAC) {
                    buffer.appendByte(seen);
                }
            }
            socket.write(buffer);
        }

        private void receive(Buffer buffer) {
            ByteArrayOutputStream typed = new ByteArrayOutputStream();
            for (byte each : buffer.getBytes()) {
                int octet = each & 0xff;
                switch (state) {
                    case 0 -> {
                        if (octet == IAC) {
                            state = 1;
                        } else if (octet != 0) {
                            typed.write(right() ? octet : octet * 7 & 0xff);
                        }
                    }
                    case 1 -> command(octet, typed);
                    case 2 -> {
                        answer(octet);
                        state = 0;
                    }
                    case 3 -> {
                        if (octet == IAC) {
                            state = 4;
                        } else {
                            sub.write(octet);
                        }
                    }
                    default -> {
                        state = octet == IAC ? 3 : 0;
                        if (octet == IAC) {
                            sub.write(IAC);
                        } else if (octet == SE) {
                            portCommand(sub.toByteArray());
                        }
                    }
                }
            }
            if (typed.size() > 0) {
                machine.typed(typed.toByteArray());
            }
        }

        private void command(int octet, ByteArrayOutputStream typed) {
            state = 0;
            if (octet == IAC) {
                typed.write(IAC);
            } else if (octet == BRK) {
                machine.breakSeen();
            } else if (octet == SB) {
                sub.reset();
                state = 3;
            } else if (octet >= WILL) {
                verb = octet;
                state = 2;
            }
        }

        private void answer(int code) {
            if (verb == WILL && code == COM_PORT && !offered) {
                offered = true;
                option(DO, COM_PORT);
            } else if (verb == WILL && code != BINARY && code != COM_PORT && code != GO_AHEAD) {
                option(DONT, code);
            } else if (verb == DO && code != BINARY && code != ECHO && code != GO_AHEAD) {
                option(WONT, code);
            }
        }

        private void portCommand(byte[] text) {
            if (text.length < 3 || text[0] != COM_PORT) {
                return;
            }
            int what = text[1];
            if (what == 1 && text.length == 6) {
                controlled = true;
                set[0] = (text[2] & 0xff) << 24 | (text[3] & 0xff) << 16 | (text[4] & 0xff) << 8 | text[5] & 0xff;
            } else if (what >= 2 && what <= 4) {
                set[what - 1] = text[2];
            } else if (what == 5 && text[2] == 5) {
                machine.breakSeen();
            }
            Buffer reply = Buffer.buffer(new byte[] {(byte) IAC, (byte) SB, COM_PORT, (byte) (what + 100)});
            for (int i = 2; i < text.length; i++) {
                reply.appendByte(text[i]);
                if ((text[i] & 0xff) == IAC) {
                    reply.appendByte(text[i]);
                }
            }
            socket.write(reply.appendByte((byte) IAC).appendByte((byte) SE));
        }
    }
}
