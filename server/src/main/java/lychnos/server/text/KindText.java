package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of kinds and their drafts. */
public enum KindText implements Message {
    ADJUSTED_OF_THE_KIND("adjusted “{place}” of the kind “{title}”: {reason}"),
    ANOTHER_LEAD_HAS_JUST_ADJUSTED_THE_SAME_VALUE(
            "Another lead has just adjusted the same value. Review that adjustment first."),
    AS_IT_IS_SHIPPED_WITH_THIS_VERSION("as it is shipped with this version of the program"),
    AT_MOST_RECORDINGS_ARE_KEPT_WITH_A_KIND("At most {most} recordings are kept with a kind. Remove one first."),
    A_DRAFT("There is a draft of “{id}” already. Publish or delete it first, then import the package."),
    A_KIND("There is a kind “{typed}” already. Choose another title, or edit its text."),
    BEGAN_A_DRAFT_OF_THE_KIND("began a draft of the kind “{id}”"),
    BEGAN_THE_KIND("began the kind “{id}”"),
    CHANGED_KIND("{retired} the kind “{id}”"),
    CHANGED_THE_DRAFT_OF_THE_KIND("changed the draft of the kind “{id}”"),
    CHOOSE_THE_SITE("Choose the site."),
    DELETED_THE_DRAFT_OF_THE_KIND("deleted the draft of the kind “{id}”"),
    DESCRIPTION_HAS_AT_MOST_CHARACTERS("A description has at most {longest} characters; this one has {count}."),
    DESCRIPTION_HAS_THE_ID("The description has the id “{id}”, but this is a draft of “{kindId}”."),
    DESCRIPTION_IN_THIS_PACKAGE_HAS_FAULTS("The description in this package has faults. Nothing was taken."),
    DRAFT_HAS_FAULTS("The draft has faults. Correct it, then play the recordings."),
    DRAFT_HAS_FAULTS_TO_CORRECT("The draft has {count} {count|fault|faults}. Correct {count|it|them}, then publish."),
    DRAFT_OF("The draft of “{id}”"),
    HAS_AT_MOST_CHARACTERS("{what} has at most {longest} characters."),
    HAS_NO_VALUE_OF_THAT_NAME("{title} has no value of that name that can be adjusted."),
    IS_NOT_A_VALID_ID("“{id}” is not a valid id: start with a lowercase letter and use at most 40 lowercase letters, "
            + "digits and hyphens."),
    KEPT_THE_RECORDING_WITH_THE_KIND("kept the recording “{name}” with the kind “{of}”"),
    KIND_HAS_NO_SUCH_RECORDING("This kind has no such recording."),
    KIND_HAS_NO_VERSION("The kind “{id}” has no version {version}."),
    KIND_IS_ALREADY_RETIRED("This kind is already retired."),
    KIND_IS_NOT_RETIRED("This kind is not retired."),
    KIND_IS_RETIRED("The kind “{id}” is retired. A lead can reinstate it under Kinds."),
    LIST_OF_THE_FORM_HAS_AT_MOST_ENTRIES("A list of the form has at most {most} entries, and none is null."),
    RECORDINGS_DO_NOT_AGREE(
            "{count} {count|recording does|recordings do} not agree with the draft. Correct the draft, remove a "
                    + "recording that no longer applies, or publish with a reason."),
    NO_DRAFT("There is no draft of “{id}”."),
    NO_KIND("There is no kind “{id}”."),
    NO_KIND_BUT_THESE("There is no kind “{id}”. These can be used: {offered}."),
    NO_KIND_IS_SET_UP_OVER_REDFISH("No kind is set up over Redfish. Publish one under Kinds first."),
    NO_SUCH_ADJUSTMENT("There is no such adjustment, or it was removed already."),
    NO_SUCH_SITE("There is no such site, or the bring-up is at another one."),
    PASSWORD_HAS_AT_MOST_CHARACTERS("A password has at most {longest} characters."),
    PROGRAM_SHIPS_NO_KIND("The program ships no kind “{id}”."),
    PUBLISHED_VERSION_OF_THE_KIND("published version {version} of the kind “{title}”"),
    REASON_HAS_TO_CHARACTERS("A reason has {shortest} to {longest} characters."),
    RECORDING_CANNOT_BE_READ("The recording “{name}” cannot be read. {reason}"),
    RECORDING_IS_KEPT("This recording is kept already, as “{other}”."),
    REMOVED_AN_ADJUSTMENT_OF_THE_KIND("removed an adjustment of the kind “{kindId}”"),
    REMOVED_THE_RECORDING_FROM_THE_KIND("removed the recording “{name}” from the kind “{kind}”"),
    THE_KIND("the kind's"),
    VALUE_HAS_NO_PASSWORD("This value has no password."),
    VERSION_OF_THE_KIND_CANNOT_BE_READ(
            "Version {version} of the kind “{kindId}” cannot be read by this program (line {line}: "
                    + "{fault}). Publish a corrected version under Kinds."),
    VERSION_SAYS_THE_SAME("Version {version} says the same. Nothing was published."),
    WAS_NOT_PLAYED("This recording was not played: the recordings together are too long.");

    private final String pattern;

    KindText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
