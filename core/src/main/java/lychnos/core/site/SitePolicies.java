package lychnos.core.site;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;

/** What the policies of a site answer. */
public final class SitePolicies {

    /** Nothing of the site reaches the internet. */
    public static final String ISOLATED = "isolated";

    /** What an isolated site has off, whatever its other policies answer. */
    public static final List<String> OUTWARD = List.of("telemetry", "remote-support");

    private static final String YES = "yes";
    private static final String NO = "no";

    private SitePolicies() {}

    /** By name, {@code yes} or {@code no}. */
    public static Map<String, String> of(List<SiteResource> resources) {
        Map<String, String> answers = new LinkedHashMap<>();
        resources.stream()
                .filter(resource -> resource.sort() == SiteResourceSort.POLICY)
                .forEach(resource ->
                        answers.put(resource.name(), resource.value("answer").orElse(NO)));
        if (isolated(answers)) {
            OUTWARD.forEach(name -> answers.put(name, NO));
        }
        return answers;
    }

    /** Whether a site with these policies is isolated. */
    public static boolean isolated(Map<String, String> policies) {
        return YES.equals(policies.get(ISOLATED));
    }
}
