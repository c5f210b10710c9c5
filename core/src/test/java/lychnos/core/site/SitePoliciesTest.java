package lychnos.core.site;

import static org.junit.jupiter.api.Assertions.assertEquals;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.fact.Fact;
import lychnos.core.kind.KindReader;
import lychnos.core.sheet.UnitFacts;
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

    private static SiteResource access(String name, String prefix) {
        return new SiteResource(SiteResourceSort.SOURCE, name, Map.of("prefix", prefix));
    }

    private static Optional<Fact> sshFrom(List<SiteResource> resources, Map<String, Map<String, Fact>> given) {
        return UnitFacts.resolve(KindReader.shipped("balancer-console"), 1, given, SitePolicies.of(resources))
                .fact("", "ssh-from");
    }

    @Test
    void whoManagesMachinesIsStatedOnceForTheSite() {
        SiteResource operations = access("operations", "10.40.250.0/24");
        assertEquals(Optional.of(new Fact("10.40.250.0/24", Fact.Source.SITE)), sshFrom(List.of(operations), Map.of()));
        assertEquals(
                Optional.empty(),
                sshFrom(List.of(operations, access("partner", "10.40.251.0/24")), Map.of()),
                "of two a person chooses");
        Fact typed = new Fact("10.40.251.0/24", Fact.Source.TYPED);
        assertEquals(
                Optional.of(typed), sshFrom(List.of(operations), Map.of("", Map.of("ssh-from", typed))), "one's own");
    }
}
