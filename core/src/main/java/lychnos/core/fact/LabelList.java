package lychnos.core.fact;

import java.util.ArrayList;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lychnos.core.address.Address;

/**
 * Reads a list of labels from a CSV file (RFC 4180) or from columns pasted out of a spreadsheet. Comma, semicolon and
 * tab are told apart by the first line; what the columns hold, by {@link LabelColumns}. A wrong line is set aside with
 * its reasons and never hides a right one.
 *
 * @param labels the right lines
 * @param faults what is wrong with the others
 * @param columns what was read from which column
 */
public record LabelList(List<Label> labels, List<LabelFault> faults, LabelColumns columns) {

    /** The columns, with the headings by which people name them. */
    public enum Column {
        SERIAL("serial", "serial number", "s/n", "sn", "label serial"),
        MAC("mac", "mac address", "MAC address", "oob mac", "management mac"),
        POSITION("rack position", "position", "rack", "location", "slot"),
        /** The rack alone, where the unit in it has a column of its own. */
        RACK("rack name"),
        RACK_UNIT("rack unit", "u position", "height unit"),
        MODEL("model", "type", "machine"),
        FIRST_ADDRESS("first address", "factory address", "current address"),
        FACTORY_USER("factory user", "factory login", "default user"),
        FACTORY_PASSWORD("factory password", "default password", "tag password");

        private final List<String> headings;

        Column(String... headings) {
            this.headings = List.of(headings);
        }

        /** How the column is named to people. */
        public String title() {
            return headings.get(0);
        }

        /** The fact of a unit that the column gives, by its name in every kind that has it. */
        public String fact() {
            return this == POSITION
                    ? "location"
                    : name().toLowerCase(Locale.ROOT).replace('_', '-');
        }

        /** The column that people give this heading. */
        public static Optional<Column> named(String heading) {
            String plain = heading.strip().toLowerCase(Locale.ROOT).replace('_', ' ');
            for (Column column : values()) {
                if (column.headings.contains(plain)) {
                    return Optional.of(column);
                }
            }
            return Optional.empty();
        }
    }

    private static final int LONGEST_LOGIN = 128;

    /** Reads a whole text. Never throws for what people type: whatever is wrong comes back as a fault. */
    public static LabelList parse(String text) {
        return parse(text, Map.of());
    }

    /**
     * The same with what a person says of the columns.
     *
     * @param chosen by column, counted from 0, what it holds; others are left out. Empty to find out by the list itself
     */
    public static LabelList parse(String text, Map<Integer, Column> chosen) {
        List<List<String>> rows = new ArrayList<>();
        List<Integer> lines = new ArrayList<>();
        List<LabelFault> faults = new ArrayList<>(CsvText.read(text, (row, line) -> {
            rows.add(row.toList());
            lines.add(line);
        }));
        LabelColumns guessed = LabelColumns.guess(rows);
        LabelColumns columns = chosen.isEmpty() ? guessed : guessed.choosing(chosen);
        Reader reader = new Reader(columns.meaning());
        if (!rows.isEmpty() && reader.hasColumns(lines.get(Math.max(0, columns.headingLine())))) {
            for (int i = columns.headingLine() + 1; i < rows.size(); i++) {
                reader.label(rows.get(i), lines.get(i)).ifPresent(reader.labels::add);
            }
        }
        reader.faults.addAll(faults);
        return new LabelList(List.copyOf(reader.labels), List.copyOf(reader.faults), columns);
    }

    private static final class Reader {

        private final List<Label> labels = new ArrayList<>();
        private final List<LabelFault> faults = new ArrayList<>();
        private final Map<String, Integer> lineBySerial = new HashMap<>();
        private final Map<Mac, Integer> lineByMac = new HashMap<>();
        private final Map<RackPosition, Integer> lineByPosition = new HashMap<>();
        private final Map<Address, Integer> lineByFirstAddress = new HashMap<>();
        private final Map<Column, Integer> columns = new EnumMap<>(Column.class);

        private Reader(Map<Integer, Column> meaning) {
            meaning.forEach((index, column) -> columns.put(column, index));
        }

