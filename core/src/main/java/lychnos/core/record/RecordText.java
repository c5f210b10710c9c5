package lychnos.core.record;

import lychnos.core.text.Message;

/** Texts about what is wrong with a chain of records. */
enum RecordText implements Message {
    DIGEST_DIFFERS("The digest does not match the content."),
    LINK_MISSING("The link before is missing."),
    NOT_AFTER_THE_LINK_BEFORE("The digest of the link before does not match."),
    NOT_THE_FIRST("The first link refers to a link before it.");

    private final String pattern;

    RecordText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
