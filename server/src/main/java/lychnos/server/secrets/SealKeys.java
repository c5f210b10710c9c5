package lychnos.server.secrets;

import java.io.IOException;
import java.nio.channels.FileChannel;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.nio.file.StandardOpenOption;
import java.nio.file.attribute.FileAttribute;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.HexFormat;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import lychnos.core.text.Sha256;

/**
 * The keys that passwords are sealed with: AES-256-GCM (NIST SP 800-38D). Their file has one key a line, 32 bytes in
 * hexadecimal; the first line seals, every line opens. It has a second line only while a new key takes over.
 */
public final class SealKeys {

    private static final int KEY_BYTES = 32;
    private static final int NONCE_BYTES = 12;
    private static final int TAG_BITS = 128;
    private static final FileAttribute<?> OWNER_ONLY =
            PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------"));

    /** A sealed text with what is needed to open it, but for the key. */
    public record Box(String keyId, byte[] nonce, byte[] sealed) {}

    private final SecureRandom random = new SecureRandom();
    private final Map<String, byte[]> keys;

    private SealKeys(List<byte[]> keys) {
        this.keys = new LinkedHashMap<>();
        keys.forEach(key -> this.keys.put(id(key), key));
    }

    /**
     * Reads the keys; makes the first one where there is no file yet.
     *
     * @throws IOException if the file cannot be read or holds no key
     */
    public static SealKeys read(Path file) throws IOException {
        if (!Files.exists(file)) {
            try {
                Files.createFile(file, OWNER_ONLY);
                Files.writeString(file, HexFormat.of().formatHex(fresh()) + "\n");
            } catch (FileAlreadyExistsException e) {
                // another server on this machine was quicker; its key is read below
            }
        }
        List<byte[]> keys = Files.readAllLines(file).stream()
                .filter(line -> !line.isBlank())
                .map(line -> HexFormat.of().parseHex(line.strip()))
                .toList();
        if (keys.isEmpty() || keys.stream().anyMatch(key -> key.length != KEY_BYTES)) {
            throw new IOException(file + " must hold one key of " + KEY_BYTES + " bytes a line, in hexadecimal");
        }
        return new SealKeys(keys);
    }

    private static byte[] fresh() {
        byte[] bytes = new byte[KEY_BYTES];
        new SecureRandom().nextBytes(bytes);
        return bytes;
    }

    /** The id of the key that seals: the first 4 bytes of its SHA-256, in hexadecimal. */
    public String id() {
        return keys.keySet().iterator().next();
    }

    /** Whether there is another key besides the one that seals. */
    public boolean taking() {
        return keys.size() > 1;
    }

    /** The same keys behind a new one. */
    public SealKeys withNew() {
        return new SealKeys(
                Stream.concat(Stream.of(fresh()), keys.values().stream()).toList());
    }

    /** The key that seals, alone. */
    public SealKeys onlyNewest() {
        return new SealKeys(List.of(keys.values().iterator().next()));
    }

    /** Writes the keys so that at any moment, a crash included, the file holds either the earlier keys or these. */
    public void write(Path file) throws IOException {
        Path beside = file.resolveSibling(file.getFileName() + ".new");
        Files.deleteIfExists(beside);
        Files.createFile(beside, OWNER_ONLY);
        StringBuilder text = new StringBuilder();
        keys.values().forEach(key -> text.append(HexFormat.of().formatHex(key)).append('\n'));
        Files.writeString(beside, text);
        try (FileChannel channel = FileChannel.open(beside, StandardOpenOption.WRITE)) {
            channel.force(true);
        }
        Files.move(beside, file, StandardCopyOption.ATOMIC_MOVE, StandardCopyOption.REPLACE_EXISTING);
        try (FileChannel directory = FileChannel.open(file.toAbsolutePath().getParent())) {
            directory.force(true);
        }
    }

    /**
     * Seals a text.
     *
     * @param place what it belongs to; a box cannot be opened for another place
     */
    public Box seal(String place, byte[] text) {
        byte[] nonce = new byte[NONCE_BYTES];
        random.nextBytes(nonce);
        return new Box(id(), nonce, crypt(Cipher.ENCRYPT_MODE, keys.get(id()), place, nonce, text));
    }

    /** Opens a text. @throws IllegalStateException if the key is not here, or the row was changed or moved */
    public byte[] open(String place, Box box) {
        byte[] key = keys.get(box.keyId);
        if (key == null) {
            throw new IllegalStateException("the secret of " + place + " was sealed with key " + box.keyId
                    + ", this server has " + String.join(", ", keys.keySet()));
        }
        return crypt(Cipher.DECRYPT_MODE, key, place, box.nonce, box.sealed);
    }

    /** The same text for the same place, sealed with the newest key. */
    public Box again(String place, Box box) {
        return box.keyId.equals(id()) ? box : seal(place, open(place, box));
    }

    private static String id(byte[] key) {
        return HexFormat.of().formatHex(Sha256.begin().digest(key), 0, 4);
    }

    private static byte[] crypt(int mode, byte[] key, String place, byte[] nonce, byte[] text) {
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, new SecretKeySpec(key, "AES"), new GCMParameterSpec(TAG_BITS, nonce));
            cipher.updateAAD(place.getBytes(StandardCharsets.UTF_8));
            return cipher.doFinal(text);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("a sealed password cannot be opened: wrong key, or its row was changed", e);
        }
    }

    /** The password of a unit; its only one has no name. */
    static String ofUnit(long unitId, String name) {
        return name.equals(SealedStore.ONLY) ? Long.toString(unitId) : unitId + " " + name;
    }

    /** A secret fact of a unit or one of its members. */
    public static String ofFact(long unitId, String member, String name) {
        return "unit " + unitId + " " + member + " " + name;
    }

    /** The secret of an entry of the site. */
    public static String ofEntry(long id) {
        return "thing " + id;
    }

    /** The factory password that a site, or one bring-up of it, states for a way into a kind; 0 for the whole site. */
    public static String ofAdjustment(String kindId, long siteId, long bringUpId, String what) {
        return "kind " + kindId + " " + siteId + " " + bringUpId + " " + what;
    }

    /** A piece of the log of a setup by hand. */
    public static String ofSetupLog(long dialogueId, long number) {
        return "setup log " + dialogueId + " " + number;
    }

    /** The secret of somebody who is told of changes. */
    public static String ofNotice(long id) {
        return "notice " + id;
    }
}
