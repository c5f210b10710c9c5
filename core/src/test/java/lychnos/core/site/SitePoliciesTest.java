package lychnos.core.site;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import java.util.Set;
import lychnos.core.dialogue.AgreedTerms;
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

    @Test
    void consentToTermsHoldsForTheTextsThatAKindHasShown() {
        SiteResource pair = new SiteResource(SiteResourceSort.TERMS, "a", Map.of("kind", "pair", "digest", "aa"));
        SiteResource array = new SiteResource(SiteResourceSort.TERMS, "b", Map.of("kind", "array", "digest", "bb"));
        SiteResource consent = policy("licence-terms", "yes");
        assertEquals(new AgreedTerms(true, Set.of("aa")), SitePolicies.terms(List.of(pair, array, consent), "pair"));
        assertEquals(new AgreedTerms(true, Set.of()), SitePolicies.terms(List.of(pair, consent), "store"));
        assertEquals(new AgreedTerms(false, Set.of("aa")), SitePolicies.terms(List.of(pair), "pair"));
        SiteResource foreseen = new SiteResource(
                SiteResourceSort.POLICY, "licence-terms", Map.of("answer", "yes", "text-digest", "cc"));
        assertEquals(new AgreedTerms(true, Set.of("bb", "cc")), SitePolicies.terms(List.of(array, foreseen), "array"));
    }
}
