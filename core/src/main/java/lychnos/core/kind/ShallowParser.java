package lychnos.core.kind;

import java.util.List;
import org.snakeyaml.engine.v2.api.LoadSettings;
import org.snakeyaml.engine.v2.events.CollectionEndEvent;
import org.snakeyaml.engine.v2.events.CollectionStartEvent;
import org.snakeyaml.engine.v2.events.Event;
import org.snakeyaml.engine.v2.parser.Parser;
import org.snakeyaml.engine.v2.parser.ParserImpl;
import org.snakeyaml.engine.v2.scanner.StreamReader;

/**
 * The events of a YAML text, refused as soon as lists and maps lie too deep in one another. The composer that reads
 * them calls itself once for each level, and a text of nothing but brackets would use up its stack.
 */
final class ShallowParser implements Parser {

    private final Parser events;
    private final int deepest;
    private int depth;

    ShallowParser(LoadSettings settings, String yaml, int deepest) {
        this.events = new ParserImpl(settings, new StreamReader(settings, yaml));
        this.deepest = deepest;
    }

    @Override
    public boolean checkEvent(Event.ID choice) {
        return events.checkEvent(choice);
    }

    @Override
    public Event peekEvent() {
        return events.peekEvent();
    }

    @Override
    public boolean hasNext() {
        return events.hasNext();
    }

    /**
     * The next event.
     *
     * @throws KindFaults with the place, if it opens a list or map deeper than allowed
     */
    @Override
    public Event next() {
        Event event = events.next();
        depth += event instanceof CollectionStartEvent ? 1 : event instanceof CollectionEndEvent ? -1 : 0;
        if (depth > deepest) {
            int line = event.getStartMark().map(mark -> mark.getLine() + 1).orElse(1);
            int column = event.getStartMark().map(mark -> mark.getColumn() + 1).orElse(1);
            throw new KindFaults(List.of(new KindFault(line, column, "", KindFaultText.TOO_DEEP.text(deepest))));
        }
        return event;
    }
}
