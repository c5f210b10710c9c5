package lychnos.server.configure.bench;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.kind.KindReader;
import lychnos.server.configure.bench.ServicePorts.ServicePort;
import lychnos.server.configure.bench.ServicePorts.ServicePortState;
import lychnos.wire.fault.WireFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.Test;

/** A laptop at a service port: set right, set wrong, plugged into another port, or not able to say. */
class ServicePortsTest {

    private static final ServicePort PORT =
            ServicePort.of(KindReader.shipped("index-appliance")).orElseThrow();

    private final Vantage laptop = mock(Vantage.class);

    private ServicePortState from(String source, PortState state) throws WireFault {
        when(laptop.name()).thenReturn("rack-laptop");
        when(laptop.source(PORT.address()))
                .thenReturn(Optional.ofNullable(source).map(Address::parse));
        when(laptop.port(eq(PORT.address()), eq(80), any())).thenReturn(state);
        return ServicePorts.tryFrom(laptop, PORT).state();
    }

    @Test
    void theAddressAndThePortAreThoseOfTheFirstPage() {
        assertEquals("10.47.254.1 80 10.47.254.2/24", PORT.address() + " " + PORT.port() + " " + PORT.laptop());
        assertTrue(ServicePort.of(KindReader.shipped("block-array")).isEmpty());
        assertTrue(ServicePort.of(KindReader.shipped("access-appliance")).isEmpty(), "no laptop is set for it");
    }

    @Test
    void aLaptopInTheSubnetReachesIt() throws WireFault {
        assertEquals(ServicePortState.ANSWERS, from("10.47.254.2", PortState.OPEN));
        assertEquals(ServicePortState.ANSWERS, from("10.47.254.77", PortState.OPEN), "any address of the subnet");
    }

    @Test
    void aLaptopInTheSubnetWithoutAnAnswerHasTheWrongCable() throws WireFault {
        assertEquals(ServicePortState.SILENT, from("10.47.254.2", PortState.SILENT));
    }

    @Test
    void aLaptopInAnotherSubnetTriesNothing() throws WireFault {
        assertEquals(ServicePortState.OTHER_SUBNET, from("10.40.8.7", PortState.OPEN));
        assertEquals(ServicePortState.OTHER_SUBNET, from(null, PortState.OPEN), "no route");
        verify(laptop, never()).port(any(), eq(80), any());
    }

    @Test
    void aVantagePointThatMayNotTryItSaysSo() throws WireFault {
        when(laptop.source(PORT.address())).thenThrow(new WireFault(WireFault.Kind.NOT_DECLARED, "not in --only"));
        assertEquals(
                ServicePortState.NOT_TRIED, ServicePorts.tryFrom(laptop, PORT).state());
    }
}
