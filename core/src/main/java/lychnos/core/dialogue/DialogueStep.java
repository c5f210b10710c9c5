package lychnos.core.dialogue;

import java.time.Duration;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.function.UnaryOperator;
import java.util.stream.Stream;

/** One step of a dialogue, in the order of the work. */
public sealed interface DialogueStep {

    /** What people call it. */
    String title();

    /** On which member it is done; empty for every one. */
    String on();

    /** When it is done. */
    default Condition only() {
        return Condition.ALWAYS;
    }

    /** What is looked for on the line. */
    default Stream<Look> looks() {
        return Stream.empty();
    }

    /** The same with other looks; what is looked for may be null. */
    default DialogueStep filled(UnaryOperator<Look> fill) {
        return this;
    }

    /** What is particular about an answer. */
    enum Mark {
        /** Never echoed, logged or shown; sent only to the question that asked for it. */
        SECRET,
        /** Can never be changed once it was typed: the person types it. */
        PERMANENT,
        /** Destroys what is on the machine: the person types the unit's name. */
        DESTROYS,
        /** Agrees to terms: only by the site's recorded consent. */
        TERMS,
        /** Moves authority elsewhere, or binds others: a person consents with a reason. */
        CONSENT,
        /** The machine restarts. */
        RESTARTS,
        /** Differs from member to member, and must. */
        DIFFERS,
        /** The machine does not always ask it. */
        OPTIONAL,
        /** A command that changes nothing: it is sent again over SSH whenever the machine is checked. */
        AGAIN,
        /** A page that waits for a value and may be done after the setup has ended. */
        LATER,
        /** Once it is taken, the password in it has logged in: it works, and the one before it is needed no more. */
        PROVES,
        /** A factory login that is typed once more after the setup: the machine must refuse it and ask again. */
        MUST_BE_REFUSED;

        /** What descriptions of kinds call it. */
        public String key() {
            return name().toLowerCase(Locale.ROOT).replace('_', '-');
        }
    }

    /**
     * Something that a command's output is looked through for.
     *
     * @param required whether its absence stops; else it may be there and is no fault
     */
    record Expected(Look look, boolean required) {}

    /**
     * A question and its answer. At a prompt it is a command: the prompt coming back then is no refusal.
     *
     * @param look what the line shows
     * @param answer what is typed, before Enter
     * @param suggested whether the machine suggests an answer in brackets, which is accepted by Enter alone where it is
     * ours
     * @param read what a command's output tells, or null
     * @param after the name of a value that must be known first, such as what the other member showed; or empty
     * @param row on a page that is worked with cursor keys, the row that is gone to and entered to be asked; or null
     * @param expects what a command's output must show, and what it may; of a row that opens a page, what that page
     * shows
     * @param warning what a person is told before it restarts; empty for the usual words
     * @param only when it is asked
     * @param within how long the machine may take until it asks the next thing; null for the usual time
     */
    record Asked(
            String title,
            String on,
            Look look,
            Template answer,
            boolean command,
            boolean suggested,
            Look read,
            String after,
            Set<Mark> marks,
            Look row,
            List<Expected> expects,
            String warning,
            Condition only,
            Duration within)
            implements DialogueStep {

        public Asked {
            marks = Set.copyOf(marks);
            expects = List.copyOf(expects);
        }

        /** One that is asked without being gone to, and whose output is only read. */
        public Asked(
                String title,
                String on,
                Look look,
                Template answer,
                boolean command,
                boolean suggested,
                Look read,
                String after,
                Set<Mark> marks) {
            this(title, on, look, answer, command, suggested, read, after, marks, null, List.of());
        }

        /** One that is always asked, and whose restart needs no warning of its own. */
        public Asked(
                String title,
                String on,
                Look look,
                Template answer,
                boolean command,
                boolean suggested,
                Look read,
                String after,
                Set<Mark> marks,
                Look row,
                List<Expected> expects) {
            this(
                    title,
                    on,
                    look,
                    answer,
                    command,
                    suggested,
                    read,
                    after,
                    marks,
                    row,
                    expects,
                    "",
                    Condition.ALWAYS,
                    null);
        }

        /** A row of a page that asks nothing and opens another page. */
        boolean opensPage() {
            return row != null && look.equals(Look.NOTHING);
        }

        @Override
        public Stream<Look> looks() {
            return Stream.concat(Stream.of(look, read, row), expects.stream().map(Expected::look))
                    .filter(Objects::nonNull);
        }

        @Override
        public Asked filled(UnaryOperator<Look> fill) {
            return new Asked(
                    title,
                    on,
                    fill.apply(look),
                    answer,
                    command,
                    suggested,
                    fill.apply(read),
                    after,
                    marks,
                    fill.apply(row),
                    expects.stream()
                            .map(each -> new Expected(fill.apply(each.look), each.required))
                            .toList(),
                    warning,
                    only,
                    within);
        }

        public boolean is(Mark mark) {
            return marks.contains(mark);
        }
    }

