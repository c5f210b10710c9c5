package lychnos.core.sheet;

import lychnos.core.text.Message;

/** Texts of value sheets and fact sheets: where a value comes from, and what is wrong with a cell. */
enum SheetText implements Message {
    ALLOCATED_FOR("allocated for “{role}”"),
    ALLOCATED_IN("allocated in {network}"),
    DEFAULT_OF_KIND("default of the kind"),
    DEFINED_FOR_SITE("defined for the site"),
    ENTERED_IN_PREPARE("entered in Prepare"),
    FACTORY_LOGIN("factory login"),
    FROM_IMPORTED_TABLE("from the imported table"),
    FROM_LABEL("from the label"),
    MEMBER_NUMBER("the number of the member"),
    NAME_PATTERN("from the name pattern"),
    NETWORK("network {network}"),
    NEVER_ASKED("{kind} does not ask for this fact."),
    NO_SUCH_FACT("No unit here has a fact of this name. The column was left out."),
    NO_SUCH_MEMBER("{unit} has no such member; its members are {members}."),
    NO_SUCH_UNIT("There is no such unit in this bring-up."),
    NO_UNIT_COLUMN("No column holds the units. Choose the column that does, or name it “unit”. Nothing was read."),
    OWN_LABEL("on the label of the member"),
    OWN_NAME("the name of the unit"),
    READ_ON_THE_LINE("read on the line of {member}"),
    SITE_POLICY("policy of the site"),
    UNIT_IS_MISSING("The unit is missing."),
    WHICH_MEMBER("Enter a member in the column “member”: {members}.");

    private final String pattern;

    SheetText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
