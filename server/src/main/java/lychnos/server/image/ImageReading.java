package lychnos.server.image;

import io.quarkus.runtime.ShutdownEvent;
import io.quarkus.runtime.StartupEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.io.IOException;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import lychnos.server.image.ImageFile.ImageContent;
import lychnos.server.image.ImageRow.ImageFault;
import lychnos.server.image.ImageRow.ImageState;
import lychnos.server.image.Images.ImageHeld;
import lychnos.server.text.ImageText;
import lychnos.server.time.Clockwork;
import org.jboss.logging.Logger;

/** Reads images that have arrived, one at a time; after a crash from their beginning. */
@ApplicationScoped
class ImageReading {

    private static final Logger LOG = Logger.getLogger(ImageReading.class);
    private static final Duration LOOKED_EVERY = Duration.ofSeconds(1);
    private static final Duration NOTED_EVERY = Duration.ofSeconds(1);
    /** Several times what passes between two notes. */
    private static final Duration SILENT = Duration.ofSeconds(20);

    private final Images images;
    private final ImageFolder folder;
    private final Clockwork clockwork;
    private final Clock clock;
    private final ExecutorService reader = Executors.newSingleThreadExecutor(work -> {
        Thread thread = new Thread(work, "image reader");
        thread.setDaemon(true);
        return thread;
    });
    private final Set<Long> atWork = ConcurrentHashMap.newKeySet();
    private volatile boolean stopping;

    ImageReading(Images images, ImageFolder folder, Clockwork clockwork, Clock clock) {
        this.images = images;
        this.folder = folder;
        this.clockwork = clockwork;
        this.clock = clock;
    }

    void start(@Observes StartupEvent event) {
        clockwork.every(LOOKED_EVERY, ImageText.IMAGES_CANNOT_BE_READ.text(), this::look);
    }

    void stop(@Observes ShutdownEvent event) {
        stopping = true;
        reader.shutdownNow();
    }

    /** Begins with the next image, unless one is being read. */
    void look() {
        if (stopping || !atWork.isEmpty()) {
            return;
        }
        for (ImageRow image : images.claim(clock.instant().minus(SILENT), 1)) {
            atWork.add(image.id);
            reader.execute(() -> {
                try {
                    read(image);
                } catch (Ended e) {
                    LOG.debugf("image %d: %s", image.id, e.getMessage());
                } catch (RuntimeException e) {
                    // read again once its last sign of progress is old enough
                    LOG.warnf("Image %d cannot be read now (%s); trying again.", image.id, e.getMessage());
                } finally {
                    atWork.remove(image.id);
                }
            });
        }
    }

    /** The reading ends: the image was removed, the server stops, or another one reads it. */
    private static final class Ended extends RuntimeException {
        Ended(String why) {
            super(why, null, false, false);
        }
    }

    private void read(ImageRow image) {
        ImageHeld held = new ImageHeld(image.id, image.fence);
        if (folder.bytes(image) != image.bytes) {
            failed(held, ImageFault.FILE_CHANGED);
            return;
        }
        Instant[] noted = {clock.instant()};
        try {
            ImageContent content = ImageFile.read(folder.file(image), bytes -> {
                Instant now = clock.instant();
                if (stopping) {
                    throw new Ended("the server stops");
                }
                if (Duration.between(noted[0], now).compareTo(NOTED_EVERY) >= 0) {
                    noted[0] = now;
                    if (!images.progress(held, Math.min(bytes, image.bytes))) {
                        throw new Ended("removed, or read elsewhere");
                    }
                }
            });
            if (content.bytes() != image.bytes) {
                failed(held, ImageFault.FILE_CHANGED);
            } else {
                keep(held, content);
            }
        } catch (ImageFile.BrokenPackage e) {
            LOG.infof("image %d: %s", image.id, e.getMessage());
            failed(held, ImageFault.PACKAGE_BROKEN);
        } catch (IOException e) {
            LOG.warnf("Image %d cannot be read: %s", image.id, e.getMessage());
            failed(held, ImageFault.UNREADABLE);
        }
    }

    private void keep(ImageHeld held, ImageContent content) {
        images.finish(held, image -> {
            try {
                // what was given with it goes before what is inside
                image.take(
                        image.manifest.isEmpty() ? content.manifest() : image.manifest,
                        image.description.isEmpty() ? content.description() : image.description);
            } catch (IllegalArgumentException e) {
                LOG.infof("what is inside of image %d cannot be read: %s", held.id(), e.getMessage());
                image.state = ImageState.FAILED;
                image.fault = ImageFault.DESCRIPTION_BROKEN;
                return;
            }
            image.state = ImageState.CHECKED;
            image.sha256 = content.sha256();
            image.format = content.format();
            image.files = content.files();
        });
    }

    private void failed(ImageHeld held, ImageFault fault) {
        images.finish(held, image -> {
            image.state = ImageState.FAILED;
            image.fault = fault;
        });
    }
}
