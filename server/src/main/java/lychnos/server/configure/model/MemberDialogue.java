package lychnos.server.configure.model;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** The setup dialogue of one member, as far as it has come. */
@Entity
@Table(name = "dialogue")
public class MemberDialogue {

    /** The states of a conversation, and two before it has one. */
    public enum DialogueState {
        /** Its prerequisite is not met yet. */
        SHUT,
        /** No line can be reached; a person ticks the steps. */
        BY_HAND,
        UNSURE,
        FOLLOWING,
        WAITING,
        HELD,
        CUT,
        STOPPED,
        /** A person does the whole setup on the line. */
        MANUAL,
        DONE
    }

    /** What keeps a line shut. */
    public enum WaitsFor {
        NOTHING,
        /** A step by hand comes first and must be ticked. */
        TICKS,
        /** The member before it must be done. */
        MEMBER
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "run_id")
    public Long runId;

    @Column(name = "unit_id")
    public Long unitId;

    /** Its label; empty where the unit is a single machine. */
    public String member;

    public int place;

    /** How people find the line. */
    public String line;

    @Enumerated(EnumType.STRING)
    public Mode mode;

    @Enumerated(EnumType.STRING)
    public DialogueState state;

    /** Of a machine that was replaced since. */
    public boolean earlier;

    public boolean wiped;
    public boolean identified;

    /** Why nothing is sent now, or null. */
    @JdbcTypeCode(SqlTypes.JSON)
    public Hold hold;

    public String note = "";

    /** What it waits for before its line is opened; empty where nothing is. */
    public String prerequisite = "";

    /** The same as a code. */
    @Enumerated(EnumType.STRING)
    @Column(name = "waits_for")
    public WaitsFor waitsFor = WaitsFor.NOTHING;

    /** The number of the newest step that a vantage has handed in; written by statements of its own alone. */
    @Column(name = "handed_in", insertable = false, updatable = false)
    public long handedIn;

    /** What a person read on the machine and compared with its label; null until then. */
    @Column(name = "compared_text")
    public String comparedText;

    @Column(name = "compared_by")
    public String comparedBy;

    @Column(name = "compared_at")
    public Instant comparedAt;

    @Column(name = "opened_at")
    public Instant openedAt;

    @Column(name = "ended_at")
    public Instant endedAt;

    /** Keeps the line shut. */
    public void shut(WaitsFor waits, String sentence) {
        waitsFor = waits;
        prerequisite = sentence;
    }

    /** Nothing keeps the line shut any more. */
    public void meetPrerequisite() {
        waitsFor = WaitsFor.NOTHING;
        prerequisite = "";
    }
}
