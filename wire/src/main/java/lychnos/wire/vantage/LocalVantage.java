package lychnos.wire.vantage;

import io.vertx.core.Vertx;
import java.io.IOException;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.SocketException;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.dialogue.LineSettings;
import lychnos.core.fact.Mac;
import lychnos.core.kind.Kind;
import lychnos.core.service.NameSample;
import lychnos.core.service.TimeSample;
import lychnos.wire.arp.Neighbours;
import lychnos.wire.arp.WhoHas;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.console.Lines;
import lychnos.wire.dial.Dialler;
import lychnos.wire.dns.DnsClient;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.Pushed;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.http.HttpCaller;
import lychnos.wire.icmp.Echo;
import lychnos.wire.icmp.PingSweep;
import lychnos.wire.icmp.Pinger;
import lychnos.wire.iscsi.Discovery;
import lychnos.wire.ldap.DirectoryProbe;
import lychnos.wire.ldap.DirectoryQuestion;
import lychnos.wire.ldap.DirectorySeen;
import lychnos.wire.nfs.NullCall;
import lychnos.wire.ntp.NtpClient;
import lychnos.wire.proxy.ProxyProbe;
import lychnos.wire.proxy.ProxyProbe.ProxySeen;
import lychnos.wire.rmcp.Presence;
import lychnos.wire.smtp.Letter;
import lychnos.wire.smtp.Postman;
import lychnos.wire.smtp.RelayProbe;
import lychnos.wire.smtp.RelaySeen;
import lychnos.wire.snmp.Community;
import lychnos.wire.ssh.Greeting;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.ssh.Shell;
import lychnos.wire.tcp.PortProbe;
import lychnos.wire.tcp.PortState;
import lychnos.wire.time.Ticker;
import lychnos.wire.time.TimeLeft;
import lychnos.wire.tls.TlsProbe;
import lychnos.wire.tls.TlsSeen;

/** Reaches machines from this process. Every method lets the {@link Dialler} decide first. */
public final class LocalVantage implements Vantage, AutoCloseable {

    /** The largest run that is asked for a MAC address: the neighbour table holds about a thousand entries. */
    public static final int LARGEST_SWEEP = 512;

    /** Of a socket that sends nothing. */
    private static final int ANY_PORT = 9;

    private static final int DNS_PORT = 53;
    private static final int NTP_PORT = 123;
    private static final int RMCP_PORT = 623;
    /** The owner of an address on the segment answers within a few milliseconds. */
    private static final Duration LISTEN = Duration.ofMillis(250);

    private static final long SWEEP_PAUSE_MILLIS = 40;

    private final String name;
    private final boolean hearsSilence;
    private final Dialler dialler;
    private final Pinger pinger = new Pinger();
    private final Neighbours neighbours = new Neighbours();
    private final WhoHas whoHas = new WhoHas();
    private final PingSweep sweep = new PingSweep();
    private final HostKey hostKey = new HostKey();
    private final Shell shell = new Shell();
    private final PortProbe portProbe = new PortProbe();
    private final TlsProbe tlsProbe = new TlsProbe();
    private final NtpClient ntp;
    private final DirectoryProbe directoryProbe = new DirectoryProbe();
    private final RelayProbe relayProbe = new RelayProbe();
    private final ProxyProbe proxyProbe = new ProxyProbe();
    private final HttpCaller caller;
    private final Lines lines;

    public LocalVantage(String name, boolean hearsSilence, Dialler dialler, Vertx vertx) {
        this(name, hearsSilence, dialler, vertx, Clock.systemUTC(), Ticker.SYSTEM);
    }

    /**
     * @param clock that the clocks of time servers are compared with
     * @param ticker by which connections grow old
     */
    public LocalVantage(String name, boolean hearsSilence, Dialler dialler, Vertx vertx, Clock clock, Ticker ticker) {
        this.name = name;
        this.hearsSilence = hearsSilence;
        this.dialler = dialler;
        this.ntp = new NtpClient(clock);
        this.caller = new HttpCaller(vertx, clock, ticker);
        this.lines = new Lines(vertx, dialler);
    }

