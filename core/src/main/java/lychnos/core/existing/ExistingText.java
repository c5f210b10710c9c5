package lychnos.core.existing;

import lychnos.core.text.Message;

/** Texts about lists of existing addresses. */
enum ExistingText implements Message {
    DHCP_LEASE("DHCP lease"),
    EMPTY("The list is empty."),
    HOSTS_FILE("hosts file"),
    NO_ADDRESS_COLUMN("The first line must name the columns, and one of them must be “address”."),
    TOO_LONG("The text has {length} characters, at most {longest} are read. Is it the right file?");

    private final String pattern;

    ExistingText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
