package lychnos.server.site;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.util.List;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.server.database.CidrType;
import lychnos.server.database.InetType;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.annotations.Type;
import org.hibernate.type.SqlTypes;

/** A prefix with what its units are told. */
@Entity
public class Network {

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "realm_id")
    public Long realmId;

    public String name;

    @Type(CidrType.class)
    public Prefix prefix;

    @Type(InetType.class)
    public Address gateway;

    public Integer vlan;

    /** What it is for, by which a kind names it. */
    public String purpose = "management";

    /** The broadcast domain, where it has a name of its own. */
    public String segment = "";

    /** The largest packet in bytes, or null where nobody said. */
    public Integer mtu;

    /** Whether it can never be changed once machines were told. */
    public boolean permanent;

    public String domain;

    /** The place that reaches it, or null where the server does. */
    @Column(name = "vantage_id")
    public Long vantageId;

    @Column(name = "name_servers")
    @JdbcTypeCode(SqlTypes.ARRAY)
    public List<String> nameServers;

    @Column(name = "time_servers")
    @JdbcTypeCode(SqlTypes.ARRAY)
    public List<String> timeServers;
}
