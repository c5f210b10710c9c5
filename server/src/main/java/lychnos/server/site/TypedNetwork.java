package lychnos.server.site;

import java.util.ArrayList;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.function.Function;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.address.Prefix;
import lychnos.core.kind.KindReader;
import lychnos.core.name.Hostname;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.text.PrepareText;

/** A network as it was typed, read; every wrong field is named, not only the first. */
final class TypedNetwork {

    private static final int MOST_SERVERS = 8;

    private final List<FieldFault> faults;
    final List<AddressRange> ranges = new ArrayList<>();
    final String name;
    final Prefix prefix;
    final Address gateway;
    final Integer vlan;
    final String domain;
    final List<String> nameServers;
    final List<String> timeServers;
    final String purpose;
    final String segment;
    final String realm;
    final Integer mtu;
    final boolean permanent;

    /** @param faults what single values of it have; more is added */
    TypedNetwork(NetworkDefinitions.NetworkStatement statement, List<FieldFault> faults) {
        this.faults = faults;
        name = field("name", statement.name(), TypedNetwork::name);
        prefix = field("prefix", statement.prefix(), Prefix::parse);
        gateway = blank(statement.gateway()) ? null : field("gateway", statement.gateway(), Address::parse);
        vlan = statement.vlan();
        purpose = blank(statement.purpose()) ? "management" : statement.purpose();
        if (!KindReader.PURPOSES.contains(purpose)) {
            faults.add(new FieldFault(
                    "purpose", PrepareText.NETWORK_PURPOSE.said(String.join(", ", KindReader.PURPOSES))));
        }
        segment = blank(statement.segment()) ? "" : statement.segment().strip();
        realm = blank(statement.realm())
                ? Sites.REALM
                : statement.realm().strip().toLowerCase(Locale.ROOT);
        mtu = statement.mtu();
        permanent = Boolean.TRUE.equals(statement.permanent());
        domain = field("domain", statement.domain(), text -> Hostname.requireDomain(text.toLowerCase(Locale.ROOT)));
        nameServers = servers("nameServers", statement.nameServers(), text -> Address.parse(text)
                .toString());
        timeServers = servers("timeServers", statement.timeServers(), TypedNetwork::timeServer);
        List<NetworkDefinitions.RangeText> texts = statement.ranges() == null ? List.of() : statement.ranges();
        if (texts.size() <= NetworkDefinitions.NetworkStatement.MOST_RANGES) {
            for (int i = 0; i < texts.size(); i++) {
                range(i, texts.get(i));
            }
            overlaps();
        }
        refuseGateway();
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
    }

    private void refuseGateway() {
        if (prefix != null
                && gateway != null
                && prefix.length() == prefix.network().family().bits()) {
            faults.add(new FieldFault("gateway", PrepareText.NETWORK_OF_A_SINGLE_ADDRESS_HAS_NO_GATEWAY.said()));
        } else if (prefix != null && gateway != null && !prefix.hosts().contains(gateway)) {
            faults.add(new FieldFault("gateway", PrepareText.IS_NOT_A_HOST_ADDRESS.said(gateway, prefix)));
        }
    }

    private static boolean blank(String text) {
        return text == null || text.isBlank();
    }

    private static String name(String text) {
        if (text.length() > 80 || text.chars().anyMatch(Character::isISOControl)) {
            throw new IllegalArgumentException(PrepareText.NAME_HAS_AT_MOST_80_CHARACTERS.text());
        }
        return text;
    }

    private static String timeServer(String text) {
        return Address.tryParse(text)
                .map(Address::toString)
                .orElseGet(() -> Hostname.requireDomain(text.toLowerCase(Locale.ROOT)));
    }

    private <T> T field(String field, String text, Function<String, T> parser) {
        if (blank(text)) {
            faults.add(new FieldFault(field, PrepareText.IS_MISSING.said()));
            return null;
        }
        try {
            return parser.apply(text.strip());
        } catch (IllegalArgumentException e) {
            faults.add(new FieldFault(field, e.getMessage()));
            return null;
        }
    }

    private List<String> servers(String field, List<String> texts, Function<String, String> parser) {
        LinkedHashSet<String> servers = new LinkedHashSet<>();
        for (String text : texts == null ? List.<String>of() : texts) {
            if (!blank(text)) {
                String server = field(field, text, parser);
                if (server != null) {
                    servers.add(server);
                }
            }
        }
        if (servers.size() > MOST_SERVERS) {
            faults.add(new FieldFault(field, PrepareText.AT_MOST_SERVERS.said(MOST_SERVERS)));
        }
        return List.copyOf(servers);
    }

    private void range(int index, NetworkDefinitions.RangeText text) {
        String field = "ranges." + index;
        if (!List.of(AddressRange.POOL, AddressRange.KEPT, AddressRange.DHCP).contains(text.purpose())) {
            faults.add(new FieldFault(field, PrepareText.RANGE_IS_A_POOL.said()));
            return;
        }
        AddressRun run = field(field, expand(text.run()), AddressRun::parse);
        if (run == null) {
            return;
        }
        if (prefix != null && !prefix.contains(run)) {
            faults.add(new FieldFault(field, PrepareText.REACHES_PAST.said(run, prefix)));
            return;
        }
        AddressRange range = new AddressRange();
        range.purpose = text.purpose();
        range.first = run.first();
        range.last = run.last();
        range.note = text.note() == null ? "" : text.note().strip();
        ranges.add(range);
    }

    /** {@code .101-.180} is taken to lie in the prefix, and {@code 101-180} alike. */
    private String expand(String text) {
        boolean brief = text != null && text.strip().matches("\\.?[0-9]{1,3}(\\s*[-–]\\s*\\.?[0-9]{1,3})?");
        if (prefix == null || !prefix.network().isV4() || !brief) {
            return text;
        }
        String base = prefix.network().toString();
        String last = text.strip();
        return base.substring(0, base.lastIndexOf('.')) + (last.startsWith(".") ? last : "." + last);
    }

    private void overlaps() {
        for (int i = 0; i < ranges.size(); i++) {
            for (int j = 0; j < i; j++) {
                if (ranges.get(i).run().overlaps(ranges.get(j).run())
                        && ranges.get(i).purpose.equals(ranges.get(j).purpose)) {
                    faults.add(new FieldFault(
                            "ranges." + i,
                            PrepareText.RANGES_OVERLAP.said(
                                    ranges.get(i).run(), ranges.get(j).run())));
                }
            }
        }
    }

    void into(Network network) {
        network.name = name;
        network.prefix = prefix;
        network.gateway = gateway;
        network.vlan = vlan;
        network.domain = domain;
        network.nameServers = nameServers;
        network.timeServers = timeServers;
        network.purpose = purpose;
        network.segment = segment;
        network.mtu = mtu;
        network.permanent = permanent;
    }
}
