package lychnos.core.kind;

import lychnos.core.text.Message;

/** Texts about what is wrong with a package of a kind, a recording or a log of a line. */
enum KindFileText implements Message {
    BROKEN_ZIP("This ZIP archive is damaged: {fault}."),
    ENTRY_CHANGED("The entry “{entry}” was changed or damaged: its SHA-256 differs from the one in “digests”."),
    ENTRY_MISSING("The entry “{entry}” is missing."),
    ENTRY_NOT_UTF_8("The entry “{entry}” is not a text in UTF-8."),
    ENTRY_TWICE("The package has the entry “{entry}” twice."),
    NOT_A_PACKAGE("This file is not a package of a kind: it has no entry “format” with “lychnos-kind 1”."),
    NOT_A_PIECE("Line {line}: an entry is [seconds, \"o\", \"text\"]."),
    NOT_A_ZIP("This file is not a ZIP archive."),
    NOT_JSON("Line {line} is not valid JSON."),
    NO_DESCRIPTION("The package has no entry “kind.yaml”, which is the description."),
    NO_HEADER("Line 1: a recording begins with the header of asciicast version 2: {\"version\": 2, …}."),
    NO_HEADER_ENTRY("Line 1: the header has no entry “lychnos” with kind, member, values and secrets."),
    PACKAGE_TOO_LARGE("A package has at most 10 MB; this file has more."),
    PIECE_TIME("Line {line}: the time of an entry is 0 to {longest} seconds."),
    RECORDING_EMPTY("Line 1: the file is empty."),
    RECORDING_TOO_LONG("A recording has at most {longest} characters."),
    TIMING_LINE("Line {line} of the timing: expected the seconds since the previous entry and its number of "
            + "bytes, such as 0.25 80."),
    TOO_LARGE_UNPACKED("A package has at most 10 MB when unpacked. This limit is passed in the entry “{entry}”."),
    TOO_MANY_ENTRIES("A package has at most {most} entries."),
    UNKNOWN_ENTRY(
            "The entry “{entry}” is unknown. A package has format, kind.yaml, digests and " + "recordings/NAME.cast."),
    ZIP_ENDS_EARLY("This ZIP archive ends too early.");

    private final String pattern;

    KindFileText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
