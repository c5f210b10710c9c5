package lychnos.wire.controller;

import lychnos.core.text.Message;

/** Texts of the setup of a controller over Redfish. */
enum ControllerText implements Message {
    ADDRESS_IN_USE("Another device answers at the planned address {address}. The address was not written."),
    ADDRESS_IN_USE_BY("Another device answers at the planned address {address}: {mac}. The address was not written."),
    ADDRESS_IN_USE_FIX("Find that device, or allocate another address."),
    ANSWERED_BY_ANOTHER("{address} is answered by {mac}, the label says {expected}"),
    KNOWN_BY_MAC("{mac} as on the label; the serial is shown only after the password is changed"),
    MACHINE_AT("the machine in {position}"),
    NOTHING_WRITTEN("Nothing was written to this machine. Compare the label with {machine}."),
    NOT_ALL_ACCEPTED("The controller did not accept everything: {differences}."),
    NOT_ALL_ACCEPTED_FIX("Try again. If this stays so, set the values at the machine."),
    NOT_KEPT("The controller answers at its old address {old} instead of {address}: it did not save the " + "setting."),
    NOT_KEPT_FIX("Try again. If this stays so, set the address at the machine."),
    OTHER_MACHINE("This is another machine: {difference}."),
    PASSWORD_WRITTEN(
            "The password was changed and is sealed; nothing else was written. Compare the label with {machine}."),
    SERIAL_LATER("This controller shows its serial only after its password is changed, and its MAC address "
            + "cannot be seen from here."),
    SERIAL_LATER_FIX("Set it up from a vantage point in its own segment, or compare the label with the machine "
            + "and change the password by hand."),
    SHOWN_VALUES_AS_PLANNED("{count} of {all} values as planned; this controller does not show: {values}"),
    THE_MACHINE("the machine"),
    VALUES_AS_PLANNED("{count} of {all} values as planned");

    private final String pattern;

    ControllerText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
