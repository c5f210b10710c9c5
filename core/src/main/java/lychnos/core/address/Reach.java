package lychnos.core.address;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;

/**
 * What a server may reach at all, as its operator has set it: prefixes that are allowed, and nothing while there are
 * none. Loopback, link-local, multicast and other special addresses, the server's own and its database's, are reached
 * only where the operator allows them by a prefix that lies among them; a network shorter than /12 (IPv6: /32) only
 * where exactly that one is allowed.
 *
 * @param allowed the operator's prefixes
 * @param own addresses of the server itself and of its database
 */
public record Reach(List<Prefix> allowed, List<Address> own) {

    private static final int SHORTEST_V4 = 12;
    private static final int SHORTEST_V6 = 32;

    /**
     * This host and loopback (RFC 1122, RFC 4291), link-local (RFC 3927, RFC 4291), multicast (RFC 5771, RFC 4291),
     * reserved (RFC 1112).
     */
    private static final List<Prefix> SPECIAL = List.of(
                    "0.0.0.0/8",
                    "127.0.0.0/8",
                    "169.254.0.0/16",
                    "224.0.0.0/4",
                    "240.0.0.0/4",
                    "::/127",
                    "fe80::/10",
                    "ff00::/8")
            .stream()
            .map(Prefix::parse)
            .toList();

    /** Why something may not be reached. */
    public enum Refused {
        /** The operator has allowed nothing yet. */
        NOTHING_ALLOWED,
        /** It lies outside of what is allowed, or reaches beyond it. */
        NOT_ALLOWED,
        /** It is loopback, link-local, multicast or reserved. */
        SPECIAL,
        /** It is the server's own address or its database's. */
        OWN,
        /** It is larger than any management network. */
        TOO_LARGE
    }

    public Reach {
        allowed = List.copyOf(allowed);
        own = List.copyOf(own);
    }

    /**
     * Reads prefixes with commas between, as they are written in the configuration.
     *
     * @throws MalformedAddress for one that is none
     */
    public static List<Prefix> read(List<String> texts) {
        List<Prefix> prefixes = new ArrayList<>();
        for (String text : texts) {
            if (!text.isBlank()) {
                prefixes.add(Prefix.parse(text.strip()));
            }
        }
        return prefixes;
    }

    /** Why an address may not be reached; empty where it may. */
    public Optional<Refused> refuses(Address address) {
        return refuses(new Prefix(address, address.family().bits()));
    }

    /** Why a network may not be defined; empty where it may. */
    public Optional<Refused> refuses(Prefix network) {
        if (allowed.isEmpty()) {
            return Optional.of(Refused.NOTHING_ALLOWED);
        }
        List<Prefix> around =
                allowed.stream().filter(prefix -> contains(prefix, network)).toList();
        if (around.isEmpty()) {
            return Optional.of(Refused.NOT_ALLOWED);
        }
        for (Prefix special : SPECIAL) {
            if (special.overlaps(network) && around.stream().noneMatch(prefix -> contains(special, prefix))) {
                return Optional.of(Refused.SPECIAL);
            }
        }
        boolean single = network.length() == network.network().family().bits();
        if (single
                && own.contains(network.network())
                && !allowed.contains(network)
                && around.stream()
                        .noneMatch(prefix -> SPECIAL.stream().anyMatch(special -> contains(special, prefix)))) {
            return Optional.of(Refused.OWN);
        }
        boolean large = network.length() < (network.network().isV4() ? SHORTEST_V4 : SHORTEST_V6);
        return large && !allowed.contains(network) ? Optional.of(Refused.TOO_LARGE) : Optional.empty();
    }

    private static boolean contains(Prefix outer, Prefix inner) {
        return outer.length() <= inner.length() && outer.contains(inner.network());
    }
}
