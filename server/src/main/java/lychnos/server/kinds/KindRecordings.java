package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DryRun;
import lychnos.core.kind.Kind;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindPackage;
import lychnos.core.kind.KindReader;
import lychnos.core.kind.Recording;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.text.KindText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** Recordings that are kept with a kind, and whether a description agrees with them. */
@ApplicationScoped
public class KindRecordings {

    private static final int MOST = 40;
    private static final int MOST_PIECES = 100_000;
    private static final String TOO_LONG = KindText.WAS_NOT_PLAYED.text();

    /** The name of the recording that is shipped with a kind. */
    static final String SHIPPED = "shipped";

    private final Session db;
    private final Kinds kinds;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    KindRecordings(Session db, Kinds kinds, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.kinds = kinds;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * A recording that is kept.
     *
     * @param stays whether it shows a factory login of this site, and is left out of packages
     * @param keptBy login of the person
     */
    public record KeptRecording(long id, String name, boolean stays, @Nullable String keptBy, Instant keptAt) {}

    /**
     * What came of a recording.
     *
     * @param id null for the one that is shipped with the kind
     * @param faults what would have been done otherwise, or the reason why it cannot be played
     * @param open titles of the steps that were not reached
     */
    public record RecordingTrial(
            @Nullable Long id, String name, boolean agrees, List<String> faults, List<String> open) {}

    /** Those of a kind, the newest first. */
    @Transactional
    public List<KeptRecording> of(String kind) {
        return db.createQuery(
                        "select new lychnos.server.kinds.KindRecordings$KeptRecording(r.id, r.name, r.stays, a.login, "
                                + "r.keptAt) from KindRecording r left join Account a on a.id = r.keptBy "
                                + "where r.kindId = :kind order by r.id desc",
                        KeptRecording.class)
                .setParameter("kind", kind)
                .getResultList();
    }

    /** @throws Refusal if there is none */
    @Transactional
    public String text(String kind, long id) {
        return row(kind, id).text;
    }

    private KindRecording row(String kind, long id) {
        KindRecording row = db.find(KindRecording.class, id);
        if (row == null || !row.kindId.equals(kind)) {
            throw Refusal.notFound(KindText.KIND_HAS_NO_SUCH_RECORDING.said());
        }
        return row;
    }

    private List<KindRecording> rows(String kind) {
        return db.createQuery("from KindRecording where kindId = :kind order by id", KindRecording.class)
                .setParameter("kind", kind)
                .getResultList();
    }

    /**
     * Keeps a recording.
     *
     * @param wish what it is to be called; a number is added where another one has the name
     * @param text without passwords
     * @throws Refusal if the text is no recording with values, or is kept already
     */
    @Transactional
    public KeptRecording keep(String kind, String wish, String text, Who.Person person) {
        Recording recording = Recording.read(text);
        String of = kinds.find(kind).map(each -> each.kind().title()).orElse(kind);
        String digest = KindVersion.digest(text);
        List<KindRecording> others = rows(kind);
        if (others.size() >= MOST) {
            throw Refusal.conflict(KindText.AT_MOST_RECORDINGS_ARE_KEPT_WITH_A_KIND.said(MOST));
        }
        others.stream().filter(other -> other.digest.equals(digest)).findFirst().ifPresent(other -> {
            throw Refusal.conflict(KindText.RECORDING_IS_KEPT.said(other.name));
        });
        KindRecording row = new KindRecording();
        row.kindId = kind;
        row.name = free(KindPackage.name(wish), others);
        row.text = text;
        row.digest = digest;
        row.stays = showsOwnLogin(recording, kind);
        row.keptBy = person.id();
        row.keptAt = clock.instant();
        db.persist(row);
        db.flush();
        journal.write(
                person,
                null,
                null,
                KindText.KEPT_THE_RECORDING_WITH_THE_KIND.text(row.name, of),
                null,
                Map.of("digest", digest));
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
        return new KeptRecording(row.id, row.name, row.stays, person.login(), row.keptAt);
    }

    private static String free(String name, List<KindRecording> others) {
        String free = name;
        for (int i = 2; taken(free, others); i++) {
            free = name + "-" + i;
        }
        return free;
    }

    private static boolean taken(String name, List<KindRecording> others) {
        return name.equals(SHIPPED) || others.stream().anyMatch(other -> other.name.equals(name));
    }

    /** Whether it was answered with a factory user that the description does not have. */
    private boolean showsOwnLogin(Recording recording, String kind) {
        List<String> users = kinds.find(kind).map(Published::kind).or(() -> drafted(kind)).stream()
                .flatMap(each -> each.logins().stream())
                .map(login -> login.login().user())
                .toList();
        return recording.values().entrySet().stream()
                .anyMatch(value -> value.getKey().startsWith("factory")
                        && value.getKey().endsWith("user")
                        && !users.contains(value.getValue()));
    }

    /** A kind that has nothing but a draft. */
    private Optional<Kind> drafted(String kind) {
        KindDraft draft = db.find(KindDraft.class, kind);
        try {
            return Optional.ofNullable(draft).map(each -> KindReader.read(each.text));
        } catch (KindFaults e) {
            return Optional.empty(); // its logins are unknown: the recording stays
        }
    }

    /**
     * Keeps a recording that came with a kind from elsewhere, if it is not here already.
     *
     * @throws Refusal if it is none
     */
    @Transactional
    void take(String kind, String name, String text, Who.Person person) {
        String digest = KindVersion.digest(text);
        boolean here = rows(kind).stream().anyMatch(row -> row.digest.equals(digest))
                || Recording.shippedText(kind).filter(text::equals).isPresent();
        if (here) {
            return;
        }
        try {
            keep(kind, name, text, person);
        } catch (IllegalArgumentException e) {
            throw Refusal.bad(KindText.RECORDING_CANNOT_BE_READ.said(name, e.getMessage()));
        }
    }

    /** Removes a recording: versions that are published later need not agree with it. */
    @Transactional
    public void remove(String kind, long id, Who.Person person) {
        KindRecording row = row(kind, id);
        db.remove(row);
        db.flush();
        journal.write(
                person,
                null,
                null,
                KindText.REMOVED_THE_RECORDING_FROM_THE_KIND.text(row.name, kind),
                Map.of("digest", row.digest),
                null);
        live.tell(KindMemory.EVERY_BRING_UP, "kinds");
    }

    /** What may leave the site, by name. */
    @Transactional
    public Map<String, String> toShare(String kind) {
        Map<String, String> texts = new TreeMap<>();
        Recording.shippedText(kind).ifPresent(text -> texts.put(SHIPPED, text));
        rows(kind).stream().filter(row -> !row.stays).forEach(row -> texts.put(row.name, row.text));
        return texts;
    }

    /** A recording that a description is tried on. */
    record ToTry(@Nullable Long id, String name, String text) {}

    /** Every recording of a kind, the one that is shipped too. */
    @Transactional
    List<ToTry> toTry(String kind) {
        List<ToTry> all = new ArrayList<>();
        Recording.shippedText(kind).ifPresent(text -> all.add(new ToTry(null, SHIPPED, text)));
        rows(kind).forEach(row -> all.add(new ToTry(row.id, row.name, row.text)));
        return all;
    }

    /**
     * Tries a dialogue on recordings. Together they may have as many pieces as people record in weeks; what comes
     * behind that is not played, since it would keep a processor for minutes.
     */
    static List<RecordingTrial> tried(List<ToTry> recordings, Dialogue dialogue) {
        return tried(recordings, dialogue, MOST_PIECES);
    }

    static List<RecordingTrial> tried(List<ToTry> recordings, Dialogue dialogue, int most) {
        List<RecordingTrial> trials = new ArrayList<>();
        int pieces = 0;
        for (ToTry each : recordings) {
            try {
                Recording recording = Recording.read(each.text);
                pieces += recording.heard().size();
                trials.add(pieces > most ? failed(each, TOO_LONG) : tried(each, recording.tryOn(dialogue)));
            } catch (IllegalArgumentException e) {
                trials.add(failed(each, e.getMessage()));
            }
        }
        return trials;
    }

    private static RecordingTrial tried(ToTry recording, DryRun.Report report) {
        return new RecordingTrial(
                recording.id,
                recording.name,
                report.agrees(),
                report.differences().stream().map(DryRun.Difference::sentence).toList(),
                report.open());
    }

    private static RecordingTrial failed(ToTry recording, String reason) {
        return new RecordingTrial(recording.id, recording.name, false, List.of(reason), List.of());
    }
}
