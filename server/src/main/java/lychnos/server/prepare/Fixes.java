package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import lychnos.core.fact.Fact;
import lychnos.core.rule.Fix;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.text.PrepareText;
import lychnos.server.units.FactChanges;
import org.hibernate.Session;

/** Carries out what a finding offers as its fix. It is done as a person would do it, with the same checks. */
@ApplicationScoped
public class Fixes {

    private final Session db;
    private final NetworkDefinitions networkDefinitions;
    private final FactChanges factChanges;

    Fixes(Session db, NetworkDefinitions networkDefinitions, FactChanges factChanges) {
        this.db = db;
        this.networkDefinitions = networkDefinitions;
        this.factChanges = factChanges;
    }

    @Transactional
    public void carryOut(long bringUpId, Fix fix, Who.Person person) {
        if (fix.act() == null || fix.field() == null || fix.value() == null) {
            throw Refusal.bad(PrepareText.FIX_IS_NOT_COMPLETE.said());
        }
        switch (fix.act()) {
            case SET_FACT -> setFact(bringUpId, fix, person);
            case ADD_TIME_SERVER ->
                times(
                        bringUpId,
                        fix,
                        person,
                        Stream.concat(network(fix).timeServers.stream(), Stream.of(fix.value()))
                                .toList());
            case DROP_TIME_SERVER ->
                times(
                        bringUpId,
                        fix,
                        person,
                        network(fix).timeServers.stream()
                                .filter(server -> !server.equals(fix.field()))
                                .toList());
            case CHANGE_RANGE -> range(bringUpId, fix, person);
        }
    }

    private void setFact(long bringUpId, Fix fix, Who.Person person) {
        FactChanges.FactsReport report = factChanges.set(
                bringUpId,
                List.of(new FactChanges.FactCell(fix.id(), fix.member(), fix.field(), fix.value())),
                Fact.Source.TYPED,
                person);
        if (!report.faults().isEmpty()) {
            throw Refusal.bad(report.faults().get(0).reason());
        }
    }

    private Network network(Fix fix) {
        Network network = db.find(Network.class, fix.id());
        if (network == null) {
            throw Refusal.notFound(PrepareText.NETWORK_NO_LONGER_EXISTS.said());
        }
        return network;
    }

    private void times(long bringUpId, Fix fix, Who.Person person, List<String> servers) {
        NetworkDefinitions.NetworkStatement s = networkDefinitions.statement(network(fix));
        networkDefinitions.stateAny(
                bringUpId,
                new NetworkDefinitions.NetworkStatement(
                        s.id(),
                        s.name(),
                        s.prefix(),
                        s.gateway(),
                        s.vlan(),
                        s.domain(),
                        s.nameServers(),
                        servers,
                        s.ranges(),
                        s.purpose(),
                        s.segment(),
                        s.mtu(),
                        s.permanent(),
                        s.realm(),
                        s.version()),
                person);
    }

    private void range(long bringUpId, Fix fix, Who.Person person) {
        NetworkDefinitions.NetworkStatement s = networkDefinitions.statement(network(fix));
        List<NetworkDefinitions.RangeText> ranges = new ArrayList<>();
        s.ranges()
                .forEach(range -> ranges.add(
                        range.run().equals(fix.field())
                                ? new NetworkDefinitions.RangeText(range.purpose(), fix.value(), range.note())
                                : range));
        networkDefinitions.stateAny(bringUpId, s.withRanges(ranges), person);
    }
}
