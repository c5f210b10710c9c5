package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of records, packs and life afterwards. */
public enum HandoverText implements Message {
    ACCEPTED_FOR_THE_TIME_BEING("accepted for the time being: “{text}”, due {due}"),
    ADD_AN_OPEN_ITEM_WITH_A_REASON("Add an open item with a reason and a due date: {unnoted}."),
    CANNOT_BE_SIGNED("{unit} cannot be signed, so nothing was signed: {why}"),
    CERTIFICATE_SHA256("Certificate sha256 {digest}{firmware}"),
    CHAIN_BREAKS_AT_LINK("The chain breaks at link {broken}: {why}"),
    CHAIN_DOES_NOT_END_AS_THE_MANIFEST_SAYS("The chain does not end as the manifest says."),
    CHANGE_TO_DECIDE("a change to decide on"),
    CLOSED("closed “{item}”"),
    CONSOLE_RECORDING_SHA256("Console recording {member}, sha256 {digest}"),
    CREATED_A_PACK("created a pack of {count} {count|unit|units}, manifest {manifest}"),
    ENDPOINTS_SEEN("endpoints, seen from {places} {places|place|places}"),
    ENTER_THE_VALUE_OF_THE_NEW_MACHINE("Enter the value of the new machine."),
    EXPORTED_PASSWORDS("exported {count} {count|password|passwords} of {units} {units|unit|units} to {user}, key "
            + "{fingerprint}"),
    FILE_WITH_THE_END_OF_THE_CHAIN(
            "The file with the end of the chain that this server has seen cannot be read ({reason})."),
    HAS_CHANGED_SINCE_YOU_SAW("{unit} has changed since you saw it. Nothing was signed. Review it and sign again."),
    HAS_JUST_BEEN_SIGNED_BY_SOMEBODY_ELSE("{unit} has just been signed by somebody else. Nothing was signed now."),
    HAS_PASSED("{due} has passed."),
    HOW_IT_WAS_SET_UP("How it was set up"),
    IS_BEING_SET_UP("{unit} is being set up. Close its setup in Configure first."),
    IS_INSTEAD_OF("{endpoint}, {what}: {now} instead of {before}{reason} ({by})"),
    IS_MISSING("{name} is missing."),
    IS_NOT_AS_IT_WAS_MADE("{name} is not as it was made."),
    IS_NOT_IN_THE_MANIFEST("{name} is not in the manifest: it was put in later."),
    IS_NOT_SIGNED("{unit} is not signed."),
    IS_NO_JSON("{value} is no JSON."),
    IS_THE_VALUE_OF_THE_OLD_MACHINE("This is the value of the old machine."),
    ITEM_IS_ALREADY_CLOSED("This item is already closed."),
    JOURNAL_ENTRY("A journal entry"),
    KNOWN_AND_ACCEPTED("Known and accepted"),
    MACHINE_WAS_REPLACED("a machine was replaced: {reason}"),
    MADE_ON_ALL_TIMES_ARE_UTC("{site}, made on {at}; all times are UTC"),
    MAIL_RELAY("mail relay"),
    MANAGEMENT_ENDPOINTS("{bringUp}: management endpoints{volume}"),
    MANIFEST_JSON_IS_NOT_IN_THE_FORM("manifest.json is not in the form that it was made in."),
    MANIFEST_JSON_IS_NOT_THAT_OF_A_PACK("manifest.json is not that of a pack."),
    MANIFEST_JSON_IS_NO_JSON("manifest.json is no JSON."),
    NAME_RECORDS("name records"),
    NOTED_AS_OPEN("noted as open: “{text}”, due {due}"),
    NOT_EVERY_ENDPOINT_HAS_BEEN_CHECKED_YET("Not every endpoint has been checked yet."),
    NOT_MEASURED("{rung} not measured{more}"),
    NOT_STATED("{sort}, not stated"),
    NO_ADDRESS_IS_ALLOCATED_YET("No address is allocated yet."),
    NO_EXPORT("There is no export “{name}”."),
    NO_SIGNED_UNIT_HAS_A_PASSWORD_THAT_IS_KNOWN("No signed unit has a password that is known to work."),
    NO_SUCH_ITEM("There is no such item."),
    NO_SUCH_UNIT_IN_THIS_BRING_UP("There is no such unit in this bring-up."),
    NO_UNIT_IS_SIGNED_YET("No unit is signed yet. A pack contains signed units only."),
    OPEN_ITEMS("{count|open item|open items}"),
    OPEN_ITEM_TO_NOTE("an open item to note"),
    PACK_CANNOT_BE_READ_TO_ITS_END("The pack cannot be read to its end: {reason}."),
    PACK_HAS_NO_MANIFEST_JSON("The pack has no manifest.json, or is damaged before it."),
    PACK_LACKS("The pack has no {value}."),
    PAGE_HAS_1_TO_ENTRIES("A page has 1 to {most} entries, not {limit}."),
    PAGE_IS_LEFT_FOR_LATER("“{page}” is not set yet: its value is not known"),
    RECORDING_IS_NOT_THE_ONE_THAT_WAS_SIGNED("The recording {recording} is not the one that was signed with {unit}."),
    RECORD_OF_IS_NOT_AS_IT_WAS_SIGNED("The record of {unit} is not as it was signed."),
    RECORD_OF_IS_NOT_IN_THE_CHAIN("The record of {unit} is not in the chain."),
    REOPENED_UNIT("reopened {unit}: {reason}"),
    REPLACED_A_MACHINE("replaced {what}: {values} ({reason})"),
    RETIRED("retired {name}: {reason}. Its {addresses} {addresses|address cools|addresses cool} off, its "
            + "names are removed"),
    SAY_WHICH_MACHINE_IS_REPLACED("Say which machine is replaced, and its new serial and MAC addresses."),
    SERVER_HAS_SEEN_ANOTHER_LINK_HERE_BEFORE(
            "This server has seen another link here before: the chain was written again from before it, "
                    + "or an older state of the database was put back."),
    SETUP_HAS_STOPPED("The setup has stopped. Decide in Configure how to continue."),
    SETUP_IS_IN_PROGRESS("The setup is in progress."),
    SIGNED_BY("Signed by {unit} on {signedAt}, record {digest}"),
    SIGNED_UNIT("signed {unit}, record {digest}"),
    SOMETHING_HAS_CHANGED_SINCE_IT_WAS_ACCEPTED(
            "Something has changed since it was accepted: {what} of {endpoint}. Decide on it in Prove."),
    THAT_IT_WAS_MADE_OF_IS_GONE("{what} that it was made of is gone."),
    TYPE_IS_AN_OPEN_ITEM_OR_AN_ACCEPTED("The type is an open item or an accepted difference."),
    UNITS_SIGNED("units signed of {units}"),
    UNIT_BELONGS_TO_ANOTHER_BRING_UP("This unit belongs to another bring-up."),
    UNIT_HAS_NO_MEMBER_WITH_A_SERIAL("This unit has no member “{member}” with a serial."),
    VALUE_IS_NOW("{fact} {before} is now {now}"),
    WAS_CHANGED_AFTER_IT_WAS_PUT_IN("{what} was changed after it was put in."),
    WAS_SIGNED("{unit} was signed by {signedBy} already, so nothing was signed."),
    WHAT_WAS_SEEN("What was seen"),
    WHICH_UNITS("Which units?"),
    ZIP_FILE_WAS_CHANGED_OUTSIDE("The ZIP file was changed outside of its entries.");

    private final String pattern;

    HandoverText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
