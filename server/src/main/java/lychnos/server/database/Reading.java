package lychnos.server.database;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.function.Supplier;

/** Work that only reads, where no request is there that has a transaction. */
@ApplicationScoped
public class Reading {

    @Transactional(Transactional.TxType.REQUIRES_NEW)
    @ReadsOnly
    public <T> T of(Supplier<T> work) {
        return work.get();
    }
}
