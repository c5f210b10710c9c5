package lychnos.wire.far;

import com.fasterxml.jackson.annotation.JsonTypeInfo;
import java.lang.reflect.Method;
import java.lang.reflect.Type;
import java.time.Duration;
import java.util.Arrays;
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

/**
 * One call of a {@link Vantage} as a value, so that it can be carried out somewhere else. There is one record for each
 * method that reaches a machine; a console line is opened in another way, since it lasts. The names of the records and
 * of their components are part of the protocol: who changes one raises {@link LinkMessage#VERSION}.
 *
 * @param <T> what the call gives back
 */
@JsonTypeInfo(use = JsonTypeInfo.Id.NAME, property = "call")
public sealed interface VantageCall<T> {

    /** For calls that state no timeout of their own. */
    Duration USUAL = Duration.ofSeconds(10);

    T on(Vantage vantage) throws WireFault;

    /** Whether it only shows if a port answers: that may be asked of networks that the vantage point is not for. */
    default boolean triesAPort() {
        return false;
    }

    /** The machine that is asked; of several, the first. */
    Address address();

    default Duration timeout() {
        return USUAL;
    }

    /** What the answer is read as: the type that {@link #on} gives back. */
    default Type answerType() {
        return Arrays.stream(getClass().getDeclaredMethods())
                .filter(method -> method.getName().equals("on") && !method.isBridge())
                .map(Method::getGenericReturnType)
                .findFirst()
                .orElseThrow();
    }

    record Source(Address address) implements VantageCall<Optional<Address>> {
        @Override
        public boolean triesAPort() {
            return true;
        }

        @Override
        public Optional<Address> on(Vantage vantage) throws WireFault {
            return vantage.source(address);
        }
    }

    record Ping(Address address, Duration timeout) implements VantageCall<Echo> {
        @Override
        public Echo on(Vantage vantage) throws WireFault {
            return vantage.ping(address, timeout);
        }
    }

    record Neighbour(Address address) implements VantageCall<Optional<Mac>> {
        @Override
        public Optional<Mac> on(Vantage vantage) throws WireFault {
            return vantage.neighbour(address);
        }
    }

    record FindByMac(Mac mac, AddressRun run, Duration timeout) implements VantageCall<Optional<Address>> {
        @Override
        public Address address() {
            return run.first();
        }

        @Override
        public Optional<Address> on(Vantage vantage) throws WireFault {
            return vantage.findByMac(mac, run, timeout);
        }
    }

    record Claimants(Address address) implements VantageCall<List<Mac>> {
        @Override
        public List<Mac> on(Vantage vantage) throws WireFault {
            return vantage.claimants(address);
        }
    }

    record Sweep(Collection<Address> addresses, Duration timeout) implements VantageCall<Map<Address, Echo>> {
        @Override
        public Address address() {
            return addresses.iterator().next();
        }

        @Override
        public Map<Address, Echo> on(Vantage vantage) throws WireFault {
            return vantage.sweep(addresses, timeout);
        }
    }

    record Port(Address address, int port, Duration timeout) implements VantageCall<PortState> {
        @Override
        public boolean triesAPort() {
            return true;
        }

        @Override
        public PortState on(Vantage vantage) throws WireFault {
            return vantage.port(address, port, timeout);
        }
    }

    record Tls(Address address, int port, Duration timeout) implements VantageCall<TlsSeen> {
        @Override
        public TlsSeen on(Vantage vantage) throws WireFault {
            return vantage.tls(address, port, timeout);
        }
    }

    record Greeting(Address address, int port, Duration timeout) implements VantageCall<String> {
        @Override
        public boolean triesAPort() {
            return true;
        }

        @Override
        public String on(Vantage vantage) throws WireFault {
            return vantage.greeting(address, port, timeout);
        }
    }

    record SshHostKey(Address address, int port, Duration timeout) implements VantageCall<HostKey.Seen> {
        @Override
        public HostKey.Seen on(Vantage vantage) throws WireFault {
            return vantage.hostKey(address, port, timeout);
        }
    }

    record RemoteShell(Address address, int port, Shell.Script script, Duration timeout)
            implements VantageCall<Shell.Told> {
        @Override
        public Shell.Told on(Vantage vantage) throws WireFault {
            return vantage.shell(address, port, script, timeout);
        }
    }

