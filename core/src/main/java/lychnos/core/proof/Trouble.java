package lychnos.core.proof;

import lychnos.core.text.Message;

/** The faults that make a rung fail: what each means in one sentence, and what to do. */
public enum Trouble implements Message {
    SILENT(
            "Nothing answers at {seen}: no ARP reply, no ping.",
            "Check the cable, the VLAN of the switch port and the power of the unit, then check again."),
    OTHER_HARDWARE("{seen}.", "Two machines may share this address. Find the other one first."),
    TWO_MACHINES("{seen}.", "Look up both MAC addresses in the switch's MAC table and correct the wrong machine."),
    PORT_REFUSED(
            "The machine answers, but refuses connections to port {seen}.",
            "The web service may still be starting. Check again in a minute."),
    PORT_SILENT(
            "The machine answers, but port {seen} does not.",
            "A firewall between here and the management network may drop the packets. Check its rules."),
    NO_TLS("The port is open, but does not speak TLS: {seen}.", "Find out which service listens on that port."),
    CERTIFICATE_EXPIRED(
            "The certificate expired on {seen}.",
            "Replace the certificate, or set the machine's clock if that is wrong."),
    CERTIFICATE_NOT_YET(
            "The certificate is not valid before {seen}.", "Compare the clock of the machine with this server's."),
    CERTIFICATE_CHANGED(
            "The certificate has changed: {seen}.",
            "Compare the serial of the machine. Accept the new value only if it was replaced on purpose."),
    CERTIFICATE_NAMES(
            "The certificate is issued for another name: {seen}.",
            "Create a signing request for the planned name and install the signed certificate."),
    CHAIN_BROKEN(
            "The certificate chain does not end at a trusted authority: {seen}.",
            "Install the whole chain, from the machine's certificate to the authority's."),
    WEAK_KEY("The key of the certificate is too weak: {seen}.", "Create a new key and certificate on the machine."),
    NO_SERVICE(
            "HTTPS answers, but there is no Redfish service: {seen}.",
            "Compare the MAC address with the label: the server's own network page looks alike. If it is the controller, "
                    + "restart it if this lasts longer than five minutes."),
    PASSWORD_REFUSED(
            "The machine refuses the password that was set here.",
            "The password may have been changed since. Set up the unit again, or enter the password in use."),
    IDENTITY_UNREADABLE(
            "The serial cannot be read: {seen}.", "Check again. If it still fails, read the serial at the machine."),
    OTHER_MACHINE(
            "Another machine answers: {seen}.",
            "Compare the label with the rack position. Nothing was written to this machine."),
    ACCOUNT_REFUSED(
            "The machine does not let {seen} in.",
            "Check the account in the directory, its password in the facts, and its role on the machine."),
    SETTINGS_UNREADABLE("The settings cannot be read back: {seen}.", "Check again in a minute."),
    NOT_AS_PLANNED("{seen}.", "Set up the unit again, or correct the plan."),
    NOT_IN_STATE(
            "The state of the machine has changed since its setup: {seen}.",
            "Look at the web page of the machine. If it is still working, check again later."),
    ELSEWHERE(
            "The machine also answers at {seen}.",
            "Remove that address from the machine: the next unit with it would collide."),
    FACTORY_ACCEPTED(
            "The factory password still works.", "Set up the unit again: anyone who knows the model can sign in."),
    FACTORY_UNCLEAR("The factory password could not be tried: {seen}.", "Check again."),
    NO_PAGE(
            "HTTPS answers, but without a sign-in page: {seen}.",
            "Open the page in a browser. The web service may still be starting."),
    LEADS_AWAY(
            "The web page redirects to another host, {seen}.",
            "The redirect was not followed. Check the machine's own host name."),
    NO_SSH("The SSH server does not answer: {seen}.", "Check that SSH is enabled on the machine, then check again."),
    HOST_KEY_CHANGED(
            "The SSH host key has changed: {seen}.",
            "Compare the serial of the machine. Accept the new value only if it was replaced on purpose."),
    NO_PRESENCE(
            "No answer to a presence ping on UDP port 623: {seen}.",
            "Check the firewall; on some machines the service must be enabled."),
    PRESENCE_ANSWERS(
            "The machine answers a presence ping on UDP port 623 but must not.",
            "Disable IPMI over LAN on the machine."),
    NO_NFS("NFS does not answer: {seen}.", "Check on the array that the file service runs on this address."),
    NO_PORTAL(
            "The storage portal does not report its targets: {seen}.",
            "Check on the array that the portal is in service."),
    PAGES_REFUSED(
            "The web pages refuse the password that was set here.",
            "The password may have been changed since. Set up the unit again, or enter the password in use."),
    NOT_SET_UP(
            "The machine is not set up yet, so it cannot be identified.",
            "Set up the unit in Configure. The setup checks its serial."),
    NAME_MISSING("No name server has a record for {seen}.", "Push the records again, then check."),
    NAME_ELSEWHERE("{seen}.", "Push the records again. If the other record is not yours, ask its owner to remove it."),
    NAME_LAGS("{seen}.", "Check again in a few minutes. If it still fails, check the zone transfer of that server."),
    NAME_SERVER_SILENT("{seen}.", "Check that name server. The units cannot resolve names there either."),
    REVERSE_MISSING("No PTR record for {seen}.", "Push the records again, then check."),
    REVERSE_ELSEWHERE(
            "{seen}.", "Push the records again. If the other record is not yours, ask its owner to remove it."),
    CLOCK_OFF(
            "The clock of the machine is {seen}.",
            "Check that the machine reaches its time servers. Certificates and logs depend on the clock."),
    TIME_SERVER_OFF("{seen}.", "Check that time server under Networks and services, or use another one."),
    MUST_BE_SHUT("Port {seen} is open but must be closed.", "Disable that service on the machine."),
    SOURCE_ADMITTED("{seen}.", "Restrict the service on the machine to that network, then check again."),
    SOURCE_REFUSED("{seen}.", "Check on the machine which sources may reach the service, and the firewall between."),
    COMMUNITY_ANSWERS(
            "SNMP answers to the community “{seen}”.",
            "Remove that community on the machine, or disable SNMP: people who know the model can read its "
                    + "configuration.");

    private final String pattern;
    private final Message press;

    Trouble(String pattern, String press) {
        this.pattern = pattern;
        this.press = new Press(name() + "_PRESS", press);
    }

    /** What to do about a trouble. */
    private record Press(String name, String pattern) implements Message {}

    @Override
    public String pattern() {
        return pattern;
    }

    /** The sentence with what was seen. */
    public String sentence(String seen) {
        return names().isEmpty() ? text() : text(seen);
    }

    /** What to do about it. */
    public String press() {
        return press.text();
    }
}
