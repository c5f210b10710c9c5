package lychnos.core.place;

import java.util.List;

/**
 * Addresses that one unit needs together in one network, or at the same host number in several.
 *
 * @param roles what each address is for, in the order in which they lie
 * @param networks the purposes of the networks; with more than one, all get the same host numbers
 * @param start where the run may begin
 * @param growth how many addresses behind it are kept free for members to come
 * @param paths how the roles are spread over two paths
 * @param ipv6 whether the same host numbers are taken in the IPv6 network of the same purpose, where there is one
 */
public record Need(List<String> roles, List<String> networks, Start start, int growth, Paths paths, boolean ipv6) {

    /** How two paths share the addresses. */
    public enum Paths {
        /** One path: the roles lie in a row. */
        ONE,
        /**
         * The first half of the roles in the lower half of the network, the rest at the same place in the upper half.
         */
        HALVES,
        /** Even addresses for one path, odd ones for the other: the roles alternate, beginning at an even address. */
        ALTERNATING
    }

    /**
     * Where a run may begin.
     *
     * @param multipleOf its last octet (its host number in IPv6) is a multiple of this; 1 for anywhere
     */
    public record Start(int multipleOf) {

        public static final Start ANYWHERE = new Start(1);

        public Start {
            if (multipleOf < 1 || multipleOf > 256) {
                throw new IllegalArgumentException("a start is a multiple of 1 to 256");
            }
        }

        public static Start onMultipleOf(int number) {
            return new Start(number);
        }
    }

    public Need {
        roles = List.copyOf(roles);
        networks = List.copyOf(networks);
        if (roles.isEmpty() || networks.isEmpty() || growth < 0) {
            throw new IllegalArgumentException("a need has roles and networks, and no negative growth");
        }
        if (paths != Paths.ONE && roles.size() % 2 != 0) {
            throw new IllegalArgumentException("two paths need an even number of roles, not " + roles.size());
        }
    }

    /** One address on its own. */
    public static Need one(String role, String network) {
        return new Need(List.of(role), List.of(network), Start.ANYWHERE, 0, Paths.ONE, false);
    }

    /** How many addresses lie in a row, growth included. */
    public int length() {
        return (paths == Paths.HALVES ? roles.size() / 2 : roles.size()) + growth;
    }
}