    record RmcpPresence(Address address, Duration timeout) implements VantageCall<Presence.Seen> {
        @Override
        public Presence.Seen on(Vantage vantage) throws WireFault {
            return vantage.presence(address, timeout);
        }
    }

    record AnswersTo(Address address, String community, Duration timeout) implements VantageCall<Boolean> {
        @Override
        public Boolean on(Vantage vantage) throws WireFault {
            return vantage.answersTo(address, community, timeout);
        }
    }

    record Nfs(Address address, Duration timeout) implements VantageCall<List<Integer>> {
        @Override
        public List<Integer> on(Vantage vantage) throws WireFault {
            return vantage.nfs(address, timeout);
        }
    }

    record Targets(Address address, int port, Duration timeout) implements VantageCall<List<Discovery.Found>> {
        @Override
        public List<Discovery.Found> on(Vantage vantage) throws WireFault {
            return vantage.targets(address, port, timeout);
        }
    }

    record Http(HttpCall exchange) implements VantageCall<HttpAnswer> {
        @Override
        public Address address() {
            return exchange.address();
        }

        @Override
        public Duration timeout() {
            return exchange.timeout();
        }

        @Override
        public HttpAnswer on(Vantage vantage) throws WireFault {
            return vantage.http(exchange);
        }
    }

    record Time(Address address, Duration timeout) implements VantageCall<Optional<TimeSample>> {
        @Override
        public Optional<TimeSample> on(Vantage vantage) throws WireFault {
            return vantage.time(address, timeout);
        }
    }

    record Names(Address address, List<String> zones, Map<String, NameKey> keys, Duration timeout)
            implements VantageCall<NameSample> {
        @Override
        public NameSample on(Vantage vantage) throws WireFault {
            return vantage.names(address, zones, keys, timeout);
        }
    }

    record Resolve(Address address, String fqdn, String type, Duration timeout) implements VantageCall<List<String>> {
        @Override
        public List<String> on(Vantage vantage) throws WireFault {
            return vantage.resolve(address, fqdn, type, timeout);
        }
    }

    record MakeRecords(Address address, String zone, NameKey key, List<ZoneRecord> records, Duration timeout)
            implements VantageCall<List<Pushed>> {
        @Override
        public List<Pushed> on(Vantage vantage) throws WireFault {
            return vantage.makeRecords(address, zone, key, records, timeout);
        }
    }

    record RemoveRecords(Address address, String zone, NameKey key, List<ZoneRecord> records, Duration timeout)
            implements VantageCall<List<Pushed>> {
        @Override
        public List<Pushed> on(Vantage vantage) throws WireFault {
            return vantage.removeRecords(address, zone, key, records, timeout);
        }
    }

    record Transfer(Address address, String zone, NameKey key, Duration timeout)
            implements VantageCall<List<ZoneRecord>> {
        @Override
        public List<ZoneRecord> on(Vantage vantage) throws WireFault {
            return vantage.transfer(address, zone, key, timeout);
        }
    }

    record Relay(Address address, int port, List<String> senders, String recipient, Duration timeout)
            implements VantageCall<RelaySeen> {
        @Override
        public RelaySeen on(Vantage vantage) throws WireFault {
            return vantage.relay(address, port, senders, recipient, timeout);
        }
    }

    record Mail(Address address, int port, Letter letter, Duration timeout) implements VantageCall<Address> {
        @Override
        public Address on(Vantage vantage) throws WireFault {
            return vantage.mail(address, port, letter, timeout);
        }
    }

    record Directory(Address address, int port, DirectoryQuestion question, Duration timeout)
            implements VantageCall<DirectorySeen> {
        @Override
        public DirectorySeen on(Vantage vantage) throws WireFault {
            return vantage.directory(address, port, question, timeout);
        }
    }

    record Proxy(Address address, int port, String target, Kind.Login login, Duration timeout)
            implements VantageCall<ProxySeen> {
        @Override
        public ProxySeen on(Vantage vantage) throws WireFault {
            return vantage.proxy(address, port, target, login, timeout);
        }
    }
}
