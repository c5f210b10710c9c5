package lychnos.server.units;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.Base64;
import java.util.List;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One change of the fact sheet, by which it can be undone. */
@Entity
@Table(name = "sheet_change")
class SheetChange {

    /**
     * One cell: what stood there and what came; null for nothing. Of a secret both are the word in place of it, and it
     * stands beside them sealed.
     */
    public record Cell(
            long unitId,
            String member,
            String name,
            String before,
            String after,
            Sealed sealedBefore,
            Sealed sealedAfter) {

        public Cell(long unitId, String member, String name, String before, String after) {
            this(unitId, member, name, before, after, null, null);
        }
    }

    /** A sealed secret; nonce and sealed text in Base64. */
    public record Sealed(String keyId, String nonce, String sealed) {

        /** What a cell holds now; null where it holds no secret. */
        public static Sealed of(GivenFact row) {
            return row == null || row.sealed == null
                    ? null
                    : new Sealed(
                            row.keyId,
                            Base64.getEncoder().encodeToString(row.nonce),
                            Base64.getEncoder().encodeToString(row.sealed));
        }

        /** Puts it back. */
        public void into(GivenFact row) {
            row.keyId = keyId;
            row.nonce = Base64.getDecoder().decode(nonce);
            row.sealed = Base64.getDecoder().decode(sealed);
        }
    }

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
