package lychnos.core.kind;

/**
 * What first setup can and cannot do.
 *
 * @param by how it is done: {@code redfish}, {@code console}, {@code pages} or {@code screen}
 * @param proxy whether it can take a proxy at that point
 * @param wayRound what to do where it cannot, or empty
 * @param internet whether it must reach the internet, to activate itself
 * @param factoryAddress the same on every copy as it leaves the factory, or null
 * @param dhcpFirst whether it begins with an address from DHCP
 * @param laptop what a laptop is set to so that it reaches the factory address; or null
 * @param recover how a person at the machine gives it its planned network again, or empty
 */
public record SetupWay(
        String by,
        boolean proxy,
        String wayRound,
        boolean internet,
        String factoryAddress,
        boolean dhcpFirst,
        Laptop laptop,
        String recover) {}
