package lychnos.server.image;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.Transactional;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.function.Consumer;
import java.util.regex.Pattern;
import lychnos.core.fact.DataSize;
import lychnos.core.image.CheckedImage;
import lychnos.core.image.Manifest;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.identity.caller.Who;
import lychnos.server.image.ImageRow.ImageState;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.site.Sites;
import lychnos.server.text.ImageText;
import org.hibernate.Session;
import org.jspecify.annotations.Nullable;

/** The image files of a site: announced, received piece by piece or found in the folder, and removed. */
@ApplicationScoped
public class Images {

    private static final int MOST = 200;
    private static final long MOST_BYTES = 1L << 40;
    private static final long MEBIBYTE = 1024L * 1024;
    /** Screens are told of an upload after so many bytes, and at its end. */
    private static final long TOLD_EVERY = 64 * MEBIBYTE;

    private static final int MOST_MANIFEST = 100_000;
    private static final int MOST_DESCRIPTION = 1_000_000;
    private static final Duration GONE = Duration.ofMinutes(5);
    private static final Pattern NAME = Pattern.compile("[^/\\\\\\p{Cntrl}]{1,200}");

    private final Session db;
    private final Sites sites;
    private final ImageFolder folder;
    private final Journal journal;
    private final Live live;
    private final Clock clock;

    Images(Session db, Sites sites, ImageFolder folder, Journal journal, Live live, Clock clock) {
        this.db = db;
        this.sites = sites;
        this.folder = folder;
        this.journal = journal;
        this.live = live;
        this.clock = clock;
    }

    /**
     * An image as it is announced.
     *
     * @param bytes its size; not needed of a file that lies in the folder
     * @param inFolder whether it lies in the folder of the server
     * @param manifest the text of the file with digests that came with it, or null
     * @param description the text of the OVF descriptor that came with it, or null
     */
    public record ImageStatement(
            String name, long bytes, boolean inFolder, @Nullable String manifest, @Nullable String description) {}

    /** Texts that came with an image. */
    public record ImagePapers(@Nullable String manifest, @Nullable String description) {}

    /** How much of an image has arrived. */
    public record ReceivedBytes(long id, long received, long bytes) {}

    /** What was found in the images of a site, for its plans. */
    public List<CheckedImage> checked(long siteId) {
        // without the texts, which may be long
        return db.createQuery(
                        "select new lychnos.core.image.CheckedImage(name, bytes, sha256, format, files, stated, "
                                + "described) from ImageRow where siteId = :site and state = CHECKED order by name",
                        CheckedImage.class)
                .setParameter("site", siteId)
                .getResultList();
    }

    List<ImageRow> rows(long siteId) {
        return db.createQuery("from ImageRow where siteId = :site order by name", ImageRow.class)
                .setParameter("site", siteId)
                .getResultList();
    }

    @Transactional
    public ReceivedBytes add(long bringUpId, ImageStatement statement, Who.Person person) {
        long siteId = sites.bringUp(bringUpId).site.id;
        ImageRow image = new ImageRow();
        image.siteId = siteId;
        image.inFolder = statement.inFolder();
        image.bytes = statement.bytes();
        List<FieldFault> faults = new ArrayList<>();
        String name = statement.name() == null ? "" : statement.name().strip();
        if (!NAME.matcher(name).matches() || name.startsWith(".")) {
            faults.add(new FieldFault("name", ImageText.FILE_NAME_HAS.said()));
        } else if (image.inFolder && !folder.names().contains(name)) {
            faults.add(new FieldFault("name", ImageText.NAMED_FILE_IS_NOT_IN_THE_FOLDER.said(name)));
        }
        image.name = name;
        papers(image, statement.manifest(), statement.description(), faults);
        if (faults.isEmpty()) {
            size(image, faults);
        }
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        // one after the other, so that two people who add the same file are told
        sites.lock(siteId);
        List<ImageRow> there = rows(siteId);
        if (there.stream().anyMatch(other -> other.name.equals(name))) {
            throw Refusal.fields(List.of(new FieldFault("name", ImageText.ALREADY_AN_IMAGE_WITH_THIS_NAME.said())));
        }
        if (there.size() >= MOST) {
            throw Refusal.bad(ImageText.SITE_HAS_AT_MOST_IMAGES.said(MOST));
        }
        image.received = image.inFolder ? image.bytes : 0;
        image.state = image.inFolder ? ImageState.READING : ImageState.ARRIVING;
        image.addedBy = person.login();
        image.addedAt = clock.instant();
        db.persist(image);
        db.flush();
        journal.write(person, bringUpId, null, ImageText.ADDED_IMAGE.text(name), null, Map.of("bytes", image.bytes));
        live.tell(bringUpId, "prepare");
        return new ReceivedBytes(image.id, image.received, image.bytes);
    }

