package lychnos.core.name;

import lychnos.core.text.Message;

/** Texts about what is wrong with a name or a name pattern. */
enum NameText implements Message {
    DOMAIN_TOO_LONG("The domain has {length} characters, at most 253 are allowed."),
    EMPTY("The name is empty."),
    HOST_NAME_TOO_LONG("“{label}” has {length} characters; a host name has at most 63."),
    NOT_A_DOMAIN("“{domain}” is not a domain: “{label}” is not a name."),
    NOT_A_HOST_NAME("“{label}” is not a host name: use letters a to z, digits and hyphens, beginning and ending "
            + "with a letter or digit."),
    OPEN_BRACE("A brace in “{pattern}” is not closed, or holds no field."),
    PATTERN_TOO_LONG("The pattern has more than 200 characters."),
    SAME_NAME("“{pattern}” gives all units the same name. Add {fields}."),
    UNKNOWN_FIELD("{field} is not a field. A name can use {fields}.");

    private final String pattern;

    NameText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
