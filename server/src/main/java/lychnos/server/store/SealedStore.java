package lychnos.server.store;

import jakarta.enterprise.context.ApplicationScoped;
import org.hibernate.Session;
import jakarta.transaction.Transactional;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.FileAlreadyExistsException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.SecureRandom;
import java.util.Collection;
import java.util.HashMap;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import javax.crypto.Cipher;
import javax.crypto.spec.GCMParameterSpec;
import javax.crypto.spec.SecretKeySpec;
import lychnos.core.fact.Secret;
import lychnos.server.LychnosConfig;

/**
 * Passwords of machines, sealed with AES-256-GCM (NIST SP 800-38D); the unit's id is bound to the sealed text, so that a row
 * cannot be moved to another unit. A password is <em>made</em> before it is sent, and <em>proven</em> once it has logged in.
 */
@ApplicationScoped
public class SealedStore {

    /** The name of a unit's password where it has but one. */
    /** The name of the password of a unit that has only one. */
    public static final String ONLY = "password";

    private static final int KEY_BYTES = 32;
    private static final int NONCE_BYTES = 12;
    private static final int TAG_BITS = 128;

    /** Where a password stands. */
    public enum State {
        MADE,
        PROVEN;

        private String column() {
            return name().toLowerCase(java.util.Locale.ROOT);
        }
    }

    private final Session db;
    private final SecretKeySpec key;
    private final String keyId;
    private final SecureRandom random = new SecureRandom();

    SealedStore(Session db, LychnosConfig config) throws IOException {
        this.db = db;
        byte[] bytes = key(config.seal().keyFile());
        this.key = new SecretKeySpec(bytes, "AES");
        this.keyId = keyId(bytes);
    }

    private static byte[] key(Path file) throws IOException {
        if (!Files.exists(file)) {
            byte[] bytes = new byte[KEY_BYTES];
            new SecureRandom().nextBytes(bytes);
            try {
                Files.createFile(file, PosixFilePermissions.asFileAttribute(PosixFilePermissions.fromString("rw-------")));
                Files.writeString(file, HexFormat.of().formatHex(bytes) + "\n");
            } catch (FileAlreadyExistsException e) {
                // another server on this machine was quicker; its key is read below
            }
        }
        byte[] bytes = HexFormat.of().parseHex(Files.readString(file).strip());
        if (bytes.length != KEY_BYTES) {
            throw new IOException(file + " must hold " + KEY_BYTES + " bytes in hexadecimal");
        }
        return bytes;
    }

    private static String keyId(byte[] bytes) {
        try {
            byte[] digest = java.security.MessageDigest.getInstance("SHA-256").digest(bytes);
            return HexFormat.of().formatHex(digest, 0, 4);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("SHA-256 is part of every Java", e);
        }
    }

    /** A sealed text with what is needed to open it, but for the key. */
    public record Box(String keyId, byte[] nonce, byte[] sealed) {}

    /**
     * Seals a text that is kept elsewhere.
     *
     * @param place what it belongs to; a box cannot be opened for another place
     */
    public Box sealText(String place, Secret secret) {
        byte[] nonce = new byte[NONCE_BYTES];
        random.nextBytes(nonce);
        return new Box(keyId, nonce, crypt(Cipher.ENCRYPT_MODE, place, nonce, secret.use(text -> text.getBytes(StandardCharsets.UTF_8))));
    }

    /** Opens what {@link #sealText} sealed. */
    public Secret openText(String place, String sealedWith, byte[] nonce, byte[] sealed) {
        if (!keyId.equals(sealedWith)) {
            throw new IllegalStateException("the secret of " + place + " was sealed with key " + sealedWith + ", this server has " + keyId);
        }
        return Secret.of(new String(crypt(Cipher.DECRYPT_MODE, place, nonce, sealed), StandardCharsets.UTF_8));
    }

    /** Seals a new password beside the proven one, replacing an earlier one that was never proven. */
    @Transactional
    public void seal(long unitId, Secret secret) {
        seal(unitId, ONLY, secret);
    }

