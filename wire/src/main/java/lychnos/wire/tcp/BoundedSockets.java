package lychnos.wire.tcp;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import javax.net.SocketFactory;
import lychnos.wire.fault.WireText;

/**
 * Makes sockets from which so many bytes are read and no more, for clients of a library that would read a line of any
 * length.
 */
public final class BoundedSockets extends SocketFactory {

    private final long most;

    /** @param most bytes that a peer may say in all */
    public BoundedSockets(long most) {
        this.most = most;
    }

    private static final class Bounded extends FilterInputStream {
        private long left;

        Bounded(InputStream in, long most) {
            super(in);
            left = most;
        }

        @Override
        public int read() throws IOException {
            int read = super.read();
            count(read < 0 ? 0 : 1);
            return read;
        }

        @Override
        public int read(byte[] bytes, int from, int length) throws IOException {
            int read = super.read(bytes, from, length);
            count(Math.max(0, read));
            return read;
        }

        private void count(int bytes) throws IOException {
            left -= bytes;
            if (left < 0) {
                throw new IOException(WireText.TALKS_TOO_MUCH.text());
            }
        }
    }

    @Override
    public Socket createSocket() {
        return new Socket() {
            @Override
            public InputStream getInputStream() throws IOException {
                return new Bounded(super.getInputStream(), most);
            }
        };
    }

    @Override
    public Socket createSocket(String host, int port) throws IOException {
        throw new IOException(WireText.ONLY_ADDRESSES.text());
    }

    @Override
    public Socket createSocket(String host, int port, InetAddress from, int fromPort) throws IOException {
        throw new IOException(WireText.ONLY_ADDRESSES.text());
    }

    @Override
    public Socket createSocket(InetAddress host, int port) throws IOException {
        Socket socket = createSocket();
        socket.connect(new java.net.InetSocketAddress(host, port));
        return socket;
    }

    @Override
    public Socket createSocket(InetAddress host, int port, InetAddress from, int fromPort) throws IOException {
        Socket socket = createSocket();
        socket.bind(new java.net.InetSocketAddress(from, fromPort));
        socket.connect(new java.net.InetSocketAddress(host, port));
        return socket;
    }
}
