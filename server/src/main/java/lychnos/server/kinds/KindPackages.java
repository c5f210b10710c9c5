package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindDifference;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindPackage;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.KindSummary;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.KindText;
import org.jspecify.annotations.Nullable;

/** Kinds that leave the site as one file, and those that come from elsewhere. */
@ApplicationScoped
public class KindPackages {

    private static final String NO_DRAFT = "0";

    private final Kinds kinds;
    private final KindDrafts drafts;
    private final KindRecordings recordings;

    KindPackages(Kinds kinds, KindDrafts drafts, KindRecordings recordings) {
        this.kinds = kinds;
        this.drafts = drafts;
        this.recordings = recordings;
    }

    /**
     * A package, before it is taken.
     *
     * @param kind the id of its kind; empty while the description has faults
     * @param faults of the description
     * @param summary what it says; null while there are faults
     * @param newest the version that this site has of a kind of the same id, or null
     * @param changes what differs from that version
     * @param recordings what came of each recording in the package
     */
    public record PackageView(
            String kind,
            String title,
            List<KindFault> faults,
            @Nullable KindSummary summary,
            @Nullable Integer newest,
            List<KindDifference.KindChange> changes,
            List<KindRecordings.RecordingTrial> recordings) {}

    /** A published version with the recordings that may leave the site. */
    @Transactional
    public byte[] write(String kind, int version) {
        return new KindPackage(kinds.version(kind, version).text(), new TreeMap<>(recordings.toShare(kind))).write();
    }

    /**
     * Looks a package over.
     *
     * @throws Refusal if the file is none
     */
    public PackageView look(byte[] archive) {
        KindPackage read = read(archive);
        Kind kind;
        try {
            kind = KindReader.read(read.description());
        } catch (KindFaults e) {
            return new PackageView("", "", e.faults(), null, null, List.of(), List.of());
        }
        Published here = kinds.find(kind.id()).orElse(null);
        return new PackageView(
                kind.id(),
                kind.title(),
                List.of(),
                KindSummary.of(kind),
                here == null ? null : here.version(),
                here == null ? List.of() : KindDifference.between(here.kind(), kind),
                kind.dialogue()
                        .map(dialogue -> KindRecordings.tried(toTry(read), dialogue))
                        .orElse(List.of()));
    }

    private static List<KindRecordings.ToTry> toTry(KindPackage read) {
        return read.recordings().entrySet().stream()
                .map(each -> new KindRecordings.ToTry(null, each.getKey(), each.getValue()))
                .toList();
    }

    /**
     * Makes the description of a package the draft of its kind, and keeps its recordings.
     *
     * @param seen the version of a draft that it replaces; null where there is none
     */
    @Transactional
    public KindDrafts.KindDraftView take(byte[] archive, @Nullable String seen, Who.Person person) {
        KindPackage read = read(archive);
        Kind kind;
        try {
            kind = KindReader.read(read.description());
        } catch (KindFaults e) {
            throw Refusal.conflict(
                    KindText.DESCRIPTION_IN_THIS_PACKAGE_HAS_FAULTS.said(), Map.of("kindFaults", e.faults()));
        }
        if (seen == null || seen.equals(NO_DRAFT)) {
            drafts.find(kind.id()).ifPresent(draft -> {
                throw Refusal.conflict(KindText.A_DRAFT.said(kind.id()));
            });
        }
        KindDrafts.KindDraftView draft =
                drafts.save(kind.id(), read.description(), seen == null ? NO_DRAFT : seen, person);
        read.recordings().forEach((name, text) -> recordings.take(kind.id(), name, text, person));
        return draft;
    }

    private static KindPackage read(byte[] archive) {
        try {
            return KindPackage.read(archive == null ? new byte[0] : archive);
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(e.getMessage());
        }
    }
}
