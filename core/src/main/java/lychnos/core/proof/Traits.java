package lychnos.core.proof;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;

/**
 * What an endpoint shows of itself, by what it is, so that a later look can be compared with what was accepted. A trait
 * that could not be seen this time is not among them, and is no change.
 */
public final class Traits {

    public static final String CERTIFICATE = "certificate";
    public static final String HOST_KEY = "host key";
    public static final String HARDWARE = "MAC address";
    public static final String FIRMWARE = "firmware";
    public static final String MODEL = "model";
    public static final String NAME = "name";
    public static final String REVERSE = "reverse name";
    public static final String CLOCK = "clock";
    public static final String TARGETS = "storage targets";
    public static final String NFS = "NFS versions";
    public static final String FACTORY = "factory password";
    /** Followed by the name of the setting. */
    public static final String SETTING = "setting: ";
    /** Followed by the title of the page that shows it. */
    public static final String STATE = "state: ";
    /** Followed by its number. */
    public static final String PORT = "port ";

    /**
     * What may be taken for right by a person without anything else being changed. Who else is let in, or what a name
     * leads to, is not.
     */
    private static final Set<String> ACCEPTABLE =
            Set.of(CERTIFICATE, HOST_KEY, HARDWARE, FIRMWARE, MODEL, TARGETS, NFS);

    private Traits() {}

    /**
     * Something that is not as it was accepted.
     *
     * @param what which trait
     * @param before its value as accepted
     * @param now its value
     */
    public record Change(String what, String before, String now) {}

    /**
     * Whether a person may take another value of this trait for right; what may not is fixed, or stands as a fault.
     */
    public static boolean acceptable(String what) {
        return ACCEPTABLE.contains(what) || what.startsWith(SETTING) || what.startsWith(STATE);
    }

    /** Whether the plan tells what is right: then whatever a proven endpoint shows is, since it was planned so. */
    public static boolean planned(String what) {
        return what.equals(NAME)
                || what.equals(REVERSE)
                || what.equals(CLOCK)
                || what.equals(FACTORY)
                || what.startsWith(SETTING)
                || what.startsWith(PORT);
    }

    /** What differs, of all that is known from both looks. */
    public static List<Change> changes(Map<String, String> accepted, Map<String, String> seen) {
        List<Change> changes = new ArrayList<>();
        seen.forEach((what, now) -> {
            String before = accepted.get(what);
            if (before != null && !before.equals(now)) {
                changes.add(new Change(what, before, now));
            }
        });
        return changes;
    }

    /**
     * What is accepted after a look at a machine that is proven: all that was, and what was seen for the first time.
     */
    public static Map<String, String> grown(Map<String, String> accepted, Map<String, String> seen) {
        Map<String, String> grown = new LinkedHashMap<>(accepted);
        seen.forEach(grown::putIfAbsent);
        return grown;
    }
}
