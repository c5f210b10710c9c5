package lychnos.core.kind;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import lychnos.core.dialogue.Look;
import lychnos.core.dialogue.Template;
import lychnos.core.proof.OwnValue;

/**
 * What is proven.
 *
 * @param port the TCP port of the management service
 * @param ports the other TCP ports
 * @param community what the maker's SNMP agent answers to and must not; empty where there is none
 * @param ssh whether SSH answers as well
 * @param signsIn who signs in there to look at what it keeps; empty where nobody does
 * @param presence whether it answers the presence ping of RMCP, or must not
 * @param iscsi roles whose addresses are iSCSI portals
 * @param nfs roles whose addresses serve NFS
 * @param roles by role, the ports of its address, in place of {@code open} and {@code shut}
 * @param shows what the output of the commands that are sent again tells of the machine, and the pattern that finds it
 * @param webForm how one signs in on its web page, for the factory logins that must be refused there
 */
public record KindChecks(
        int port,
        Ports ports,
        String community,
        boolean ssh,
        Optional<SignsIn> signsIn,
        Expectation presence,
        List<String> iscsi,
        List<String> nfs,
        Map<String, Ports> roles,
        Map<OwnValue, Look> shows,
        Optional<WebForm> webForm) {

    private static final int SSH = 22;

    /** TCP ports that must answer besides. */
    public List<Integer> open() {
        return ports.open;
    }

    /** TCP ports that must not answer. */
    public List<Integer> shut() {
        return ports.shut;
    }

    /** The ports that are said for the address of a role, such as {@code service 2}; empty where none are. */
    public Optional<Ports> at(String role) {
        return Optional.ofNullable(roles.getOrDefault(role, roles.get(role.replaceFirst("\\d+$", "{i}"))));
    }

    KindChecks withPort(int other) {
        return new KindChecks(other, ports, community, ssh, signsIn, presence, iscsi, nfs, roles, shows, webForm);
    }

    KindChecks withOpen(List<Integer> other) {
        return with(new Ports(other, ports.shut, ports.restricted));
    }

    KindChecks withPresence(Expectation other) {
        return new KindChecks(port, ports, community, ssh, signsIn, other, iscsi, nfs, roles, shows, webForm);
    }

    KindChecks withShut(List<Integer> other) {
        return with(new Ports(ports.open, other, ports.restricted));
    }

    KindChecks withCommunity(String other) {
        return new KindChecks(port, ports, other, ssh, signsIn, presence, iscsi, nfs, roles, shows, webForm);
    }

    private KindChecks with(Ports other) {
        return new KindChecks(port, other, community, ssh, signsIn, presence, iscsi, nfs, roles, shows, webForm);
    }

    /** Whether it must greet over SSH, or must not answer there. */
    Expectation sshExpectation() {
        return ssh ? Expectation.EXPECTED : ports.shut.contains(SSH) ? Expectation.FORBIDDEN : Expectation.NOT_CHECKED;
    }

    KindChecks withSsh(Expectation other) {
        if (other == sshExpectation()) {
            return this;
        }
        List<Integer> closed = Stream.concat(
                        ports.shut.stream().filter(each -> each != SSH),
                        other == Expectation.FORBIDDEN ? Stream.of(SSH) : Stream.empty())
                .toList();
        boolean greets = other == Expectation.EXPECTED;
        return new KindChecks(
                port,
                new Ports(ports.open, closed, greets ? ports.restricted : List.of()),
                community,
                greets,
                greets ? signsIn : Optional.empty(),
                presence,
                iscsi,
                nfs,
                roles,
                greets ? shows : Map.of(),
                webForm);
    }

    /**
     * Which TCP ports must answer at an address.
     *
     * @param open those that must answer
     * @param shut those that must not
     * @param restricted those that must answer some sources only
     */
    public record Ports(List<Integer> open, List<Integer> shut, List<Restricted> restricted) {}

    /**
     * A TCP port that answers some sources and no others.
     *
     * @param from the name of the fact that says which network they lie in
     */
    public record Restricted(int port, String from) {}

    /**
     * An account.
     *
     * @param phrase the name of the password that is ours
     * @param also further accounts that must be let in, such as one that may only read; none of them has others
     */
    public record SignsIn(Template user, String phrase, List<SignsIn> also) {}

    /**
     * The form of a web page that is signed in to (HTML, application/x-www-form-urlencoded).
     *
     * @param path where it is sent to
     * @param user the name of the field of the user
     * @param phrase the name of the field of the password
     * @param admitted what a page shows to people who are signed in
     * @param refused what it shows when it lets nobody in
     */
    public record WebForm(String path, String user, String phrase, Look admitted, Look refused) {}
}
