package lychnos.server.store;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.List;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One change of the fact sheet, by which it can be undone. */
@Entity
@Table(name = "sheet_change")
public class SheetChange {

    /** One cell: what stood there and what came; null for nothing. */
    public record Cell(long unitId, String member, String name, String before, String after) {}

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    @Column(name = "account_id")
    public Long accountId;

    public Instant at;

    @JdbcTypeCode(SqlTypes.JSON)
    public List<Cell> cells;

    @Column(name = "undone_at")
    public Instant undoneAt;
}
