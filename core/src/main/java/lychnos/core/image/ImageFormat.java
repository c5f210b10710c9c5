package lychnos.core.image;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.List;
import java.util.Locale;
import java.util.Optional;

/** The form of an image file, told by its first bytes and never by its name. */
public enum ImageFormat {
    /** A package in one file (DMTF DSP0243, section 5.3): a tar archive (POSIX.1-1988 ustar) with a description. */
    OVA(257, "ustar"),
    /** A disk that grows as it is written, version 2 or 3. */
    QCOW2(0, "QFI\u00fb"),
    /** A sparse disk in one file. */
    VMDK(0, "KDMV"),
    VHDX(0, "vhdxfile"),
    /** An optical disk (ECMA-119, section 8.1: the first volume descriptor is in sector 16). */
    ISO(16 * 2048 + 1, "CD001"),
    GZIP(0, "\u001f\u008b"),
    /** A plain copy of a disk, with a boot record at its beginning. */
    RAW(510, "U\u00aa"),
    UNKNOWN(0, "");

    /** How many of the first bytes of a file decide; of a shorter file all of them. */
    public static final int HEAD_BYTES = 16 * 2048 + 8;

    private final int at;
    private final byte[] mark;

    ImageFormat(int at, String mark) {
        this.at = at;
        this.mark = mark.getBytes(StandardCharsets.ISO_8859_1);
    }

    /** The word by which kinds and hosts name it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    /**
     * The format of a file that begins so.
     *
     * @param head its first {@link #HEAD_BYTES} bytes, fewer of a shorter file
     * @return {@link #UNKNOWN} if no mark is in its place
     */
    public static ImageFormat of(byte[] head) {
        return Arrays.stream(values())
                .filter(format -> format.marks(head))
                .findFirst()
                .orElse(UNKNOWN);
    }

    /** The format of a word, in any case; nothing for a word that names none. */
    public static Optional<ImageFormat> named(String word) {
        return known().stream()
                .filter(format -> format.word().equals(word.strip().toLowerCase(Locale.ROOT)))
                .findFirst();
    }

    /** All formats but {@link #UNKNOWN}. */
    public static List<ImageFormat> known() {
        return Arrays.stream(values()).filter(format -> format != UNKNOWN).toList();
    }

    private boolean marks(byte[] head) {
        int end = at + mark.length;
        return head.length >= end && Arrays.equals(head, at, end, mark, 0, mark.length);
    }
}
