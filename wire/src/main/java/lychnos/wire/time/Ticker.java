package lychnos.wire.time;

/**
 * Time that only grows, to measure how long something takes or how old it is. It is no moment of the day: for that
 * there is {@link java.time.Clock}.
 */
@FunctionalInterface
public interface Ticker {

    /** The processor's own. */
    Ticker SYSTEM = System::nanoTime;

    /** Nanoseconds since some moment that stays the same for as long as the program runs. */
    long nanos();
}
