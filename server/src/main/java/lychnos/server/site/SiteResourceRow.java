package lychnos.server.site;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.util.Map;
import lychnos.core.site.SiteResource;
import lychnos.core.site.SiteResourceSort;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** One site resource: a rack, a host, a domain, a relay. */
@Entity
@Table(name = "site_resource")
public class SiteResourceRow {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "site_id")
    public Long siteId;

    public String sort;
    public String name;

    @JdbcTypeCode(SqlTypes.JSON)
    public Map<String, String> value;

    @Column(name = "key_id")
    public String keyId;

    public byte[] nonce;
    public byte[] sealed;

    public SiteResource resource() {
        return new SiteResource(SiteResourceSort.named(sort).orElseThrow(), name, value);
    }
}
