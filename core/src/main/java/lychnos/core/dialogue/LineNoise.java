package lychnos.core.dialogue;

import java.nio.ByteBuffer;
import java.nio.CharBuffer;
import java.nio.charset.CharsetDecoder;
import java.nio.charset.CoderResult;
import java.nio.charset.StandardCharsets;

/**
 * Tells from the bytes of a line that the machine probably sends at another rate than the port is set to: what arrives
 * then is neither ASCII nor UTF-8 (RFC 3629) in most places. Not safe for use by several threads.
 */
public final class LineNoise {

    /** Fewer bytes than that may be a disturbance when a plug is pushed in. */
    private static final int ENOUGH = 24;
    /** Only the last bytes count: what a machine shows later is not made up for by what it showed before. */
    private static final int LOOKED_AT = 256;

    private static final char ESCAPE = '\u001b';

    private final CharsetDecoder decoder = StandardCharsets.UTF_8.newDecoder();
    private int seen;
    private int odd;
    private boolean told;

    /** Takes in bytes of the line; true once, when they look like those of another rate. */
    public boolean heard(byte[] bytes) {
        if (seen > LOOKED_AT) {
            seen /= 2;
            odd /= 2;
        }
        seen += bytes.length;
        odd += odd(bytes);
        boolean before = told;
        told |= seen >= ENOUGH && isMost();
        return told && !before;
    }

    /** Whether most of what came is no text, however little that was. */
    public boolean isMost() {
        return 2 * odd > seen;
    }

    /** Another machine, or other settings: what came before no longer counts. */
    public void restart() {
        seen = 0;
        odd = 0;
        told = false;
    }

    /** How many bytes are no text, and no control character that consoles send. */
    private int odd(byte[] bytes) {
        int odd = 0;
        ByteBuffer in = ByteBuffer.wrap(bytes);
        CharBuffer out = CharBuffer.allocate(bytes.length + 1);
        decoder.reset();
        while (in.hasRemaining()) {
            CoderResult result = decoder.decode(in, out, true);
            if (!result.isError()) {
                break;
            }
            in.position(in.position() + result.length());
            odd += result.length();
        }
        out.flip();
        while (out.hasRemaining()) {
            char each = out.get();
            boolean usual = each >= ' ' && each != '\u007f'
                    || each >= '\b' && each <= '\r'
                    || each == ESCAPE
                    || each == 0
                    || each == '\u0007';
            odd += usual ? 0 : 1;
        }
        return odd;
    }
}
