package lychnos.wire.vantage;

import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.fact.Mac;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.icmp.Echo;
import lychnos.wire.iscsi.Discovery;
import lychnos.wire.rmcp.Presence;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.ssh.Shell;
import lychnos.wire.tcp.PortState;
import lychnos.wire.tls.TlsSeen;

/**
 * A place from which machines are reached. Everything that touches a machine goes through here, so that it can be done
 * from this process or from another network. All methods block until they have an answer or their time is over, are
 * safe for use by many threads, and refuse addresses outside the declared networks with {@link
 * WireFault.Kind#NOT_DECLARED}.
 */
public interface Vantage extends ServiceCalls {

    /** What the place is called, for people. */
    String name();

    /** The place from which this address is reached: of several, the one that is for its network. */
    default Vantage at(Address address) {
        return this;
    }

    /** Whether an address with nothing behind it stays silent here. On plain loopback every address answers. */
    boolean hearsSilence();

    /** The own address that packets to this address leave with; empty where there is no route. Sends nothing. */
    Optional<Address> source(Address towards) throws WireFault;

    /** One ICMP echo (RFC 792, RFC 4443). */
    Echo ping(Address address, Duration timeout) throws WireFault;

    /**
     * The MAC address that answers for this address on the segment, if this place is on the segment and knows it.
     */
    Optional<Mac> neighbour(Address address) throws WireFault;

    /** The addresses of a run that a MAC address answers for now (RFC 826), found by asking the whole run. */
    Optional<Address> findByMac(Mac mac, AddressRun run, Duration timeout) throws WireFault;

    /**
     * Everybody on the segment who says that the address is theirs (RFC 826, RFC 4861); empty where that cannot be
     * heard from here.
     */
    List<Mac> claimants(Address address) throws WireFault;

    /**
     * Echoes to many addresses at once, two to each that stays silent. Addresses outside the declared networks are
     * refused as a whole.
     *
     * @param timeout for each echo
     */
    Map<Address, Echo> sweep(Collection<Address> addresses, Duration timeout) throws WireFault;

    /** One TCP connection, closed at once. */
    PortState port(Address address, int port, Duration timeout) throws WireFault;

    /** One TLS handshake that trusts anything, to see what is shown. */
    TlsSeen tls(Address address, int port, Duration timeout) throws WireFault;

    /** How an SSH server greets (RFC 4253, section 4.2). */
    String greeting(Address address, int port, Duration timeout) throws WireFault;

    /** The host key of an SSH server, seen in a key exchange that ends before a log-in. */
    HostKey.Seen hostKey(Address address, int port, Duration timeout) throws WireFault;

    /** Signs in over SSH, types commands and leaves. */
    Shell.Told shell(Address address, int port, Shell.Script script, Duration timeout) throws WireFault;

    /** What answers a presence ping of RMCP (DMTF DSP0136). */
    Presence.Seen presence(Address address, Duration timeout) throws WireFault;

    /** Whether an SNMP agent answers to a community (RFC 1157). */
    boolean answersTo(Address address, String community, Duration timeout) throws WireFault;

    /** The versions that an NFS server takes a null call in. */
    List<Integer> nfs(Address address, Duration timeout) throws WireFault;

    /** The targets that an iSCSI portal has (RFC 7143, SendTargets). */
    List<Discovery.Found> targets(Address portal, int port, Duration timeout) throws WireFault;

    /** One HTTPS exchange. */
    HttpAnswer http(HttpCall call) throws WireFault;

    /** Opens a console line. Returns at once; the events tell the result. */
    ConsoleLine line(LineAddress address, LineSettings settings, LineEvents events) throws WireFault;
}
