package lychnos.core.export;

/**
 * What a firewall is to let through.
 *
 * @param source who opens the connection
 * @param port such as {@code tcp 443}
 * @param fallback the port that is used where the first does not answer; empty for none
 */
public record Flow(FlowEnd source, FlowEnd destination, String port, String fallback, FlowPurpose purpose) {

    /** A flow without a second port. */
    public Flow(FlowEnd source, FlowEnd destination, String port, FlowPurpose purpose) {
        this(source, destination, port, "", purpose);
    }

    /** Which end of a flow is a machine of ours. */
    public enum Direction {
        OUT,
        IN,
        BETWEEN
    }

    /**
     * One end.
     *
     * @param name what people call it
     * @param address an address or a prefix; empty where only a name is known
     */
    public record FlowEnd(String name, String address) {}

    public Direction direction() {
        return switch (purpose) {
            case MANAGEMENT -> Direction.IN;
            case CLUSTER -> Direction.BETWEEN;
            default -> Direction.OUT;
        };
    }
}
