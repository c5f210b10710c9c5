package lychnos.e2e;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.LinkedBlockingQueue;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/**
 * A USB serial adapter with its cable in a machine's console: real bytes, by way of the line server of the hall. A page
 * reaches it through {@link #SCRIPT}, which takes the place of the browser's own serial ports (Web Serial).
 */
final class SerialAdapter implements AutoCloseable {

    private static final int IAC = 255;
    private static final int SB = 250;
    private static final int SE = 240;
    private static final int WILL = 251;
    private static final int COM_PORT = 44;
    private static final long READ_MILLIS = 400;

    private final int line;
    private final HttpServer server;
    private final ExecutorService threads = Executors.newCachedThreadPool();
    private final BlockingQueue<byte[]> heard = new LinkedBlockingQueue<>();
    private volatile Socket socket;
    private volatile boolean pluggedIn = true;
    private volatile boolean granted;
    private volatile int forcedRate;
    private volatile int rate;
    private volatile int opened;

    /** @param line the port of the line server that the cable leads to */
    SerialAdapter(int line) throws IOException {
        this.line = line;
        server = HttpServer.create(new InetSocketAddress(InetAddress.getLoopbackAddress(), 0), 0);
        server.setExecutor(threads);
        server.createContext("/", this::answer);
        server.start();
    }

    /** What a page must load first. */
    String script() throws IOException {
        try (InputStream text = SerialAdapter.class.getResourceAsStream("/fake-serial.js")) {
            return new String(text.readAllBytes(), StandardCharsets.UTF_8)
                    .replace(
                            "ADAPTER", "http://127.0.0.1:" + server.getAddress().getPort());
        }
    }

    /** Out of the computer, in the middle of whatever is said. */
    void pullOut() throws IOException {
        pluggedIn = false;
        hangUp();
    }

    void plugIn() {
        pluggedIn = true;
    }

    /** It works at this rate whatever it is told; 0 for what it is told. */
    void forceRate(int bitsPerSecond) {
        forcedRate = bitsPerSecond;
    }

    /** How often its port was opened. */
    int opened() {
        return opened;
    }

    /** The rate that it was told last. */
    int rate() {
        return rate;
    }

    private synchronized void hangUp() throws IOException {
        Socket last = socket;
        socket = null;
        if (last != null) {
            last.close();
        }
        heard.clear();
    }

    private void answer(HttpExchange exchange) throws IOException {
        byte[] body = exchange.getRequestBody().readAllBytes();
        byte[] text = new byte[0];
        int status = 200;
        try {
            switch (exchange.getRequestURI().getPath()) {
                case "/grant" -> granted = true;
                case "/state" -> text = (pluggedIn + " " + granted).getBytes(StandardCharsets.US_ASCII);
                case "/open" -> status = open(exchange.getRequestURI().getQuery());
                case "/close" -> hangUp();
                case "/read" -> {
                    byte[] next = heard.poll(READ_MILLIS, TimeUnit.MILLISECONDS);
                    text = next == null ? text : next;
                    status = pluggedIn && socket != null ? 200 : 410;
                }
                case "/write" -> status = write(body);
                default -> status = 404;
            }
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            status = 410;
        }
        exchange.getResponseHeaders().add("Access-Control-Allow-Origin", "*");
        exchange.getResponseHeaders().add("Access-Control-Expose-Headers", "x-status");
        // a refusal would be a complaint of the browser's
        exchange.getResponseHeaders().add("x-status", String.valueOf(status));
        exchange.sendResponseHeaders(200, text.length == 0 ? -1 : text.length);
        exchange.getResponseBody().write(text);
        exchange.close();
    }

    private synchronized int open(String query) throws IOException {
        if (!pluggedIn || socket != null) {
            return 409;
        }
        Map<String, String> asked = Stream.of(query.split("&"))
                .map(pair -> pair.split("=", 2))
                .collect(Collectors.toMap(pair -> pair[0], pair -> pair[1]));
        rate = Integer.parseInt(asked.get("baudRate"));
        int used = forcedRate == 0 ? rate : forcedRate;
        Socket fresh = new Socket(Stage.LINES, line);
        fresh.setTcpNoDelay(true);
        int parity = Map.of("none", 1, "odd", 2, "even", 3).get(asked.get("parity"));
        ByteArrayOutputStream first = new ByteArrayOutputStream();
        first.writeBytes(bytes(IAC, WILL, COM_PORT));
        first.writeBytes(bytes(IAC, SB, COM_PORT, 1, used >> 24, used >> 16, used >> 8, used, IAC, SE));
        first.writeBytes(bytes(IAC, SB, COM_PORT, 2, Integer.parseInt(asked.get("dataBits")), IAC, SE));
        first.writeBytes(bytes(IAC, SB, COM_PORT, 3, parity, IAC, SE));
        first.writeBytes(bytes(IAC, SB, COM_PORT, 4, Integer.parseInt(asked.get("stopBits")), IAC, SE));
        fresh.getOutputStream().write(first.toByteArray());
        socket = fresh;
        opened++;
        threads.execute(() -> listen(fresh));
        return 200;
    }

    private static byte[] bytes(int... octets) {
        byte[] bytes = new byte[octets.length];
        for (int i = 0; i < octets.length; i++) {
            bytes[i] = (byte) octets[i];
        }
        return bytes;
    }

    private int write(byte[] body) throws IOException {
        Socket now = socket;
        if (now == null || !pluggedIn) {
            return 410;
        }
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        for (byte each : body) {
            out.write(each);
            if ((each & 0xff) == IAC) {
                out.write(each);
            }
        }
        now.getOutputStream().write(out.toByteArray());
        return 200;
    }

    /** Takes what the machine says out of Telnet (RFC 854). */
    private void listen(Socket from) {
        try {
            InputStream in = from.getInputStream();
            byte[] chunk = new byte[4096];
            Stripped stripped = new Stripped();
            for (int read = in.read(chunk); read >= 0; read = in.read(chunk)) {
                byte[] data = stripped.of(chunk, read);
                if (data.length > 0 && from == socket) {
                    heard.add(data);
                }
            }
        } catch (IOException e) {
            // pulled out, or closed
        }
    }

    /** What is left of Telnet without its commands. */
    private static final class Stripped {
        private int state;

        byte[] of(byte[] chunk, int length) {
            ByteArrayOutputStream data = new ByteArrayOutputStream();
            for (int i = 0; i < length; i++) {
                int octet = chunk[i] & 0xff;
                switch (state) {
                    case 0 -> {
                        if (octet == IAC) {
                            state = 1;
                        } else {
                            data.write(octet);
                        }
                    }
                    case 1 -> {
                        if (octet == IAC) {
                            data.write(IAC);
                        }
                        state = octet == SB ? 3 : octet >= WILL && octet != IAC ? 2 : 0;
                    }
                    case 2 -> state = 0;
                    case 3 -> state = octet == IAC ? 4 : 3;
                    default -> state = octet == SE ? 0 : 3;
                }
            }
            return data.toByteArray();
        }
    }

    @Override
    public void close() throws IOException {
        pullOut();
        server.stop(0);
        threads.shutdownNow();
    }
}
