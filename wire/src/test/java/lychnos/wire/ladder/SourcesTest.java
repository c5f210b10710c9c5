package lychnos.wire.ladder;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;
import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.never;
import static org.mockito.Mockito.verify;
import static org.mockito.Mockito.when;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.proof.Outcome.Standing;
import lychnos.core.proof.Part;
import lychnos.core.proof.Trouble;
import lychnos.wire.fault.WireFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;
import org.junit.jupiter.api.Test;

/** Ports that answer some sources and no others. */
class SourcesTest {

    private static final Address AT = Address.parse("10.40.9.5");
    private static final Prefix ALLOWED = Prefix.parse("10.40.0.0/16");

    private final List<Part> parts = new ArrayList<>();

    private static Vantage vantage(String name, String source) throws WireFault {
        Vantage vantage = mock(Vantage.class);
        when(vantage.name()).thenReturn(name);
        when(vantage.source(AT)).thenReturn(Optional.ofNullable(source).map(Address::parse));
        return vantage;
    }

    private static void silent(Vantage vantage) throws WireFault {
        when(vantage.greeting(any(), anyInt(), any())).thenThrow(new WireFault(WireFault.Kind.GARBAGE, "no greeting"));
    }

    private static Target target(int port) {
        return new Target(
                AT,
                443,
                null,
                null,
                new Target.Ports(List.of(), List.of(), List.of(new Target.Restricted(port, ALLOWED))),
                "",
                Target.DataAddress.PLAIN,
                new Target.Names("", Map.of(), Map.of()),
                Target.Known.NOTHING);
    }

    private Optional<Trouble> judge(int port, Vantage here, Vantage... others) {
        return new Sources(here, target(port), List.of(others)).judge(parts).map(Sources.SourceFault::trouble);
    }

    private List<Standing> standings() {
        return parts.stream().map(Part::standing).toList();
    }

    @Test
    void anAllowedAndAForbiddenAddressAreBothTried() throws Exception {
        Vantage far = vantage("office", "10.41.3.7");
        silent(far);
        assertEquals(Optional.empty(), judge(22, vantage("hall-2", "10.40.8.5"), far));
        assertEquals(List.of(Standing.HOLDS, Standing.HOLDS), standings());
        assertEquals(
                LadderText.FROM_PLACE.text("SSH", "office") + " (10.41.3.7)",
                parts.get(1).name());
    }

    @Test
    void anAnswerToAForbiddenAddressIsAFault() throws Exception {
        assertEquals(
                Optional.of(Trouble.SOURCE_ADMITTED),
                judge(22, vantage("hall-2", "10.40.8.5"), vantage("office", "10.41.3.7")));
        assertEquals(List.of(Standing.HOLDS, Standing.BROKEN), standings());
    }

    @Test
    void silenceToAnAllowedAddressIsAFault() throws Exception {
        Vantage here = vantage("hall-2", "10.40.8.5");
        silent(here);
        assertEquals(Optional.of(Trouble.SOURCE_REFUSED), judge(22, here));
    }

    @Test
    void withoutAPlaceOutsideItIsNotMeasured() throws Exception {
        assertEquals(Optional.empty(), judge(22, vantage("hall-2", "10.40.8.5")));
        assertEquals(List.of(Standing.HOLDS, Standing.NOT_MEASURED), standings());
    }

    @Test
    void aPlaceWithoutALinkOrARouteSaysNothing() throws Exception {
        Vantage cut = vantage("cage-4", null);
        when(cut.source(AT)).thenThrow(new WireFault(WireFault.Kind.NO_VANTAGE, "cage-4 is not linked."));
        assertEquals(Optional.empty(), judge(22, vantage("hall-2", "10.40.8.5"), cut, vantage("attic", null)));
        assertEquals(
                List.of(Standing.HOLDS, Standing.NOT_MEASURED, Standing.NOT_MEASURED, Standing.NOT_MEASURED),
                standings());
    }

    @Test
    void anotherPortIsTriedByItsConnection() throws Exception {
        Vantage here = vantage("hall-2", "10.40.8.5");
        when(here.port(eq(AT), eq(161), any())).thenReturn(PortState.OPEN);
        Vantage far = vantage("office", "10.41.3.7");
        when(far.port(eq(AT), eq(161), any())).thenReturn(PortState.SILENT);
        assertEquals(Optional.empty(), judge(161, here, far));
        verify(far, never()).greeting(any(), anyInt(), any());
    }

    @Test
    void whatMustNotAnswerHereIsNotAskedForItsGreeting() throws Exception {
        Vantage far = vantage("office", "10.41.3.7");
        assertEquals(Optional.of(Address.parse("10.41.3.7")), Sources.refused(far, target(22), 22));
        assertTrue(Sources.refused(far, target(161), 22).isEmpty());
        assertTrue(
                Sources.refused(vantage("hall-2", "10.40.8.5"), target(22), 22).isEmpty());
    }
}
