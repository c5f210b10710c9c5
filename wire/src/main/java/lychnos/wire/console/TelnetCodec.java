package lychnos.wire.console;

import java.io.ByteArrayOutputStream;
import java.util.EnumMap;
import java.util.Map;
import lychnos.core.dialogue.LineSettings;

/**
 * The client's side of Telnet (RFC 854) with the options that a console needs: binary transmission (RFC 856), echo
 * (RFC 857), suppress go ahead (RFC 858), window size (RFC 1073), and control of the serial port (RFC 2217). Options
 * are negotiated as RFC 1143 has it, so that no two sides can answer each other permanently; an option that we do not
 * know is refused once. Not safe for use by several threads.
 */
final class TelnetCodec {

    private static final int IAC = 255;
    private static final int DONT = 254;
    private static final int DO = 253;
    private static final int WONT = 252;
    private static final int WILL = 251;
    private static final int SB = 250;
    private static final int BRK = 243;
    private static final int SE = 240;

    /** The longest subnegotiation that is kept; the rest of a longer one is dropped. */
    private static final int LONGEST = 512;

    /** Options by their numbers. */
    private enum Option {
        BINARY(0),
        ECHO(1),
        SUPPRESS_GO_AHEAD(3),
        WINDOW_SIZE(31),
        COM_PORT(44);

        private final int code;

        Option(int code) {
            this.code = code;
        }

        static Option of(int code) {
            for (Option option : values()) {
                if (option.code == code) {
                    return option;
                }
            }
            return null;
        }
    }

    /** How far an option is for one side. */
    private enum Agreed {
        NO,
        ASKED,
        YES,
        /** It was refused, and is not asked for again. */
        REFUSED
    }

    /** Where the reader stands between two bytes. */
    private enum Reading {
        DATA,
        AFTER_CR,
        COMMAND,
        OPTION,
        SUB,
        SUB_COMMAND
    }

    /** What the codec wants done. */
    interface Out {
        /** These bytes are to be sent as they stand. */
        void send(byte[] bytes);

        void noted(String sentence);

        /**
         * The serial server wants nothing sent, or wants to hear again (RFC 2217, section 3, FLOWCONTROL-SUSPEND and
         * -RESUME).
         */
        void paused(boolean paused);
    }

    private static final int SET_BAUDRATE = 1;
    private static final int SET_DATASIZE = 2;
    private static final int SET_PARITY = 3;
    private static final int SET_STOPSIZE = 4;
    private static final int SET_CONTROL = 5;
    private static final int FLOW_SUSPEND = 8;
    private static final int FLOW_RESUME = 9;
    private static final int FROM_SERVER = 100;
    private static final int NO_FLOW_CONTROL = 1;
    private static final int BREAK_ON = 5;
    private static final int BREAK_OFF = 6;

    private final Out out;
    private final LineSettings settings;
    private final Map<Option, Agreed> ours = new EnumMap<>(Option.class);
    private final Map<Option, Agreed> theirs = new EnumMap<>(Option.class);
    private Reading reading = Reading.DATA;
    private int command;
    private final ByteArrayOutputStream sub = new ByteArrayOutputStream();
    private final java.util.BitSet refused = new java.util.BitSet();
    private int columns = 80;
    private int rows = 24;

    /** @param settings what the serial port is to be set to; null for plain Telnet */
    TelnetCodec(LineSettings settings, Out out) {
        this.settings = settings;
        this.out = out;
        for (Option option : Option.values()) {
            ours.put(option, Agreed.NO);
            theirs.put(option, Agreed.NO);
        }
    }

    /** The first bytes of the connection. */
    void begin() {
        ask(WILL, Option.BINARY);
        ask(DO, Option.BINARY);
        ask(WILL, Option.SUPPRESS_GO_AHEAD);
        ask(DO, Option.SUPPRESS_GO_AHEAD);
        ask(DO, Option.ECHO);
        if (settings != null) {
            ask(WILL, Option.COM_PORT);
        }
    }