        /** Whether the columns are there without which no line can be read; missing ones are reported in one fault. */
        private boolean hasColumns(int line) {
            List<Column> missing = new ArrayList<>(List.of(Column.SERIAL, Column.MAC, Column.POSITION));
            missing.removeAll(columns.keySet());
            if (columns.containsKey(Column.RACK) && columns.containsKey(Column.RACK_UNIT)) {
                missing.remove(Column.POSITION);
            }
            if (!missing.isEmpty()) {
                String names = missing.stream().map(Column::title).collect(Collectors.joining(", "));
                faults.add(new LabelFault(line, "", "", FactText.COLUMNS_MISSING.text(names)));
            }
            return missing.isEmpty();
        }

        private Optional<Label> label(List<String> row, int line) {
            int before = faults.size();
            String serial = read(row, line, Column.SERIAL, Reader::serial);
            Mac mac = read(row, line, Column.MAC, Reader::mac);
            RackPosition position = position(row, line);
            Optional<Address> first = text(row, Column.FIRST_ADDRESS).isEmpty()
                    ? Optional.empty()
                    : Optional.ofNullable(read(row, line, Column.FIRST_ADDRESS, Address::parse));
            String model = text(row, Column.MODEL);
            if (model.length() > 80) {
                faults.add(new LabelFault(
                        line, Column.MODEL.title(), model.substring(0, 80) + "…", FactText.MODEL_TOO_LONG.text()));
            }
            String user = atMost(row, line, Column.FACTORY_USER);
            String password = atMost(row, line, Column.FACTORY_PASSWORD);
            unique(lineBySerial, serial, line, Column.SERIAL);
            unique(lineByMac, mac, line, Column.MAC);
            unique(lineByPosition, position, line, Column.POSITION);
            first.ifPresent(address -> unique(lineByFirstAddress, address, line, Column.FIRST_ADDRESS));
            return faults.size() > before
                    ? Optional.empty()
                    : Optional.of(new Label(
                            line,
                            serial,
                            mac,
                            position,
                            model,
                            first,
                            user,
                            password.isEmpty() ? Optional.empty() : Optional.of(Secret.of(password))));
        }

        /** The password itself is never part of a fault. */
        private String atMost(List<String> row, int line, Column column) {
            String text = text(row, column);
            if (text.length() > LONGEST_LOGIN) {
                faults.add(new LabelFault(line, column.title(), "", FactText.LOGIN_TOO_LONG.text(LONGEST_LOGIN)));
            }
            return text;
        }

        private RackPosition position(List<String> row, int line) {
            if (columns.containsKey(Column.POSITION)) {
                return read(row, line, Column.POSITION, RackPosition::parse);
            }
            String rack = text(row, Column.RACK);
            String unit = text(row, Column.RACK_UNIT);
            if (rack.isEmpty() || unit.isEmpty()) {
                Column missing = rack.isEmpty() ? Column.RACK : Column.RACK_UNIT;
                faults.add(new LabelFault(line, missing.title(), "", FactText.CELL_MISSING.text(missing.title())));
                return null;
            }
            try {
                return RackPosition.parse(rack + " u" + unit.replaceFirst("^[uU]", ""));
            } catch (IllegalArgumentException e) {
                faults.add(new LabelFault(line, Column.RACK_UNIT.title(), rack + " " + unit, e.getMessage()));
                return null;
            }
        }

        private static Mac mac(String text) {
            return Mac.parse(AsPrinted.mac(text));
        }

        private static String serial(String text) {
            AsPrinted.text(text);
            if (!text.matches("[\\x21-\\x7e]([\\x20-\\x7e]{0,62}[\\x21-\\x7e])?")) {
                throw new IllegalArgumentException(FactText.NOT_A_SERIAL.text());
            }
            return text;
        }

        private <T> T read(List<String> row, int line, Column column, java.util.function.Function<String, T> parser) {
            String text = text(row, column);
            if (text.isEmpty()) {
                faults.add(new LabelFault(line, column.title(), "", FactText.CELL_MISSING.text(column.title())));
                return null;
            }
            try {
                return parser.apply(text);
            } catch (IllegalArgumentException e) {
                faults.add(new LabelFault(line, column.title(), text, e.getMessage()));
                return null;
            }
        }

        private String text(List<String> row, Column column) {
            Integer index = columns.get(column);
            return index == null || index >= row.size() ? "" : row.get(index).strip();
        }

        private <T> void unique(Map<T, Integer> seen, T value, int line, Column column) {
            Integer earlier = value == null ? null : seen.putIfAbsent(value, line);
            if (earlier != null) {
                faults.add(new LabelFault(
                        line, column.title(), value.toString(), FactText.CELL_TWICE.text(earlier, column.title())));
            }
        }
    }
}