    private void size(ImageRow image, List<FieldFault> faults) {
        if (image.inFolder) {
            image.bytes = folder.bytes(image);
        }
        if (image.bytes < 1) {
            faults.add(new FieldFault("name", ImageText.FILE_IS_EMPTY.said()));
        } else if (image.bytes > MOST_BYTES) {
            faults.add(new FieldFault("name", ImageText.FILE_IS_LARGER_THAN.said(size(MOST_BYTES))));
        } else if (!image.inFolder) {
            try {
                long free = folder.free();
                if (free < image.bytes) {
                    faults.add(new FieldFault("name", ImageText.DISK_IS_TOO_SMALL.said(size(free), size(image.bytes))));
                }
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    private static DataSize size(long bytes) {
        return new DataSize(Math.max(1, bytes / MEBIBYTE));
    }

    private static void papers(
            ImageRow image, @Nullable String manifest, @Nullable String description, List<FieldFault> faults) {
        int before = faults.size();
        String stated = paper("manifest", manifest, MOST_MANIFEST, Manifest::parse, faults);
        String described = paper("description", description, MOST_DESCRIPTION, OvfReader::parse, faults);
        if (faults.size() == before) {
            image.take(stated, described);
        }
    }

    private static String paper(
            String field, @Nullable String typed, int most, Consumer<String> reader, List<FieldFault> faults) {
        String text = typed == null ? "" : typed.replace("\0", "").strip();
        if (text.length() > most) {
            faults.add(new FieldFault(field, ImageText.TEXT_IS_TOO_LONG.said(most)));
        } else if (!text.isEmpty()) {
            try {
                reader.accept(text);
            } catch (IllegalArgumentException e) {
                faults.add(new FieldFault(field, e.getMessage()));
            }
        }
        return text;
    }

    /** Changes the texts that came with an image; its bytes are not read again. */
    @Transactional
    public void papers(long bringUpId, long imageId, ImagePapers papers, Who.Person person) {
        ImageRow image = one(bringUpId, imageId);
        List<FieldFault> faults = new ArrayList<>();
        papers(image, papers.manifest(), papers.description(), faults);
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        journal.write(person, bringUpId, null, ImageText.CHANGED_WHAT_CAME_WITH_IMAGE.text(image.name), null, null);
        live.tell(bringUpId, "prepare");
    }

    /**
     * Takes the next piece of a file.
     *
     * @param at at which byte of the file it begins
     * @throws Refusal 409 with the member {@code received}, if another byte comes next
     */
    @Transactional
    public ReceivedBytes receive(long bringUpId, long imageId, long at, byte[] piece) {
        ImageRow image = one(bringUpId, imageId);
        if (image.state != ImageState.ARRIVING) {
            throw Refusal.conflict(ImageText.IMAGE_IS_READ_TO_ITS_END.said());
        }
        if (at != image.received && at != 0) {
            throw Refusal.conflict(
                    ImageText.OTHER_BYTES_ARE_EXPECTED.said(image.received), Map.of("received", image.received));
        }
        if (at > 0 && folder.bytes(image) < at) {
            throw Refusal.conflict(ImageText.PIECES_ARE_ON_ANOTHER_SERVER.said(), Map.of("received", 0));
        }
        if (at + piece.length > image.bytes) {
            throw Refusal.bad(ImageText.PIECE_GOES_BEYOND_THE_END.said(image.bytes));
        }
        try {
            folder.write(image, at, piece);
        } catch (IOException e) {
            throw Refusal.conflict(ImageText.PIECE_COULD_NOT_BE_WRITTEN.said(e.getMessage()));
        }
        long before = image.received;
        image.received = at + piece.length;
        if (image.received == image.bytes) {
            image.state = ImageState.READING;
        }
        if (image.state == ImageState.READING || before / TOLD_EVERY != image.received / TOLD_EVERY) {
            live.tell(bringUpId, "prepare"); // who sends it counts for itself
        }
        return new ReceivedBytes(image.id, image.received, image.bytes);
    }

    @Transactional
    public void remove(long bringUpId, long imageId, Who.Person person) {
        ImageRow image = one(bringUpId, imageId);
        db.remove(image);
        try {
            folder.delete(image);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
        journal.write(person, bringUpId, null, ImageText.REMOVED_IMAGE.text(image.name), null, null);
        live.tell(bringUpId, "prepare");
    }

    private ImageRow one(long bringUpId, long imageId) {
        ImageRow image = db.find(ImageRow.class, imageId, LockModeType.PESSIMISTIC_WRITE);
        if (image == null || !image.siteId.equals(sites.bringUp(bringUpId).site.id)) {
            throw Refusal.notFound(ImageText.NO_SUCH_IMAGE.said());
        }
        return image;
    }

    // --- reading ---

    /** An image that this server reads. */
    record ImageHeld(long id, int fence) {}

    /**
     * Takes images that nobody reads and that are here: new ones, and those whose reader has been silent.
     *
     * @param silentSince who has not been heard since then has gone away
     */
    @Transactional
    List<ImageRow> claim(Instant silentSince, int most) {
        List<ImageRow> mine = new ArrayList<>();
        for (ImageRow image : db.createNativeQuery(
                        "select * from image where state = 'READING' and (heard_at is null or heard_at < :since) order "
                                + "by id for update skip locked",
                        ImageRow.class)
                .setParameter("since", silentSince)
                .getResultList()) {
            if (mine.size() < most && (folder.bytes(image) >= 0 || isGone(image))) {
                image.fence++;
                image.heardAt = clock.instant();
                image.bytesRead = 0;
                mine.add(image);
            }
        }
        return mine;
    }

    /** Nowhere has anybody read it for long, so that it is on no other server either. */
    private boolean isGone(ImageRow image) {
        Instant last = image.heardAt == null ? image.addedAt : image.heardAt;
        return last.plus(GONE).isBefore(clock.instant());
    }

    /** Notes how far a reading is; false, if the image was removed or another server reads it now. */
    @Transactional
    boolean progress(ImageHeld held, long bytesRead) {
        int noted = db.createNativeMutationQuery("update image set bytes_read = :read, heard_at = :now where id = :id "
                        + "and fence = :fence and state = 'READING'")
                .setParameter("read", bytesRead)
                .setParameter("now", clock.instant())
                .setParameter("id", held.id())
                .setParameter("fence", held.fence())
                .executeUpdate();
        tellAll(held.id());
        return noted == 1;
    }

    /** Keeps what was read; without effect if the image was removed or another server reads it now. */
    @Transactional
    void finish(ImageHeld held, Consumer<ImageRow> result) {
        ImageRow image = db.find(ImageRow.class, held.id(), LockModeType.PESSIMISTIC_WRITE);
        if (image == null || image.fence != held.fence() || image.state != ImageState.READING) {
            return;
        }
        result.accept(image);
        if (image.state == ImageState.CHECKED) {
            image.checkedAt = clock.instant();
            image.bytesRead = image.bytes;
            sites.bringUpsOf(image.siteId)
                    .forEach(bringUp -> journal.writeWork(
                            bringUp.id, null, ImageText.CHECKED_IMAGE.text(image.name, image.sha256)));
        }
        tellAll(held.id());
    }

    private void tellAll(long imageId) {
        ImageRow image = db.find(ImageRow.class, imageId);
        if (image != null) {
            sites.bringUpsOf(image.siteId).forEach(bringUp -> live.tell(bringUp.id, "prepare"));
        }
    }
}
