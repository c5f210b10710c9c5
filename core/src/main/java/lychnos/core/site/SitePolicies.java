package lychnos.core.site;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.dialogue.AgreedTerms;

/** What the policies of a site answer. */
public final class SitePolicies {

    /** Nothing of the site reaches the internet. */
    public static final String ISOLATED = "isolated";

    /** What an isolated site has off, whatever its other policies answer. */
    public static final List<String> OUTWARD = List.of("telemetry", "remote-support");

    /** The network from which machines are managed, where the site states one. */
    public static final String ACCESS = "management-access";

    /** Consent to the licence terms of makers. */
    private static final String TERMS = "licence-terms";

    private static final String YES = "yes";
    private static final String NO = "no";

    private SitePolicies() {}

    /**
     * By name, {@code yes} or {@code no}; under {@value #ACCESS} the prefix of the management access, if there is one
     * and only one.
     */
    public static Map<String, String> of(List<SiteResource> resources) {
        Map<String, String> answers = new LinkedHashMap<>();
        resources.stream()
                .filter(resource -> resource.sort() == SiteResourceSort.POLICY)
                .forEach(resource ->
                        answers.put(resource.name(), resource.value("answer").orElse(NO)));
        List<String> access = resources.stream()
                .filter(resource -> resource.sort() == SiteResourceSort.SOURCE)
                .flatMap(resource -> resource.value("prefix").stream())
                .distinct()
                .toList();
        if (access.size() == 1) {
            answers.put(ACCESS, access.get(0));
        }
        if (isolated(answers)) {
            OUTWARD.forEach(name -> answers.put(name, NO));
        }
        return answers;
    }

    /** What a site has agreed to of the terms of a kind's maker. */
    public static AgreedTerms terms(List<SiteResource> resources, String kind) {
        Stream<String> accepted = resources.stream()
                .filter(resource -> resource.sort() == SiteResourceSort.TERMS
                        && resource.value("kind").filter(kind::equals).isPresent())
                .flatMap(resource -> resource.value("digest").stream());
        Stream<String> foreseen = resources.stream()
                .filter(resource -> resource.sort() == SiteResourceSort.POLICY
                        && resource.name().equals(TERMS))
                .flatMap(resource -> resource.value("text-digest").stream());
        return new AgreedTerms(
                YES.equals(of(resources).get(TERMS)),
                Stream.concat(accepted, foreseen).collect(Collectors.toSet()));
    }

    /** Whether a site with these policies is isolated. */
    public static boolean isolated(Map<String, String> policies) {
        return YES.equals(policies.get(ISOLATED));
    }
}