    @Override
    public String name() {
        return name;
    }

    @Override
    public boolean hearsSilence() {
        return hearsSilence;
    }

    @Override
    public Optional<Address> source(Address towards) throws WireFault {
        // connecting a datagram socket only chooses the route
        try (DatagramSocket socket = new DatagramSocket()) {
            socket.connect(dialler.admit(towards, ANY_PORT));
            return socket.getLocalAddress().isAnyLocalAddress()
                    ? Optional.empty()
                    : Optional.of(Address.of(socket.getLocalAddress().getAddress()));
        } catch (SocketException e) {
            return Optional.empty();
        }
    }

    @Override
    public Echo ping(Address address, Duration timeout) throws WireFault {
        dialler.admit(address, 0);
        return pinger.ping(address, timeout);
    }

    @Override
    public Optional<Mac> neighbour(Address address) throws WireFault {
        dialler.admit(address, 0);
        return address.isV4() ? neighbours.of(address) : whoHas.first(address, LISTEN);
    }

    @Override
    public Optional<Address> findByMac(Mac mac, AddressRun run, Duration timeout) throws WireFault {
        if (run.size() > LARGEST_SWEEP) {
            throw new WireFault(WireFault.Kind.NOT_DECLARED, WireText.SWEEP_TOO_LARGE.text(run, LARGEST_SWEEP));
        }
        List<InetSocketAddress> peers = new ArrayList<>();
        for (long i = 0; i < run.size(); i++) {
            peers.add(dialler.admit(run.first().plus(i), 0));
        }
        TimeLeft left = TimeLeft.of(timeout);
        try {
            neighbours.ask(peers);
            while (!left.over()) {
                Optional<Address> found = neighbours.entries().stream()
                        .filter(entry -> entry.mac().equals(mac) && run.contains(entry.address()))
                        .map(Neighbours.Entry::address)
                        .filter(this::stillAnswers)
                        .findFirst();
                if (found.isPresent()) {
                    return found;
                }
                Thread.sleep(SWEEP_PAUSE_MILLIS);
            }
            return Optional.empty();
        } catch (IOException e) {
            throw new WireFault(WireFault.Kind.SILENT, WireText.SEGMENT_FAILS.text(e.getMessage()), e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return Optional.empty();
        }
    }

    /** The table keeps an address for a while after its machine has left it. */
    private boolean stillAnswers(Address address) {
        return pinger.ping(address, Duration.ofSeconds(1)).state() != Echo.State.SILENT;
    }

    @Override
    public List<Mac> claimants(Address address) throws WireFault {
        dialler.admit(address, 0);
        return whoHas.ask(address, LISTEN);
    }

    @Override
    public Map<Address, Echo> sweep(Collection<Address> addresses, Duration timeout) throws WireFault {
        for (Address address : addresses) {
            dialler.admit(address, 0);
        }
        return sweep.ping(addresses, timeout);
    }

    @Override
    public PortState port(Address address, int port, Duration timeout) throws WireFault {
        return portProbe.probe(dialler.admit(address, port), timeout);
    }

    @Override
    public TlsSeen tls(Address address, int port, Duration timeout) throws WireFault {
        InetSocketAddress peer = dialler.admit(address, port);
        TimeLeft limit = TimeLeft.of(timeout);
        try {
            return caller.look(peer, timeout);
        } catch (WireFault e) {
            Duration left = limit.duration();
            if (left.compareTo(timeout.dividedBy(2)) < 0) {
                throw new WireFault(WireFault.Kind.SILENT, WireText.NO_ANSWER_IN.text(timeout.toSeconds()), e);
            }
            // what is wrong with it is said more exactly by a handshake that wants nothing else
            return tlsProbe.probe(peer, left);
        }
    }

    @Override
    public String greeting(Address address, int port, Duration timeout) throws WireFault {
        return Greeting.read(dialler.admit(address, port), timeout);
    }

    @Override
    public HostKey.Seen hostKey(Address address, int port, Duration timeout) throws WireFault {
        return hostKey.read(dialler.admit(address, port), timeout);
    }

    @Override
    public Shell.Told shell(Address address, int port, Shell.Script script, Duration timeout) throws WireFault {
        return shell.run(dialler.admit(address, port), script, timeout);
    }

    @Override
    public Presence.Seen presence(Address address, Duration timeout) throws WireFault {
        return Presence.ask(dialler.admit(address, RMCP_PORT), timeout);
    }

    @Override
    public boolean answersTo(Address address, String community, Duration timeout) throws WireFault {
        return Community.answers(dialler.admit(address, Community.PORT), community, timeout);
    }

    @Override
    public List<Integer> nfs(Address address, Duration timeout) throws WireFault {
        return NullCall.ask(dialler.admit(address, NullCall.PORT), timeout);
    }

    @Override
    public List<Discovery.Found> targets(Address portal, int port, Duration timeout) throws WireFault {
        return Discovery.ask(dialler.admit(portal, port), timeout);
    }

    @Override
    public HttpAnswer http(HttpCall call) throws WireFault {
        return caller.call(call, dialler.admit(call.address(), call.port()));
    }

    @Override
    public Optional<TimeSample> time(Address server, Duration timeout) throws WireFault {
        return ntp.ask(dialler.admit(server, NTP_PORT), timeout);
    }

    private DnsClient dns(Address server, Duration timeout) throws WireFault {
        return new DnsClient(dialler.admit(server, DNS_PORT), timeout);
    }

    @Override
    public NameSample names(Address server, List<String> zones, Map<String, NameKey> keys, Duration timeout)
            throws WireFault {
        return dns(server, timeout).sample(zones, keys);
    }

    @Override
    public List<String> resolve(Address server, String fqdn, String type, Duration timeout) throws WireFault {
        return dns(server, timeout).ask(fqdn, type);
    }

    @Override
    public List<Pushed> makeRecords(
            Address server, String zone, NameKey key, List<ZoneRecord> records, Duration timeout) throws WireFault {
        return dns(server, timeout).make(zone, key, records);
    }

    @Override
    public List<Pushed> removeRecords(
            Address server, String zone, NameKey key, List<ZoneRecord> records, Duration timeout) throws WireFault {
        return dns(server, timeout).remove(zone, key, records);
    }

    @Override
    public List<ZoneRecord> transfer(Address server, String zone, NameKey key, Duration timeout) throws WireFault {
        return dns(server, timeout).transfer(zone, key);
    }

    @Override
    public RelaySeen relay(Address relay, int port, List<String> senders, String recipient, Duration timeout)
            throws WireFault {
        return relayProbe.probe(dialler.admit(relay, port), "lychnos.invalid", senders, recipient, timeout);
    }

    @Override
    public Address mail(Address relay, int port, Letter letter, Duration timeout) throws WireFault {
        Postman.send(dialler.admit(relay, port), letter, timeout);
        return relay;
    }

    @Override
    public DirectorySeen directory(Address directory, int port, DirectoryQuestion question, Duration timeout)
            throws WireFault {
        return directoryProbe.probe(dialler.admit(directory, port), question, timeout);
    }

    @Override
    public ProxySeen proxy(Address proxy, int port, String target, Kind.Login login, Duration timeout)
            throws WireFault {
        return proxyProbe.probe(dialler.admit(proxy, port), target, login, timeout);
    }

    @Override
    public ConsoleLine line(LineAddress address, LineSettings settings, LineEvents events) throws WireFault {
        return lines.open(address, settings, events);
    }

    @Override
    public void close() {
        lines.close();
        hostKey.close();
        shell.close();
        caller.close();
    }
}
