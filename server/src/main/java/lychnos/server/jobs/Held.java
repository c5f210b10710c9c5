package lychnos.server.jobs;

/**
 * A run that this server holds.
 *
 * @param fence grows with every holder; a holder whose fence is old can write nothing any more
 */
public record Held(long runId, long unitId, long bringUpId, String purpose, long fence) {}
