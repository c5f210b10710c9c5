package lychnos.core.kind;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import org.snakeyaml.engine.v2.exceptions.Mark;
import org.snakeyaml.engine.v2.nodes.MappingNode;
import org.snakeyaml.engine.v2.nodes.Node;
import org.snakeyaml.engine.v2.nodes.NodeTuple;
import org.snakeyaml.engine.v2.nodes.ScalarNode;
import org.snakeyaml.engine.v2.nodes.SequenceNode;

/**
 * A place in a YAML document, read with expectations. Whatever is not as expected is noted with its line and column,
 * and a harmless stand-in is given back, so that one reading finds every fault.
 */
final class YamlPlace {

    private final String path;
    private final Node node;
    private final Node near;
    private final List<KindFault> faults;

    private YamlPlace(String path, Node node, Node near, List<KindFault> faults) {
        this.path = path;
        this.node = node;
        this.near = near;
        this.faults = faults;
    }

    static YamlPlace root(Node node, List<KindFault> faults) {
        return new YamlPlace("", node, node, faults);
    }

    boolean there() {
        return node != null;
    }

    String path() {
        return path;
    }

    /** Notes a fault here, or where it should be. */
    void fault(String reason) {
        Mark mark = (node == null ? near : node).getStartMark().orElse(null);
        faults.add(new KindFault(
                mark == null ? 1 : mark.getLine() + 1, mark == null ? 1 : mark.getColumn() + 1, path, reason));
    }

    private Map<String, Node> entries() {
        Map<String, Node> entries = new LinkedHashMap<>();
        if (node instanceof MappingNode map) {
            for (NodeTuple tuple : map.getValue()) {
                if (tuple.getKeyNode() instanceof ScalarNode key) {
                    entries.put(key.getValue(), tuple.getValueNode());
                }
            }
        } else if (node != null) {
            fault(KindFaultText.MAP_EXPECTED.text());
        }
        return entries;
    }

    /** The place under a key, there or not. */
    YamlPlace at(String key) {
        return under(key, node instanceof MappingNode map ? value(map, key) : null);
    }

    private YamlPlace under(String key, Node value) {
        return new YamlPlace(path.isEmpty() ? key : path + "." + key, value, node == null ? near : node, faults);
    }

    /** Looked up without a map of all keys: a description may have hundreds of facts, and each is asked for. */
    private static Node value(MappingNode map, String key) {
        for (NodeTuple tuple : map.getValue()) {
            if (tuple.getKeyNode() instanceof ScalarNode name && name.getValue().equals(key)) {
                return tuple.getValueNode();
            }
        }
        return null;
    }

    /** Every key with its place, in order. */
    Map<String, YamlPlace> map() {
        Map<String, YamlPlace> places = new LinkedHashMap<>();
        entries().forEach((key, value) -> places.put(key, under(key, value)));
        return places;
    }

    /** Notes every key that a form of the schema does not have. */
    void only(String form) {
        Set<String> keys = KindSchema.keys(form);
        entries().forEach((key, value) -> {
            if (!keys.contains(key)) {
                at(key).fault(KindFaultText.UNKNOWN_KEY.text(
                        key, String.join(", ", keys.stream().sorted().toList())));
            }
        });
    }

    /** Whether this key is the only one. */
    boolean hasOnly(String key) {
        return entries().keySet().equals(Set.of(key));
    }

    /** The items of a list; a single scalar counts as a list of one. */
    List<YamlPlace> list() {
        List<YamlPlace> items = new ArrayList<>();
        if (node instanceof SequenceNode list) {
            for (int i = 0; i < list.getValue().size(); i++) {
                items.add(new YamlPlace(path + "." + (i + 1), list.getValue().get(i), node, faults));
            }
        } else if (node instanceof ScalarNode) {
            items.add(this);
        } else if (node != null) {
            fault(KindFaultText.LIST_EXPECTED.text());
        }
        return items;
    }

    /** The same place with other texts in it: each key is replaced by its value wherever it stands. */
    YamlPlace with(Map<String, String> texts) {
        return texts.isEmpty() ? this : new YamlPlace(path, with(node, texts), near, faults);
    }

    private static Node with(Node node, Map<String, String> texts) {
        if (node instanceof ScalarNode scalar) {
            String text = scalar.getValue();
            for (Map.Entry<String, String> each : texts.entrySet()) {
                text = text.replace(each.getKey(), each.getValue());
            }
            return new ScalarNode(
                    scalar.getTag(), true, text, scalar.getScalarStyle(), scalar.getStartMark(), scalar.getEndMark());
        }
        if (node instanceof SequenceNode list) {
            return new SequenceNode(
                    list.getTag(),
                    true,
                    list.getValue().stream().map(item -> with(item, texts)).toList(),
                    list.getFlowStyle(),
                    list.getStartMark(),
                    list.getEndMark());
        }
        if (node instanceof MappingNode map) {
            return new MappingNode(
                    map.getTag(),
                    true,
                    map.getValue().stream()
                            .map(tuple ->
                                    new NodeTuple(with(tuple.getKeyNode(), texts), with(tuple.getValueNode(), texts)))
                            .toList(),
                    map.getFlowStyle(),
                    map.getStartMark(),
                    map.getEndMark());
        }
        return node;
    }

    /** How many faults were noted so far. */
    int faults() {
        return faults.size();
    }

    boolean isList() {
        return node instanceof SequenceNode;
    }

    boolean isMap() {
        return node instanceof MappingNode;
    }

    /** Whether a text is there and has nothing in it. */
    boolean isEmptyText() {
        return node instanceof ScalarNode scalar && scalar.getValue().isEmpty();
    }

    /** A text that must be there. */
    String text() {
        if (node == null) {
            fault(KindFaultText.KEY_MISSING.text());
            return "";
        }
        if (!(node instanceof ScalarNode scalar) || scalar.getValue().isBlank()) {
            fault(KindFaultText.TEXT_EXPECTED.text());
            return "";
        }
        return scalar.getValue().strip();
    }

    String text(String otherwise) {
        return node == null ? otherwise : text();
    }

    List<String> texts() {
        return list().stream().map(YamlPlace::text).toList();
    }

    /** A text read by a parser; its complaint becomes a fault here. */
    <T> T read(Function<String, T> parser, T otherwise) {
        int before = faults.size();
        String text = text();
        if (faults.size() > before) {
            return otherwise;
        }
        try {
            return parser.apply(text);
        } catch (IllegalArgumentException e) {
            fault(e.getMessage());
            return otherwise;
        }
    }

    int number(int least, int most, int otherwise) {
        if (node == null) {
            return otherwise;
        }
        return read(
                text -> {
                    if (!text.matches("[0-9]{1,9}")
                            || Integer.parseInt(text) < least
                            || Integer.parseInt(text) > most) {
                        throw new IllegalArgumentException(KindFaultText.NUMBER_EXPECTED.text(least, most));
                    }
                    return Integer.parseInt(text);
                },
                otherwise == Integer.MIN_VALUE ? least : otherwise);
    }

    boolean yes(boolean otherwise) {
        return node == null
                ? otherwise
                : read(
                        text -> switch (text) {
                            case "yes", "true" -> true;
                            case "no", "false" -> false;
                            default -> throw new IllegalArgumentException(KindFaultText.YES_OR_NO_EXPECTED.text());
                        },
                        otherwise);
    }
}
