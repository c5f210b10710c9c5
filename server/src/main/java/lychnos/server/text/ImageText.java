package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of image files. */
public enum ImageText implements Message {
    ADDED_IMAGE("added image “{name}”"),
    ALREADY_AN_IMAGE_WITH_THIS_NAME("There is already an image with this name. Remove that one first."),
    CHANGED_WHAT_CAME_WITH_IMAGE("changed what came with image “{name}”"),
    CHECKED_IMAGE("checked image “{name}”: SHA-256 {digest}"),
    DESCRIPTION_HAS_NO_ENVELOPE("The description has no Envelope, so it is not an OVF descriptor."),
    DESCRIPTION_HAS_TOO_MANY_ENTRIES("The description has more than {most} entries."),
    DESCRIPTION_IS_NO_XML("The description is not valid XML."),
    DESCRIPTION_IS_NO_XML_AT("The description is not valid XML: line {line}."),
    DISK_IS_TOO_SMALL("The disk of the server has {free} free, the image needs {needs}. Ask the server's operator."),
    FILE_IS_EMPTY("The file is empty."),
    FILE_IS_LARGER_THAN("An image has at most {most}."),
    FILE_NAME_HAS("A file name has 1 to 200 characters and no folder."),
    IMAGES_CANNOT_BE_READ("Images cannot be read now"),
    IMAGE_IS_READ_TO_ITS_END("This image has arrived already."),
    NAMED_FILE_IS_NOT_IN_THE_FOLDER("There is no file “{name}” in the folder of this server."),
    NO_SUCH_IMAGE("There is no such image at this site."),
    OTHER_BYTES_ARE_EXPECTED("The next piece begins at byte {received}."),
    PIECES_ARE_ON_ANOTHER_SERVER("The first pieces of this image are on another server. Send it from its beginning."),
    PIECE_COULD_NOT_BE_WRITTEN(
            "The server could not write this piece: {reason}. Ask its operator for room, then send the " + "rest."),
    PIECE_GOES_BEYOND_THE_END("This piece goes beyond the announced size of {bytes} bytes."),
    REMOVED_IMAGE("removed image “{name}”"),
    SITE_HAS_AT_MOST_IMAGES("A site has at most {most} images. Remove one first."),
    TEXT_IS_TOO_LONG("This text is longer than {most} characters.");

    private final String pattern;

    ImageText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
