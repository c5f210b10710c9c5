package lychnos.wire.ladder;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.LookAgain;
import lychnos.core.dialogue.PageFill;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Expectation;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindChecks;
import lychnos.core.proof.OwnValue;
import lychnos.core.proof.Part;
import lychnos.core.proof.Settings;

/**
 * An endpoint, with everything that is needed to judge it.
 *
 * @param port of its management service
 * @param mac the MAC address that must answer, or null where none is known for this address
 * @param fingerprint the certificate remembered, or null
 * @param ports which other TCP ports must answer
 * @param community what its SNMP agent must not answer to; empty where that is not asked
 * @param service what is expected behind the port
 * @param names what it is called, and where that is asked
 * @param known what else is known of it from before
 */
public record Target(
        Address address,
        int port,
        Mac mac,
        String fingerprint,
        Ports ports,
        String community,
        Service service,
        Names names,
        Known known) {

    /** One of which nothing is known from before. */
    public Target(
            Address address, int port, Mac mac, String fingerprint, List<Integer> shut, Service service, Names names) {
        this(address, port, mac, fingerprint, Ports.closed(shut), "", service, names, Known.NOTHING);
    }

    /** A server management controller that nobody's name is asked of. */
    public Target(
            Address address,
            int port,
            String serial,
            Mac mac,
            Settings plan,
            Login login,
            String fingerprint,
            Kind.Login factory,
            List<Integer> shut) {
        this(address, port, mac, fingerprint, shut, new Redfish(serial, mac, plan, login, factory), Names.NOT_ASKED);
    }

    /** The same with names. */
    public Target called(Names other) {
        return new Target(address, port, mac, fingerprint, ports, community, service, other, known);
    }

    /** The same with what is known from before. */
    public Target knowing(Known other) {
        return new Target(address, port, mac, fingerprint, ports, community, service, names, other);
    }

    /** The same, asked over SNMP. */
    public Target refusing(String other) {
        return new Target(address, port, mac, fingerprint, ports, other, service, names, known);
    }

    /**
     * Other TCP ports than that of the management service.
     *
     * @param open those that must answer
     * @param shut those that must not answer
     * @param restricted those that must answer some sources and no others
     */
    public record Ports(List<Integer> open, List<Integer> shut, List<Restricted> restricted) {

        static Ports closed(List<Integer> shut) {
            return new Ports(List.of(), shut, List.of());
        }
    }

    /** A TCP port that must answer sources in one network and no others; on port 22 SSH must greet. */
    public record Restricted(int port, Prefix from) {}

    /**
     * What is known from before.
     *
     * @param hostKey the fingerprint of its SSH host key, or null
     * @param elsewhere where it must not answer any more, by what that address is; those that somebody else has now are
     * not among them
     * @param accepted by trait, what a person has taken for right although it was planned otherwise
     * @param timeServers its time servers as they were measured
     */
    public record Known(
            String hostKey, Map<Address, String> elsewhere, Map<String, String> accepted, List<Part> timeServers) {

        public static final Known NOTHING = new Known(null, Map.of(), Map.of(), List.of());
    }

    /** A log-in of ours; its phrase is null while no password of ours is on the machine. */
    public record Login(String user, Secret phrase) {}

    /**
     * What it is called.
     *
     * @param servers every name server that is asked for the name, by what people call it
     * @param reverse those that are asked for the address
     */
    public record Names(String fqdn, Map<String, Address> servers, Map<String, Address> reverse) {

        static final Names NOT_ASKED = new Names("", Map.of(), Map.of());
    }

    /** What is expected behind the port. */
    public sealed interface Service {}

    /**
     * Nothing that people sign in to: an address for data. It answers, and where it is an iSCSI portal it tells its
     * targets.
     *
     * @param portal the port of an iSCSI portal, or 0 where it is none
     * @param nfs whether it serves NFS
     * @param planned where its targets may say that they are reached
     */
    public record DataAddress(int portal, boolean nfs, Set<Address> planned) implements Service {

        /** One that answers and no more. */
        public static final DataAddress PLAIN = new DataAddress(0, false, Set.of());
    }

    /**
     * A Redfish service (DMTF DSP0266).
     *
     * @param serial as on the label
     * @param mac as on the label
     * @param plan what was planned
     * @param factory the log-in that must be refused
     * @param presence whether it answers a presence ping of RMCP, or must not
     */
    public record Redfish(String serial, Mac mac, Settings plan, Login login, Kind.Login factory, Expectation presence)
            implements Service {

        /** One that is not asked over RMCP. */
        public Redfish(String serial, Mac mac, Settings plan, Login login, Kind.Login factory) {
            this(serial, mac, plan, login, factory, Expectation.NOT_CHECKED);
        }
    }

    /**
     * A page to sign in.
     *
     * @param ssh whether SSH answers as well
     * @param setUp what is known from its setup, or null where it was never set up
     * @param pages its documented interface, or null where it has none here
     * @param shell who signs in over SSH and what is asked there, or null where nothing is
     * @param shipped the ways in that have a factory login, such as {@code console} or {@code web}; each must be
     * refused
     * @param form the form of its web page that is tried, or null where none is
     */
    public record SignIn(boolean ssh, SetUp setUp, Pages pages, ShellWay shell, Set<String> shipped, FormWay form)
            implements Service {

        /** A machine whose web page is not signed in to. */
        public SignIn(boolean ssh, SetUp setUp, Pages pages, ShellWay shell, Set<String> shipped) {
            this(ssh, setUp, pages, shell, shipped, null);
        }

        /** A machine without a factory login and without a login over SSH. */
        public SignIn(boolean ssh, SetUp setUp, Pages pages) {
            this(ssh, setUp, pages, null, Set.of());
        }

        /** The same machine with factory logins on these ways. */
        public SignIn shipping(Set<String> ways) {
            return new SignIn(ssh, setUp, pages, shell, ways, form);
        }
    }

    /**
     * The form of its web page.
     *
     * @param factory what must be refused there
     */
    public record FormWay(KindChecks.WebForm form, List<Kind.Login> factory) {}

    /**
     * The way in over SSH.
     *
     * @param ours what logs in since its setup
     * @param factory what must be refused there
     * @param asks what it is asked to show
     * @param also further accounts that must be let in
     */
    public record ShellWay(Login ours, List<Kind.Login> factory, LookAgain asks, List<Login> also) {}

    /**
     * What a setup has shown.
     *
     * @param serial what the machine told on its line or its pages, or what a person compared there
     * @param readBack whether what it keeps was read back and agreed
     * @param identifiedBy who said which machine it is
     * @param lineLogin what the machine did when the factory login was typed on its line once more
     */
    public record SetUp(Instant at, String serial, boolean readBack, IdentifiedBy identifiedBy, LineLogin lineLogin) {

        /** A setup in which the machine itself told its serial, and no factory login was typed once more. */
        public SetUp(Instant at, String serial, boolean readBack) {
            this(at, serial, readBack, new Machine(), LineLogin.NOT_TRIED);
        }
    }

    /** What became of the factory login that a setup types on the line once more. */
    public enum LineLogin {
        NOT_TRIED,
        REFUSED,
        NOT_REFUSED
    }

    /** Who said which machine was set up. */
    public sealed interface IdentifiedBy {}

    /** The machine itself, on its line or its pages. */
    public record Machine() implements IdentifiedBy {}

    /**
     * A person read it on the machine, and it was compared with the label.
     *
     * @param login who
     * @param read what was read
     */
    public record Person(String login, String read, Instant at) implements IdentifiedBy {}

    /** The machine does not identify itself, and what is written on it is not recorded yet. */
    public record NotYet() implements IdentifiedBy {}

    /**
     * The documented interface of a machine's pages.
     *
     * @param at where its resources begin
     * @param ours what logs in since its setup
     * @param factory what must be refused
     * @param about the resource that tells which machine it is
     * @param must what that shows, by place
     * @param shows what {@code about} tells of the machine besides, and its place
     * @param fills by page, its resource and what was planned for it
     * @param certificate the certificate there (SHA-256); null where it is the one of the endpoint itself
     */
    public record Pages(
            String at,
            Login ours,
            Login factory,
            String about,
            Map<String, String> must,
            Map<OwnValue, String> shows,
            Map<String, Fill> fills,
            String certificate) {

        /** Pages of the endpoint itself that are not asked for anything besides. */
        public Pages(
                String at, Login ours, Login factory, String about, Map<String, String> must, Map<String, Fill> fills) {
            this(at, ours, factory, about, must, Map.of(), fills, null);
        }
    }

    /** A page that is read back. */
    public record Fill(String resource, PageFill planned) {}
}
