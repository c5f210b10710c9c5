package lychnos.wire.console;

import com.sun.jna.LastErrorException;
import com.sun.jna.Library;
import com.sun.jna.Native;
import java.io.IOException;
import java.util.concurrent.TimeUnit;
import lychnos.core.dialogue.LineSettings;

/** A serial port of this machine. One thread reads it; its settings are made by stty(1), which every system has. */
final class DeviceLine implements ConsoleLine {

    private static final int O_RDWR = 2;
    private static final int O_NOCTTY = 0x100;
    private static final int O_CLOEXEC = 0x80000;
    private static final short POLLIN = 1;
    private static final int POLL_MILLIS = 200;
    private static final int CHUNK = 4096;

    /** The calls of the C library that Java has no words for. */
    private interface C extends Library {
        C LIBRARY = Native.load("c", C.class);

        int open(String path, int flags) throws LastErrorException;

        int close(int file) throws LastErrorException;

        int poll(byte[] polled, long count, int millis) throws LastErrorException;

        long read(int file, byte[] bytes, long count) throws LastErrorException;

        long write(int file, byte[] bytes, long count) throws LastErrorException;

        int tcsendbreak(int file, int duration) throws LastErrorException;
    }

    private final LineEvents events;
    private final String path;
    private volatile boolean closed;
    private int file = -1;

    DeviceLine(String path, LineSettings settings, LineEvents events) {
        this.path = path;
        this.events = events;
        Thread thread = new Thread(() -> run(settings), "line " + path);
        thread.setDaemon(true);
        thread.start();
    }

    private void run(LineSettings settings) {
        try {
            set(settings);
            synchronized (this) {
                file = C.LIBRARY.open(path, O_RDWR | O_NOCTTY | O_CLOEXEC);
            }
            events.up();
            read();
        } catch (LastErrorException | IOException e) {
            down("The port " + path + " cannot be used: " + e.getMessage() + ".");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            down("This server is stopping.");
        } finally {
            release();
        }
    }

    private void set(LineSettings settings) throws IOException, InterruptedException {
        String parity =
                switch (settings.parity()) {
                    case NONE -> "-parenb";
                    case ODD -> "parenb parodd";
                    case EVEN -> "parenb -parodd";
                };
        String command = "stty -F " + path + " raw -echo -hupcl clocal -crtscts " + settings.rate() + " cs"
                + settings.dataBits() + " " + parity + " " + (settings.stopBits() == 2 ? "cstopb" : "-cstopb");
        Process process =
                new ProcessBuilder(command.split(" ")).redirectErrorStream(true).start();
        String said =
                new String(process.getInputStream().readAllBytes(), java.nio.charset.StandardCharsets.UTF_8).strip();
        if (!process.waitFor(5, TimeUnit.SECONDS) || process.exitValue() != 0) {
            throw new IOException(said.isEmpty() ? "it takes no settings" : said);
        }
    }

    private void read() {
        byte[] bytes = new byte[CHUNK];
        while (!closed) {
            // struct pollfd: the file as an int, then two shorts
            byte[] polled = {(byte) file, (byte) (file >> 8), (byte) (file >> 16), (byte) (file >> 24), POLLIN, 0, 0, 0
            };
            if (C.LIBRARY.poll(polled, 1, POLL_MILLIS) == 0) {
                continue;
            }
            long count = C.LIBRARY.read(file, bytes, bytes.length);
            if (count <= 0) {
                down("The port " + path + " is gone.");
                return;
            }
            if (!closed) {
                events.received(java.util.Arrays.copyOf(bytes, (int) count));
            }
        }
    }

    private void down(String why) {
        if (!closed) {
            closed = true;
            events.down(why);
        }
    }

    private synchronized void release() {
        if (file >= 0) {
            C.LIBRARY.close(file);
            file = -1;
        }
    }

    @Override
    public synchronized void send(byte[] bytes) {
        int sent = 0;
        try {
            while (file >= 0 && sent < bytes.length) {
                byte[] rest = java.util.Arrays.copyOfRange(bytes, sent, bytes.length);
                sent += (int) C.LIBRARY.write(file, rest, rest.length);
            }
        } catch (LastErrorException e) {
            events.noted("The port " + path + " accepts no input: " + e.getMessage() + ".");
        }
    }

    @Override
    public synchronized void sendBreak() {
        if (file >= 0) {
            C.LIBRARY.tcsendbreak(file, 0);
        }
    }

    @Override
    public void resize(int columns, int rows) {
        // a serial port has no notion of a screen
    }

    @Override
    public void close() {
        closed = true;
    }
}
