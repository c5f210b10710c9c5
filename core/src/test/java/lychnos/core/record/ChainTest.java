package lychnos.core.record;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertTrue;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.record.Chain.Link;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.constraints.IntRange;
import org.junit.jupiter.api.Test;

class ChainTest {

    private static List<Link> chain(int length) {
        List<Link> links = new ArrayList<>();
        for (int i = 0; i < length; i++) {
            links.add(Link.after(i == 0 ? null : links.get(i - 1), "journal", CanonicalJson.digest("entry " + i)));
        }
        return links;
    }

    @Test
    void anUntouchedChainHoldsFromAnyLinkOn() {
        List<Link> links = chain(9);
        assertEquals(Optional.empty(), Chain.broken(links));
        assertEquals(Optional.empty(), Chain.broken(links.subList(4, 9)));
        assertEquals(Optional.empty(), Chain.broken(List.of()));
    }

    @Property(tries = 200)
    void whateverIsChangedShowsThereOrBehind(
            @ForAll @IntRange(min = 0, max = 11) int at, @ForAll @IntRange(min = 0, max = 5) int how) {
        List<Link> links = chain(12);
        Link link = links.get(at);
        String other = CanonicalJson.digest("another");
        switch (how) {
            case 0 -> links.set(at, new Link(link.number(), link.sort(), other, link.previous(), link.digest()));
            case 1 -> links.set(at, new Link(link.number(), "record", link.body(), link.previous(), link.digest()));
            case 2 -> links.set(at, new Link(link.number(), link.sort(), link.body(), other, link.digest()));
            case 3 -> links.set(at, new Link(link.number(), link.sort(), link.body(), link.previous(), other));
            // made again with its own digest: the next one tells
            case 4 ->
                links.set(
                        Math.min(at, 10),
                        Link.after(Math.min(at, 10) == 0 ? null : links.get(Math.min(at, 10) - 1), "journal", other));
            default -> links.remove(Math.min(Math.max(at, 1), 10));
        }
        assertTrue(Chain.broken(links).isPresent());
    }

    @Test
    void aMissingLinkIsToldFromAnExchangedOne() {
        List<Link> links = chain(6);
        Link exchanged = Link.after(links.get(1), "journal", CanonicalJson.digest("another"));
        links.set(2, exchanged);
        Chain.Break broken = Chain.broken(links).orElseThrow();
        assertEquals(4, broken.number());
        assertEquals(RecordText.NOT_AFTER_THE_LINK_BEFORE.text(), broken.why());
        links = chain(6);
        links.remove(2);
        broken = Chain.broken(links).orElseThrow();
        assertEquals(4, broken.number());
        assertEquals(RecordText.LINK_MISSING.text(), broken.why());
    }

    @Test
    void theFirstLinkGoesOnFromNothing() {
        Link odd = Link.after(
                new Link(0, "journal", "", "", CanonicalJson.digest("before the beginning")),
                "journal",
                CanonicalJson.digest("x"));
        assertEquals(
                RecordText.NOT_THE_FIRST.text(),
                Chain.broken(List.of(odd)).orElseThrow().why());
    }
}
