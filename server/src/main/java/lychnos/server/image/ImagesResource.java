package lychnos.server.image;

import jakarta.annotation.security.RolesAllowed;
import jakarta.transaction.Transactional;
import jakarta.ws.rs.Consumes;
import jakarta.ws.rs.DELETE;
import jakarta.ws.rs.GET;
import jakarta.ws.rs.POST;
import jakarta.ws.rs.PUT;
import jakarta.ws.rs.Path;
import jakarta.ws.rs.core.MediaType;
import java.time.Instant;
import java.util.List;
import lychnos.core.image.CheckedImage;
import lychnos.core.image.ImageDescription;
import lychnos.server.api.problem.Refusal;
import lychnos.server.identity.caller.Who;
import lychnos.server.site.Sites;
import org.jboss.resteasy.reactive.RestQuery;
import org.jspecify.annotations.Nullable;

/** Image files of virtual machines: added, sent in pieces, and what was found in them. */
@Path("/api/bring-ups/{id}/images")
@RolesAllowed("viewer")
public class ImagesResource {

    private final Images images;
    private final ImageFolder folder;
    private final Sites sites;
    private final Who who;

    ImagesResource(Images images, ImageFolder folder, Sites sites, Who who) {
        this.images = images;
        this.folder = folder;
        this.sites = sites;
        this.who = who;
    }

    /**
     * The images of a site.
     *
     * @param folder where the server finds files that its operator puts there
     * @param waiting names of the files there that were not added yet
     */
    record ImagesView(List<ImageView> images, String folder, List<String> waiting) {}

    /**
     * One image.
     *
     * @param state ARRIVING, READING, CHECKED or FAILED
     * @param fault FILE_CHANGED, UNREADABLE, PACKAGE_BROKEN or DESCRIPTION_BROKEN; null unless it has failed
     * @param contradictions where the file is not what its manifest or its description states
     * @param stated whether a SHA-256 of it was stated by what came with it
     */
    record ImageView(
            long id,
            String name,
            long bytes,
            boolean inFolder,
            String state,
            long received,
            long bytesRead,
            @Nullable String fault,
            @Nullable String sha256,
            @Nullable String format,
            List<CheckedImage.ReadFile> files,
            String manifest,
            String description,
            @Nullable DescribedView described,
            List<ContradictionView> contradictions,
            boolean stated,
            String addedBy,
            @Nullable Instant checkedAt) {}

    /** What the description of an image says; sizes as 16 GiB, empty where it does not say. */
    record DescribedView(
            String product, String version, int cores, String memory, String disk, List<String> networks) {}

    /**
     * A stated value that does not hold.
     *
     * @param stated a digest or a number of bytes; empty where the file is missing
     * @param read what was read in its place; empty where the file is missing
     */
    record ContradictionView(String file, String stated, String read) {}

    /** Lists the images of the site, and the files in the server's folder that were not added yet. */
    @GET
    @Transactional
    public ImagesView images(long id) {
        List<ImageRow> rows = images.rows(sites.bringUp(id).site.id);
        List<String> known = rows.stream().map(row -> row.name).toList();
        return new ImagesView(
                rows.stream().map(ImagesResource::view).toList(),
                folder.path(),
                folder.names().stream().filter(name -> !known.contains(name)).toList());
    }

    private static ImageView view(ImageRow row) {
        CheckedImage checked = row.state == ImageRow.ImageState.CHECKED ? row.checked() : null;
        return new ImageView(
                row.id,
                row.name,
                row.bytes,
                row.inFolder,
                row.state.name(),
                row.received,
                row.bytesRead,
                row.fault == null ? null : row.fault.name(),
                row.sha256,
                row.format == null ? null : row.format.word(),
                row.files,
                row.manifest,
                row.description,
                checked == null || checked.description() == null ? null : described(checked.description()),
                checked == null
                        ? List.of()
                        : checked.contradictions().stream()
                                .map(ImagesResource::view)
                                .toList(),
                checked != null && checked.isStated(),
                row.addedBy,
                row.checkedAt);
    }

    private static DescribedView described(ImageDescription description) {
        return new DescribedView(
                description.product(),
                description.version(),
                description.cores(),
                description.memory() == null ? "" : description.memory().toString(),
                description.disk() == null ? "" : description.disk().toString(),
                description.networks());
    }

    private static ContradictionView view(CheckedImage.Contradiction contradiction) {
        if (contradiction instanceof CheckedImage.Contradiction.OtherDigest digest) {
            return new ContradictionView(digest.file(), digest.stated(), digest.read());
        }
        if (contradiction instanceof CheckedImage.Contradiction.OtherSize size) {
            return new ContradictionView(size.file(), String.valueOf(size.stated()), String.valueOf(size.read()));
        }
        return new ContradictionView(contradiction.file(), "", "");
    }

    /** Adds an image: a file in the server's folder, or one whose pieces are sent next. */
    @POST
    @RolesAllowed("engineer")
    public Images.ReceivedBytes addImage(long id, Images.ImageStatement statement) {
        return images.add(id, Refusal.required(statement), who.person());
    }

    /** Takes the next piece of an image, of at most 4 MiB. 409 names in {@code received} where the next one begins. */
    @PUT
    @Path("{image}/content")
    @Consumes(MediaType.APPLICATION_OCTET_STREAM)
    @RolesAllowed("engineer")
    public Images.ReceivedBytes sendPiece(long id, long image, @RestQuery long at, byte[] piece) {
        return images.receive(id, image, at, piece);
    }

    /** Changes the manifest and the description that came with an image; it is compared again, not read again. */
    @PUT
    @Path("{image}/papers")
    @RolesAllowed("engineer")
    public void changePapers(long id, long image, Images.ImagePapers papers) {
        images.papers(id, image, Refusal.required(papers), who.person());
    }

    /** Removes an image, and its file if it was uploaded. Reading it ends. */
    @DELETE
    @Path("{image}")
    @RolesAllowed("engineer")
    public void removeImage(long id, long image) {
        images.remove(id, image, who.person());
    }
}
