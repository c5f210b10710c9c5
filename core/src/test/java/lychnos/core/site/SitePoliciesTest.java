package lychnos.core.site;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import org.junit.jupiter.api.Test;

class SitePoliciesTest {

    private static SiteResource policy(String name, String answer) {
        return new SiteResource(SiteResourceSort.POLICY, name, Map.of("answer", answer));
    }

    @Test
    void eachPolicyAnswersForItself() {
        assertEquals(
                Map.of("telemetry", "yes", "isolated", "no"),
                SitePolicies.of(List.of(policy("telemetry", "yes"), policy("isolated", "no"))));
    }

    @Test
    void anIsolatedSiteSendsNothingOutWhateverElseItAnswers() {
        assertEquals(
                Map.of("telemetry", "no", "remote-support", "no", "isolated", "yes", "diagnostics", "yes"),
                SitePolicies.of(
                        List.of(policy("telemetry", "yes"), policy("isolated", "yes"), policy("diagnostics", "yes"))));
    }
}
