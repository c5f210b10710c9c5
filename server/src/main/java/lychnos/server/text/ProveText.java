package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of checks, certificates and differences. */
public enum ProveText implements Message {
    ACCEPTED_A_NEW("accepted a new {what} of {hostName}{why}"),
    ALL_ENDPOINTS_ARE_PROVEN("All {all} endpoints are proven."),
    ANOTHER_SERVER_HAS_TAKEN_THIS_OVER("another server has taken this over"),
    ANSWERS_TO_PING("answers to ping"),
    ASKED_FOR_CHECKS("asked for checks of {count} {count|unit|units}, up to “{rung}”"),
    CANCELLED_CHECKS("cancelled {count} {count|check|checks}"),
    CHANGE_IS_GONE("This change is gone: the value is as before, or somebody has decided on it."),
    CREATED_A_CERTIFICATE_SIGNING_REQUEST("created a certificate signing request on {hostName}"),
    DIFFERENCE_CANNOT_BE_ACCEPTED("This difference cannot be accepted. Fix it, or reject it and record a fault."),
    DISABLED_AUTOMATIC_CHECKS("disabled automatic checks"),
    DOES_NOT_DO("{hostName} does not do that: {reason}."),
    ENDPOINT_IS_PROVEN("The endpoint is proven."),
    HOW_OFTEN("How often?"),
    INSTALLED_A_SIGNED_CERTIFICATE("installed a signed certificate on {hostName}"),
    INTERVAL_OF_CHECKS_IS_1_TO_MINUTES("The interval of checks is 1 to {longest} minutes, or with 0 not at all."),
    ITS_ADDRESS_AS_DELIVERED("its address as delivered"),
    MACHINE_ACCEPTED_THE_CERTIFICATE_BUT_STILL(
            "The machine accepted the certificate but still shows the old one after {seconds} s. It may need a "
                    + "restart. Check again after that and accept the new certificate."),
    MACHINE_HAS_NO_STANDARD_WAY_TO_REPLACE(
            "This machine has no standard way to replace its certificate, or was not proven yet. Replace it on "
                    + "its own page, then check again."),
    MACHINE_SHOWS_ANOTHER_VALUE("The machine shows another value now: {now}. Look at that one first."),
    NO_SIGNING_REQUEST_IS_OPEN("No signing request is open. Create one first."),
    NO_UNIT_HAS_AN_ADDRESS_YET("No unit has an address yet. Allocate addresses first."),
    NO_UNIT_IS_SET_UP_YET("No unit is set up yet. Set up units in Configure."),
    REFUSES("{hostName} refuses that: {reason}."),
    REJECTED_THE_NEW("rejected the new {what} of {hostName}{why}"),
    SAY_WHAT_IS_WRONG("Say what is wrong, in at most {longest} characters."),
    SERVER_IS_STOPPING("this server is stopping"),
    SET_AUTOMATIC_CHECKS("set automatic checks to every {minutes} min"),
    UNIT_HAS_NO_ADDRESS_YET("This unit has no address yet."),
    UNIT_NO_LONGER_HAS_AN_ADDRESS("The unit no longer has an address."),
    UNIT_NO_LONGER_HAS_THAT_ADDRESS("This unit no longer has that address."),
    WHICH_CHANGE("Which change?"),
    WHICH_IT_HAD_BEFORE("which it had before");

    private final String pattern;

    ProveText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
