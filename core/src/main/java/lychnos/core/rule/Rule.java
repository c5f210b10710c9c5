package lychnos.core.rule;

import java.util.List;
import java.util.stream.Stream;

/** One thing that can be wrong with a plan. */
@FunctionalInterface
public interface Rule {

    /** Looks for it. */
    List<Finding> look(Plan plan);

    /** All rules, gravest first. */
    List<Rule> ALL = List.of(
            new GatewayOutsidePrefix(),
            new PoolOutsidePrefix(),
            new NoPool(),
            new PoolTooSmall(),
            new NetworkMissing(),
            new NetworksOverlap(),
            new DhcpInPool(),
            new ForeignPrefix(),
            new TimeServerLies(),
            new SenderDomain(),
            new LicenceKeyMissing(),
            new ProxyMissing(),
            new MembersDiffer(),
            new UnitsDiffer(),
            new TunnelTooSmall(),
            new TunnelOverlaps(),
            new ControlVlanInUse(),
            new NoMasterSubnetManager(),
            new TwoMasterSubnetManagers(),
            new SerialTwice(),
            new MacTwice(),
            new IsolatedSite(),
            new LineTwice(),
            new SwitchPortTwice(),
            new SiteResourceUnknown(),
            new HostTooSmall(),
            new ImageDiffers(),
            new ImageUnsuited(),
            new ImageTooLarge(),
            new BelowLeast(),
            new ImageNotChecked(),
            new NameTooLong(),
            new NameTwice(),
            new RecordDisagrees(),
            new EndsSoon(),
            new FirmwareBaseline(),
            new ProxyNotPossible(),
            new FewNameServers(),
            new FewTimeServers(),
            new ServerTwice(),
            new TimeServerSilent(),
            new NameServerOdd(),
            new UpdatesRefused(),
            new GatewaySilent(),
            new RelayOdd(),
            new DirectoryOdd(),
            new MtuMismatch(),
            new ManagerTime(),
            new GatewayInPool(),
            new ServerInPool(),
            new PoolRunsDry(),
            new VlanTwice(),
            new VlanReserved(),
            new NoFirstContact(),
            new SharedFactoryAddress(),
            new DhcpLeftOn(),
            new PositionTwice(),
            new PolicyMissing(),
            new NoSources(),
            new NameLongElsewhere());

    /** Everything that would go wrong: first what blocks, each in the order of the rules. */
    static List<Finding> lookAt(Plan plan) {
        List<Finding> all =
                ALL.parallelStream().flatMap(rule -> rule.look(plan).stream()).toList();
        return Stream.concat(all.stream().filter(Finding::blocks), all.stream().filter(finding -> !finding.blocks()))
                .toList();
    }
}
