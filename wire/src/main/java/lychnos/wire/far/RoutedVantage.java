package lychnos.wire.far;

import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import lychnos.core.address.Address;
import lychnos.core.dialogue.LineSettings;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.console.LineAddress;
import lychnos.wire.console.LineEvents;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.vantage.Vantage;

/** Several places as one: each call goes to the place that is for the address in it. */
public final class RoutedVantage extends CalledVantage {

    /** Stands between the path of a serial device and the name of the place whose device it is. */
    public static final char OF = '@';

    private final Vantage here;
    private final Function<Address, Vantage> byAddress;
    private final Function<String, Vantage> byName;

    /**
     * Puts places together.
     *
     * @param here what is asked for a name, and whether it hears silence, where no address is given
     * @param byName for serial devices; gives null for a name that there is not
     */
    public RoutedVantage(Vantage here, Function<Address, Vantage> byAddress, Function<String, Vantage> byName) {
        this.here = here;
        this.byAddress = byAddress;
        this.byName = byName;
    }

    @Override
    public String name() {
        return here.name();
    }

    @Override
    public boolean hearsSilence() {
        return here.hearsSilence();
    }

    @Override
    public Vantage at(Address address) {
        return byAddress.apply(address);
    }

    @Override
    <T> T carryOut(VantageCall<T> call) throws WireFault {
        return call.on(at(call.address()));
    }

    @Override
    public ConsoleLine line(LineAddress address, LineSettings settings, LineEvents events) throws WireFault {
        if (address.address() != null) {
            return at(address.address()).line(address, settings, events);
        }
        int at = address.device().indexOf(OF);
        return at < 0
                ? here.line(address, settings, events)
                : named(address.device().substring(at + 1))
                        .line(LineAddress.device(address.device().substring(0, at)), settings, events);
    }

    private Vantage named(String name) throws WireFault {
        Vantage place = byName.apply(name);
        if (place == null) {
            throw new WireFault(WireFault.Kind.NO_VANTAGE, LinkText.NO_VANTAGE_POINT.text(name));
        }
        return place;
    }

    @Override
    public Map<Address, Echo> sweep(Collection<Address> addresses, Duration timeout) throws WireFault {
        Map<Vantage, List<Address>> places = new LinkedHashMap<>();
        for (Address each : addresses) {
            places.computeIfAbsent(at(each), none -> new ArrayList<>()).add(each);
        }
        Map<Address, Echo> all = new HashMap<>();
        for (Map.Entry<Vantage, List<Address>> place : places.entrySet()) {
            try {
                all.putAll(place.getKey().sweep(place.getValue(), timeout));
            } catch (WireFault e) {
                if (e.kind() != WireFault.Kind.NO_VANTAGE) {
                    throw e;
                }
                // nothing is known of the targets of a place that is not linked; the others are asked anyway
            }
        }
        return all;
    }
}