    private void ask(int verb, Option option) {
        side(verb == WILL ? DO : WILL).put(option, Agreed.ASKED);
        out.send(bytes(IAC, verb, option.code));
    }

    /** Whose option a verb from the far side is about: DO and DONT speak of ours. */
    private Map<Option, Agreed> side(int verb) {
        return verb == DO || verb == DONT ? ours : theirs;
    }

    boolean serialControl() {
        return ours.get(Option.COM_PORT) == Agreed.YES;
    }

    // --- from the line ---

    /** Takes what came and gives back the data in it. */
    byte[] receive(byte[] chunk) {
        ByteArrayOutputStream data = new ByteArrayOutputStream(chunk.length);
        for (byte each : chunk) {
            receive(each & 0xff, data);
        }
        return data.toByteArray();
    }

    private void receive(int octet, ByteArrayOutputStream data) {
        switch (reading) {
            case AFTER_CR -> {
                reading = Reading.DATA;
                // CR NUL stands for CR alone
                if (octet != 0) {
                    receive(octet, data);
                }
            }
            case DATA -> {
                if (octet == IAC) {
                    reading = Reading.COMMAND;
                } else {
                    data.write(octet);
                    reading =
                            octet == '\r' && theirs.get(Option.BINARY) != Agreed.YES ? Reading.AFTER_CR : Reading.DATA;
                }
            }
            case COMMAND -> {
                command = octet;
                if (octet == IAC) {
                    data.write(IAC);
                    reading = Reading.DATA;
                } else if (octet == SB) {
                    sub.reset();
                    reading = Reading.SUB;
                } else {
                    reading = octet >= WILL ? Reading.OPTION : Reading.DATA;
                }
            }
            case OPTION -> {
                reading = Reading.DATA;
                negotiate(command, octet);
            }
            case SUB -> {
                if (octet == IAC) {
                    reading = Reading.SUB_COMMAND;
                } else {
                    keep(octet);
                }
            }
            case SUB_COMMAND -> {
                if (octet == IAC) {
                    keep(IAC);
                    reading = Reading.SUB;
                } else {
                    reading = Reading.DATA;
                    if (octet == SE) {
                        told(sub.toByteArray());
                    }
                }
            }
        }
    }

    private void keep(int octet) {
        if (sub.size() < LONGEST) {
            sub.write(octet);
        }
    }

    private void negotiate(int verb, int code) {
        Option option = Option.of(code);
        boolean wants = verb == DO || verb == WILL;
        boolean aboutUs = verb == DO || verb == DONT;
        if (option == null || wants && !agreeable(option, aboutUs)) {
            if (wants && !refused.get(code + (aboutUs ? 256 : 0))) {
                refused.set(code + (aboutUs ? 256 : 0));
                out.send(bytes(IAC, aboutUs ? WONT : DONT, code));
            }
            return;
        }
        Agreed before = side(verb).get(option);
        side(verb).put(option, wants ? Agreed.YES : Agreed.REFUSED);
        if (wants && before != Agreed.YES) {
            if (before != Agreed.ASKED) {
                out.send(bytes(IAC, aboutUs ? WILL : DO, code));
            }
            agreed(option, aboutUs);
        } else if (!wants && before == Agreed.YES) {
            out.send(bytes(IAC, aboutUs ? WONT : DONT, code));
        } else if (!wants && option == Option.COM_PORT && aboutUs && before == Agreed.ASKED) {
            out.noted(ConsoleText.SERVER_KEEPS_SETTINGS.text(settings));
        }
    }

    /** We never echo, and the far side sets no port and no window of ours. */
    private boolean agreeable(Option option, boolean aboutUs) {
        return switch (option) {
            case BINARY, SUPPRESS_GO_AHEAD -> true;
            case ECHO -> !aboutUs;
            case WINDOW_SIZE -> aboutUs;
            case COM_PORT -> aboutUs && settings != null;
        };
    }

