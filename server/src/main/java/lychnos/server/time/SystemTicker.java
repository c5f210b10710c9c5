package lychnos.server.time;

import jakarta.inject.Singleton;

/** The processor's own. */
@Singleton
class SystemTicker implements Ticker {

    @Override
    public long nanos() {
        return System.nanoTime();
    }
}
