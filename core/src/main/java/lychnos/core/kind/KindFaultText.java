package lychnos.core.kind;

import lychnos.core.text.Message;

/** Texts about what is wrong with the description of a kind. */
enum KindFaultText implements Message {
    ACCESS_IS_A_PREFIX("The management access of a site is a prefix. Write is: prefix, or remove access."),
    ACCOUNT_NAME("The account name has 1 to 64 characters."),
    ADDRESSES_OF_A_UNIT("A unit has 1 to {most} addresses for each member, and up to {most} shared ones."),
    AGAIN("Only a command that changes nothing is sent again at each check: at: and send:, without "
            + "restarts or destroys."),
    CANNOT_BE_PLACED("These addresses cannot be allocated together: {fault}"),
    CHECK_TWICE("“{check}” is in the list twice."),
    COMMUNITY("A community has at most 32 characters and no space."),
    DESCRIPTION_EMPTY("The description is empty."),
    DESCRIPTION_TOO_LONG("The description has more than {longest} characters."),
    DIALOGUE_EMPTY(
            "A dialogue needs setup: with at least one step, pages: with at least one page, or line: alone if the "
                    + "setup is done by hand."),
    EXPECTED_WORD("A text under expect is required or possible."),
    FACT_NAME("“{name}” is not a name for a fact. Use lowercase letters, digits and hyphens."),
    FACT_SCOPE("Write of: unit or of: member."),
    FACT_TYPE("“{text}” is not a type of fact. Possible: {types}."),
    FIELD_PLACE("Each field of a page with a resource needs its place in the resource: { is: …, at: /mtu }."),
    FLOW_PORT("A flow has a port such as udp 53."),
    INTERFACE_NOT_IDENTIFIED("An interface must identify the machine before anything is written: {example}."),
    KEY_MISSING("This key is missing."),
    LAPTOP("“{text}” is not an address of a laptop with its length, in the subnet of {address}. Write 10.47.254.2/24."),
    LATER_NEEDS_RESOURCE("Only a page with a resource can be done later: Lychnos continues with it."),
    LEAST_OF_A_SIZE("Only a size has a least value."),
    LIST_EXPECTED("A list is expected here: [ one, two ]."),
    LOG_WAY("A log needs send: and at: on the console, or resource: on the interface."),
    MANAGER_IS_AN_ADDRESS("A manager is found by its address. Write is: address, or remove manager."),
    MAP_EXPECTED("A map is expected here: key: value."),
    MEMBERS("Members have labels: [left, right], or each: node with counts: [1, 2, 3]."),
    MUST_BE_REFUSED("Only a password that answers a question can be one that must be refused."),
    NEVER_THAT_VALUE("“{name}” is never “{text}”. Possible: {possible}."),
    NOT_AN_EXPECTATION("“{text}” is not one of: expected, forbidden, not checked."),
    NOT_AN_IMAGE_FORMAT("“{word}” is not an image format. Possible: {formats}."),
    NOT_A_COUNT("“{text}” is neither a number nor a number fact of the unit."),
    NOT_A_FLOW("“{text}” is not a flow, such as engineers > all tcp 443."),
    NOT_A_KEY("A key is enter, space, redraw, none, one letter, or one with Ctrl, such as ctrl w."),
    NOT_A_NUMBER_TO_ADD("“{name}” is not a number. A number can be added to a number or an address."),
    NOT_A_PORT("“{text}” is not a TCP port. Ports are 1 to 65535."),
    NOT_A_PREFIX_FACT("“{name}” is not a fact of type prefix."),
    NOT_A_PURPOSE("“{text}” is not the purpose of a network. Possible: {purposes}."),
    NOT_A_TIME("Expected a time, such as 90 s or 3 min."),
    NOT_A_WORD("“{text}” is not a word of lowercase letters, digits and hyphens."),
    NOT_IDENTIFIED("A machine is identified by at least one value: {example}."),
    NOT_READABLE_YAML("The text is not valid YAML: {fault}"),
    NOT_READ_BEFORE("No earlier step reads “{value}”."),
    NOT_SHIPPED("Nothing is shipped as {path}."),
    NOT_YAML("The text is not valid YAML: {fault}."),
    NO_CHOICES("A choice needs choices: [one, other]."),
    NO_FACTORY_LOGIN("At least one factory login is needed: - { way: ssh, user: keeper, phrase: … }."),
    NO_GROUP("The pattern under see has no group (?<{group}>…)."),
    NO_INTERFACE("A page has a resource, but interface: is missing, which says where resources begin."),
    NO_INTERFACE_OF_LOG("A resource needs interface:, which says where resources begin."),
    NO_NAME_PATTERN("The role “{role}” has no name pattern under roles."),
    NO_NETWORK("An entry needs its network: in: management."),
    NO_RUN("An entry needs run: [role, role]."),
    NO_STATE_GROUP("The pattern under see has no group (?<state>…)."),
    NO_SUCH_MEMBER("No member has the label “{label}”."),
    NO_SUCH_ROLE("No address has the role “{role}”."),
    NO_VALUES_IN_PATTERN("Only a pattern that is searched on a line can contain values."),
    NUMBER_EXPECTED("A number from {least} to {most} is expected here."),
    PAGE_EMPTY("A page needs fields: with at least one field."),
    PASSWORD_ALONE("A password stands alone, such as {example}."),
    PASSWORD_ALONE_IN_ANSWER("A password stands alone in its answer. Nothing else can be sent with it."),
    PASSWORD_ALONE_IN_FIELD("A password stands alone in its field. Nothing else can be sent with it."),
    PASSWORD_IN_CONDITION("A condition cannot use a password."),
    PATHS("Two paths are halves or alternating."),
    PLACE_IN_RESOURCE("A place in a resource starts with a slash, such as /mtu or /ports/0."),
    PORT_TWICE("The same TCP port cannot be expected and forbidden."),
    READ_WITHOUT_RESOURCE("What is read at each check needs its resource, such as resource: /settings."),
    REPEATED_TWICE("Steps that are repeated cannot be repeated again."),
    REPETITION("Steps can be repeated a number of times, for name-servers or time-servers, for the entries "
            + "of a list [ port a, port b ], or as often as a number fact says."),
    REPETITION_EMPTY("A repetition needs steps: with at least one step."),
    RESOURCE_PATH("A resource is a path that starts with a slash, such as /subnets/data."),
    SETUP_WAY("A setup is by: redfish, console, pages or screen."),
    SHORT_WORD("The short name has 1 to 8 lowercase letters and digits."),
    SUMMARY_EMPTY("A summary compares at least one field."),
    TEXT_EXPECTED("A text is expected here."),
    TEXT_TOO_LONG("At most {longest} characters are allowed."),
    TIMES_REVERSED("The longest time is shorter than the usual time."),
    TOO_DEEP("Lists and maps are nested more than {deepest} deep here."),
    TOO_MANY_STEPS("This makes {count} steps, at most {most} are possible."),
    TWO_TIMES("Enter two times, such as 3 min, at most 10 min."),
    UNKNOWN_IN_CONDITION("Unknown value “{name}” in a condition. Use a fact of this kind, an address of a role, or a "
            + "value that the machine shows before this step."),
    UNKNOWN_IN_PATTERN("Unknown placeholder “{name}” in a pattern. Use a fact of this kind or an address of a role."),
    UNKNOWN_KEY("“{key}” is unknown here. Possible keys: {keys}."),
    UNKNOWN_PLACEHOLDER("Unknown placeholder “{name}”. Use a fact of this kind, an address of a role, or a value "
            + "that an earlier step reads."),
    SHOWS_WITHOUT_LOGIN("shows: reads the output of commands that are sent again over SSH: name the login with ssh:"
            + " { user, phrase }."),
    WARNING("A warning belongs to what restarts: restarts: yes."),
    YES_OR_NO_EXPECTED("yes or no is expected here.");

    private final String pattern;

    KindFaultText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
