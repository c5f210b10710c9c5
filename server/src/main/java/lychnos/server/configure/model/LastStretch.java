package lychnos.server.configure.model;

import org.jspecify.annotations.Nullable;

/** What was kept last of what the time goes to, so that only what differs is kept again. */
public final class LastStretch {

    private String last = "";

    /** What the time goes to, if that is something else than what was kept last; otherwise null. */
    public Change.@Nullable Stretch ifNew(Change.Stretch now) {
        return key(now).equals(last) ? null : now;
    }

    /** It is in the database; null, if nothing of it had changed. */
    public void kept(Change.@Nullable Stretch stretch) {
        if (stretch != null) {
            last = key(stretch);
        }
    }

    private static String key(Change.Stretch stretch) {
        return stretch.kind() + stretch.title();
    }
}
