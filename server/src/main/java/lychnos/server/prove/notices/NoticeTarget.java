package lychnos.server.prove.notices;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;

/** Somebody who is told of changes in a bring-up, and how far that has come. */
@Entity
@Table(name = "notice_target")
class NoticeTarget {

    public static final String WEBHOOK = "webhook";
    public static final String MAIL = "mail";

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    public Long id;

    @Column(name = "bring_up_id")
    public Long bringUpId;

    public String sort;

    /** A URL or a mail address. */
    public String target;

    @Column(name = "key_id")
    public String keyId;

    public byte[] nonce;

    /** What notices to a webhook are signed with. */
    public byte[] sealed;

    /** Of the certificate that the webhook showed first. */
    public String fingerprint;

    /** The newest change of an endpoint that was told. */
    @Column(name = "told_change")
    public long toldChange;

    /** Up to when changes of traits were told. */
    @Column(name = "told_trait")
    public Instant toldTrait;

    @Column(name = "sent_at")
    public Instant sentAt;

    /** Why the last try did not come through, or empty. */
    public String fault = "";

    @Column(name = "tried_at")
    public Instant triedAt;

    @Column(name = "made_by")
    public Long madeBy;
}
