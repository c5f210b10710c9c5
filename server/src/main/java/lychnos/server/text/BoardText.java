package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of the Board. */
public enum BoardText implements Message {
    ADD_THE_EXPECTED_UNITS("Add the expected units"),
    ALLOCATE_ADDRESSES("Allocate addresses to {unplaced}"),
    ALLOCATE_PROPOSES_A_FIT("Allocate proposes a fit in {prefix}."),
    ALL_ANSWERS_ARE_KNOWN("All answers are known. The setup stops before anything permanent."),
    ANSWER_WAS_REFUSED("an answer was refused"),
    AT_THE_BENCH("at the bench"),
    BEGIN_AT_ITS_CONSOLE("Begin {name} at its console"),
    BLOCKED_BY_A_PREREQUISITE("blocked by a prerequisite"),
    BY_HAND("by hand"),
    DEFINE_THE_NETWORK("Define the network"),
    DIFFERS_FROM_THE_PLAN("differs from the plan"),
    FACTS_MISSING("{count} {count|fact|facts} missing"),
    FACTS_TO_FIND_OUT("{count} facts to find out"),
    SIGNED("{count} signed"),
    STOPPED("{count} stopped"),
    PASSWORD_CHANGE_STOPPED("{name}: the password change has stopped"),
    REPLACE_CERTIFICATES("Valid until {due}. Request and install new certificates before then."),
    PROVEN("{count} proven"),
    KNOWN("{known} of {all} known"),
    FINDINGS_BLOCK("{count} {count|finding blocks|findings block}"),
    ALLOCATED("{count} allocated"),
    FIND_THE_MISSING_FACTS("Find the missing facts of {unread}"),
    FIRST_IS_SET_UP_ALONE("The first is set up alone until it is proven; the others follow in parallel."),
    IMPORT_A_LABEL_LIST_OR_A_TABLE("Import a label list or a table, or type into the fact sheet."),
    IN_PROGRESS("{running} in progress"),
    IS_NOT_PROVEN("{name} is not proven"),
    LINE_DOWN("line down"),
    NEEDS_YOUR_DECISION("needs your decision"),
    NEXT_ANSWER_IS_READY("next answer is ready"),
    NOT_MEASURED("not measured: {titles}"),
    NOT_PROVEN("{broken} not proven"),
    NOT_REACHABLE_OVER_THE_NETWORK("not reachable over the network"),
    NO_NETWORK("no network"),
    NO_UNITS_YET("no units yet"),
    OTHERS_WAIT_UNTIL_YOU_DECIDE("{note} The others wait until you decide."),
    PAGE_DIFFERS_FROM_THE_PLAN("page differs from the plan"),
    CONSENT_TO_GIVE("consent needed"),
    DECIDE_IN_HAND_OVER("{note} Decide in Hand over, Change passwords."),
    DUE_ON("Due on {due}. Close it in Hand over when it is done."),
    OVERDUE_SINCE("Overdue since {due}. Close it in Hand over when it is done."),
    REQUEST_DUE_ON("Due on {due}. Mark it as done in Prepare, Requests, when it is."),
    REQUEST_OVERDUE_SINCE("Overdue since {due}. Mark it as done in Prepare, Requests, when it is."),
    PERMANENT_VALUE_TO_CONFIRM("a permanent value to confirm"),
    PREFIX_GATEWAY_DOMAIN("Enter prefix, gateway, domain, name and time servers, and a pool."),
    PROVEN_BUT_NOT_SIGNED("Proven but not signed. A lead signs in Hand over."),
    READY_BY_HAND("ready, by hand for now"),
    READY_FOR_THE_BENCH("ready for the bench"),
    READY_TO_SIGN("ready to sign"),
    SEE_FINDINGS("see findings"),
    TAKES_LONGER_THAN_USUAL("takes longer than usual"),
    TO_FIND_OUT("{fact} to find out"),
    SOME_TO_SIGN("{count} signed · {more} to sign"),
    UNEXPECTED_QUESTION("unexpected question"),
    USUALLY("usually for {about}"),
    USUALLY_BACK_WITHIN("Usually back within {seconds} s. Then it is read back and proven."),
    WAITS_UNTIL("waits until {day}"),
    WAITS_FOR_ANOTHER_MEMBER("waits for another member"),
    WAS_SET_UP_BEFORE("was set up before"),
    SOME_ALLOCATED("{count} allocated · {without} without address"),
    WRONG_MACHINE_ON_THIS_LINE("wrong machine on this line");

    private final String pattern;

    BoardText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
