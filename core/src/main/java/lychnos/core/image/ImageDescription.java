package lychnos.core.image;

import java.util.List;
import lychnos.core.fact.DataSize;
import org.jspecify.annotations.Nullable;

/**
 * What the description file of an image says (DMTF DSP0243, an OVF descriptor).
 *
 * @param product its name; empty where none is given
 * @param version of the software in it; empty where none is given
 * @param cores how many it wants; 0 where it does not say
 * @param memory null where it does not say
 * @param disk all of its disks together; null where it does not say
 * @param networks their names, one for each interface
 * @param files what belongs to it
 */
public record ImageDescription(
        String product,
        String version,
        int cores,
        @Nullable DataSize memory,
        @Nullable DataSize disk,
        List<String> networks,
        List<DescribedFile> files) {

    public ImageDescription {
        networks = List.copyOf(networks);
        files = List.copyOf(files);
    }

    /**
     * A file that a description refers to.
     *
     * @param bytes how large it is; -1 where the description does not say
     */
    public record DescribedFile(String name, long bytes) {}
}
