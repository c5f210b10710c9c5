package lychnos.server;

import io.smallrye.config.ConfigMapping;
import io.smallrye.config.WithDefault;
import io.smallrye.config.WithName;
import java.nio.file.Path;
import java.time.Duration;
import java.util.List;
import java.util.Optional;

/** What can be set when the server is started. */
@ConfigMapping(prefix = "lychnos")
public interface LychnosConfig {

    /** Whether this is a lab: then nothing but this machine is ever reached. */
    boolean lab();

    /** Sets the service port of every kind to another one, for a lab whose machines cannot use the real one. */
    Optional<Integer> labPort();

    /** The cost of password hashes in a lab, 4 to 31, where it is to differ from that of real use. */
    Optional<Integer> labHashCost();

    Vantage vantage();

    Run run();

    Seal seal();

    /** Whether the session cookie is marked Secure: yes wherever browsers come over HTTPS. */
    boolean cookieSecure();

    Session session();

    /**
     * Accounts to make when there are none, as {@code login:name:role:password}, separated by semicolons: for the demo.
     */
    Optional<String> demoAccounts();

    /** A file that the one-time code for the first lead is written to, besides the log. */
    Optional<Path> firstLeadFile();

    /** A file beside the database with the newest end of the record's chain that this server has seen. */
    Optional<Path> chainHeadFile();

    /** How long a released address stays out of use: caches and firewalls remember it for a while. */
    @WithDefault("24h")
    Duration coolOff();

    /** Lease files of DHCP servers on this machine; an address that one of them has leased is given to nobody. */
    Optional<List<Path>> dhcpLeaseFiles();

    /** The folder of images of virtual machines: files that the operator puts there, and uploads. */
    @WithDefault("lychnos-images")
    Path images();

    /** How long the first change waits for others, so that all of them are told at once. */
    @WithDefault("60s")
    Duration notices();

    /** How long after the last time what units lean on is measured again, while nobody looks. */
    @WithDefault("5m")
    Duration measureEvery();

    /** A view that takes longer than this is shown as it was before, to people who have not changed anything. */
    @WithDefault("150ms")
    Duration lateView();

    /** The place from which machines are reached. */
    interface Vantage {
        String name();

        boolean hearsSilence();
    }

    /** Long work. */
    interface Run {
        /** How long a worker may be silent before another takes its work over. */
        Duration lease();

        /** How many runs this server works on at once. */
        int workers();

        /** How many lines' work is done at the same moment; any number of lines may be open. */
        @WithDefault("10")
        int consoleWorkers();

        /** How long to wait for a machine to come back, where that is to differ from what its kind says. */
        Optional<Duration> followAtMost();
    }

    Reach reach();

    /** What the server may reach at all, set by its operator; in a lab everything that a lab can reach. */
    interface Reach {
        /** Prefixes that networks and services of the sites must lie in. While there are none nothing is reached. */
        @WithName("machines")
        Optional<List<String>> machines();

        /** Prefixes that webhooks and mail relays may lie in besides. */
        @WithName("notices")
        Optional<List<String>> notices();
    }

    /** How long people stay signed in. */
    interface Session {
        /** After how long without a request a session ends. */
        @WithDefault("4h")
        Duration idle();

        /** After how long a session ends in any case: one shift and the next morning. */
        @WithDefault("20h")
        Duration longest();
    }

    /** The sealed store. */
    interface Seal {
        /**
         * A file with the key: 32 bytes in hexadecimal. It is made, readable by its owner alone, where it is missing.
         */
        @WithDefault("lychnos-seal.key")
        Path keyFile();
    }
}
