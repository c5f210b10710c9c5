package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of sites, networks, services, units and facts. */
public enum PrepareText implements Message {
    ACCEPTED_TERMS("licence terms {terms} accepted: {who}"),
    ADDED_UNITS("added {count} {count|unit|units} of kind {kind}"),
    ADDRESSES_ARE_TAKEN("Addresses are taken from {prefix}; release them before it becomes part of another realm."),
    ALREADY_AN_ENTRY_WITH_THIS_NAME("There is already an entry with this name."),
    ALREADY_A_BRING_UP_WITH_THIS_NAME("There is already a bring-up with this name."),
    ALREADY_HERE("already here"),
    ANOTHER_UNIT_OF_THIS_SITE_HAS_THE_NAME("Another unit of this site has the name {typed}."),
    ANSWERS_BUT_OFFERS_NO_TLS("answers, but offers no TLS"),
    AT_MOST_CELLS_ARE_SET_AT_ONCE("At most {most} cells are set at once."),
    AT_MOST_SERVERS("At most {most} servers."),
    AT_MOST_UNITS("At most {most} units."),
    BRING_UP_HAS_1_TO_UNITS("A bring-up has 1 to {value} units; {count} are there."),
    CHOSE_NETWORK("chose network {prefix}"),
    CREATED_BRING_UP_WITH_UNITS_EXPECTED("created bring-up “{bringUp}” with {count} {count|unit|units} expected"),
    DELETED_UNIT("deleted {unit}"),
    DESCRIPTION_HAS_NO_CONSOLE_DIALOGUE("The description has no console dialogue."),
    DIRECTORY_ANSWERS("accepts the service account"),
    DIRECTORY_CERTIFICATE_CHANGED("shows another certificate than the one entered: {certificate}"),
    DIRECTORY_CERTIFICATE_UNKNOWN(
            "compare its certificate and enter the digest, then it is signed in to: {certificate}"),
    DIRECTORY_KNOWS_GROUP("accepts the service account, knows the group {group}"),
    DIRECTORY_REFUSES_ACCOUNT("does not accept {user}: {answer}"),
    DIRECTORY_SEVERAL_GROUPS("several groups are named {group}; enter its distinguished name"),
    DIRECTORY_SILENT("silent: {answer}"),
    DIRECTORY_WANTS_AN_ACCOUNT("wants an account: {answer}"),
    DIRECTORY_WITHOUT_BASE("does not show {base} to this account"),
    DIRECTORY_WITHOUT_GROUP("does not know the group {group}"),
    DIRECTORY_WITHOUT_TLS("does not speak TLS: {answer}"),
    EACH_MEMBER_HAS_ITS_OWN_VALUE("Each member has its own value."),
    ENTRIES_WITH_A_PASSWORD_CAN_ONLY_BE_ADDED("Entries with a password can only be added and edited by a lead."),
    FILLED_IN("filled in"),
    FIX_IS_NOT_COMPLETE("This fix is not complete."),
    HAS_ADDRESSES_UNDER_ITS_NAME("{unit} has addresses under its name. Release them first, then change it."),
    HAS_HAD_AN_ADDRESS_OR_WAS_IMPORTED(
            "{unit} has had an address or was imported from a label list; it cannot be deleted."),
    HAS_NO_SUCH_FACT("“{member}” has no such fact."),
    HAS_OTHER_COUNTS_OF_MEMBERS("{kind} has {counts} members."),
    HAS_THIS_VERSION_ALREADY("{unit} has version {version} already."),
    IMPORTED_LABELS_LEFT_OUT_LINES("imported {count} {count|label|labels}, left out {lines} {lines|line|lines}"),
    IS_ALREADY_USED("{value} is already used by {twin}."),
    IS_BEING_SET_UP("{unit} is being set up. Let it end, or stop it first."),
    IS_LARGER_THAN_ANY_MANAGEMENT_NETWORK(
            "{what} is larger than any management network: at least /12, and /32 for IPv6. Check the prefix "
                    + "length."),
    IS_LOOPBACK_LINK_LOCAL("{what} is loopback, link-local, multicast or reserved, and no management network."),
    IS_MISSING("This is missing."),
    IS_NOT_A_COLUMN_MAPPING_SUCH_AS_0_SERIAL(
            "“{given}” is not a column mapping such as 0:serial. Possible meanings are {possible}."),
    IS_NOT_FOUND_BY_MAC_ADDRESS("{kind} is not found by a MAC address. Choose a kind that is."),
    IS_NOT_A_HOST_ADDRESS("{gateway} is not a host address of {prefix}."),
    IS_SHOWN_IN_PLACE_OF_A_SAVED_PASSWORD(
            "“{value}” is shown in place of a saved password. Leave the cell unchanged to keep it, or type "
                    + "another password."),
    IS_SIGNED_AND_STAYS_TRUE("{label} is signed, and its record is to stay true: open it again in Hand over first."),
    IS_SIGNED_OPEN_IT_AGAIN_IN_HAND_OVER_FIRST("{unit} is signed: open it again in Hand over first."),
    IS_TAKEN_AND_WOULD_LIE_OUTSIDE("{address} is taken and would lie outside {prefix}."),
    IS_THERE_TWICE("{position} is there twice."),
    IS_THIS_SERVER_OR_ITS_DATABASE("{what} is this server's own address or its database's."),
    KIND_HAS_NO_SUCH_CHECK("The kind “{kind}” has no such check at the rack."),
    LIES_OUTSIDE_OF_WHAT_THIS_SERVER_MAY_REACH("{what} lies outside of what this server may reach. {how}"),
    MAC_ADDRESS_OF_ONE_UNIT("{mac} belongs to one machine. Add one unit with it."),
    MAC_ADDRESS_BELONGS("This MAC address belongs to {serial} at {place}."),
    MOVED_TO_VERSION_OF_THE_KIND("moved {unit} to version {version} of the kind “{after}”{more}"),
    NAME_HAS_1_TO_80_CHARACTERS("A name has 1 to 80 characters, in one line."),
    NAME_HAS_AT_MOST_80_CHARACTERS("A name has at most 80 characters, in one line."),
    NEEDS_A_LOGIN("needs a login"),
    NEITHER_MX_NOR_ADDRESS_RECORD("neither MX nor address record"),
    NETWORK_NO_LONGER_EXISTS("This network no longer exists."),
    NETWORK_OF_A_SINGLE_ADDRESS_HAS_NO_GATEWAY("A network of a single address has no gateway."),
    NETWORK_PURPOSE("A network is for {value}."),
    NEVER_ASKS("{title} never asks for this."),
    NOT_MEASURED_MAY_NOT_PING("not measured: {vantage} may not ping"),
    NOT_OFFERED("not offered"),
    NO_RECORDING_IS_SHIPPED_WITH_THIS_KIND("No recording is shipped with this kind."),
    NO_RECORDING_WITH_KEYS("Learning needs a recording in the asciicast format (version 2) that holds the keys too."),
    NO_SUCH_BRING_UP("There is no such bring-up."),
    NO_SUCH_ENTRY_AT_THIS_SITE("There is no such entry at this site."),
    NO_SUCH_NETWORK_AT_THIS_SITE("There is no such network at this site."),
    NO_SUCH_TYPE("There is no type “{type}”."),
    NO_SUCH_UNIT("There is no such unit."),
    OVERLAPS_AN_EXISTING_NETWORK_IN_THE_REALM(
            "{prefix} overlaps an existing network in the realm “{realm}”. Where the two cannot reach each "
                    + "other, name another realm."),
    OVERLAPS_A_NETWORK_IN_USE("{prefix} overlaps {other} {otherPrefix}, which this bring-up takes from already."),
    PASSWORD_IS_DELETED_WITH_ITS_ENTRY("The password is deleted with its entry; type it again."),
    PERMANENT_PREFIX("{prefix} was typed into machines that never forget it; it cannot be changed."),
    RACK_ALONE("rack alone"),
    RACK_POSITION("rack position"),
    RACK_UNIT_ALONE("rack unit alone"),
    RANGES_OVERLAP("{run} overlaps {other}."),
    RANGE_IS_A_POOL("A range is a pool, reserved, or used by DHCP."),
    REACHES_PAST("{run} reaches past {prefix}."),
    REFUSES_THE_CONFIGURED_LOGIN("refuses the configured login"),
    RENAMED_UNIT("renamed {before} to {after}"),
    SERIAL_IS_ALREADY_USED("This serial is already used at {place}."),
    SERVER_MAY_REACH_NO_NETWORK("This server is not allowed to reach any network yet. {how}"),
    SERVICES_CANNOT_BE_MEASURED("Services cannot be measured now"),
    SETUP_IS_OF_ANOTHER_KIND("This setup is of another kind."),
    SET_FACTS("set {count} {count|fact|facts}"),
    SITE_HAS_AT_MOST_ENTRIES("A site has at most {most} entries."),
    SITE_NAME_HAS_AT_MOST_80_CHARACTERS("A site's name has at most 80 characters, in one line."),
    SITE_PREFIX_HAS_2_TO_12_LOWERCASE_LETTERS("A site prefix has 2 to 12 lowercase letters and digits."),
    SOME_OF_THESE_UNITS_ARE_IN_USE("Some of these units are in use now."),
    SOME_OF_THESE_UNITS_HAVE_ADDRESSES("Some of these units have addresses now. Undo their allocation first."),
    TAKES_NAMES_OF_AT_MOST_CHARACTERS("{title} takes names of at most {longest} characters; “{name}” has {count}."),
    THAT_CHANGE_HAS_ALREADY_BEEN_UNDONE("That change has already been undone."),
    THAT_IMPORT_HAS_ALREADY_BEEN_UNDONE("That import has already been undone."),
    THE_NETWORK("The network {prefix}"),
    TICKED_AT_THE_RACK("ticked at the rack: {check}{member}"),
    TWO_COLUMNS_ARE_CHOSEN("Two columns are chosen for “{meaning}”. Choose one."),
    TYPE_THE_PASSWORD_AGAIN(
            "Type the password again: it would go somewhere else now, since what it is sent to, or as whom, is "
                    + "changed."),
    UNDID_AN_IMPORT_OF_LABELS("undid an import of labels"),
    UNDID_THE_CHANGE_OF_FACTS("undid the change of {count} {count|fact|facts}"),
    UNIT_HAS_NO_SERIAL_NUMBER(
            "The serial number of this unit is not known. Enter it in Prepare: it tells the machine."),
    UNIT_IS_NOT_IN_THE_BRING_UP("This unit is not in the bring-up."),
    UNTICKED_AT_THE_RACK("removed the tick at the rack: {check}{member}"),
    VALUE_WAS_CHANGED("Somebody has set this value to {before} since you loaded it."),
    VALUE_WAS_CLEARED("Somebody has cleared this value since you loaded it."),
    VERSION_HAS_NO_UNITS_OF_MEMBERS("Version {version} has no units of {members} {members|member|members}."),
    VERSION_TAKES_OTHER_ADDRESSES("Version {version} takes other addresses. Release those of {unit} first."),
    WAS_SET_UP_WITH_VERSION(
            "{unit} was set up with version {kindVersion}, at least in part. A lead can move it with a reason, "
                    + "in {value} characters or more.");

    private final String pattern;

    PrepareText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
