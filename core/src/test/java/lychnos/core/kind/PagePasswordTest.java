package lychnos.core.kind;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;

class PagePasswordTest {

    @Test
    void thePageOfTheAccountSetsIt() {
        assertEquals(
                Optional.of(new PagePassword("web-password", "/account", "/phrase")),
                PagePassword.of(KindReader.shipped("block-array")));
    }

    /** Not the backup store: its pages are at the address of a controller, which a check reads instead. */
    @Test
    void theseKindsHaveOne() {
        List<String> kinds = KindReader.allShipped().stream()
                .filter(kind -> PagePassword.of(kind).isPresent())
                .map(Kind::id)
                .toList();
        assertEquals(
                List.of(
                        "block-array",
                        "file-array",
                        "access-appliance",
                        "fleet-manager",
                        "load-balancer",
                        "balancer-console",
                        "delivery-pair",
                        "licence-host",
                        "cluster-manager"),
                kinds);
    }
}
