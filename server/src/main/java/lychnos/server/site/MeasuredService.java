package lychnos.server.site;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import lychnos.core.address.Address;
import lychnos.core.service.Measured;
import lychnos.core.service.Reply;
import lychnos.core.service.ServiceKind;
import lychnos.server.database.InetType;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.annotations.Type;
import org.hibernate.type.SqlTypes;

/** What a service of a site answered when it was last asked. */
@Entity
@Table(name = "measured")
public class MeasuredService {

    /** Which service of which site. */
    @Embeddable
    public record MeasuredServiceKey(
            @Column(name = "site_id") Long siteId,
            @Enumerated(EnumType.STRING) ServiceKind kind,
            @Type(InetType.class) Address address) {}

    @EmbeddedId
    public MeasuredServiceKey key;

    @Enumerated(EnumType.STRING)
    public Measured.State state;

    public String sentence;

    @JdbcTypeCode(SqlTypes.JSON)
    public Map<String, String> detail;

    /** What it answered to requests that it may refuse. */
    @JdbcTypeCode(SqlTypes.JSON)
    public List<Reply> replies = List.of();

    public Instant at;

    public Measured measured() {
        return new Measured(key.kind(), key.address().toString(), state, sentence, detail, replies, at);
    }

    public static MeasuredService of(long siteId, Measured measured) {
        MeasuredService row = new MeasuredService();
        row.key = new MeasuredServiceKey(siteId, measured.kind(), Address.parse(measured.address()));
        row.state = measured.state();
        row.sentence = measured.sentence();
        row.detail = measured.detail();
        row.replies = measured.replies();
        row.at = measured.at();
        return row;
    }
}
