package lychnos.server.time;

import jakarta.inject.Singleton;
import lychnos.wire.time.Ticker;

/** The processor's own. */
@Singleton
class SystemTicker implements Ticker {

    @Override
    public long nanos() {
        return SYSTEM.nanos();
    }
}
