package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of allocating addresses. */
public enum AllocateText implements Message {
    ALLOCATED_ADDRESSES_TO_UNITS("allocated {addresses} {addresses|address|addresses} to {units} {units|unit|units}"),
    ALL_RECORDS_ARE_ON_THE_NAME_SERVER("All records are on the name server already."),
    ANSWERS("answers to {answers}"),
    CANNOT_BE_READ("it cannot be read ({reason})"),
    DELETED_IMPORTED_ADDRESSES("deleted {count} imported {count|address|addresses}"),
    DHCP_LEASE_FILE_IS_CONFIGURED(
            "The DHCP lease file {file} is configured, but {why}. No address is allocated until it can "
                    + "be read. Fix it, or remove it from LYCHNOS_DHCP_LEASE_FILES."),
    EACH_UNIT_AT_ITS_LOWEST_FIT("each unit at its lowest fit"),
    FOUND_AT_BY_ITS_LEASE("found at {leased} by its lease"),
    FOUND_AT_WHERE_ANSWERS("found at {answers}, where {mac} answers"),
    FREE("free in {network}"),
    FROM_1_TO_ADDRESSES_ARE_ASKED_AT_ONCE("From 1 to {most} addresses are asked at once."),
    GROWTH_RUN_IS_NO_LONGER_FREE("{run} was to be reserved for growth and is no longer free. Choose another fit."),
    HAS_ITS_ADDRESS("{unit} has its address already, or is being set up."),
    HAS_JUST_BEEN_ALLOCATED_BY_SOMEBODY_ELSE("{what} has just been allocated by somebody else. Here is the next fit."),
    HAS_NO_ADDRESS("{unit} has no address."),
    IMPORTED_EXISTING_ADDRESSES("imported {count} existing {count|address|addresses}"),
    IS_CALLED_BY_ITS_REVERSE_RECORD("is called {name} by its reverse record"),
    IS_LEASED_BY_DHCP("is leased by DHCP{more}"),
    IS_LONGER_THAN_BYTES("it is longer than {value} bytes"),
    IS_NOT_FREE_ANY_MORE("{address} is not free any more, or lies in no pool. Here is the next fit."),
    IS_PLACED_WHOLE_OR_NOT_AT_ALL("{unit} is placed whole or not at all; missing are {missing}."),
    LOWEST_FREE_ADDRESS("lowest free address"),
    LOWEST_RUN_OF_IN_A_ROW("lowest run of {count} in a row"),
    MACHINE_OF_THIS_ALLOCATION_HAS_ITS_ADDRESS(
            "A machine of this allocation has its address already, or is being set up."),
    NAME_IS_TAKEN("The name {name} is taken already; add {n} to the pattern."),
    NO_ADDRESSES_WERE_SENT_TO_ALLOCATE("No addresses were sent to allocate."),
    NO_DOMAIN_TO_PUSH_TO(
            "No domain with a primary name server is defined. Define one in Prepare, or copy the zone " + "lines."),
    NO_DOMAIN_WITH_A_PRIMARY_NAME_SERVER("No domain with a primary name server is defined. Define one in Prepare."),
    NO_KEY_IS_DEFINED("no key is defined for {zone}"),
    NO_NETWORK_IS_DEFINED_YET("No network is defined yet. Define one in Prepare."),
    NO_SUCH_UNIT("There is no such unit here."),
    ONE_OF_THESE_ADDRESSES("One of these addresses"),
    ONE_OF_THESE_NAMES("One of these names"),
    ONE_OF_THESE_UNITS_ADDRESSES("One of these units' addresses"),
    ONE_OF_THE_NETWORKS_IS_NOT_OF_THIS_BRING("One of the networks is not of this bring-up."),
    ONE_OF_THE_UNITS_IS_NOT_IN_THIS_BRING("One of the units is not in this bring-up."),
    PUSHED_RECORDS("pushed {count} {count|record|records}"),
    REDFISH("Redfish {version}"),
    REDFISH_PRODUCT("{product}, Redfish {version}"),
    RELEASED_ADDRESSES("released {count} {count|address|addresses}"),
    SAYS("{use}, says a {source}"),
    THAT_ALLOCATION_HAS_ALREADY_BEEN_UNDONE("That allocation has already been undone."),
    UNDID_THE_ALLOCATION_OF_ADDRESSES("undid the allocation of {count} {count|address|addresses}"),
    UNKNOWN_DEVICE_USES_THIS_ADDRESS("{key} {sentence}: an unknown device uses this address. Here is the next fit.");

    private final String pattern;

    AllocateText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
