package lychnos.server.live;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;

/** Tells every screen that looks at a bring-up that something in it changed. Goes out when the transaction is committed. */
@ApplicationScoped
public class Live {

    static final String CHANNEL = "lychnos";

    private final Session db;

    Live(Session db) {
        this.db = db;
    }

    /** @param topic the stage that changed, in one word */
    @Transactional(Transactional.TxType.MANDATORY)
    public void tell(long bringUpId, String topic) {
        db.createNativeQuery("select pg_notify('" + CHANNEL + "', :message)", Object.class).setParameter("message", bringUpId + " " + topic).getResultList();
    }
}