    /** The same for a unit that has several, each under the name of its fact. */
    @Transactional
    public void seal(long unitId, String name, Secret secret) {
        byte[] nonce = new byte[NONCE_BYTES];
        random.nextBytes(nonce);
        byte[] sealed = crypt(Cipher.ENCRYPT_MODE, place(unitId, name), nonce, secret.use(text -> text.getBytes(StandardCharsets.UTF_8)));
        db.createNativeMutationQuery("delete from sealed_secret where unit_id = :unit and name = :name and state = 'made'").setParameter("unit", unitId).setParameter("name", name).executeUpdate();
        db.createNativeMutationQuery("insert into sealed_secret (unit_id, name, key_id, nonce, sealed, state) values (:unit, :name, :key, :nonce, :sealed, 'made')")
                .setParameter("unit", unitId)
                .setParameter("name", name)
                .setParameter("key", keyId)
                .setParameter("nonce", nonce)
                .setParameter("sealed", sealed)
                .executeUpdate();
    }

    /** What a sealed text is bound to. */
    private static String place(long unitId, String name) {
        return name.equals(ONLY) ? Long.toString(unitId) : unitId + " " + name;
    }

    /** Opens a unit's password. */
    @Transactional
    public Optional<Secret> open(long unitId, State state) {
        return open(unitId, ONLY, state);
    }

    /** Opens one of a unit's passwords. */
    @Transactional
    public Optional<Secret> open(long unitId, String name, State state) {
        return Optional.ofNullable(open(List.of(unitId), state).getOrDefault(unitId, Map.of()).get(name));
    }

    /** Opens what several units have, by unit and name. */
    @Transactional
    public Map<Long, Map<String, Secret>> open(Collection<Long> units, State state) {
        Map<Long, Map<String, Secret>> all = new HashMap<>();
        if (units.isEmpty()) {
            return all;
        }
        List<Object[]> rows = db.createNativeQuery("select unit_id, name, key_id, nonce, sealed from sealed_secret where unit_id in :units and state = :state", Object[].class)
                .setParameter("units", units)
                .setParameter("state", state.column())
                .getResultList();
        for (Object[] row : rows) {
            long unit = ((Long) row[0]);
            String name = (String) row[1];
            if (!keyId.equals(row[2])) {
                throw new IllegalStateException("the password of unit " + unit + " was sealed with key " + row[2] + ", this server has " + keyId);
            }
            all.computeIfAbsent(unit, id -> new HashMap<>()).put(name, Secret.of(new String(crypt(Cipher.DECRYPT_MODE, place(unit, name), (byte[]) row[3], (byte[]) row[4]), StandardCharsets.UTF_8)));
        }
        return all;
    }

    /** The password that was made has logged in: it takes the place of the old one. */
    @Transactional
    public void proven(long unitId) {
        proven(unitId, ONLY);
    }

    /** The same for one of several. */
    @Transactional
    public void proven(long unitId, String name) {
        db.createNativeMutationQuery("delete from sealed_secret where unit_id = :unit and name = :name and state = 'proven'"
                        + " and exists (select 1 from sealed_secret where unit_id = :unit and name = :name and state = 'made')")
                .setParameter("unit", unitId)
                .setParameter("name", name)
                .executeUpdate();
        db.createNativeMutationQuery("update sealed_secret set state = 'proven' where unit_id = :unit and name = :name and state = 'made'").setParameter("unit", unitId).setParameter("name", name).executeUpdate();
    }

    /** Forgets every password of a unit: the machine that they were for is there no more. */
    @Transactional
    public void forget(long unitId) {
        db.createNativeMutationQuery("delete from sealed_secret where unit_id = :unit").setParameter("unit", unitId).executeUpdate();
    }

    private byte[] crypt(int mode, String place, byte[] nonce, byte[] text) {
        try {
            Cipher cipher = Cipher.getInstance("AES/GCM/NoPadding");
            cipher.init(mode, key, new GCMParameterSpec(TAG_BITS, nonce));
            cipher.updateAAD(place.getBytes(StandardCharsets.UTF_8));
            return cipher.doFinal(text);
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("the sealed store cannot be read: wrong key, or a row was changed", e);
        }
    }
}
