package lychnos.wire.console;

import com.fazecast.jSerialComm.SerialPort;
import com.fazecast.jSerialComm.SerialPortInvalidPortException;
import java.util.Arrays;
import java.util.Map;
import lychnos.core.dialogue.LineSettings;

/** A serial port of this machine. One thread reads it. */
final class DeviceLine implements ConsoleLine {

    private static final int READ_MILLIS = 200;
    private static final int CHUNK = 4096;
    /** At least a quarter of a second, as tcsendbreak (POSIX) has it. */
    private static final int BREAK_MILLIS = 300;

    /** What the numbers of errors mean that people can do something about (errno of Linux). */
    private static final Map<Integer, ConsoleText> ERRORS = Map.of(
            2, ConsoleText.NO_DEVICE,
            13, ConsoleText.NO_PERMISSION,
            16, ConsoleText.IN_USE);

    private final LineEvents events;
    private final String path;
    private volatile boolean closed;
    private SerialPort port;

    DeviceLine(String path, LineSettings settings, LineEvents events) {
        this.path = path;
        this.events = events;
        Thread thread = new Thread(() -> run(settings), "line " + path);
        thread.setDaemon(true);
        thread.start();
    }

    private void run(LineSettings settings) {
        try {
            SerialPort opened = open(settings);
            if (opened != null) {
                events.up();
                read(opened);
            }
        } finally {
            release();
        }
    }

    private SerialPort open(LineSettings settings) {
        try {
            SerialPort made = SerialPort.getCommPort(path);
            made.setComPortParameters(
                    settings.rate(),
                    settings.dataBits(),
                    settings.stopBits() == 2 ? SerialPort.TWO_STOP_BITS : SerialPort.ONE_STOP_BIT,
                    parity(settings));
            made.setFlowControl(SerialPort.FLOW_CONTROL_DISABLED);
            made.setComPortTimeouts(SerialPort.TIMEOUT_READ_SEMI_BLOCKING, READ_MILLIS, 0);
            if (!made.openPort(0)) {
                down(ConsoleText.PORT_FAILS.text(path, reason(made)));
                return null;
            }
            synchronized (this) {
                port = made;
            }
            return made;
        } catch (SerialPortInvalidPortException e) {
            down(ConsoleText.PORT_FAILS.text(path, ConsoleText.NO_DEVICE.text()));
            return null;
        }
    }

    private static int parity(LineSettings settings) {
        return switch (settings.parity()) {
            case NONE -> SerialPort.NO_PARITY;
            case ODD -> SerialPort.ODD_PARITY;
            case EVEN -> SerialPort.EVEN_PARITY;
        };
    }

    private static String reason(SerialPort port) {
        int error = port.getLastErrorCode();
        return ERRORS.containsKey(error) ? ERRORS.get(error).text() : ConsoleText.PORT_ERROR.text(error);
    }

    private void read(SerialPort opened) {
        byte[] bytes = new byte[CHUNK];
        while (!closed) {
            int count = opened.readBytes(bytes, bytes.length);
            if (count < 0 || !opened.isOpen()) {
                down(ConsoleText.PORT_GONE.text(path));
                return;
            }
            if (count > 0 && !closed) {
                events.received(Arrays.copyOf(bytes, count));
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
        if (port != null) {
            port.closePort();
            port = null;
        }
    }

    @Override
    public synchronized void send(byte[] bytes) {
        int sent = 0;
        while (port != null && sent < bytes.length) {
            int count = port.writeBytes(bytes, bytes.length - sent, sent);
            if (count <= 0) {
                events.noted(ConsoleText.PORT_NO_INPUT.text(path, reason(port)));
                return;
            }
            sent += count;
        }
    }

    @Override
    public synchronized void sendBreak() {
        if (port == null) {
            return;
        }
        try {
            port.setBreak();
            Thread.sleep(BREAK_MILLIS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        } finally {
            port.clearBreak();
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
