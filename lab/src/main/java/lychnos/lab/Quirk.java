package lychnos.lab;

import java.util.EnumSet;
import java.util.Locale;
import java.util.Set;

/**
 * Ways in which a stand-in departs from the plain path: habits that real machines have, and misbehaviour on purpose.
 */
public enum Quirk {
    /** Refuses a PATCH without If-Match (428) or with an old one (412). */
    ETAG_REQUIRED,
    /** Gives weak entity tags. */
    WEAK_ETAG,
    /** Gives no entity tags at all. */
    NO_ETAG,
    /** Everything but the own account answers 403 until the factory password is replaced. */
    PASSWORD_CHANGE_REQUIRED,
    /** Refuses a static address while DHCP is on in the same request (400). */
    DHCP_FIRST,
    /** Answers a PATCH of its network settings with 202 and a task. */
    TASKS,
    /** Closes the connection without an answer when its address changes. */
    DIES_ON_MOVE,
    /** Pads lists of servers with empty texts up to four. */
    PADDED_LISTS,
    /** After the move it presents a certificate that has run out. */
    WRONG_CERTIFICATE,
    /** After the move it never comes back. */
    NEVER_BACK,
    /** Takes the new address, restarts, and comes back at the old one. */
    BACK_AT_OLD,
    /** After the move it answers with garbage. */
    GARBAGE,
    /** Another machine than the label says stands in the slot: same MAC address on the switch, other serial. */
    OTHER_SERIAL,
    /** Accepts time servers with 200 and a warning, and keeps none. */
    FORGETS_TIME,
    /** A second factory account stays open. */
    KEEPS_FACTORY,
    /** Once it has a password of its own, the one before it goes on working beside the new one. */
    KEEPS_OLD,
    /** Takes another password than its first one and hangs up before it answers. */
    HANGS_UP_ON_NEW_PASSWORD,
    /** Hangs up on the first few questions for its manager, as one that is busy for a moment. */
    BUSY_AT_FIRST,
    /** Shows no serial anywhere. */
    NO_SERIAL,
    /** Shows its serial on its chassis alone. */
    CHASSIS_SERIAL,
    /**
     * Is the second of two managers behind one service; the first belongs to the enclosure and has ports of its own.
     */
    SECOND_MANAGER,
    /** Its management port has no VLAN of its own, and the property is ignored. */
    NO_VLAN,
    /**
     * The switch port it is plugged into carries no tagged VLAN: after turning tagging on, nothing is heard from it
     * again.
     */
    UNTAGGED_SWITCH_PORT,
    /** Brings itself to another version a minute after its password was set, and tells nobody. */
    UPDATES_ITSELF,
    /** Has no way to put another certificate in. */
    NO_CERTIFICATE_SERVICE,
    /** Has no sessions: every request brings its log-in. */
    NO_SESSIONS,
    /** Has no property for its full name, and refuses a request that contains one (400). */
    NO_FULL_NAME,
    /** Its network protocol settings have no time servers; a request that contains them is refused (400). */
    NO_TIME_SERVICE,
    /** Has no network protocol settings at all. */
    NO_PROTOCOL_SETTINGS,
    /** Links to a chassis that is not there (404). */
    MISSING_CHASSIS,
    /** Its presence ping (RMCP) is switched off, as policy wants it at many sites. */
    NO_PRESENCE,
    /** Telnet stays open. */
    TELNET_OPEN,
    /** Answers SNMP to the community that it was delivered with. */
    ANSWERS_SNMP;

    /** Reads {@code etag-required,dhcp-first}; a hyphen alone means none. */
    static Set<Quirk> parse(String text) {
        Set<Quirk> quirks = EnumSet.noneOf(Quirk.class);
        if (!text.equals("-")) {
            for (String word : text.split(",")) {
                quirks.add(valueOf(word.toUpperCase(Locale.ROOT).replace('-', '_')));
            }
        }
        return quirks;
    }
}
