package lychnos.server.database;

import jakarta.annotation.Priority;
import jakarta.interceptor.AroundInvoke;
import jakarta.interceptor.Interceptor;
import jakarta.interceptor.InvocationContext;
import org.hibernate.FlushMode;
import org.hibernate.Session;

/** Stands within the transaction, which is opened by {@code @Transactional} beside it. */
@ReadsOnly
@Interceptor
@Priority(Interceptor.Priority.APPLICATION)
public class ReadsOnlyInterceptor {

    private final Session db;

    ReadsOnlyInterceptor(Session db) {
        this.db = db;
    }

    @AroundInvoke
    Object read(InvocationContext call) throws Exception {
        db.setHibernateFlushMode(FlushMode.MANUAL);
        db.setDefaultReadOnly(true);
        return call.proceed();
    }
}
