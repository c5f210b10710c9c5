package lychnos.core.record;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;

/**
 * Entries that each hold the digest of the one before: changing, removing or inserting one changes every digest
 * behind it, and the last one is known to all who got a pack.
 */
public final class Chain {

    /** What stands in the first link in place of a digest. */
    public static final String BEGINNING = "0".repeat(64);

    private Chain() {}

    /**
     * One entry.
     *
     * @param number from 1, without a gap
     * @param sort what the body is: {@code journal}, {@code record}, {@code end} of a record, or {@code pack}
     * @param body digest of its canonical form (RFC 8785), in hexadecimal
     * @param previous digest of the link before
     * @param digest of this one
     */
    public record Link(long number, String sort, String body, String previous, String digest) {

        /** The link that comes after one, or the first after null. */
        public static Link after(Link last, String sort, String body) {
            long number = last == null ? 1 : last.number + 1;
            String previous = last == null ? BEGINNING : last.digest;
            return new Link(number, sort, body, previous, digest(number, sort, body, previous));
        }

        private static String digest(long number, String sort, String body, String previous) {
            Map<String, Object> whole = new LinkedHashMap<>();
            whole.put("body", body);
            whole.put("number", number);
            whole.put("previous", previous);
            whole.put("sort", sort);
            return CanonicalJson.digest(whole);
        }

        private boolean holds() {
            return digest.equals(digest(number, sort, body, previous));
        }
    }

    /** Where a chain does not hold. */
    public record Break(long number, String why) {}

    /**
     * Looks whether it holds from its first link to the last.
     *
     * @param links in their order, from any number on
     * @return the first that does not hold
     */
    public static Optional<Break> broken(List<Link> links) {
        Link before = null;
        for (Link link : links) {
            if (!link.holds()) {
                return Optional.of(new Break(link.number, RecordText.DIGEST_DIFFERS.text()));
            }
            if (before != null && (link.number != before.number + 1 || !link.previous.equals(before.digest))) {
                return Optional.of(new Break(
                        link.number,
                        link.number == before.number + 1
                                ? RecordText.NOT_AFTER_THE_LINK_BEFORE.text()
                                : RecordText.LINK_MISSING.text()));
            }
            if (before == null && link.number == 1 && !link.previous.equals(BEGINNING)) {
                return Optional.of(new Break(1, RecordText.NOT_THE_FIRST.text()));
            }
            before = link;
        }
        return Optional.empty();
    }
}
