package lychnos.wire.dial;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.wire.fault.WireFault;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class DiallerTest {

    private static final List<Prefix> DECLARED =
            List.of(Prefix.parse("10.40.8.0/24"), Prefix.parse("127.40.8.0/24"), Prefix.parse("::1/128"));

    /**
     * Outside of the lab's namespace a lab reaches loopback alone; nowhere does anything reach what is not declared.
     */
    @ParameterizedTest
    @CsvSource({
        "10.40.8.7,   true,  true,  true",
        "10.40.8.7,   true,  false, false",
        "10.40.8.7,   false, false, true",
        "10.40.9.7,   true,  true,  false",
        "10.40.9.7,   false, false, false",
        "127.40.8.7,  true,  false, true",
        "127.0.0.1,   true,  false, false",
        "::1,         true,  false, true",
        "::ffff:10.40.8.7, true, true, false",
    })
    void letsPass(String address, boolean lab, boolean insideLab, boolean passes) throws WireFault {
        Dialler dialler = new Dialler(() -> DECLARED, lab, () -> insideLab);
        if (passes) {
            assertEquals(443, dialler.admit(Address.parse(address), 443).getPort());
        } else {
            WireFault fault = assertThrows(WireFault.class, () -> dialler.admit(Address.parse(address), 443));
            assertEquals(WireFault.Kind.NOT_DECLARED, fault.kind());
        }
    }

    @Test
    void aNetworkThatIsNoLongerDeclaredIsShutAtOnce() throws WireFault {
        List<Prefix> declared = new java.util.ArrayList<>(DECLARED);
        Dialler dialler = new Dialler(() -> declared, true, () -> true);
        dialler.admit(Address.parse("10.40.8.7"), 443);
        declared.clear();
        assertThrows(WireFault.class, () -> dialler.admit(Address.parse("10.40.8.7"), 443));
    }
}
