package lychnos.server.api.problem;

import java.util.Map;
import lychnos.core.record.CanonicalJson;
import lychnos.server.text.ApiText;

/**
 * The version of something that a person has seen and wants to change. A change with it overwrites nothing that
 * somebody else has changed meanwhile (RFC 9110, section 13.1.1); a change without it does.
 */
public final class IfMatch {

    private static final int LENGTH = 16;

    private IfMatch() {}

    /** The version of a state: as long as it is the same, nothing of it has changed. */
    public static String version(Object state) {
        return CanonicalJson.digest(state).substring(0, LENGTH);
    }

    /**
     * What a request says that it has seen.
     *
     * @param ifMatch the header, or null
     * @param version from the body, or null
     * @return null where it says nothing, or takes any state
     */
    public static String of(String ifMatch, String version) {
        if (ifMatch == null) {
            return version;
        }
        String tag = ifMatch.strip();
        return tag.equals("*") ? null : tag.replaceFirst("^W/", "").replaceAll("^\"|\"$", "");
    }

    /**
     * @param seen what somebody saw, or null
     * @throws Refusal 412 where it is not so any more
     */
    public static void require(String seen, String now, String what) {
        if (seen != null && !seen.equals(now)) {
            throw Refusal.outdated(ApiText.WAS_CHANGED_SINCE_YOU_LOADED_IT.said(what), Map.of("version", now));
        }
    }
}
