package lychnos.core.proof;

/** Everything that can keep a rung from holding: what it means in one sentence, and what to do. */
public enum Trouble {
    SILENT(
            "Nothing answers at %s: no ARP reply, no ping.",
            "Look at the cable, the port's VLAN and whether the unit has power; then check again."),
    OTHER_HARDWARE("%s.", "Two machines may share the address. Find the other one before you go on."),
    TWO_MACHINES("%s.", "Find the one that should not have it: the switch tells at which port each of them is."),
    PORT_REFUSED(
            "The machine answers, but refuses port %s.",
            "Its web service may still be starting. Check again in a minute."),
    PORT_SILENT(
            "The machine answers, but port %s is silent.",
            "Look for a filter between here and the management network."),
    NO_TLS("The port is open, but nothing there speaks TLS: %s.", "See what listens on that port."),
    CERTIFICATE_EXPIRED(
            "Its certificate ran out on %s.", "Replace the certificate, or set the machine's clock if that is wrong."),
    CERTIFICATE_NOT_YET("Its certificate is valid only from %s on.", "Compare the machine's clock with ours."),
    CERTIFICATE_CHANGED(
            "It shows another certificate than before: %s.",
            "Check its identity by serial; accept the new one only if somebody replaced it."),
    CERTIFICATE_NAMES(
            "Its certificate is made out to another name: %s.",
            "Have a certificate made out to its planned name, and put that in."),
    CHAIN_BROKEN(
            "Its certificate does not lead to whoever vouches for it: %s.",
            "Put the whole chain in, from its own certificate upwards."),
    WEAK_KEY("Its key is too weak: %s.", "Have it make a new key, and a certificate for that."),
    NO_SERVICE(
            "HTTPS answers, but there is no Redfish service: %s.",
            "Restart the management controller if this lasts longer than five minutes."),
    PASSWORD_REFUSED(
            "It refuses the password we set.",
            "Somebody may have changed it since. Set it up again, or enter the password in use."),
    IDENTITY_UNREADABLE(
            "Its serial cannot be read: %s.", "Check again; if it stays so, read the serial at the machine."),
    OTHER_MACHINE("It is another machine: %s.", "Compare the label with the rack position; nothing was written to it."),
    SETTINGS_UNREADABLE("Its settings cannot be read back: %s.", "Check again in a minute."),
    NOT_AS_PLANNED("%s.", "Set it up again, or change the plan if the machine is right."),
    NOT_IN_STATE(
            "It is not in the state that its setup ended in: %s.",
            "Look at the machine's own page; where it is still at work, check again later."),
    ELSEWHERE(
            "It answers elsewhere as well, at %s.",
            "Take that address from it: whoever gets it next would meet this machine."),
    FACTORY_ACCEPTED("The factory password still works.", "Set it up again: anyone who knows the model can log in."),
    FACTORY_UNCLEAR("Whether the factory password is refused could not be seen: %s.", "Check again."),
    NO_PAGE(
            "HTTPS answers, but not with a page to sign in: %s.",
            "Open it in a browser; its web service may still be starting."),
    LEADS_AWAY(
            "Its page leads away, to %s.",
            "Nobody was followed there. Look what name the machine was given for itself."),
    NO_SSH("SSH does not greet: %s.", "See whether SSH is switched on; then check again."),
    HOST_KEY_CHANGED(
            "It shows another SSH host key than before: %s.",
            "Check its identity by serial; accept the new one only if somebody replaced it."),
    NO_PRESENCE(
            "It does not answer a presence ping on UDP port 623: %s.",
            "See whether it is let through; some machines want it switched on."),
    PRESENCE_ANSWERS(
            "It answers a presence ping on UDP port 623, and must not.", "Switch IPMI over LAN off on the machine."),
    NO_NFS("It serves no NFS: %s.", "See at the array whether the file service runs on that address."),
    NO_PORTAL(
            "It is no storage portal that tells its targets: %s.",
            "See at the array whether the portal is in service."),
    PAGES_REFUSED(
            "Its pages refuse the password we set.",
            "Somebody may have changed it since. Set it up again, or enter the password in use."),
    NOT_SET_UP(
            "Nothing tells which machine this is: it was not set up yet.",
            "Set it up in Configure; its setup tells it by its serial."),
    NAME_MISSING("No name server knows %s.", "Send its records again, then check."),
    NAME_ELSEWHERE("%s.", "Send its records again; where the other record is somebody else's, have it removed."),
    NAME_LAGS("%s.", "Check again in a few minutes; if it stays so, look at that server's transfer of the zone."),
    NAME_SERVER_SILENT("%s.", "Look at that name server; units would not find their names there either."),
    REVERSE_MISSING("No name server leads from %s back to a name.", "Send its records again, then check."),
    REVERSE_ELSEWHERE("%s.", "Send its records again; where the other record is somebody else's, have it removed."),
    CLOCK_OFF("Its clock is %s.", "See whether it reaches its time servers; certificates and logs depend on it."),
    TIME_SERVER_OFF("%s.", "Check that time server under Networks and services, or use another one."),
    MUST_BE_SHUT("Port %s answers and must be shut.", "Turn that service off on the machine."),
    COMMUNITY_ANSWERS(
            "It answers SNMP to whoever says “%s”.",
            "Take that community away on the machine, or turn SNMP off: whoever knows the model can read what it "
                    + "knows.");

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
