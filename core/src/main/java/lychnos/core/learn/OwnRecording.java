package lychnos.core.learn;

import java.util.ArrayList;
import java.util.Collection;
import java.util.List;
import java.util.Set;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Blanker;
import lychnos.core.dialogue.DryRun;
import lychnos.core.fact.Secret;

/**
 * The recording of the setup that a draft was learnt from: what the machine showed, without passwords and without what
 * it refused, and a mark where something was typed.
 */
final class OwnRecording {

    private OwnRecording() {}

    /**
     * Makes it.
     *
     * @param all every entry of the log
     * @param kept those that led on
     * @param hidden what must not be in it
     */
    static List<DryRun.Heard> of(SetupLog log, List<Entry> all, List<Entry> kept, Collection<Secret> hidden) {
        Set<Integer> led = kept.stream().map(Entry::index).collect(Collectors.toSet());
        Blanker blanker = new Blanker(() -> hidden);
        List<DryRun.Heard> heard = new ArrayList<>();
        int next = 0;
        boolean leavesOut = false;
        for (int piece = 0; piece < log.pieces().size(); piece++) {
            if (next < all.size() && all.get(next).piece() <= piece) {
                Entry entry = all.get(next++);
                leavesOut = !led.contains(entry.index()) && !entry.key();
                if (!leavesOut) {
                    heard.add(new DryRun.Heard(log.pieces().get(piece).at(), false, ""));
                }
            }
            if (!leavesOut && log.pieces().get(piece) instanceof SetupLog.Shown shown) {
                heard.add(new DryRun.Heard(shown.at(), true, blanker.feed(shown.text())));
            }
        }
        return heard;
    }
}
