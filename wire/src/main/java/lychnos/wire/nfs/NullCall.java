package lychnos.wire.nfs;

import java.io.DataInputStream;
import java.io.IOException;
import java.net.ConnectException;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.nio.ByteBuffer;
import java.security.SecureRandom;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import lychnos.wire.fault.Refused;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireFault.Kind;
import lychnos.wire.fault.WireText;
import lychnos.wire.tcp.Deadline;

/**
 * The null procedure of an NFS server (RFC 1813, section 3.3.0; RFC 7530, section 16.1), called over TCP with record
 * marking (RFC 5531, section 11). It does nothing, and shows that the service is there and which versions it takes.
 */
public final class NullCall {

    /** Where NFS listens (RFC 7530, section 3.1). */
    public static final int PORT = 2049;

    private static final int NFS = 100003;
    private static final int RPC_VERSION = 2;
    private static final int CALL = 0;
    private static final int REPLY = 1;
    private static final int ACCEPTED = 0;
    private static final int SUCCESS = 0;
    private static final int PROGRAM_MISMATCH = 2;
    private static final int LAST_FRAGMENT = 0x80000000;
    private static final int LARGEST = 4096;
    private static final SecureRandom RANDOM = new SecureRandom();

    private NullCall() {}

    /**
     * Calls it in versions 3 and 4.
     *
     * @param timeout for everything together
     * @return the versions that it takes
     * @throws WireFault of kind SILENT, REFUSED, or GARBAGE where something else answers or it takes neither
     */
    public static List<Integer> ask(InetSocketAddress server, Duration timeout) throws WireFault {
        Socket socket = new Socket();
        Deadline deadline = Deadline.of(socket, timeout);
        try (socket;
                deadline) {
            socket.connect(server, (int) timeout.toMillis());
            DataInputStream in = new DataInputStream(socket.getInputStream());
            List<Integer> versions = new ArrayList<>();
            for (int version : new int[] {3, 4}) {
                int transaction = RANDOM.nextInt();
                socket.getOutputStream().write(call(transaction, version));
                if (taken(record(in), transaction)) {
                    versions.add(version);
                }
            }
            if (versions.isEmpty()) {
                throw new WireFault(Kind.GARBAGE, WireText.NO_NFS_3_OR_4.text());
            }
            return versions;
        } catch (SocketTimeoutException e) {
            throw new WireFault(Kind.SILENT, WireText.NO_ANSWER_IN.text(timeout.toSeconds()), e);
        } catch (ConnectException e) {
            throw Refused.orNone(e);
        } catch (IOException e) {
            throw deadline.over()
                    ? new WireFault(Kind.SILENT, WireText.NO_ANSWER_IN.text(timeout.toSeconds()), e)
                    : new WireFault(Kind.GARBAGE, WireText.ENDED_IN_ANSWER.text(), e);
        }
    }

    private static byte[] call(int transaction, int version) {
        int length = 40;
        return ByteBuffer.allocate(4 + length)
                .putInt(LAST_FRAGMENT | length)
                .putInt(transaction)
                .putInt(CALL)
                .putInt(RPC_VERSION)
                .putInt(NFS)
                .putInt(version)
                .putInt(0)
                .putLong(0) // no credential
                .putLong(0) // no verifier
                .array();
    }

    /** A record out of its fragments. */
    private static ByteBuffer record(DataInputStream in) throws IOException, WireFault {
        ByteBuffer record = ByteBuffer.allocate(LARGEST);
        int mark;
        do {
            mark = in.readInt();
            int length = mark & ~LAST_FRAGMENT;
            if (length > record.remaining()) {
                throw new WireFault(Kind.GARBAGE, WireText.NOT_RPC_OR_LONG.text(LARGEST));
            }
            byte[] fragment = new byte[length];
            in.readFully(fragment);
            record.put(fragment);
        } while ((mark & LAST_FRAGMENT) == 0);
        return record.flip();
    }

    private static boolean taken(ByteBuffer record, int transaction) throws WireFault {
        if (record.remaining() < 12 || record.getInt() != transaction || record.getInt() != REPLY) {
            throw new WireFault(Kind.GARBAGE, WireText.NOT_RPC.text());
        }
        if (record.getInt() != ACCEPTED) {
            throw new WireFault(Kind.GARBAGE, WireText.CALL_REFUSED.text());
        }
        int verifier = record.remaining() < 12 ? -1 : record.getInt(record.position() + 4);
        if (verifier < 0 || record.remaining() < 12 + verifier) {
            throw new WireFault(Kind.GARBAGE, WireText.ANSWER_TOO_SHORT.text());
        }
        record.position(record.position() + 8 + (verifier + 3) / 4 * 4);
        int state = record.getInt();
        if (state != SUCCESS && state != PROGRAM_MISMATCH) {
            throw new WireFault(
                    Kind.GARBAGE, state == 1 ? WireText.RPC_WITHOUT_NFS.text() : WireText.CALL_STATUS.text(state));
        }
        return state == SUCCESS;
    }
}
