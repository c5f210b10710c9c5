package lychnos.wire.far;

import java.time.Duration;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.fact.Mac;
import lychnos.core.kind.Kind;
import lychnos.core.service.NameSample;
import lychnos.core.service.TimeSample;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.Pushed;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.icmp.Echo;
import lychnos.wire.iscsi.Discovery;
import lychnos.wire.ldap.DirectoryQuestion;
import lychnos.wire.ldap.DirectorySeen;
import lychnos.wire.proxy.ProxyProbe.ProxySeen;
import lychnos.wire.rmcp.Presence;
import lychnos.wire.smtp.Letter;
import lychnos.wire.smtp.RelaySeen;
import lychnos.wire.ssh.HostKey;
import lychnos.wire.ssh.Shell;
import lychnos.wire.tcp.PortState;
import lychnos.wire.tls.TlsSeen;
import lychnos.wire.vantage.Vantage;

/** A vantage that makes a {@link VantageCall} of each method, for those that pass calls on to another place. */
abstract class CalledVantage implements Vantage {

    abstract <T> T carryOut(VantageCall<T> call) throws WireFault;

    @Override
    public Optional<Address> source(Address towards) throws WireFault {
        return carryOut(new VantageCall.Source(towards));
    }

    @Override
    public Echo ping(Address address, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Ping(address, timeout));
    }

    @Override
    public Optional<Mac> neighbour(Address address) throws WireFault {
        return carryOut(new VantageCall.Neighbour(address));
    }

    @Override
    public Optional<Address> findByMac(Mac mac, AddressRun run, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.FindByMac(mac, run, timeout));
    }

    @Override
    public List<Mac> claimants(Address address) throws WireFault {
        return carryOut(new VantageCall.Claimants(address));
    }

    @Override
    public Map<Address, Echo> sweep(Collection<Address> addresses, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Sweep(addresses, timeout));
    }

    @Override
    public PortState port(Address address, int port, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Port(address, port, timeout));
    }

    @Override
    public TlsSeen tls(Address address, int port, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Tls(address, port, timeout));
    }

    @Override
    public String greeting(Address address, int port, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Greeting(address, port, timeout));
    }

    @Override
    public HostKey.Seen hostKey(Address address, int port, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.SshHostKey(address, port, timeout));
    }

    @Override
    public Shell.Told shell(Address address, int port, Shell.Script script, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.RemoteShell(address, port, script, timeout));
    }

    @Override
    public Presence.Seen presence(Address address, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.RmcpPresence(address, timeout));
    }

    @Override
    public boolean answersTo(Address address, String community, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.AnswersTo(address, community, timeout));
    }

    @Override
    public List<Integer> nfs(Address address, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Nfs(address, timeout));
    }

    @Override
    public List<Discovery.Found> targets(Address portal, int port, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Targets(portal, port, timeout));
    }

    @Override
    public HttpAnswer http(HttpCall call) throws WireFault {
        return carryOut(new VantageCall.Http(call));
    }

    @Override
    public Optional<TimeSample> time(Address server, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Time(server, timeout));
    }

    @Override
    public NameSample names(Address server, List<String> zones, Map<String, NameKey> keys, Duration timeout)
            throws WireFault {
        return carryOut(new VantageCall.Names(server, zones, keys, timeout));
    }

    @Override
    public List<String> resolve(Address server, String fqdn, String type, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Resolve(server, fqdn, type, timeout));
    }

    @Override
    public List<Pushed> makeRecords(
            Address server, String zone, NameKey key, List<ZoneRecord> records, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.MakeRecords(server, zone, key, records, timeout));
    }

    @Override
    public List<Pushed> removeRecords(
            Address server, String zone, NameKey key, List<ZoneRecord> records, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.RemoveRecords(server, zone, key, records, timeout));
    }

    @Override
    public List<ZoneRecord> transfer(Address server, String zone, NameKey key, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Transfer(server, zone, key, timeout));
    }

    @Override
    public RelaySeen relay(Address relay, int port, List<String> senders, String recipient, Duration timeout)
            throws WireFault {
        return carryOut(new VantageCall.Relay(relay, port, senders, recipient, timeout));
    }

    @Override
    public Address mail(Address relay, int port, Letter letter, Duration timeout) throws WireFault {
        return carryOut(new VantageCall.Mail(relay, port, letter, timeout));
    }

    @Override
    public DirectorySeen directory(Address directory, int port, DirectoryQuestion question, Duration timeout)
            throws WireFault {
        return carryOut(new VantageCall.Directory(directory, port, question, timeout));
    }

    @Override
    public ProxySeen proxy(Address proxy, int port, String target, Kind.Login login, Duration timeout)
            throws WireFault {
        return carryOut(new VantageCall.Proxy(proxy, port, target, login, timeout));
    }
}
