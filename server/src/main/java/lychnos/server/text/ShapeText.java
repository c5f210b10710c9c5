package lychnos.server.text;

import lychnos.core.text.Message;

/**
 * What a value in a request may be. The constraint at the field has the code as its message; the names in braces are
 * attributes of the constraint.
 */
public enum ShapeText implements Message {
    DAY("Enter a day such as 2027-02-01, or leave it empty."),
    DAYS("A token ends after 1 to 366 days."),
    DUE_DATE("Enter a due date."),
    LOGIN("A login has 2 to 32 lowercase letters, digits, dots and hyphens, and starts with a letter."),
    MTU("An MTU goes from 576 to 9216 bytes."),
    NAME("A name has 1 to 80 characters, in one line."),
    NOTE("A note has at most {max} characters."),
    PERSON("A person's name has at most 80 characters, in one line."),
    PROGRAM_NAME("A name has 1 to 80 characters, preferably the name of the program."),
    RANGES("At most {max} ranges."),
    REALM("A realm's name has at most {max} characters."),
    REASON("Enter a reason, at most 400 characters."),
    REQUEST("Say what is asked for, in one line of at most 200 characters."),
    REQUESTS("Choose 1 to 1000 requests."),
    ROLE("A role is one of viewer, engineer, lead."),
    SEGMENT("A segment's name has at most {max} characters."),
    SUMMARY("Enter a summary, at most 400 characters."),
    VLAN("A VLAN goes from 1 to 4094.");

    private final String pattern;

    ShapeText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
