package lychnos.lab.console;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.util.concurrent.BlockingQueue;
import java.util.concurrent.LinkedBlockingQueue;
import org.apache.sshd.server.Environment;
import org.apache.sshd.server.ExitCallback;
import org.apache.sshd.server.channel.ChannelSession;
import org.apache.sshd.server.command.Command;

/** One shell of a machine that somebody has signed in to over SSH (RFC 4254, section 6.5). */
final class SshTalk implements Command {

    private final SshDoors.Shell shell;
    private final BlockingQueue<Character> typed = new LinkedBlockingQueue<>();
    private InputStream in;
    private OutputStream out;
    private ExitCallback exit;

    SshTalk(SshDoors.Shell shell) {
        this.shell = shell;
    }

    @Override
    public void setInputStream(InputStream stream) {
        in = stream;
    }

    @Override
    public void setOutputStream(OutputStream stream) {
        out = stream;
    }

    @Override
    public void setErrorStream(OutputStream stream) {
        // a machine's shell has one screen
    }

    @Override
    public void setExitCallback(ExitCallback callback) {
        exit = callback;
    }

    @Override
    public void start(ChannelSession channel, Environment environment) {
        thread(this::read, "keys of a shell");
        thread(this::talk, "a shell");
    }

    private static void thread(Runnable work, String name) {
        Thread thread = new Thread(null, work, name, 128 * 1024);
        thread.setDaemon(true);
        thread.start();
    }

    private void read() {
        try {
            for (int key = in.read(); key >= 0; key = in.read()) {
                typed.add((char) key);
            }
        } catch (IOException e) {
            // the connection is gone, which is told the same way as an end
        }
        typed.add(SshDoors.Shell.GONE);
    }

    private void talk() {
        shell.serve(typed, this::show);
        exit.onExit(0);
    }

    private void show(byte[] bytes) {
        try {
            out.write(bytes);
            out.flush();
        } catch (IOException e) {
            typed.add(SshDoors.Shell.GONE);
        }
    }

    @Override
    public void destroy(ChannelSession channel) {
        typed.add(SshDoors.Shell.GONE);
    }
}
