package lychnos.server.units;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** One reading of a label list. */
@Entity
@Table(name = "label_import")
class LabelImport {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    @Column(name = "account_id")
    public Long accountId;

    public Instant at;

    @Column(name = "undone_at")
    public Instant undoneAt;
}
