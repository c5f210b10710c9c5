package lychnos.server.kinds;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import org.hibernate.annotations.Immutable;

/** A recording that is kept with a kind. */
@Entity
@Immutable
@Table(name = "kind_recording")
class KindRecording {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "kind_id")
    public String kindId;

    /** Different for each recording of a kind; lowercase letters, digits and hyphens. */
    public String name;

    /** Asciicast, version 2, with what the line was answered with. */
    public String text;

    /** SHA-256 of the text in UTF-8, in hexadecimal. */
    public String digest;

    /** Whether it shows a factory login of this site, and is left out of packages. */
    public boolean stays;

    @Column(name = "kept_by")
    public Long keptBy;

    @Column(name = "kept_at")
    public Instant keptAt;
}
