package lychnos.server.site;

import jakarta.enterprise.context.ApplicationScoped;
import java.net.InetAddress;
import java.net.InterfaceAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.address.Reach;
import lychnos.core.address.Reach.Refused;
import lychnos.server.LychnosConfig;
import lychnos.server.text.PrepareText;
import org.eclipse.microprofile.config.inject.ConfigProperty;
import org.jboss.logging.Logger;

/** What the operator of this server has allowed it to reach. Nobody who signs in can change that. */
@ApplicationScoped
public class OperatorReach {

    private static final Logger LOG = Logger.getLogger(OperatorReach.class);
    private static final Pattern HOST_OF_URL = Pattern.compile("jdbc:postgresql://(\\[[^]]+]|[^/:,]+)");
    private static final String HOW =
            "The operator of this server sets it with ./lychnos start --reach PREFIX,… (lychnos.reach.machines).";

    private final boolean lab;
    private final Reach machines;
    private final Reach notices;

    OperatorReach(
            LychnosConfig config, @ConfigProperty(name = "quarkus.datasource.jdbc.url") Optional<String> database) {
        lab = config.lab();
        List<Prefix> allowed = Reach.read(config.reach().machines().orElse(List.of()));
        List<Prefix> besides = Reach.read(config.reach().notices().orElse(List.of()));
        List<Address> own = own(database.orElse(""));
        machines = new Reach(allowed, own);
        notices = new Reach(Stream.concat(allowed.stream(), besides.stream()).toList(), own);
        if (!lab && allowed.isEmpty()) {
            LOG.warn("No network is allowed. " + HOW);
        }
    }

    private static List<Address> own(String database) {
        List<Address> own = new ArrayList<>();
        try {
            for (NetworkInterface each : Collections.list(NetworkInterface.getNetworkInterfaces())) {
                each.getInterfaceAddresses().stream()
                        .map(InterfaceAddress::getAddress)
                        .forEach(address -> add(own, address));
            }
            Matcher host = HOST_OF_URL.matcher(database);
            if (host.find()) {
                for (InetAddress address : InetAddress.getAllByName(host.group(1))) {
                    add(own, address);
                }
            }
        } catch (SocketException | UnknownHostException e) {
            LOG.warnf("This server's own addresses are unknown (%s), so they are not refused.", e.getMessage());
        }
        return own;
    }

    private static void add(List<Address> own, InetAddress address) {
        Address.tryParse(address.getHostAddress().replaceFirst("%.*", "")).ifPresent(own::add);
    }

    /** Whether the operator has allowed anything at all. */
    public boolean isSet() {
        return lab || !machines.allowed().isEmpty();
    }

    /** Whether an address may be reached, where somebody has defined it. */
    boolean admits(Address address) {
        return lab || machines.refuses(address).isEmpty();
    }

    /** The same for a webhook or a mail relay. */
    boolean admitsForNotices(Address address) {
        return lab || notices.refuses(address).isEmpty();
    }

    /** Why a network may not be defined, as a sentence; empty where it may. */
    public Optional<String> refuses(Prefix network) {
        return lab ? Optional.empty() : machines.refuses(network).map(why -> sentence(why, network.toString()));
    }

    /** Why a service's address may not be defined, as a sentence; empty where it may. */
    public Optional<String> refuses(Address address, boolean takesNotices) {
        return lab
                ? Optional.empty()
                : (takesNotices ? notices : machines).refuses(address).map(why -> sentence(why, address.toString()));
    }

    private static String sentence(Refused why, String what) {
        return switch (why) {
            case NOTHING_ALLOWED -> PrepareText.SERVER_MAY_REACH_NO_NETWORK.text(HOW);
            case NOT_ALLOWED -> PrepareText.LIES_OUTSIDE_OF_WHAT_THIS_SERVER_MAY_REACH.text(what, HOW);
            case SPECIAL -> PrepareText.IS_LOOPBACK_LINK_LOCAL.text(what);
            case OWN -> PrepareText.IS_THIS_SERVER_OR_ITS_DATABASE.text(what);
            case TOO_LARGE -> PrepareText.IS_LARGER_THAN_ANY_MANAGEMENT_NETWORK.text(what);
        };
    }
}
