package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of setups, consoles and controllers. */
public enum ConfigureText implements Message {
    KIND_HAS_NO_SERVICE_PORT("The kind of this unit does not say how a laptop reaches its service port."),
    LAPTOP_HAS_NO_ROUTE("{from} has no route to {address}. Set the network port of that laptop to {laptop}."),
    LAPTOP_IN_ANOTHER_SUBNET(
            "{from} would use {source}, and {address} is in another subnet. Set the network port of that laptop to "
                    + "{laptop}."),
    OUTSIDE_THE_CHANGE_WINDOW(
            "The change window of {unit} is from {from} to {to} UTC, and now it is {now} UTC. Wait for it, or enter a "
                    + "reason to go on now."),
    SERVICE_PORT_ANSWERS("{from} has {source}, and {address} answers on port {port}."),
    SERVICE_PORT_IS_SILENT(
            "{from} has {source}, and {address} does not answer on port {port}. Check that the cable is in the service "
                    + "port, and the power of the machine."),
    SETUPS_ARE_OUTSIDE_THEIR_WINDOWS(
            "Each unit that is ready is outside its change window. Wait for it, or enter a reason to start now."),
    WENT_ON_OUTSIDE_THE_CHANGE_WINDOW("went on outside the change window: {reason}"),
    A_CHECK_FOLLOWS("a check follows"),
    ANOTHER_OF_THE_KIND_NEEDS_A_LOOK(
            "{unit}, of the same kind, shows something that was not foreseen. Look at it first."),
    ANOTHER_ONE("another one"),
    ANOTHER_SERVER_HAS_JUST_TAKEN_OVER_THIS_SETUP(
            "Another server has just taken over this setup, so nothing was done. Look at it again."),
    ANOTHER_SERVER_HAS_THIS_UNIT("another server has this unit now, or its setup has ended"),
    ANOTHER_SERVER_HOLDS_THIS_LINE(
            "Another server holds this line. Here it can be watched; answer it on the other one."),
    ANSWERS("answers at {planned}"),
    ANSWERS_AT_ITS_FIRST_ADDRESS_AS_ON_THE_LABEL("answers at {first}, its first address as on the label"),
    ANSWERS_AT_ITS_PLANNED_ADDRESS("answers at its planned address"),
    ANSWERS_AT_PLANNED_ADDRESS_ALREADY("answers at its planned address {planned} already"),
    ANSWERS_PING("answers ping"),
    ANSWER_CANNOT_BE_READ("{step}the controller sent an answer that cannot be read: {reason}."),
    AT_THE_STEP("At the step “{doing}”, "),
    A_DAY("a day that must come first"),
    BOTH_PASSWORDS_ARE_REFUSED(
            "The controller refuses the factory password on its label, and ours as well. Each was tried once, so "
                    + "that no account is locked. Read the label again, or reset the controller. “Fill in again” tries "
                    + "each once more."),
    BREAK_SENT("break sent by {login}"),
    CAME_FROM("came from {from}; "),
    CANCELLED_BEFORE_THE_START("Cancelled before the start."),
    CANCELLED_PASSWORD_CHANGES("cancelled the password change of {count} {count|unit|units}"),
    CANCELLED_THE_SETUP_OF_UNITS("cancelled the setup of {count} {count|unit|units}"),
    CANNOT_BE_SKIPPED("This cannot be skipped. {sentence}"),
    CHECK_CABLE_AND_POWER("Check cable and power, then try again."),
    CHECK_ITS_POWER("Check its power. If it restarts for longer, try again later; the setup continues from here."),
    CHECK_ITS_VLAN_AND_POWER(
            "Check that its switch port carries VLAN {vlan} tagged, and check its power. If it restarts for longer, "
                    + "try again later; the setup continues from here."),
    CHECK_POWER_CABLE_AND_VLAN("Check power, cable and VLAN of {position}; compare the MAC address with the label."),
    CLOSED("Closed by {login}."),
    CLOSED_THE_SETUP("closed the setup"),
    COMPARED_THE_MACHINE_WITH_ITS_LABEL("compared the machine with its label: read {text}"),
    COMPARE_THE_SERIAL_AT_THE_RACK("Compare the serial at the rack. Nothing was sent under the new certificate."),
    CONNECTION_ENDED_AS_THE_ADDRESS_MOVED("the connection ended as the address moved"),
    CONSENTED("{login} consented to “{title}”{member}: {reason}"),
    CONSOLE_SERVER_SHOWS_ANOTHER_KEY(
            "The console server at {address} shows another key than before: {fingerprint}. Nothing was sent to "
                    + "it."),
    CONTINUES_WITH_WHAT_WAS_LEFT("continues the setup with “{page}”, whose value is known now"),
    CONTROLLER_ANSWERED("The controller answered: {reason}. Correct what it refuses, then choose “Fill in again”."),
    CONTROLLER_ANSWERED_AT_STEP("{step}the controller answered: {reason}"),
    CONTROLLER_CANNOT_BE_REACHED(
            "The controller cannot be reached: {reason}. It has refused a password before, so it is not tried "
                    + "again automatically. Choose “Try again” once it answers."),
    CONTROLLER_HAS_NOT_COME_BACK("This controller has not come back: silent at {planned} for {seconds} s."),
    CONTROLLER_HAS_NOT_COME_BACK_TO_EITHER(
            "This controller has not come back: silent at {planned} and {old} for {seconds} s."),
    CONTROLLER_REFUSES_OUR_PASSWORD(
            "The controller refuses our password.{more} It was not tried a second time. “Fill in again” tries each "
                    + "password once more."),
    CONTROLLER_REFUSES_THE_FACTORY_PASSWORD("This controller refuses the factory password."),
    CONTROLLER_REFUSES_THE_NEW_PASSWORD("This controller refuses the new password."),
    CONTROLLER_REFUSES_THE_PASSWORD("This controller refuses the password that was set."),
    CONTROLLER_SHOWS_ANOTHER_CERTIFICATE(
            "This controller shows another certificate than when it was identified ({reason})."),
    CORRECT_THE_REFUSED_VALUE("Correct the refused value, then try again."),
    CORRECT_THE_SETTING_OR_THE_FILE("Correct the setting or the file, then try again."),
    DEFINE_THE_RANGE_THAT_DHCP_HANDS_OUT(
            "Define the range that DHCP hands out, or enter its first address with the label."),
    DELETED_THE_LOG_OF_A_SETUP("deleted the log of a setup by hand"),
    DOES_NOT_ANSWER_AT_ITS_ADDRESS("The controller does not answer at {address}, or another machine does."),
    DOES_NOT_ANSWER_PING("does not answer ping"),
    END_THE_OLD_PASSWORD_BY_HAND(
            "The new password works and is the one on record. Look at the accounts of the controller."),
    ENTER_HOW_MANY_RUN_IN_PARALLEL("Enter how many run in parallel."),
    ENTER_ITS_FACTS_AND_ALLOCATE_ITS_ADDRESS("Enter its facts and allocate its address, then try again."),
    ENTER_ITS_FIRST_ADDRESS_WITH_THE_LABEL(
            "Enter its first address with the label, or define the DHCP server's lease file; MAC addresses "
                    + "cannot be asked for from here."),
    ENTER_THE_REASON_OF_YOUR_CONSENT(
            "Enter the reason of your consent, at least {least} characters. Nothing was written."),
    ENTER_THE_SERIAL_NUMBER_OR_THE_MAC_ADDRESS(
            "Enter the serial number or the MAC address that you read on the machine."),
    ENTER_THE_SERIAL_NUMBER_THAT_YOU_READ(
            "Enter the serial number that you read on the machine; that ticks this step."),
    FACTORY_ADDRESS_IS_IN_USE(
            "{unit} and {other} leave the factory with the same address, {address}, and either may answer there. Start "
                    + "{unit} once the setup of {other} has ended."),
    FACTORY_LOGIN("factory login"),
    FACTORY_PASSWORD_MAY_STILL_BE_VALID(" The factory password on its label may still be valid."),
    FACTORY_PASSWORD_REPLACED("factory password replaced"),
    FIELDS_READ_BACK("{same} of {fields} {fields|field|fields} read back"),
    FIELD_CAME_AS("{field} came as “{shown}”"),
    FINDING_BLOCKS("{what}. {why}"),
    FIRST_ADDRESS_IS_NOT_KNOWN("The first address of this controller is not known."),
    FIRST_UNIT_OF_EACH_KIND_IS_SET_UP(
            "The first unit of each kind is set up alone until it is proven: {unit} is in progress."),
    FROM_1_TO_50_SETUPS_CAN_RUN_IN_PARALLEL("1 to 50 setups can run in parallel."),
    HAD_MOVED_BEFORE_THE_INTERRUPTION("it had moved before the interruption"),
    HAD_TAKEN_THE_NEW_ONE_BEFORE("it had taken the new one before the interruption"),
    HAS_NO_ADDRESS_YET("{unit} has no address yet: that is part of Allocate."),
    HAS_OURS_ALREADY("it has ours already"),
    HAS_THE_KEYBOARD_OF_THIS_LINE("{holder} has the keyboard of this line. Take it over first."),
    HAS_THE_SEALED_ONE_ALREADY("it has the sealed one already"),
    IS_ALREADY_IN_PROGRESS("{unit} is already in progress."),
    IS_FOR_NO_OPEN_LINE("{order} is for no open line"),
    IS_NO_UNIT_OF_THIS_KIND("{unit} is no unit of this kind."),
    ITS_ADDRESS_IS_NOT_KNOWN("its address is not known"),
    ITS_PAGES("its pages"),
    ITS_PASSWORD_IS_NOT_KNOWN("its password is not known"),
    KEPT_THE_MACHINE_OWN_LOG("kept the machine's own log"),
    KIND_DESCRIBES_NO_CONSOLE("The kind does not describe what {title} asks on its console."),
    KIND_NAMES_NO_RESOURCE_FOR_IT("the kind names no resource that shows it"),
    LEAD_CAN_START_IT_ANYWAY("{prerequisite} A lead can start it anyway, with a reason."),
    CABLE_GONE("The browser with the cable is gone, or its serial port is."),
    CABLE_GONE_UNCONFIRMED(
            "The browser with the cable is gone, or its serial port is. " + "It did not confirm what was typed last."),
    CABLE_LOST_BYTES("Some of what the machine showed was lost on the way from the browser."),
    CABLE_SILENT("The browser with the cable has given no sign of life for {seconds} s."),
    CABLE_TOO_SLOW("The browser reads the serial port too slowly; some of what the machine shows is lost."),
    LINE_CANNOT_BE_OPENED_NOW("The line cannot be opened now; trying again."),
    LINE_COULD_NOT_BE_STOPPED("The line could not be stopped from here: {fault}"),
    LINE_IS_BUSY("The line is busy, and it is not known whether this was done. Look at the console."),
    LINE_IS_NOT_OPEN_ON_THIS_SERVER(
            "This line is not open on this server: its setup has ended, a prerequisite blocks it, or another "
                    + "server has it."),
    LINE_IS_NOT_STOPPED("This line is not stopped."),
    LINE_IS_NO_LONGER_OPEN("This line is no longer open here."),
    LINE_IS_NO_LONGER_OPEN_AT_THE_VANTAGE("This line is no longer open at the vantage point."),
    LINE_PORT("{name} line port {port}"),
    LINE_OF_BROWSER("a browser's serial port"),
    LINE_PROBABLY_OTHER_RATE("What arrives does not look like text: the machine probably uses another rate than "
            + "{settings}, which its kind states. Check rate, data bits, parity and stop bits."),
    LINE_PREREQUISITE("The line {prerequisite}."),
    LOG_CANNOT_BE_FETCHED("The log cannot be fetched: {reason}"),
    MACHINE_HAS_BEEN_SET_UP_BEFORE("The machine has been set up before. Reset it to factory settings, {orElse}."),
    MACHINE_IDENTIFIES_ITSELF("This machine identifies itself. Nothing to enter."),
    MACHINE_REJECTED("The machine rejected “{page}”. It says: {reason}. Correct it there or in Prepare, then choose "
            + "“Fill in again”."),
    MACHINE_SHOWS_AN_EMPTY_LOG("The machine shows an empty log."),
    MEMBER_IS_NOT_STOPPED("This member is not stopped."),
    MEMBER_IS_ON_A_LINE("This member is on a line; its steps are ticked by what the line shows."),
    NEW_PASSWORD_WORKS_OLD_REFUSED_BY_PAGES("the new password has logged in, the old one is refused"),
    NEW_PASSWORD_WORKS_OLD_REFUSED("the new password has logged in, the old one is refused; {evidence}"),
    NEW_PASSWORD_HAS_LOGGED_IN("the new password “{name}” has logged in{of}"),
    NEW_PASSWORD_HAS_LOGGED_IN_WITH_EVIDENCE("the new password has logged in; {evidence}"),
    NEXT_STEP_SHOWS_WHICH_PASSWORD("{unknown}; the next step shows which password it has"),
    NOTHING_RUNS_ON_THIS_LINE(
            "Nothing runs on this line here: the setup has ended, a prerequisite blocks it, a person does it by "
                    + "hand, or another server has it."),
    NOT_EVERYTHING_THAT_ASKS_IS_KNOWN(
            "Not everything that {unit} asks is known: {missing}. It cannot be paused half-way; find it out in "
                    + "Prepare first."),
    NOT_KNOWN_YET("not known yet"),
    NOT_WRITTEN("“{page}” was not written: {reason}. Remove that on the machine, then choose “Fill in again”."),
    NO_CONTROLLER_ANSWERS_AT_ITS_FIRST_ADDRESS("No controller answers at its first address {address}."),
    NO_CONTROLLER_ANSWERS_AT_ITS_LEASE(
            "No controller with {mac} answers where DHCP has leased it an address. Check the cable of its port, "
                    + "the label, and whether the DHCP server's lease file is defined; going on looks again."),
    NO_CONTROLLER_ANSWERS_SET_IT_AT_ITS_SCREEN(
            "No controller with {mac} answers at its planned address or where DHCP has leased it one. Check the cable "
                    + "of its port and the label. Without DHCP, set its network with a screen and a keyboard: {where}, "
                    + "address {address}, mask {mask}, gateway {gateway}. Then try again."),
    NO_DECISION_IS_NEEDED("No decision is needed here now."),
    NO_FIRST_ADDRESS_IS_KNOWN("No first address of this controller is known."),
    NO_MACHINE_WITH_THIS_MAC_ANSWERS("No machine with {mac} answers in {where}."),
    NO_PREREQUISITE_BLOCKS_IT("No prerequisite blocks it."),
    NO_SERIAL_NUMBER_AND_NO_MAC_ADDRESS(
            "No serial number and no MAC address of this unit is known. Enter one in Prepare."),
    NO_PASSWORD_CAN_BE_CHANGED(
            "Not all of these passwords can be changed now. A unit must be set up over Redfish, or have pages with a "
                    + "documented interface; its password must have logged in, and nothing may be in progress."),
    NO_LINE_FOR_A_SETUP_BY_HAND(
            "{unit} has no console line for a setup by hand. Enter its console port in Prepare, or use the serial port "
                    + "of this computer."),
    NO_SETUP_IS_IN_PROGRESS("No setup is in progress."),
    NO_SETUP_OF_THIS_UNIT_IS_IN_PROGRESS("No setup of this unit is in progress."),
    NO_SUCH_DIALOGUE("There is no such dialogue."),
    NO_SUCH_LOG("There is no such log."),
    NO_SUCH_RECORDING("There is no such recording."),
    NO_SUCH_SETUP("There is no such setup."),
    NO_SUCH_UNIT_IN_THIS_BRING_UP("There is no such unit in this bring-up."),
    NO_UNIT_IS_READY("No unit is ready. A unit needs its label and address, and must not be in progress already."),
    NO_VALUE_TO_TYPE("There is no value “{name}” to type here."),
    OLD_PASSWORD_STILL_WORKS("The controller accepts the old password as well as the new one."),
    OLD_ONE_STAYS("The old one stays. Try again; if it still fails, reset the machine."),
    ONE_SEALED_BEFORE_IS_USED("the one sealed before is used"),
    ONLY_A_LEAD_CAN_START_IT_ANYWAY("{prerequisite} Only a lead can start it anyway."),
    ONLY_A_STOPPED_UNIT_CAN_BE_SET_ASIDE("Only a stopped unit can be set aside."),
    OPENS_WHEN_DONE("opens when {before} is done"),
    OPENS_WHEN_TICKED("opens when what comes before it is ticked"),
    OR_ENTER_THE_PASSWORD_IN_USE("or enter the password in use"),
    OVERRODE_THE_PREREQUISITE("overrode the prerequisite of {member} ({prerequisite}): {reason}"),
    PAGES_ARE_NO_LONGER_FILLED("These pages are no longer filled in here."),
    PAGES_ARE_OF_ANOTHER_MACHINE(
            "The pages at {peer} are another machine's: it shows {missing}, expected {wanted}. Nothing was "
                    + "written to it. Look who has that address."),
    PAGES_REFUSE_THE_LOGIN(
            "The pages refuse the login. It was tried only once, so that no account is locked. Find out the "
                    + "password; continuing tries once more."),
    PAGES_ARE_NOT_PLANNED("The pages of this unit have no address or no password any more."),
    PAGES_REFUSE_THE_PASSWORD("The pages refuse the password on record."),
    PAGES_SHOW_ANOTHER_CERTIFICATE(
            "it shows another certificate than before, {shown}; where that was replaced on purpose, put this "
                    + "setup away and begin it again"),
    PASSWORD_IS_CHANGED_ALREADY("The password of this unit is changed already."),
    PASSWORD_IS_NOT_KNOWN_YET("This password is not known yet."),
    PASSWORD_MAY_HAVE_BEEN_CHANGED_SINCE(
            "The password may have been changed since. Reset the machine, or enter the password in use."),
    PASSWORD_REPLACED("password replaced"),
    PASSWORD_OF_CHARACTERS_IS_SEALED("a password of {length} characters is sealed"),
    READING_DIFFERS_FROM_THE_LABEL(
            "You read “{text}”, and the label list has {label}. Check that this is the right machine, or correct "
                    + "the label list in Prepare."),
    REASON_IS_TOO_SHORT("Write a reason that a colleague understands in a year."),
    RESTART_THE_MANAGEMENT_CONTROLLER("Restart the management controller, then try again."),
    SAME_FOR_EVERY_UNIT("same for every unit"),
    SEALED_MADE_FOR_THIS_UNIT("sealed, made for this unit"),
    SEALED_PASSWORD_IS_GONE("The sealed password is gone."),
    SERVER_IS_STOPPING("This server is stopping."),
    SET_UP_ALREADY("This unit is set up already."),
    SETUP_IS_NOT_BY_HAND("This setup is not done by hand."),
    SHOWED_THE_PASSWORD("showed the password of “{step}{field}”{member}"),
    SHOWS_ANOTHER_CERTIFICATE_THAN_BEFORE(
            "it shows another certificate than before, {fingerprint}; nothing was sent under that one"),
    SHOWS_ANOTHER_FORM_THAN_ITS_DESCRIPTION_SAYS(
            "“{step}” shows another form than its description says, so that it was not set. Do it by hand, or "
                    + "correct the description."),
    STARTED_FILLING_IN_THE_PAGES("started filling in the pages{more}"),
    STARTED_PASSWORD_CHANGES(
            "started to change the passwords of {count} {count|unit|units}, {width} at once after the first"),
    STARTED_THE_SETUP_BY_HAND("started the setup by hand"),
    STARTED_THE_SETUP_OF_UNITS("started the setup of {count} {count|unit|units}, {width} at once after the first"),
    STARTED_THE_SETUP_ON_THE_CONSOLE("started the setup on the console"),
    STARTED_THE_SETUP_OUT_OF_ORDER(
            "started the setup on the console, although this unit is not the first of its kind: {reason}"),
    STEP_CANNOT_REACH("For “{step}” {what} cannot be reached: {reason}. Choose “Try again” once it answers."),
    STEP_CANNOT_REACH_NOW("“{step}”: {what} cannot be reached now: {reason}. Trying again."),
    STEP_SENDS_NO_PASSWORD("This step sends no password."),
    STEP_WAS_TICKED_AUTOMATICALLY("This step was ticked automatically, or does not exist."),
    STOPPED("Stopped by {login}."),
    STOPS_HERE("this server is stopping"),
    TAKES_LONGER_THAN_MIN(
            "“{step}” takes longer than {minutes} min; {usual} min is usual. Look at the machine, or keep waiting."),
    THAT_PAGE_IS_FILLED_IN_AUTOMATICALLY(
            "That page is filled in automatically. To fill it in by hand, choose “I type” first."),
    THEN_TRY_AGAIN("then try again"),
    THE_CONTROLLER("the controller"),
    TRIES_AGAIN("tries again"),
    TRY_AGAIN_FROM_THE_BEGINNING("Try again from the beginning."),
    TRY_AGAIN_ONCE_IT_ANSWERS("{reason} Choose “Try again” once it answers."),
    TYPE_IT_TO_SEND("Type exactly “{typed}”. Nothing was sent."),
    TYPE_IT_TO_WRITE("Type exactly “{typed}”. Nothing was written."),
    UNDER_WAY_ALREADY("The setup of this unit is in progress already."),
    UNIT_HAS_NO_MEMBER_CALLED("The unit has no member called “{member}”."),
    UNIT_NO_LONGER_HAS_AN_ADDRESS("The unit no longer has an address or a label."),
    VANTAGE_POINT_CANNOT_DO_THIS("The vantage point cannot do this: {reason}."),
    VANTAGE_POINT_CANNOT_READ_THE_DESCRIPTION(
            "The vantage point cannot read the description of this kind: {reason} Bring both to the same version "
                    + "of the program."),
    VANTAGE_POINT_DID_NOT_ANSWER_IN_TIME("The vantage point did not answer in time."),
    VANTAGE_POINT_HAS_RESTARTED(
            "The vantage point has restarted. It first hands in what it recorded, then opens the line."),
    VANTAGE_POINT_IS_DISCONNECTED(
            "Vantage point {vantage} has been disconnected since {cutAt} UTC. The work continues there and is "
                    + "handed in later."),
    VANTAGE_POINT_IS_NOT_CONNECTED("Vantage point {vantage} is not connected; the line opens once it is."),
    WAS_WRITTEN("“{page}” was written, and {off}. Correct it there or in Prepare, then choose “Fill in again”."),
    WAYS_TO_WORK_ARE_WATCH("Ways to work are watch, ask and run, not “{word}”."),
    WHICH_STEP("Which step?"),
    WHICH_UNITS("Which units?");

    private final String pattern;

    ConfigureText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
