package lychnos.core.rule;

import lychnos.core.text.Message;

/** Texts of findings and fixes: what is wrong with the plan, why it matters, and what a button changes. */
enum RuleText implements Message {
    ADD_IT_ANSWERS("Add {address}, it answers"),
    BELOW_LEAST("{unit} has {size} of {fact}"),
    BELOW_LEAST_WHY("The least is {least}. Check the value, or add the missing part."),
    CONTROL_VLAN_IN_USE("{unit}: control VLAN {vlan} carries {network}"),
    CONTROL_VLAN_IN_USE_WHY("The fabric uses that VLAN on every port, permanently. Choose one that nothing uses."),
    CORES("{cores} cores"),
    DHCP_IN_POOL("Pool {pool} overlaps the DHCP range {scope}"),
    DHCP_IN_POOL_WHY("Two machines could get the same address. Separate the two ranges."),
    DHCP_LEFT_ON("{unit} would keep an address from DHCP"),
    DHCP_LEFT_ON_WHY("The address can change with the lease. Use the planned address."),
    DIRECTORY("directory"),
    DIRECTORY_ODD("Directory {directory}: {fault}"),
    DIRECTORY_ODD_WHY("Accounts of this directory will not get into the machines that use it."),
    DISK("{disk} of disk"),
    ENDS_SOON("{unit}: {fact} {day}"),
    ENDS_SOON_OVER("{unit}: {fact} {day}, which has passed"),
    ENDS_SOON_WHY(
            "What depends on it stops on that day. Order the permanent one now, and add an open item at hand-over. "
                    + "Lychnos sends notices before the day."),
    FACTS_MISSING("{count} {count|fact is|facts are} missing"),
    FACT_HAS_NO_VALUE("the setup asks for “{fact}”, which has no value"),
    FIRMWARE_NOT_EXACT("{machine} runs firmware {version}; the baseline of the site is exactly {wanted}"),
    FIRMWARE_TOO_OLD("{machine} runs firmware {version}; the baseline of the site is at least {wanted}"),
    FIRMWARE_WHY(
            "The baseline is set for “{kind}” under Networks and services. Update the machine, then check it again."),
    FOREIGN_PREFIX("{prefix} is reserved for documentation or for the local host"),
    FOREIGN_PREFIX_WHY(
            "Routers do not forward it (RFC 5737, RFC 3849, RFC 1122). It was probably copied from an " + "example."),
    GATEWAY("gateway"),
    GATEWAY_IN_POOL("Gateway {gateway} is inside a pool"),
    GATEWAY_IN_POOL_WHY("Lychnos never allocates it, but other tools that use this pool might. Start the pool after "
            + "the gateway."),
    GATEWAY_OUTSIDE("Gateway {gateway} is not a host address of {prefix}"),
    GATEWAY_OUTSIDE_WHY(
            "A unit with this gateway cannot be reached from other networks. Correct the gateway or the " + "prefix."),
    GATEWAY_SILENT("Gateway {gateway} of {prefix} does not answer"),
    GATEWAY_SILENT_WHY(
            "Some machines refuse a gateway that does not answer. Check the address and the VLAN on the " + "switch."),
    HOST_TOO_SMALL("{host} has {has}, {wants} are planned on it"),
    HOST_TOO_SMALL_WHY("Planned guests: {names}. The last one would not start. Move one to another host."),
    IMAGE_CONTRADICTS("{unit}: {image} differs from its own manifest or description"),
    IMAGE_CONTRADICTS_WHY(
            "{difference} The file is damaged or another one. Fetch it again and check it again before it is "
                    + "deployed."),
    IMAGE_DIGEST("{unit}: the digest of {image} is not the planned one"),
    IMAGE_DIGEST_DIFFERS("{file}: the manifest states {stated}, read {read}."),
    IMAGE_DIGEST_WHY("Expected {expected}, read {read}. The file is damaged or another one. Fetch it again and "
            + "check it again before it is deployed."),
    IMAGE_DISK_FORMAT("{unit}: {image} is {format}, {host} accepts {accepted}"),
    IMAGE_DISK_FORMAT_WHY("Fetch the variant for this host, or convert the disk and check it again."),
    IMAGE_FILE_MISSING("{file} is named in the manifest or description and is missing."),
    IMAGE_FORMAT("{unit}: {image} is {format}, the kind needs {formats}"),
    IMAGE_FORMAT_WHY("The format is read from the first bytes of the file. Choose the variant that the kind names."),
    IMAGE_HOST_VERSION("{unit}: {host} has version {version}, the kind needs {from} or later"),
    IMAGE_HOST_VERSION_WHY("The image would not start there. Update the host, or plan it on another one."),
    IMAGE_NETWORKS("{unit}: {image} has {count} {count|interface|interfaces}, the kind connects {connected}"),
    IMAGE_NETWORKS_WHY("Interfaces of the description: {interfaces}. An interface too many stays unconnected; with "
            + "one too few the setup fails."),
    IMAGE_NOT_CHECKED("Image {image} is not checked yet"),
    IMAGE_NOT_CHECKED_WHY("Add it under Networks and services, Images. Its digest, format and description are then "
            + "compared with the plan."),
    IMAGE_SIZE("{unit}: {image} has {size}, the plan says {planned}"),
    IMAGE_SIZE_DIFFERS("{file}: the description states {stated} bytes, the file has {read}."),
    IMAGE_SIZE_WHY("What is planned on its host counts with the smaller figure. Correct the image size."),
    IMAGE_TOO_LARGE("{unit}: its image of {image} does not fit on {host}"),
    IMAGE_TOO_LARGE_WHY("The host has {disk}. The deployment would fail near its end."),
    IMAGE_VERSION("{unit}: {image} has version {version}, the kind needs {from} or later"),
    IMAGE_VERSION_WHY("The setup of this kind is described for later versions. Fetch a later image."),
    IMAGE_WANTS_MORE("{unit}: the description of {image} needs {more}"),
    IMAGE_WANTS_MORE_WHY("The kind plans {cores} cores, {memory} of memory and {disk} of disk, and the host was "
            + "checked for that. Adjust the kind."),
    ISOLATED_NEEDS_INTERNET("{unit} needs the internet in its setup, and the site is isolated"),
    ISOLATED_NEEDS_INTERNET_WHY(
            "The setup cannot reach what it needs. Find out how this kind is set up without the internet."),
    ISOLATED_SENDS_OUT("{unit} would have {fact} on at an isolated site"),
    ISOLATED_SENDS_OUT_WHY("The policy of the site is that nothing is sent out. Set the fact to no."),
    ISOLATED_WAY_ROUND("The setup cannot reach what it needs. {way}"),
    LICENCE_KEY_MISSING("{unit} has no licence key"),
    LICENCE_KEY_MISSING_BRIDGED("The setup uses the key ({steps}). Enter it, or a temporary key with its end date."),
    LICENCE_KEY_MISSING_WHY("The setup uses the key ({steps}). Enter it first."),
    LINE_TWICE("Line {line} is planned for {units}"),
    LINE_TWICE_WHY("Input for one machine would reach the other. Give each its own line."),
    LOWER_PRIORITY("Lower the priority of {unit}"),
    MAC_TWICE("MAC address {mac} is used by {units}"),
    MAC_TWICE_WHY("One of the labels is wrong. Setup would find the wrong machine."),
    MAIL_RELAY("mail relay"),
    MAKE_IT_STATIC("Make it static"),
    MAKE_MASTER("Make {unit} the master"),
    MEMBERS_DIFFER("{unit}: {fact} differs between members"),
    MEMBERS_DIFFER_WHY("{values}. Each member must have the same value, or they cannot join."),
    MEMORY("{memory} of memory"),
    MANAGER_TIME("{unit} takes its time from {servers}, its manager {manager} from {others}"),
    MANAGER_TIME_WHY("Clocks that follow different servers drift apart, and a manager refuses what seems to come from "
            + "another time. Give both networks at least one time server in common."),
    MTU_MISMATCH("{unit} would send {wanted} bytes, {network} carries {mtu}"),
    MTU_MISMATCH_WHY("Small packets pass and large ones are lost: the array seems healthy but no volume mounts."),
    NAME_LONG_ELSEWHERE("{fact} “{value}” has more than 15 characters"),
    NAME_LONG_ELSEWHERE_WHY("Directories and older tools cut longer names (RFC 1001 allows 15). Shorten it if the unit "
            + "joins a directory."),
    NAME_SERVER("name server"),
    NAME_SERVER_ODD("Name server {server} {fault}"),
    NAME_SERVER_ODD_WHY("Units that use it cannot resolve names. Fix it, or use another name server."),
    NAME_SERVER_SILENT("Name server {server} does not answer"),
    NAME_SERVICE("name service"),
    NAME_TOO_LONG("{name} has {length} characters, the machine allows {longest}"),
    NAME_TOO_LONG_WHY("Some machines cut it silently, and it no longer matches the DNS records. Shorten the pattern."),
    NAME_TWICE("{name} is planned for {count} addresses"),
    NAME_TWICE_WHY("The name resolves to either address. Give each unit its own name."),
    NETWORKS_OVERLAP("{one} and {other} overlap"),
    NETWORKS_OVERLAP_WHY("Routers would deliver packets to the wrong network. One of the two prefixes is wrong."),
    NETWORK_MISSING("No network for {purpose} is defined"),
    NETWORK_MISSING_WHY("{count} {count|unit needs|units need} addresses in one. All addresses of a unit are "
            + "allocated together."),
    NO_ADDRESS_IS_ALLOCATED("no address is allocated"),
    NO_FIRST_CONTACT_MANY("{count} units have no known first address"),
    NO_FIRST_CONTACT_ONE("{unit} has no known first address"),
    NO_FIRST_CONTACT_WHY(
            "These machines start with DHCP. Define the DHCP range of {prefix}, or enter each first address with "
                    + "its label. Otherwise the setup cannot start."),
    NO_NAME_SERVER("No name server is defined"),
    NO_NAME_SERVER_WHY("The setup asks for one. Enter at least one, preferably two."),
    NO_POOL("{prefix} has no pool yet"),
    NO_POOL_WHY("Add a range that units can use, such as .101-.180."),
    NO_SOURCES("No source networks are defined for management access"),
    NO_SOURCES_WHY("Management is then open to everyone with a route. Define the prefixes that may reach it."),
    NO_SUBNET_MANAGER("Fabric {fabric} has no subnet manager"),
    NO_SUBNET_MANAGER_WHY("Without a master, no port of the fabric comes up. Give one gateway the highest priority."),
    NO_TIME_SERVER("No time server is defined"),
    NO_TIME_SERVER_LEFT("No time server is left"),
    NO_TIME_SERVER_WHY("Certificates and logs need the right time. Enter one, preferably three."),
    ONE_NAME_SERVER("Only one name server"),
    ONE_NAME_SERVER_WHY("While it restarts, nothing resolves. Add a second one."),
    ONE_TIME_SERVER("Only one time source"),
    ONE_TIME_SERVER_LEFT("Only one time source is left"),
    ONE_TIME_SERVER_WHY("If it fails, clocks drift unnoticed. Use three."),
    POLICY_MISSING("The site has no policy on {policy}"),
    POLICY_MISSING_WHY("{count} {count|unit asks|units ask} for it. Decide once, with a reason, so that all units "
            + "get the same answer."),
    POOL_OUTSIDE("Pool {pool} extends beyond {prefix}"),
    POOL_OUTSIDE_WHY("Addresses outside the prefix belong to other networks. Shorten the pool."),
    POOL_RUNS_DRY("Pools of {prefix} will be empty about {day}"),
    POOL_RUNS_DRY_WHY("{taken} addresses were allocated in 28 days, {free} are left. Ask for another range in time."),
    POOL_TOO_SMALL("{needed} {needed|address is|addresses are} needed in {prefix}, {free} {free|is|are} free"),
    POOL_TOO_SMALL_WHY("The last units would get none. Extend the pool or release unused addresses."),
    POSITION_TWICE("{position} is entered for {units}"),
    POSITION_TWICE_WHY("Only one can be there. Correct the position of the other."),
    PROXY_FAILS("The proxy {fault}."),
    PROXY_MISSING("{unit} needs a proxy"),
    PROXY_NOT_DEFINED("No proxy is defined. The setup asks for its address."),
    PROXY_NOT_POSSIBLE("{unit} cannot use a proxy in its first setup"),
    PROXY_NOT_POSSIBLE_WHY("The machine needs the internet at that point, and this site has a proxy. {way}"),
    RECORD_DISAGREES("{name} resolves to {address} already, expected {expected}"),
    RECORD_DISAGREES_WHY("That record was not created by Lychnos and is never overwritten. Ask its owner, or choose "
            + "another name."),
    RELAY_ODD("Mail relay {relay}: {fault}"),
    RELAY_ODD_WHY("Alarms of units that use this relay will not arrive."),
    REMOVE_TIME_SERVER("Remove this time server"),
    SENDER_DOMAIN("{unit}: the relay will refuse its mail"),
    SENDER_DOMAIN_NOWHERE("{domain} has neither an MX nor an address record; the relay answered {answer}."),
    SENDER_DOMAIN_WHY("The relay answered {answer}."),
    SERIAL_TWICE("Serial {serial} is used by {units}"),
    SERIAL_TWICE_WHY("One of the labels is wrong. Setup would accept the wrong machine."),
    SERVER_IN_POOL("Server {server} is inside a pool of {prefix}"),
    SERVER_IN_POOL_WHY("The address of the server could be allocated to a unit. Keep servers outside the pools."),
    SERVER_TWICE("{network}: {service} {server} is listed twice"),
    SERVER_TWICE_WHY("Listing it twice gives no redundancy. Use another server."),
    SERVICES_SILENT("{service} {servers} do not answer"),
    SERVICE_NOT_CHECKED("the {service} is not checked yet"),
    SERVICE_NOT_DEFINED("no {service} is defined"),
    SERVICE_SILENT("{service} {servers} does not answer"),
    SETUP_ASKS_FOR_SERVERS("the setup asks for {asked} {server}s, the network has {has}"),
    SET_VALUE("Set {value}"),
    SET_FACT_TO("Set {fact} to {value}"),
    SET_VALUE_ON_MEMBER("Set {value} on {member}"),
    SHARED_FACTORY_ADDRESS("{count} units share the factory address {address}"),
    SHARED_FACTORY_ADDRESS_WHY(
            "On one segment any of them may answer. Connect them one at a time; Lychnos starts only one "
                    + "of them at a time."),
    SITE_RESOURCE_UNKNOWN("{unit}: there is no {sort} “{name}”"),
    SITE_RESOURCE_UNKNOWN_WHY("Define it under Networks and services, or correct the name."),
    START_POOL_AT("Start the pool at {first}"),
    SUBNET_MANAGER_PRIORITY("The subnet manager of {unit} has no priority from 0 to {highest}"),
    SUBNET_MANAGER_PRIORITY_WHY(
            "The machine refuses any other value. The highest priority of a fabric is its master; with 0 "
                    + "the machine runs no subnet manager."),
    SWITCH_PORT_TWICE("Switch port {port} is entered for {units}"),
    SWITCH_PORT_TWICE_WHY("Only one cable fits. Read the label of the cable and correct one of them."),
    TIME_SERVER("time server"),
    TIME_SERVER_LIES("Time server {server} is wrong"),
    TIME_SERVER_LIES_WHY("This server {fault}. Machines with this time refuse certificates and logins."),
    TIME_SERVER_ODD("Time server {server}: {fault}"),
    TIME_SERVER_SILENT("Time server {server} does not answer"),
    TIME_SERVER_SILENT_WHY(
            "A machine that uses it may start with a wrong clock, which breaks certificates and logins " + "later."),
    TIME_SERVICE("time service"),
    TUNNEL_OVERLAPS("{unit}: tunnel endpoints {pool} overlap {network}"),
    TUNNEL_OVERLAPS_WHY(
            "Addresses in both would be unreachable through the fabric, and the range cannot be changed " + "later."),
    TUNNEL_TOO_SMALL("{range} is too small for {count} switches and their growth"),
    TUNNEL_TOO_SMALL_WHY(
            "The range has room for {room} and cannot be changed later. Use a range for {needed} or more."),
    TWICE("{unit} twice"),
    TWO_SUBNET_MANAGERS("Fabric {fabric} has a second subnet manager of priority {highest}: {unit}"),
    TWO_SUBNET_MANAGERS_WHY("Either can become master, and the fabric is assigned new local identifiers each time that "
            + "changes. Give one of them a lower priority."),
    TWO_TIME_SERVERS("Two time sources"),
    TWO_TIME_SERVERS_LEFT("Two time sources are left"),
    TWO_TIME_SERVERS_WHY("With two, a unit cannot decide which one is wrong. Use three."),
    UNITS_DIFFER("{unit}: {fact} differs from the other units of its kind"),
    UNITS_DIFFER_WHY("{value} instead of {usual}. The kind says that all units have the same value."),
    UPDATES_REFUSED("{server} accepts no updates of {zone}"),
    UPDATES_REFUSED_WHY("The answer was: {answer}. Send the zone lines to the administrator of the zone, or check "
            + "the key and the right to update."),
    USE_VALUE("Use {value}"),
    VLAN_RESERVED("VLAN {vlan} is reserved"),
    VLAN_RESERVED_WHY("VLAN 1 is the default of every port (IEEE 802.1Q), and the last ones are reserved by many "
            + "switches. Choose another."),
    VLAN_TWICE("VLAN {vlan} carries both {one} and {other}"),
    VLAN_TWICE_WHY("Two networks in one broadcast domain receive each other’s DHCP. Check both VLAN numbers.");

    private final String pattern;

    RuleText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
