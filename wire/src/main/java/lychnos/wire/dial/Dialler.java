package lychnos.wire.dial;

import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.NetworkInterface;
import java.net.SocketException;
import java.net.UnknownHostException;
import java.util.Collection;
import java.util.function.BooleanSupplier;
import java.util.function.Predicate;
import java.util.function.Supplier;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;

/**
 * The one door to the network. An address passes only if it lies in a network that somebody declared; in a lab it must
 * besides be a loopback address, unless this process stands in the lab's own namespace, which has no way out.
 */
public final class Dialler {

    /** The interface that exists only inside the lab's namespace. */
    public static final String LAB_INTERFACE = "lych-jump";

    /** Exchanges a second in one network, and how many after a pause. */
    private static final int PER_SECOND = 2000;

    private static final int AT_ONCE = 500;

    private static final Prefix LOOPBACK_V4 = Prefix.parse("127.0.0.0/8");
    private static final Prefix LOOPBACK_V6 = Prefix.parse("::1/128");

    private final Predicate<Address> declared;
    private final boolean lab;
    private final BooleanSupplier insideLab;
    private final Pace pace = new Pace(PER_SECOND, AT_ONCE);

    /**
     * @param declared the networks that may be reached, asked at each call
     * @param lab whether this is a lab or a test, where nothing may leave the machine
     */
    public Dialler(Supplier<? extends Collection<Prefix>> declared, boolean lab) {
        this(declared, lab, Dialler::labInterfaceExists);
    }

    Dialler(Supplier<? extends Collection<Prefix>> declared, boolean lab, BooleanSupplier insideLab) {
        this(address -> declared.get().stream().anyMatch(prefix -> prefix.contains(address)), lab, insideLab);
    }

    /**
     * One that asks somebody who knows.
     *
     * @param declared whether an address lies in a network that may be reached, asked at each call
     */
    public static Dialler asking(Predicate<Address> declared, boolean lab) {
        return new Dialler(declared, lab, Dialler::labInterfaceExists);
    }

    private Dialler(Predicate<Address> declared, boolean lab, BooleanSupplier insideLab) {
        this.declared = declared;
        this.lab = lab;
        this.insideLab = insideLab;
    }

    /**
     * Lets an address pass, in its turn: no network is flooded.
     *
     * @throws WireFault of kind {@link WireFault.Kind#NOT_DECLARED} if it may not be reached
     */
    public InetSocketAddress admit(Address address, int port) throws WireFault {
        boolean loopback = LOOPBACK_V4.contains(address) || LOOPBACK_V6.contains(address);
        if (lab && !loopback && !insideLab.getAsBoolean()) {
            throw new WireFault(WireFault.Kind.NOT_DECLARED, WireText.NOT_ON_THIS_MACHINE.text(address));
        }
        if (!declared.test(address)) {
            throw new WireFault(WireFault.Kind.NOT_DECLARED, WireText.NOT_IN_A_NETWORK.text(address));
        }
        pace.enter(address);
        try {
            return new InetSocketAddress(InetAddress.getByAddress(address.toBytes()), port);
        } catch (UnknownHostException e) {
            throw new IllegalStateException("an address has a legal length", e);
        }
    }

    private static boolean labInterfaceExists() {
        try {
            return NetworkInterface.getByName(LAB_INTERFACE) != null;
        } catch (SocketException e) {
            return false;
        }
    }
}
