package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import java.util.Map;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindReader;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.KindText;

/**
 * Publishes drafts: only one that agrees with every recording of its kind, unless a reason is given. Recordings are
 * played outside of any transaction, since that may take seconds; the version of the draft tells whether it is still
 * the one that was tried.
 */
@ApplicationScoped
public class KindPublishing {

    private final KindDrafts drafts;
    private final Kinds kinds;
    private final KindRecordings recordings;

    KindPublishing(KindDrafts drafts, Kinds kinds, KindRecordings recordings) {
        this.drafts = drafts;
        this.kinds = kinds;
        this.recordings = recordings;
    }

    /**
     * Makes the draft the next version.
     *
     * @param despite why it is published although a recording does not agree; may be empty
     * @param seen the version of the draft that was read, or null
     * @throws Refusal with the property {@code recordings} if some do not agree and no reason is given
     */
    public int publish(String id, String note, String despite, String seen, Who.Person person) {
        KindDrafts.KindDraftView draft = drafts.get(id);
        IfMatch.require(seen, draft.version(), KindText.DRAFT_OF.text(id));
        List<KindRecordings.RecordingTrial> failed = draft.faults().isEmpty()
                ? tried(KindReader.read(draft.text())).stream()
                        .filter(trial -> !trial.agrees())
                        .toList()
                : List.of();
        if (!failed.isEmpty() && despite.isBlank()) {
            throw Refusal.conflict(KindText.RECORDINGS_DO_NOT_AGREE.said(failed.size()), Map.of("recordings", failed));
        }
        return drafts.publish(id, note, failed.isEmpty() ? "" : despite, draft.version(), person);
    }

    /** What comes of every recording of a kind: with its draft, or with the newest version where there is none. */
    public List<KindRecordings.RecordingTrial> tried(String id) {
        KindDrafts.KindDraftView draft = drafts.find(id).orElse(null);
        if (draft != null && !draft.faults().isEmpty()) {
            throw Refusal.conflict(KindText.DRAFT_HAS_FAULTS.said());
        }
        return tried(draft == null ? kinds.newest(id).kind() : KindReader.read(draft.text()));
    }

    private List<KindRecordings.RecordingTrial> tried(Kind kind) {
        return kind.dialogue()
                .map(dialogue -> KindRecordings.tried(recordings.toTry(kind.id()), dialogue))
                .orElse(List.of());
    }
}
