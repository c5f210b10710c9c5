package lychnos.core.dialogue;

import lychnos.core.text.Message;

/** Texts of a setup on a line or a page: why it stops for a person, and what was seen. */
enum DialogueText implements Message {
    ASKED_AGAIN("The machine asks “{steps}” again, although it was answered. The machine may have restarted. "
            + "Look at it and continue by hand."),
    ASKED_AND_GONE("The machine asked “{step}” and then showed something else. If it still asks, confirm, and "
            + "Lychnos sends the password."),
    BEFORE("before {version}"),
    COMMAND_NOT_KNOWN("not known"),
    COMPARED_BY_A_PERSON("compared by a person after the connection was lost"),
    CONSENT("“{step}” moves authority to this machine. Read the values, and enter the reason of your " + "consent."),
    CUT("The connection was lost here and the line has shown nothing since. Confirm that this is "
            + "still the same machine, and Lychnos continues at what the line showed last."),
    DATA_BITS("A line has 5 to 8 data bits, not {dataBits}."),
    DESTROYS("“{step}” destroys what is on the machine. Type the unit's name."),
    FACT_IS_KNOWN("{fact} is known"),
    FIELDS_AGREE("{count} of {all} agree"),
    FIELD_DIFFERS("{field} shows “{shown}”, expected “{planned}”"),
    FIELD_EMPTY("{field} shows nothing, expected “{planned}”"),
    FROM("from {version}"),
    HAS_A_VALUE("has a value"),
    HAS_NO_VALUE("has no value"),
    INPUT_DIFFERS("Your input differs from the plan for “{steps}”: {planned}. Enter was held back; correct it, "
            + "or send it anyway."),
    INPUT_UNIDENTIFIED("The line has not shown which machine this is. Enter was held back: bring the machine to "
            + "where it shows its serial, or send it anyway."),
    IS("is {values}"),
    IS_BELOW("is below {least}"),
    IS_BETWEEN("is {limits}"),
    IS_NOT("is not {values}"),
    IS_OR_MORE("is {least} or more"),
    ITS_DAY("its day"),
    LEFT_AS_IT_IS("left as it is"),
    LET_IN("“{step}” was typed to show that the machine refuses it, and the machine does not ask for the log-in again: "
            + "it may have let it in. Log out on the console, and the setup continues. Prove then shows that this "
            + "login was not refused."),
    LINE_SETTING("“{text}” is not a line setting. Write it as 57600 8N1."),
    LIST_ADDED("“{text}” adds to a list. A list stands alone."),
    LOGIN_ASKED_AGAIN("it asks for the log-in again"),
    LOG_CUT("(Lychnos did not wait for the rest.)"),
    LOG_IN_PROGRESS("The log is being fetched already."),
    LOG_NOT_DESCRIBED("The kind does not say how its log is shown on the console."),
    LOG_NOT_NOW("A log can be fetched while the setup waits for a person and the machine is identified."),
    LOG_NO_PROMPT("The line does not show the prompt “{prompt}”. Bring the machine to it, then fetch the log."),
    LOOK_NOT_SHOWN("not shown"),
    MINUTES("{minutes} min"),
    NEXT_NOT_ASKED("The machine has not asked the next question within {time} after “{step}”. Look at the "
            + "machine, or keep waiting. Lychnos continues when it asks."),
    NEXT_OVER_REDFISH("“{step}” is set up next, over Redfish."),
    NOTHING_SHOWN("The machine has shown nothing for {time}. It may be busy, or it did not receive the last "
            + "answer. Look at the machine. Lychnos continues when the line shows something."),
    NOT_IDENTIFIED("The line does not show which machine this is. Bring it to where it shows its serial, or "
            + "check that the cable is in the right port."),
    NOT_SHOWN_IN_OUTPUT("“{step}” does not show {texts}. Read the output. Once the cause is fixed, run the command "
            + "again by hand."),
    NO_CURSOR_ROW("The page shows no row that moves with the cursor keys. Move to “{step}” yourself."),
    NO_ROW("This page has no row for “{step}”. Open the page that has it yourself."),
    OTHER_MACHINE(
            "This is another machine: its {name} is {shown}, expected {planned}. Nothing was written to it. Move the "
                    + "cable, or correct the label."),
    OTHER_SUGGESTION(
            "“{step}”: the machine suggests {suggestion}, expected {planned}. Lychnos sends the planned " + "value."),
    OUTPUT_MISSING("“{steps}” was sent right before the connection was lost, and its output is missing. "
            + "Confirm, and Lychnos sends it again."),
    OUTPUT_NOT_SEEN("The output for “{steps}” came while the line was down and was not seen here. Make the "
            + "machine show it again, or compare it yourself and confirm."),
    OVERDUE("“{step}” takes longer than {longest}; {usual} is usual. Look at the machine, or keep waiting."),
    PAGE_NEXT("“{step}” is filled in next."),
    PAGE_NOT_SEEN_WHOLE("Lychnos has not seen the whole page since the connection was lost. Press the key that draws "
            + "it again, such as Ctrl+L, or confirm that it is the page that was open before."),
    PAGE_SAYS("the page says “{shown}”"),
    OTHER_TERMS("The machine shows other terms than those that the site has agreed to. Read them and accept them, or "
            + "stop."),
    PAGE_TERMS("“{step}” accepts terms, and the site has no recorded consent. Read them and accept for "
            + "yourself, or stop."),
    PATTERN_EMPTY("This pattern is empty."),
    PATTERN_SLOW("The pattern {pattern} takes too long on what the line shows. Make it simpler."),
    PATTERN_WRONG("“{text}” is not a valid pattern: {fault}."),
    PERMANENT("“{step}” cannot be changed later. Type the value: {value}."),
    QUESTION_LOST("The last question of the machine was lost in the break, and the line is silent. Press a key "
            + "that answers nothing, such as the one that redraws the question, or type the answer "
            + "yourself. Lychnos continues when the line shows something."),
    RECORDING_DIFFERS("The dialogue would send “{sent}”; the recording has “{recorded}”."),
    REFUSED("The machine rejected the answer to “{step}” and asks again. The same answer is not sent twice. Correct "
            + "it, or type it yourself."),
    REFUSED_WITH_REASON(
            "The machine rejected the answer to “{step}” and asks again: {reason}. The same answer is not sent twice. "
                    + "Correct it, or type it yourself."),
    RESTARTS("The machine restarts after “{step}”."),
    SCREEN_DIFFERS("The screen differs from the plan: {differences}. Do not confirm it. Go back on the machine and "
            + "correct it."),
    SEALED_VALUE("the sealed one"),
    SENT_BEFORE("“{step}” was answered right before the connection was lost, and is still asked. Confirm, "
            + "and Lychnos sends the answer again."),
    SILENT_AFTER_NUDGE(
            "The line is silent, also after a key that answers nothing. Check the power of the machine and that the "
                    + "cable is in the right port."),
    SILENT_NO_NUDGE(
            "The line is silent. Nothing is sent to wake the machine, because a key would answer a question. Check "
                    + "its power and that the cable is in the right port."),
    SKIPPED("The machine asks “{step}” but never asked: {steps}. Look at the machine before you accept " + "anything."),
    STANDBY("This member reports that it is {state}; the setup is done on its peer. Nothing was written "
            + "to it. Lychnos skips it once the peer has reported on its own line that it is the active "
            + "one. If only one cable is plugged in, move it to the peer."),
    STANDBY_NOTE("This member is standby and takes its settings from its peer."),
    STOP_BITS("A line has 1 or 2 stop bits, not {stopBits}."),
    TEMPLATE_BRACES("“{text}” has braces without a name in them. Write {examples}."),
    TEMPLATE_LIST("“{entry}” is not a list. Lists are {lists}, with the separator after the colon."),
    TERMS("The machine asks to accept its terms, and the site has no recorded consent. Read them and "
            + "accept for yourself, or stop."),
    TEXT_NOT_SHOWN("“{text}” is not shown"),
    UNKNOWN_QUESTION("The line asks something that the kind does not describe. Answer it yourself; Lychnos "
            + "continues at the next known question."),
    UNKNOWN_VALUE("unknown"),
    UP_TO("up to {version}"),
    USED_NO_WIPE(
            "This machine was set up before ({state}). The kind does not describe how to wipe it: if you continue, it "
                    + "is set up over what is on it. Type the unit's name to confirm."),
    USED_WIPE("This machine was set up before ({state}). If you continue, it is wiped. Type the unit's name to "
            + "confirm."),
    VALUE_DIFFERS("shows {shown}, expected {planned}"),
    VALUE_HAS_BEEN_SHOWN("{member} has shown its {value}"),
    VALUE_NOT_SHOWN("{planned} is not shown"),
    VALUE_UNKNOWN("“{step}” needs a value that is not known: {names}."),
    WAITS_UNTIL("“{step}” waits until {what}."),
    WAITS_UNTIL_ENTERED("“{step}” waits until {what}. Enter the value on the fact sheet.");

    private final String pattern;

    DialogueText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
