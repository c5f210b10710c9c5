package lychnos.core.kind;

import lychnos.core.text.Message;

/** Texts of the summary of a kind. */
enum KindSummaryText implements Message {
    ADDRESSES("{count} {count|address|addresses in a row} in {networks}: {roles}"),
    AGREES_TO_TERMS("accepts licence terms, with the recorded consent of the site"),
    ANSWERS_ON_LINE("{count} {count|answer|answers} on its line"),
    ASKED_AGAIN("asked again at each check"),
    AS_MANY_AS("as many as “{fact}” says"),
    AT_COMMAND("command {number} of {all} on the console"),
    AT_QUESTION("question {number} of {all} on the console"),
    AT_STEP("step “{step}”"),
    BRING("Bring: {things}."),
    BY_CONSOLE("on its console line"),
    BY_PAGES("on its own web pages"),
    BY_REDFISH("automatically, over Redfish"),
    BY_SCREEN("in its setup screen, over its line"),
    CALLS_AFTER("asks for a person after {time}"),
    CHECKS_AT_RACK("{count} {count|check|checks} at the rack"),
    COMPARED_FIRST("compared before the first write"),
    CONTROLLER_OVER_REDFISH("its management controller, over Redfish"),
    DESTROYS("destroys what is there"),
    DOCUMENTED_INTERFACE("its documented interface"),
    ENDS("something ends on that day; Lychnos sends notices before"),
    FACTORY_NOT_TRIED("the factory login on these ways: {ways}"),
    FACTORY_REFUSED("factory login is refused ({ways})"),
    FROM_ACCESS("from the management access of the site"),
    FROM_POLICY("from the policy of the site"),
    IDENTITY_BY_MAC("its MAC address is the one on the label"),
    IMAGE("Image: {parts}."),
    IMAGE_FORMAT("in the format {formats}"),
    IMAGE_HOST("on a host of version {version} or later"),
    IMAGE_VERSION("version {version} or later"),
    KNOWN_LATER("becomes known during the setup, which waits for it"),
    LATER("can be done after the setup, once its value is known"),
    MADE("generated and sealed"),
    MAY_BE_LATE("{check} (may be late)"),
    MEMBERS("Members: {members}."),
    MEMBERS_OF_A_COUNT("Members: {members}, {counts} of them."),
    NEEDS_CONSENT("needs consent"),
    NEEDS_INTERNET("The machine needs the internet to activate."),
    NFS("NFS answers: {roles}"),
    NOT_ALWAYS_ASKED("not always asked"),
    MANAGES_IT("what manages it; both must have a time server in common"),
    NOT_ASKED("not asked"),
    NO_PRESENCE("answers no presence ping (RMCP)"),
    NO_PROXY("The setup cannot use a proxy: {way}."),
    NO_SNMP("does not answer SNMP with “{community}”"),
    OF_EACH_MEMBER("each member's"),
    OF_UNIT("the unit's"),
    ONE_ADDRESS("Every unit leaves the factory with the address {address}, so connect them to the network "
            + "one at a time."),
    ONLY_IF("only if {condition}"),
    ON_MEMBER("on {members}"),
    ON_PAGE("page “{page}”"),
    OPEN("open: TCP {ports}"),
    OVER_NETWORK("automatically, over the network"),
    OWN_VALUES("it shows its {values}, read at each check"),
    PAGES_BY_PERSON("a person fills in: {pages}"),
    PAGES_OVER_INTERFACE("{count} {count|page|pages} over its documented interface"),
    PAGE_BY_HAND("a page, by a person from the value sheet"),
    PASSWORD("a password"),
    PASSWORDS_MADE("{count} {count|password|passwords} generated"),
    PERSON_DECIDES("a person decides: {steps}"),
    PLUG("Plug: {plug}."),
    PORTALS("iSCSI portals answer: {roles}"),
    PORTS_KEPT_SHUT("{count} {count|port|ports} closed, or open to their sources only"),
    PORT_ANSWERS("TCP {port} answers"),
    PRESENCE("answers a presence ping (RMCP)"),
    RACK_CHECKS("Checked at the rack: {checks}."),
    RESTART("A restart takes {usual}, and is a fault after {longest}."),
    RESTARTS_CONFIRMED("a person confirms {count} {count|restart|restarts}"),
    RESTRICTED("TCP {port} answers the sources of “{fact}” and no others"),
    ROLE_OPEN("{role}, open: TCP {ports}"),
    ROLE_SHUT("{role}, closed: TCP {ports}"),
    ROOM_TO_GROW("with room to grow behind them"),
    SAME_IN_IPV6("in IPv6 as well"),
    SAME_ON_ALL("the same on every member"),
    SAME_ON_UNITS("the same on all units of the kind"),
    SETTINGS_IN_SETUP_ONLY("its settings after the setup"),
    SETTINGS_OVER("its settings, over {ways}"),
    SET_UP_BY("Set up {way}."),
    SET_UP_OTHERWISE("by {way}"),
    SHUT("closed: TCP {ports}"),
    SSH("answers over SSH"),
    SSH_ALSO("lets in {user} over SSH, where that account is known"),
    SSH_READ_BACK("answers over SSH, where settings are read back"),
    STARTS_WITH_DHCP("The machine starts with an address from DHCP."),
    WEB_FORM("refuses the factory login on its web page"),
    VIRTUAL_MACHINE("A virtual machine with {cores} cores, {memory} of memory and {disk} of disk, connected to "
            + "{networks}."),
    WAIT("usually {usual}, a fault after {longest}"),
    WHOLE_SETUP_BY_PERSON("the whole setup, by a person"),
    WHOLE_SETUP_REDFISH("the whole setup, over Redfish");

    private final String pattern;

    KindSummaryText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