    /**
     * What the machine shows before it is agreed to, compared field by field.
     *
     * @param fields by what is looked for, whose first group is the value, what it must be
     */
    record Summary(String title, String on, Map<Look, Template> fields, Condition only) implements DialogueStep {

        /** One that is always shown. */
        public Summary(String title, String on, Map<Look, Template> fields) {
            this(title, on, fields, Condition.ALWAYS);
        }

        public Summary {
            fields = Map.copyOf(fields);
        }

        @Override
        public Stream<Look> looks() {
            return fields.keySet().stream();
        }

        @Override
        public Summary filled(UnaryOperator<Look> fill) {
            Map<Look, Template> filled = new LinkedHashMap<>();
            fields.forEach((look, value) -> filled.put(fill.apply(look), value));
            return new Summary(title, on, filled, only);
        }
    }

    /**
     * The machine works, and nobody is needed.
     *
     * @param about how long it usually takes
     * @param atMost after how long it is a fault
     * @param until what the line shows when it is over
     * @param asks a command that changes nothing and shows the same, for when that may have been shown while nobody
     * looked; or empty
     */
    record Waits(String title, String on, Duration about, Duration atMost, Look until, String asks, Condition only)
            implements DialogueStep {

        /** One whose end cannot be asked for, and that always happens. */
        public Waits(String title, String on, Duration about, Duration atMost, Look until) {
            this(title, on, about, atMost, until, "", Condition.ALWAYS);
        }

        @Override
        public Stream<Look> looks() {
            return Stream.of(until);
        }

        @Override
        public Waits filled(UnaryOperator<Look> fill) {
            return new Waits(title, on, about, atMost, fill.apply(until), asks, only);
        }
    }

    /** What is done over the network and not on a line. */
    sealed interface Remote extends DialogueStep {

        /** Whether it can be done without a person. */
        boolean driven();

        /** Whether it comes before the line is opened. */
        boolean first();

        /** How long the machine works afterwards; null where it is ready at once. */
        Duration usually();

        /** After how long it is a fault; null where it is ready at once. */
        Duration longest();
    }

    /**
     * A page of the machine's own web interface, or of what it lives on. A person fills it in from a value sheet; where
     * the machine documents an interface that has the same page as a resource, it can be filled in over that.
     *
     * @param open where it is opened
     * @param fields what is entered, by what the page calls it, in the page's order
     * @param first whether it comes before the line is opened
     * @param resource the same page at the documented interface, below where that begins; empty where only a person can
     * fill it in
     * @param after the name of a value that must be known first, such as what another member has told; or empty
     * @param shows what the resource must show once it was written, or before that
     * @param waits how long the machine works afterwards, and what the resource shows when that is over; or null
     * @param tells by the name of a value, where the resource shows it
     */
    record Page(
            String title,
            String on,
            Template open,
            Map<String, Field> fields,
            boolean first,
            String resource,
            String after,
            Set<Mark> marks,
            List<Shown> shows,
            Working waits,
            Map<String, String> tells)
            implements Remote {

        public Page {
            fields = java.util.Collections.unmodifiableMap(new java.util.LinkedHashMap<>(fields));
            marks = Set.copyOf(marks);
            shows = List.copyOf(shows);
            tells = Map.copyOf(tells);
        }

        public boolean is(Mark mark) {
            return marks.contains(mark);
        }

        @Override
        public boolean driven() {
            return !resource.isEmpty();
        }

        @Override
        public Duration usually() {
            return waits == null ? null : waits.about();
        }

        @Override
        public Duration longest() {
            return waits == null ? null : waits.atMost();
        }
    }

    /**
     * The server management controller of a member, which is a machine of its own inside it: found by the hardware
     * address on its tag at the address that DHCP gave it (RFC 2131), and set over Redfish (DMTF DSP0266) to its
     * password, time servers, name and fixed address.
     *
     * @param role whose address it gets; of a role that each member has, the member's own
     * @param mac its MAC address
     * @param serial what it must tell before anything is written to it
     * @param user its account
     * @param phrase the name of the password that is ours
     * @param delivered the name of the one that counts until ours has logged in
     * @param screen where its network is set with a screen and a keyboard, for halls without DHCP; or empty
     */
    record Controller(
            String title,
            String on,
            String role,
            Template mac,
            Template serial,
            Template user,
            String phrase,
            String delivered,
            String screen,
            Duration usually,
            Duration longest)
            implements Remote {

        @Override
        public boolean driven() {
            return true;
        }

        @Override
        public boolean first() {
            return false;
        }
    }

    /**
     * A field of a page.
     *
     * @param value what is entered
     * @param at where the resource has it (JSON Pointer, RFC 6901); empty where only people see it
     * @param optional whether it is left as it is where nothing was planned for it
     */
    record Field(Template value, String at, boolean optional) {}

    /**
     * What a resource shows at a place.
     *
     * @param before whether it must show that before anything is written, such as that no registration is there
     */
    record Shown(String at, Look look, boolean before) {}

    /** How long a machine works after a page was taken, and what its resource shows at the end. */
    record Working(Duration about, Duration atMost, Shown until) {}
}
