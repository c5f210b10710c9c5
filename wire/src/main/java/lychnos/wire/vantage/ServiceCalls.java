package lychnos.wire.vantage;

import java.time.Duration;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.kind.Kind;
import lychnos.core.service.NameSample;
import lychnos.core.service.TimeSample;
import lychnos.wire.dns.NameKey;
import lychnos.wire.dns.Pushed;
import lychnos.wire.dns.ZoneRecord;
import lychnos.wire.fault.WireFault;
import lychnos.wire.ldap.DirectoryQuestion;
import lychnos.wire.ldap.DirectorySeen;
import lychnos.wire.proxy.ProxyProbe.ProxySeen;
import lychnos.wire.smtp.Letter;
import lychnos.wire.smtp.RelaySeen;

/** The services that units lean on, reached from a {@link Vantage}; the same limits hold as there. */
public interface ServiceCalls {

    /** One question to a time server (RFC 5905); nothing where it is silent. */
    Optional<TimeSample> time(Address server, Duration timeout) throws WireFault;

    /** What a name server answers for these zones, and whether it takes updates with the keys. */
    NameSample names(Address server, List<String> zones, Map<String, NameKey> keys, Duration timeout) throws WireFault;

    /** The data of a name's records at this very server. */
    List<String> resolve(Address server, String fqdn, String type, Duration timeout) throws WireFault;

    /** Makes records in a zone at its primary server; nobody else's are changed. */
    List<Pushed> makeRecords(Address server, String zone, NameKey key, List<ZoneRecord> records, Duration timeout)
            throws WireFault;

    /** Removes exactly these records. */
    List<Pushed> removeRecords(Address server, String zone, NameKey key, List<ZoneRecord> records, Duration timeout)
            throws WireFault;

    /** A whole zone. */
    List<ZoneRecord> transfer(Address server, String zone, NameKey key, Duration timeout) throws WireFault;

    /** Talks to a mail relay without sending anything. */
    RelaySeen relay(Address relay, int port, List<String> senders, String recipient, Duration timeout) throws WireFault;

    /**
     * Sends a letter by a mail relay.
     *
     * @return the relay, for those who note what took it
     */
    Address mail(Address relay, int port, Letter letter, Duration timeout) throws WireFault;

    /** Signs in at a directory and looks for a group, without changing anything. */
    DirectorySeen directory(Address directory, int port, DirectoryQuestion question, Duration timeout) throws WireFault;

    /**
     * Asks a proxy to let a connection through.
     *
     * @param login as whom, or null where it wants none
     */
    ProxySeen proxy(Address proxy, int port, String target, Kind.Login login, Duration timeout) throws WireFault;
}
