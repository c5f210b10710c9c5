package lychnos.wire.console;

import io.vertx.core.Vertx;
import io.vertx.core.net.NetClient;
import io.vertx.core.net.NetClientOptions;
import lychnos.core.dialogue.LineSettings;
import lychnos.wire.dial.Dialler;
import lychnos.wire.fault.WireFault;

/** Opens console lines. Every address passes the {@link Dialler} first; a device must be named as one. */
public final class Lines implements AutoCloseable {

    private static final int CONNECT_MILLIS = 5000;
    private static final java.util.regex.Pattern DEVICE =
            java.util.regex.Pattern.compile("/dev/(tty[A-Z]+[0-9]{1,3}|pts/[0-9]{1,5})");

    private final Vertx vertx;
    private final Dialler dialler;
    private final NetClient client;
    private SshLines ssh;

    public Lines(Vertx vertx, Dialler dialler) {
        this.vertx = vertx;
        this.dialler = dialler;
        client = vertx.createNetClient(new NetClientOptions()
                .setConnectTimeout(CONNECT_MILLIS)
                .setTcpKeepAlive(true)
                .setTcpNoDelay(true));
    }

    /**
     * Opens a line; returns at once, and the events tell the result.
     *
     * @throws WireFault of kind NOT_DECLARED where the address may not be reached
     */
    public ConsoleLine open(LineAddress address, LineSettings settings, LineEvents events) throws WireFault {
        return switch (address.protocol()) {
            case RAW, TELNET, RFC2217 ->
                new TcpLine(
                        vertx,
                        client,
                        dialler.admit(address.address(), address.port()),
                        address.protocol(),
                        settings,
                        events);
            case SSH -> ssh().open(address, dialler.admit(address.address(), address.port()), events);
            case BROWSER ->
                throw new WireFault(WireFault.Kind.NOT_DECLARED, ConsoleText.ONLY_A_BROWSER_OPENS_IT.text());
            case DEVICE -> {
                if (!DEVICE.matcher(address.device()).matches()) {
                    throw new WireFault(
                            WireFault.Kind.NOT_DECLARED, ConsoleText.NOT_A_SERIAL_PORT.text(address.device()));
                }
                yield new DeviceLine(address.device(), settings, events);
            }
        };
    }

    private synchronized SshLines ssh() {
        if (ssh == null) {
            ssh = new SshLines();
        }
        return ssh;
    }

    @Override
    public synchronized void close() {
        client.close();
        if (ssh != null) {
            ssh.close();
        }
    }
}
