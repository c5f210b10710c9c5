package lychnos.wire.far;

import java.lang.reflect.InvocationHandler;
import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Method;
import java.lang.reflect.Proxy;
import java.time.Duration;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import lychnos.core.address.Address;
import lychnos.core.address.AddressRun;
import lychnos.core.fact.Mac;
import lychnos.wire.console.LineAddress;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpCall;
import lychnos.wire.icmp.Echo;
import lychnos.wire.vantage.Vantage;

/** Several places as one: each call goes to the place that is for the address in it. */
public final class RoutedVantage implements InvocationHandler {

    /** Stands between the path of a serial device and the name of the place whose device it is. */
    public static final char OF = '@';

    private final Vantage here;
    private final Function<Address, Vantage> byAddress;
    private final Function<String, Vantage> byName;

    private RoutedVantage(Vantage here, Function<Address, Vantage> byAddress, Function<String, Vantage> byName) {
        this.here = here;
        this.byAddress = byAddress;
        this.byName = byName;
    }

    /**
     * Puts places together.
     *
     * @param here what is asked for a name, and whether it hears silence, where no address is given
     * @param byName for serial devices; gives null for a name that there is not
     */
    public static Vantage of(Vantage here, Function<Address, Vantage> byAddress, Function<String, Vantage> byName) {
        return (Vantage) Proxy.newProxyInstance(
                Vantage.class.getClassLoader(),
                new Class<?>[] {Vantage.class},
                new RoutedVantage(here, byAddress, byName));
    }

    @Override
    public Object invoke(Object proxy, Method method, Object[] given) throws Throwable {
        if (method.getName().equals("at")) {
            return byAddress.apply((Address) given[0]);
        }
        if (method.getName().equals("equals")) {
            return proxy == given[0];
        }
        if (method.getName().equals("sweep")) {
            return sweep(given[0], (Duration) given[1]);
        }
        Object[] arguments = given;
        Vantage place = here;
        if (given != null && given.length > 0) {
            if (given[0] instanceof LineAddress line && line.protocol() == LineAddress.Protocol.DEVICE) {
                int at = line.device().indexOf(OF);
                place = at < 0 ? here : named(line.device().substring(at + 1));
                arguments = given.clone();
                arguments[0] = at < 0 ? line : LineAddress.device(line.device().substring(0, at));
            } else {
                place = byAddress.apply(address(given));
            }
        }
        try {
            return method.invoke(place, arguments);
        } catch (InvocationTargetException e) {
            throw e.getCause();
        }
    }

    private Vantage named(String name) throws WireFault {
        Vantage place = byName.apply(name);
        if (place == null) {
            throw new WireFault(WireFault.Kind.NO_VANTAGE, "There is no vantage point called " + name + ".");
        }
        return place;
    }

    private static Address address(Object[] given) {
        Object named = given[0] instanceof Mac ? given[1] : given[0];
        if (named instanceof Address address) {
            return address;
        }
        if (named instanceof HttpCall call) {
            return call.address();
        }
        if (named instanceof LineAddress line) {
            return line.address();
        }
        return ((AddressRun) named).first();
    }

    private Map<Address, Echo> sweep(Object addresses, Duration timeout) throws WireFault {
        Map<Vantage, List<Address>> places = new LinkedHashMap<>();
        for (Object each : (Collection<?>) addresses) {
            places.computeIfAbsent(byAddress.apply((Address) each), none -> new ArrayList<>())
                    .add((Address) each);
        }
        Map<Address, Echo> all = new HashMap<>();
        for (Map.Entry<Vantage, List<Address>> place : places.entrySet()) {
            try {
                all.putAll(place.getKey().sweep(place.getValue(), timeout));
            } catch (WireFault e) {
                if (e.kind() != WireFault.Kind.NO_VANTAGE) {
                    throw e;
                }
                // of what a place was to reach that is not linked nothing is said; the others are heard anyway
            }
        }
        return all;
    }
}
