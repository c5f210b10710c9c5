package lychnos.server.image;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import jakarta.persistence.Table;
import java.time.Instant;
import java.util.List;
import lychnos.core.image.CheckedImage;
import lychnos.core.image.ImageDescription;
import lychnos.core.image.ImageFormat;
import lychnos.core.image.Manifest;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;

/** An image file of a site. */
@Entity
@Table(name = "image")
class ImageRow {

    /** How far it is. */
    enum ImageState {
        /** Pieces of it are being received. */
        ARRIVING,
        /** It is here and is read to its end. */
        READING,
        CHECKED,
        FAILED
    }

    /** Why a file could not be read. */
    enum ImageFault {
        /** It is not there any more, or its size is another one. */
        FILE_CHANGED,
        /** The disk refused. */
        UNREADABLE,
        /** It begins like a package and is none. */
        PACKAGE_BROKEN,
        /** Its description file is no XML, or larger than any. */
        DESCRIPTION_BROKEN
    }

    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    Long id;

    @Column(name = "site_id")
    Long siteId;

    String name;

    @Column(name = "in_folder")
    boolean inFolder;

    long bytes;
    long received;

    @Enumerated(EnumType.STRING)
    ImageState state;

    @Column(name = "bytes_read")
    long bytesRead;

    int fence;

    @Column(name = "heard_at")
    Instant heardAt;

    @Enumerated(EnumType.STRING)
    ImageFault fault;

    String sha256;

    @Enumerated(EnumType.STRING)
    ImageFormat format;

    @JdbcTypeCode(SqlTypes.JSON)
    List<CheckedImage.ReadFile> files = List.of();

    String manifest = "";
    String description = "";

    /** What the manifest states. */
    @JdbcTypeCode(SqlTypes.JSON)
    List<Manifest.ManifestLine> stated = List.of();

    /** What the description says; null where there is none. */
    @JdbcTypeCode(SqlTypes.JSON)
    ImageDescription described;

    @Column(name = "added_by")
    String addedBy;

    @Column(name = "added_at")
    Instant addedAt;

    @Column(name = "checked_at")
    Instant checkedAt;

    /**
     * Takes the texts that came with it.
     *
     * @throws IllegalArgumentException with a sentence, if one of them cannot be read
     */
    void take(String manifest, String description) {
        stated = manifest.isEmpty() ? List.of() : Manifest.parse(manifest).lines();
        described = description.isEmpty() ? null : OvfReader.parse(description);
        this.manifest = manifest;
        this.description = description;
    }

    CheckedImage checked() {
        return new CheckedImage(name, bytes, sha256, format, files, stated, described);
    }
}
