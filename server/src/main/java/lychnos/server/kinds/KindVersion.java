package lychnos.server.kinds;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.HexFormat;
import lychnos.server.secrets.Digest;
import org.hibernate.annotations.Immutable;

/** A published version of a kind. It never changes; the database refuses it. */
@Entity
@Immutable
@Table(name = "kind_version")
class KindVersion {

    /** Which version of which kind; versions count from 1. */
    @Embeddable
    public record KindVersionKey(@Column(name = "kind_id") String kindId, int version) {}

    @EmbeddedId
    public KindVersionKey key;

    /** The description in YAML, as it was published. */
    public String text;

    /** SHA-256 of the text in UTF-8, in hexadecimal. */
    public String digest;

    public String title;

    /** How its first setup is done, such as {@code redfish}. */
    public String way;

    /** Whether it came with the program. */
    public boolean shipped;

    /** What is new in it, or empty. */
    public String note;

    /** Why it was published although a recording did not agree, or empty. */
    public String despite = "";

    /** Null where the program published it. */
    @Column(name = "published_by")
    public Long publishedBy;

    @Column(name = "published_at")
    public Instant publishedAt;

    static String digest(String text) {
        return HexFormat.of().formatHex(Digest.of(text));
    }
}
