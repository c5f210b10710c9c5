package lychnos.core.proof;

/** The faults that make a rung fail: what each means in one sentence, and what to do. */
public enum Trouble {
    SILENT(
            "Nothing answers at %s: no ARP reply, no ping.",
            "Check the cable, the VLAN of the switch port and the power of the unit, then check again."),
    OTHER_HARDWARE("%s.", "Two machines may share this address. Find the other one first."),
    TWO_MACHINES("%s.", "Look up both MAC addresses in the switch's MAC table and correct the wrong machine."),
    PORT_REFUSED(
            "The machine answers, but refuses connections to port %s.",
            "The web service may still be starting. Check again in a minute."),
    PORT_SILENT(
            "The machine answers, but port %s does not.",
            "A firewall between here and the management network may drop the packets. Check its rules."),
    NO_TLS("The port is open, but does not speak TLS: %s.", "Find out which service listens on that port."),
    CERTIFICATE_EXPIRED(
            "The certificate expired on %s.", "Replace the certificate, or set the machine's clock if that is wrong."),
    CERTIFICATE_NOT_YET(
            "The certificate is not valid before %s.", "Compare the clock of the machine with this server's."),
    CERTIFICATE_CHANGED(
            "The certificate has changed: %s.",
            "Compare the serial of the machine. Accept the new value only if it was replaced on purpose."),
    CERTIFICATE_NAMES(
            "The certificate is issued for another name: %s.",
            "Create a signing request for the planned name and install the signed certificate."),
    CHAIN_BROKEN(
            "The certificate chain does not end at a trusted authority: %s.",
            "Install the whole chain, from the machine's certificate to the authority's."),
    WEAK_KEY("The key of the certificate is too weak: %s.", "Create a new key and certificate on the machine."),
    NO_SERVICE(
            "HTTPS answers, but there is no Redfish service: %s.",
            "Restart the management controller if this lasts longer than five minutes."),
    PASSWORD_REFUSED(
            "The machine refuses the password that was set here.",
            "The password may have been changed since. Set up the unit again, or enter the password in use."),
    IDENTITY_UNREADABLE(
            "The serial cannot be read: %s.", "Check again. If it still fails, read the serial at the machine."),
    OTHER_MACHINE(
            "Another machine answers: %s.",
            "Compare the label with the rack position. Nothing was written to this machine."),
    SETTINGS_UNREADABLE("The settings cannot be read back: %s.", "Check again in a minute."),
    NOT_AS_PLANNED("%s.", "Set up the unit again, or correct the plan."),
    NOT_IN_STATE(
            "The state of the machine has changed since its setup: %s.",
            "Look at the web page of the machine. If it is still working, check again later."),
    ELSEWHERE(
            "The machine also answers at %s.",
            "Remove that address from the machine: the next unit with it would collide."),
    FACTORY_ACCEPTED(
            "The factory password still works.", "Set up the unit again: anyone who knows the model can sign in."),
    FACTORY_UNCLEAR("The factory password could not be tried: %s.", "Check again."),
    NO_PAGE(
            "HTTPS answers, but without a sign-in page: %s.",
            "Open the page in a browser. The web service may still be starting."),
    LEADS_AWAY(
            "The web page redirects to another host, %s.",
            "The redirect was not followed. Check the machine's own host name."),
    NO_SSH("The SSH server does not answer: %s.", "Check that SSH is enabled on the machine, then check again."),
    HOST_KEY_CHANGED(
            "The SSH host key has changed: %s.",
            "Compare the serial of the machine. Accept the new value only if it was replaced on purpose."),
    NO_PRESENCE(
            "No answer to a presence ping on UDP port 623: %s.",
            "Check the firewall; on some machines the service must be enabled."),
    PRESENCE_ANSWERS(
            "The machine answers a presence ping on UDP port 623 but must not.",
            "Disable IPMI over LAN on the machine."),
    NO_NFS("NFS does not answer: %s.", "Check on the array that the file service runs on this address."),
    NO_PORTAL(
            "The storage portal does not report its targets: %s.", "Check on the array that the portal is in service."),
    PAGES_REFUSED(
            "The web pages refuse the password that was set here.",
            "The password may have been changed since. Set up the unit again, or enter the password in use."),
    NOT_SET_UP(
            "The machine is not set up yet, so it cannot be identified.",
            "Set up the unit in Configure. The setup checks its serial."),
    NAME_MISSING("No name server has a record for %s.", "Push the records again, then check."),
    NAME_ELSEWHERE("%s.", "Push the records again. If the other record is not yours, ask its owner to remove it."),
    NAME_LAGS("%s.", "Check again in a few minutes. If it still fails, check the zone transfer of that server."),
    NAME_SERVER_SILENT("%s.", "Check that name server. The units cannot resolve names there either."),
    REVERSE_MISSING("No PTR record for %s.", "Push the records again, then check."),
    REVERSE_ELSEWHERE("%s.", "Push the records again. If the other record is not yours, ask its owner to remove it."),
    CLOCK_OFF(
            "The clock of the machine is %s.",
            "Check that the machine reaches its time servers. Certificates and logs depend on the clock."),
    TIME_SERVER_OFF("%s.", "Check that time server under Networks and services, or use another one."),
    MUST_BE_SHUT("Port %s is open but must be closed.", "Disable that service on the machine."),
    SOURCE_ADMITTED("%s.", "Restrict the service on the machine to that network, then check again."),
    SOURCE_REFUSED("%s.", "Check on the machine which sources may reach the service, and the firewall between."),
    COMMUNITY_ANSWERS(
            "SNMP answers to the community “%s”.",
            "Remove that community on the machine, or disable SNMP: people who know the model can read its "
                    + "configuration.");

    private final String sentence;
    private final String press;

    Trouble(String sentence, String press) {
        this.sentence = sentence;
        this.press = press;
    }

    /** The sentence with what was seen put in. */
    public String sentence(String seen) {
        return sentence.formatted(seen);
    }

    /** What to do about it. */
    public String press() {
        return press;
    }
}
