package lychnos.core.fact;

import java.util.Optional;
import lychnos.core.address.Address;

/**
 * What is read off one machine before it is touched.
 *
 * @param line the line of the list it came from, counted from 1
 * @param serial the serial number exactly as printed
 * @param mac the MAC address of the management port
 * @param position where the machine is mounted
 * @param model the maker's name for it
 * @param firstAddress the address it answers at before it is set up, where the label says so
 * @param factoryUser the account it left the factory with, where it has its own; or empty
 * @param factoryPassword the password of that account, where it has its own
 */
public record Label(
        int line,
        String serial,
        Mac mac,
        RackPosition position,
        String model,
        Optional<Address> firstAddress,
        String factoryUser,
        Optional<Secret> factoryPassword) {}
