package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of keys and sealed passwords. */
public enum SecretText implements Message {
    KEY_CANNOT_BE_READ("The key cannot be read: {reason}."),
    KEY_OF_HAS_EXPIRED_OR_WAS_REVOKED("The key of {user} has expired or was revoked."),
    KEY_OF_HAS_NO_PART_THAT_ENCRYPTS("The key of {user} has no part that encrypts."),
    PASTE_AN_OPENPGP_PUBLIC_KEY("Paste an OpenPGP public key; it starts with -----BEGIN PGP PUBLIC KEY BLOCK-----.");

    private final String pattern;

    SecretText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
