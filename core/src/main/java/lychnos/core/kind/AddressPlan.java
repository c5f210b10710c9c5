package lychnos.core.kind;

import java.util.ArrayList;
import java.util.List;
import lychnos.core.place.Need;

/**
 * One entry under {@code addresses} of a description: the pattern of a {@link Need}, from which a unit of a certain
 * size gets its own.
 *
 * @param roles single roles, or rows of roles that are repeated together for every member
 * @param networks purposes of networks
 * @param times how often a role with {@code {i}} is repeated: a number, or the name of a fact of the unit
 * @param start where it begins
 * @param growth addresses kept free behind it, or {@link #FOR_MEMBERS}
 * @param paths one path or two
 * @param ipv6 whether IPv6 is wanted alike
 */
public record AddressPlan(
        List<List<String>> roles,
        List<String> networks,
        String times,
        Need.Start start,
        int growth,
        Need.Paths paths,
        boolean ipv6) {

    /** Growth: as many addresses as the members that are not there yet would take. */
    public static final int FOR_MEMBERS = -1;

    /** A role that some unit has, with what its name is made of. */
    public record Role(String pattern, int member, int index) {

        /** The role's own name, with the member and the index filled in. */
        public String name(List<String> labels) {
            return pattern.replace("{member}", member > 0 ? labels.get(member - 1) : "")
                    .replace("{i}", String.valueOf(index))
                    .strip();
        }
    }

    /** The roles of a unit with so many members, in order. */
    public List<Role> roles(int members, int times) {
        List<Role> all = new ArrayList<>();
        for (List<String> row : roles) {
            boolean perMember = row.stream().anyMatch(role -> role.contains("{member}"));
            for (int member = 1; member <= (perMember ? members : 1); member++) {
                for (String role : row) {
                    for (int index = 1; index <= (role.contains("{i}") ? times : 1); index++) {
                        all.add(new Role(role, perMember ? member : 0, index));
                    }
                }
            }
        }
        return all;
    }

    private long perMember(int times) {
        return roles.stream()
                .filter(row -> row.stream().anyMatch(role -> role.contains("{member}")))
                .flatMap(List::stream)
                .mapToLong(role -> role.contains("{i}") ? times : 1)
                .sum();
    }

    /** The need of a unit with so many of at most so many members. */
    public Need need(Members kind, int members, int times) {
        int growing = growth == FOR_MEMBERS ? (int) perMember(times) * (kind.most() - members) : growth;
        List<String> names = roles(members, times).stream()
                .map(role -> role.name(kind.labels()))
                .toList();
        return new Need(names, networks, start, growing, paths, ipv6);
    }
}
