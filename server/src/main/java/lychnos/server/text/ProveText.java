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
    ENTERED_A_CERTIFICATE_SIGNING_REQUEST("entered the certificate signing request of {hostName}"),
    HOW_OFTEN("How often?"),
    IF_ITS_NETWORK_IS_SET_WRONG("If its network is set wrong: {how}"),
    INSTALLED_A_SIGNED_CERTIFICATE("installed a signed certificate on {hostName}"),
    INTERVAL_OF_CHECKS_IS_1_TO_MINUTES("The interval of checks is 1 to {longest} minutes, or with 0 not at all."),
    ITS_ADDRESS_AS_DELIVERED("its address as delivered"),
    MACHINE_SHOWS_A_THIRD_CERTIFICATE(
            "The machine shows another certificate than the signed one: {shown}. Install the signed one."),
    MACHINE_SHOWS_ANOTHER_VALUE("The machine shows another value now: {now}. Look at that one first."),
    MACHINE_STILL_SHOWS_THE_OLD_CERTIFICATE(
            "The machine still shows the old certificate after {seconds} s. It may need a restart. Check again after "
                    + "that and accept the new certificate."),
    NO_CERTIFICATE_IS_KNOWN_YET("No certificate of this machine is known yet. Set it up and check it first."),
    NO_CHAIN_TO_INSTALL("No signed certificate waits to be installed. Enter the signed chain first."),
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
