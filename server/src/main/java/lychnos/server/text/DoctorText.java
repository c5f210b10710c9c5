package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts about what the server needs of its machine and its database, and what to do where it lacks something. */
public enum DoctorText implements Message {
    CERTIFICATE_ENDED("The TLS certificate of the web page ended on {day}."),
    CERTIFICATE_ENDS_SOON("The TLS certificate of the web page ends on {day}."),
    CERTIFICATE_IS_GOOD("The TLS certificate of the web page is valid until {day}."),
    CERTIFICATE_NOT_READ("The TLS certificate of the web page cannot be read: {reason}."),
    CERTIFICATE_RENEW("Put the new certificate in {file} and restart the server."),
    CLOCK_IS_SYNCHRONISED("The clock of this machine is synchronised ({by})."),
    CLOCK_NOT_KNOWN("Whether the clock of this machine is synchronised is not known."),
    CLOCK_SYNCHRONISE("Run systemd-timesyncd or chrony: the clocks of machines are compared with this one."),
    DATABASE_CLOCK_AGREES("The clock of the database agrees with that of this machine."),
    DATABASE_CLOCK_DIFFERS("The clock of the database differs by {seconds} s from that of this machine."),
    DATABASE_DOES_NOT_ANSWER("The database does not answer: {reason}."),
    DATABASE_HOLDS("The database is PostgreSQL {version} and holds {megabytes} MB."),
    DATABASE_IS_NOT_RUNNING("The database is not running, so it was not checked."),
    DATABASE_IS_OF_THIS_VERSION("The tables are of this version ({version})."),
    DATABASE_IS_OLD("The database is PostgreSQL {version}; {least} or newer is needed."),
    DATABASE_PENDING("{count} {count|migration is|migrations are} still to be applied to the database."),
    DATABASE_START("Start it, or Lychnos with it: ./lychnos start."),
    DISK_FREE("{megabytes} MB are free for {what}."),
    DISK_MAKE_SPACE("Make space on the file system of {directory}."),
    DISK_NOT_READ("How much space is free in {directory} cannot be read."),
    ICMP_ALLOW("Allow it: sysctl -w net.ipv4.ping_group_range=\"0 2147483647\". Until then ARP and TCP "
            + "are asked instead."),
    ICMP_IS_ALLOWED("The server may send ICMP echo requests."),
    ICMP_NOT_ALLOWED("The server may not send ICMP echo requests."),
    KEY_CHECK_OWNER("Restrict it to its owner: chmod 600 {file}."),
    KEY_FINISH_ROTATION("Stop the server and run ./lychnos rotate-key again."),
    KEY_IS_GOOD("Only its owner can read the key of sealed passwords."),
    KEY_IS_MISSING("There is no key of sealed passwords at {file}."),
    KEY_IS_OPEN("Other users can read the key of sealed passwords."),
    KEY_ROTATION_BROKE_OFF("A rotation of the key of sealed passwords was interrupted."),
    KEY_RESTORE(
            "A new installation makes it with its first password. Where passwords were sealed before, restore it from "
                    + "your backups: they cannot be opened without it."),
    MIGRATE("Stop the server and start it again with ./lychnos start, which brings the database up to date."),
    NAMESPACES_ARE_ALLOWED("Network namespaces can be made, as the demo and the tests need them."),
    NAMESPACES_NOT_ALLOWED("Network namespaces cannot be made; only the demo and the tests need them."),
    RAW_SOCKETS_ALLOW("Give the process CAP_NET_RAW, so that pools are scanned with ARP and neighbor discovery too."),
    RAW_SOCKETS_ARE_ALLOWED("The server may open raw sockets, and ask with ARP and neighbor discovery."),
    RAW_SOCKETS_NOT_ALLOWED("The server may not open raw sockets."),
    REACH_IS_EMPTY("The server may not reach any network."),
    REACH_IS_LAB("This is a lab: everything that a lab can reach is allowed."),
    REACH_IS_SET("The server may reach {prefixes}."),
    REACH_SET(
            "Set your management networks: ./lychnos start --reach PREFIX,…, or LYCHNOS_REACH_MACHINES in the settings "
                    + "of the service."),
    ROLE_GIVE_LESS("Start the server with ./lychnos start: it gives the role what it needs and nothing more."),
    ROLE_IS_BOUND("The server's role cannot change the journal."),
    ROLE_MAY_TOO_MUCH("The server's role {role} can change the journal."),
    TLS_ALLOW_NATIVE(
            "Native code loads on Linux (x86-64, aarch64) from a directory for temporary files that allows programs: set "
                    + "JAVA_TOOL_OPTIONS=-Djava.io.tmpdir=DIRECTORY for the server, and restart it."),
    TLS_IS_JAVA(
            "Checks run TLS with the code of Java itself, which takes about seven times the processor time for a handshake."),
    TLS_IS_NATIVE("Checks run TLS in native code."),
    UPGRADE_DATABASE("Upgrade PostgreSQL."),
    VANTAGE_CONNECT("Start it: ./lychnos vantage --join URL. See what it says in its log."),
    VANTAGE_IS_CONNECTED("Vantage point {name} is connected."),
    VANTAGE_NEVER_SEEN("Vantage point {name} was never connected."),
    VANTAGE_NOT_CONNECTED("Vantage point {name} is not connected; the last time was {day}."),
    VANTAGE_OF_ANOTHER_VERSION("Vantage point {name} is of another version than the server."),
    VANTAGE_UPDATE("Update it together with the server.");

    private final String pattern;

    DoctorText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
