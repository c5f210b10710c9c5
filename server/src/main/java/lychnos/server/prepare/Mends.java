package lychnos.server.prepare;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Stream;
import lychnos.core.fact.Fact;
import lychnos.core.rule.Mend;
import lychnos.server.caller.Who;
import lychnos.server.problem.Refusal;
import lychnos.server.store.Network;
import org.hibernate.Session;

/** Carries out what a finding offers as its mend. It is done as a person would do it, with the same checks. */
@ApplicationScoped
public class Mends {

    private final Session db;
    private final Groundworks groundworks;
    private final Facts facts;

    Mends(Session db, Groundworks groundworks, Facts facts) {
        this.db = db;
        this.groundworks = groundworks;
        this.facts = facts;
    }

    @Transactional
    public void carryOut(long bringUpId, Mend mend, Who.Person person) {
        if (mend.act() == null || mend.field() == null || mend.value() == null) {
            throw Refusal.bad("This mend is not whole.");
        }
        switch (mend.act()) {
            case SET_FACT -> setFact(bringUpId, mend, person);
            case ADD_TIME_SERVER ->
                times(
                        bringUpId,
                        mend,
                        person,
                        Stream.concat(network(mend).timeServers.stream(), Stream.of(mend.value()))
                                .toList());
            case DROP_TIME_SERVER ->
                times(
                        bringUpId,
                        mend,
                        person,
                        network(mend).timeServers.stream()
                                .filter(server -> !server.equals(mend.field()))
                                .toList());
            case CHANGE_RANGE -> range(bringUpId, mend, person);
        }
    }

    private void setFact(long bringUpId, Mend mend, Who.Person person) {
        Facts.Report report = facts.set(
                bringUpId,
                List.of(new Facts.CellText(mend.id(), mend.member(), mend.field(), mend.value())),
                Fact.Source.TYPED,
                person);
        if (!report.faults().isEmpty()) {
            throw Refusal.bad(report.faults().get(0).reason());
        }
    }

    private Network network(Mend mend) {
        Network network = db.find(Network.class, mend.id());
        if (network == null) {
            throw Refusal.notFound("There is no such network any more.");
        }
        return network;
    }

    private void times(long bringUpId, Mend mend, Who.Person person, List<String> servers) {
        Groundworks.Statement s = groundworks.statement(network(mend));
        groundworks.stateAny(
                bringUpId,
                new Groundworks.Statement(
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

    private void range(long bringUpId, Mend mend, Who.Person person) {
        Groundworks.Statement s = groundworks.statement(network(mend));
        List<Groundworks.RangeText> ranges = new ArrayList<>();
        s.ranges()
                .forEach(range -> ranges.add(
                        range.run().equals(mend.field())
                                ? new Groundworks.RangeText(range.purpose(), mend.value(), range.note())
                                : range));
        groundworks.stateAny(
                bringUpId,
                new Groundworks.Statement(
                        s.id(),
                        s.name(),
                        s.prefix(),
                        s.gateway(),
                        s.vlan(),
                        s.domain(),
                        s.nameServers(),
                        s.timeServers(),
                        ranges,
                        s.purpose(),
                        s.segment(),
                        s.mtu(),
                        s.permanent(),
                        s.realm(),
                        s.version()),
                person);
    }
}
