package lychnos.core.sheet;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;

/**
 * What one member's dialogue is answered with, as it was prepared and placed.
 *
 * @param member its label; empty where the unit is a single machine
 * @param unitName what the unit is called
 * @param seats the unit's addresses, the one that it is managed at first
 * @param site what the site states once, such as {@code mail-relay}
 * @param told what members' lines have told, such as {@code left.code}
 * @param passwords by the names of their facts, and {@code factory.phrase}
 * @param terms what the site has agreed to of the terms of its maker
 */
public record MemberValues(
        UnitFacts known,
        String member,
        String unitName,
        List<Seat> seats,
        Map<String, String> site,
        Map<String, String> told,
        Map<String, Secret> passwords,
        AgreedTerms terms)
        implements Values {

    /** What a member without an address of its own leans on too. */
    private static final Set<String> SHARED =
            Set.of("domain", "name-server-1", "name-server-2", "time-server-1", "time-server-2", "time-server-3");

    private static final Set<String> OWN = Set.of("address", "address-6", "name", "member-number");

    /** An address of the unit and what it leans on. */
    public record Seat(String role, Address address, String hostName, String domain, Net net) {}

    /** The network of an address. */
    public record Net(
            String name,
            Prefix prefix,
            Address gateway,
            Integer vlan,
            List<String> nameServers,
            List<String> timeServers) {}

    /** A value and where it comes from, for people. */
    public record Sourced(String value, String source) {}

    @Override
    public Optional<String> text(String name) {
        return sourced(name).map(Sourced::value);
    }

    /** A value with its source. */
    public Optional<Sourced> sourced(String name) {
        if (told.containsKey(name)) {
            return Optional.of(new Sourced(
                    told.get(name),
                    SheetText.READ_ON_THE_LINE.text(
                            name.substring(0, name.lastIndexOf('.')).replace('-', ' '))));
        }
        if (site.containsKey(name)) {
            return Optional.of(new Sourced(site.get(name), SheetText.DEFINED_FOR_SITE.text()));
        }
        return given(name).or(() -> ofRole(name)).or(() -> known.fact(member, name)
                .or(() -> known.fact("", name))
                .map(fact -> new Sourced(fact.value(), source(fact.source()))));
    }

    private static String source(Fact.Source source) {
        return switch (source) {
            case TYPED -> SheetText.ENTERED_IN_PREPARE.text();
            case IMPORTED -> SheetText.FROM_IMPORTED_TABLE.text();
            case LABEL -> SheetText.FROM_LABEL.text();
            case SITE -> SheetText.SITE_POLICY.text();
            case KIND -> SheetText.DEFAULT_OF_KIND.text();
            case DERIVED -> "derived";
        };
    }

    /** The seat of this member; a single machine's first one. */
    private Optional<Seat> own() {
        return seats.stream()
                .filter(seat -> !member.isEmpty() && seat.role().equals(member))
                .findFirst()
                .or(() -> member.isEmpty() ? seats.stream().findFirst() : Optional.empty());
    }

    private Optional<Seat> six(String role) {
        return seats.stream()
                .filter(seat -> seat.role().equals(role) && !seat.address().isV4())
                .findFirst();
    }

    private Optional<Sourced> given(String name) {
        if (name.equals("unit")) {
            return Optional.of(new Sourced(unitName, SheetText.OWN_NAME.text()));
        }
        if (name.equals("factory.user")) {
            return known.fact(member, Kind.OWN_USER)
                    .map(own -> new Sourced(own.value(), SheetText.OWN_LABEL.text()))
                    .or(() -> Optional.of(new Sourced(known.kind().factory().user(), SheetText.FACTORY_LOGIN.text())));
        }
        if (name.startsWith("factory.") && name.endsWith(".user")) {
            return known.kind().logins().stream()
                    .filter(login -> name.equals("factory." + login.way() + ".user"))
                    .findFirst()
                    .map(login -> new Sourced(login.login().user(), SheetText.FACTORY_LOGIN.text()));
        }
        if (name.endsWith("-6")) {
            return own().flatMap(seat -> six(seat.role()))
                    .flatMap(seat -> ofSeat(seat, name.substring(0, name.length() - 2)));
        }
        if (name.equals("member-number")) {
            return Optional.of(new Sourced(
                    String.valueOf(known.kind().members().labels().indexOf(member) + 1),
                    SheetText.MEMBER_NUMBER.text()));
        }
        return own().flatMap(seat -> ofSeat(seat, name))
                .or(() -> SHARED.contains(name)
                        ? seats.stream().findFirst().flatMap(seat -> ofSeat(seat, name))
                        : Optional.empty());
    }

    private static Optional<Sourced> ofSeat(Seat seat, String name) {
        Net net = seat.net();
        String from = SheetText.NETWORK.text(net.name());
        return switch (name) {
            case "address" ->
                Optional.of(new Sourced(seat.address().toString(), SheetText.ALLOCATED_IN.text(net.name())));
            case "length" -> Optional.of(new Sourced(String.valueOf(net.prefix().length()), from));
            case "mask" ->
                net.prefix().network().isV4()
                        ? Optional.of(new Sourced(net.prefix().subnetMask().toString(), from))
                        : Optional.empty();
            case "gateway" -> Optional.ofNullable(net.gateway()).map(gateway -> new Sourced(gateway.toString(), from));
            case "vlan" -> Optional.ofNullable(net.vlan()).map(vlan -> new Sourced(vlan.toString(), from));
            case "name" -> Optional.of(new Sourced(seat.hostName(), SheetText.NAME_PATTERN.text()));
            case "domain" -> Optional.of(new Sourced(seat.domain(), from));
            case "name-server-1", "name-server-2" ->
                at(net.nameServers(), name).map(server -> new Sourced(server, from));
            case "time-server-1", "time-server-2", "time-server-3" ->
                at(net.timeServers(), name).map(server -> new Sourced(server, from));
            default -> Optional.empty();
        };
    }

    private static Optional<String> at(List<String> servers, String name) {
        int index = name.charAt(name.length() - 1) - '1';
        return index < servers.size() ? Optional.of(servers.get(index)) : Optional.empty();
    }

    /**
     * {@code shared.address} and {@code left.name}; of a role that each member has, {@code port-1.address} is the
     * member's own.
     */
    private Optional<Sourced> ofRole(String name) {
        int dot = name.lastIndexOf('.');
        if (dot < 0) {
            return Optional.empty();
        }
        String named = name.substring(0, dot).replace('-', ' ');
        String role = seats.stream()
                .map(Seat::role)
                .filter((member + " " + named)::equals)
                .findFirst()
                .orElse(named);
        return seats.stream()
                .filter(seat -> seat.role().equals(role))
                .findFirst()
                .flatMap(seat -> switch (name.substring(dot + 1)) {
                    case "address-6" ->
                        six(role).map(own -> new Sourced(own.address().toString(), SheetText.ALLOCATED_FOR.text(role)));
                    case "length", "mask", "gateway" -> ofSeat(seat, name.substring(dot + 1));
                    case "address" ->
                        Optional.of(new Sourced(seat.address().toString(), SheetText.ALLOCATED_FOR.text(role)));
                    case "name" -> Optional.of(new Sourced(seat.hostName(), SheetText.NAME_PATTERN.text()));
                    default -> Optional.empty();
                });
    }

    /**
     * Whether a value of this name is told from that of every other member: an address, a name or a number of its own,
     * or what is on its label.
     */
    public boolean tellsMembersApart(String name) {
        if (member.isEmpty()) {
            return false;
        }
        int dot = name.lastIndexOf('.');
        String behind = name.substring(dot + 1);
        if (dot >= 0) {
            String role = member + " " + name.substring(0, dot).replace('-', ' ');
            return OWN.contains(behind)
                    && seats.stream().anyMatch(seat -> seat.role().equals(role));
        }
        return OWN.contains(name)
                || known.kind().facts().stream()
                        .anyMatch(fact -> fact.name().equals(name)
                                && fact.scope() == FactSpec.Scope.MEMBER
                                && (fact.type() == FactType.SERIAL || fact.type() == FactType.MAC));
    }

    @Override
    public Optional<Secret> secret(String name) {
        return Optional.ofNullable(passwords.get(name));
    }

    /**
     * Without those that the maker ships: they stand in every manual, and blanking them blanks prompts that happen to
     * have the same word.
     */
    @Override
    public Collection<Secret> secrets() {
        return passwords.entrySet().stream()
                .filter(each -> !each.getKey().startsWith("factory."))
                .map(Map.Entry::getValue)
                .toList();
    }
}
