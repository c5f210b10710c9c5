package lychnos.core.image;

import lychnos.core.text.Message;

/** Texts about image files. */
enum ImageText implements Message {
    MANIFEST_EMPTY(
            "No line of the manifest states a digest. Write “SHA256(file name)= digest” or “digest file " + "name”.");

    private final String pattern;

    ImageText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