    private void agreed(Option option, boolean aboutUs) {
        if (option == Option.COM_PORT) {
            long rate = settings.rate();
            port(SET_BAUDRATE, (int) (rate >> 24), (int) (rate >> 16), (int) (rate >> 8), (int) rate);
            port(SET_DATASIZE, settings.dataBits());
            port(SET_PARITY, settings.parity().ordinal() + 1);
            port(SET_STOPSIZE, settings.stopBits());
            port(SET_CONTROL, NO_FLOW_CONTROL);
        } else if (option == Option.WINDOW_SIZE && aboutUs) {
            window();
        }
    }

    private void told(byte[] text) {
        if (text.length < 2 || text[0] != Option.COM_PORT.code || settings == null) {
            return;
        }
        int what = text[1] & 0xff;
        if (what == FLOW_SUSPEND + FROM_SERVER || what == FLOW_RESUME + FROM_SERVER) {
            out.paused(what == FLOW_SUSPEND + FROM_SERVER);
        } else if (what == SET_BAUDRATE + FROM_SERVER && text.length >= 6) {
            long rate = (text[2] & 0xffL) << 24 | (text[3] & 0xff) << 16 | (text[4] & 0xff) << 8 | text[5] & 0xff;
            compare("rate", settings.rate(), rate);
        } else if (text.length >= 3) {
            compare(what, text[2] & 0xff);
        }
    }

    private void compare(int what, int is) {
        if (what == SET_DATASIZE + FROM_SERVER) {
            compare(ConsoleText.DATA_BITS.text(), settings.dataBits(), is);
        } else if (what == SET_PARITY + FROM_SERVER) {
            compare("parity", settings.parity().ordinal() + 1L, is);
        } else if (what == SET_STOPSIZE + FROM_SERVER) {
            compare(ConsoleText.STOP_BITS.text(), settings.stopBits(), is);
        }
    }

    private void compare(String what, long wanted, long is) {
        if (wanted != is) {
            out.noted(ConsoleText.SERVER_SETS_OTHERWISE.text(what, is, wanted, settings));
        }
    }

    // --- to the line ---

    /** Data as it travels: 255 doubled, and a bare CR as CR NUL while the line is not binary. */
    byte[] data(byte[] plain) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream(plain.length + 2);
        for (byte each : plain) {
            bytes.write(each);
            if ((each & 0xff) == IAC) {
                bytes.write(IAC);
            } else if (each == '\r' && ours.get(Option.BINARY) != Agreed.YES) {
                bytes.write(0);
            }
        }
        return bytes.toByteArray();
    }

    /**
     * The break condition begins, where the serial port can be controlled; otherwise the Telnet command is all there
     * is.
     */
    void breakOn() {
        if (serialControl()) {
            port(SET_CONTROL, BREAK_ON);
        } else {
            out.send(bytes(IAC, BRK));
        }
    }

    void breakOff() {
        if (serialControl()) {
            port(SET_CONTROL, BREAK_OFF);
        }
    }

    void resize(int newColumns, int newRows) {
        columns = newColumns;
        rows = newRows;
        if (ours.get(Option.WINDOW_SIZE) == Agreed.YES) {
            window();
        }
    }

    private void window() {
        sub(Option.WINDOW_SIZE.code, columns >> 8, columns, rows >> 8, rows);
    }

    private void port(int... what) {
        int[] all = new int[what.length + 1];
        all[0] = Option.COM_PORT.code;
        System.arraycopy(what, 0, all, 1, what.length);
        sub(all);
    }

    private void sub(int... octets) {
        ByteArrayOutputStream bytes = new ByteArrayOutputStream();
        bytes.write(IAC);
        bytes.write(SB);
        for (int octet : octets) {
            bytes.write(octet);
            if ((octet & 0xff) == IAC) {
                bytes.write(IAC);
            }
        }
        bytes.write(IAC);
        bytes.write(SE);
        out.send(bytes.toByteArray());
    }

    private static byte[] bytes(int... octets) {
        byte[] bytes = new byte[octets.length];
        for (int i = 0; i < octets.length; i++) {
            bytes[i] = (byte) octets[i];
        }
        return bytes;
    }
}
