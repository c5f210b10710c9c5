package lychnos.core.dialogue;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.dialogue.DialogueStep.Controller;
import lychnos.core.fact.Mac;
import lychnos.core.fact.Secret;
import lychnos.core.proof.Settings;

/** What the controller of a member is told by, and what is set in it. */
public final class ControllerPlan {

    private final Controller step;
    private final Values values;

    public ControllerPlan(Controller step, Values values) {
        this.step = step;
        this.values = values;
    }

    /** Names of values that are not known yet and without which it cannot be set. */
    public List<String> lacking() {
        List<String> texts = new ArrayList<>(step.mac().names());
        texts.addAll(step.serial().names());
        texts.addAll(step.user().names());
        texts.addAll(List.of(ofRole("address"), ofRole("mask"), ofRole("name"), "domain"));
        Stream<String> lacking = texts.stream().filter(name -> values.text(name).isEmpty());
        return Stream.concat(lacking, Stream.of(step.delivered(), step.phrase()).filter(name -> values.secret(name)
                        .isEmpty()))
                .distinct()
                .toList();
    }

    private String ofRole(String what) {
        return step.role().replace(' ', '-') + "." + what;
    }

    private Optional<String> own(String what) {
        return values.text(ofRole(what));
    }

    /** The MAC address on its tag; nothing where that is not known yet. */
    public Optional<Mac> mac() {
        return step.mac().fill(values::text).map(Mac::parse);
    }

    public String serial() {
        return step.serial().fill(values::text).orElse("");
    }

    public String user() {
        return step.user().fill(values::text).orElse("");
    }

    /** The password that is ours. */
    public Secret ours() {
        return secret(step.phrase());
    }

    /** The one that counts until ours has logged in. */
    public Secret delivered() {
        return secret(step.delivered());
    }

    private Secret secret(String name) {
        return values.secret(name).orElseThrow(() -> new IllegalStateException(name + " is not known"));
    }

    /** What is set in it. Call only where nothing is {@link #lacking}. */
    public Settings settings() {
        String name = own("name").orElseThrow();
        return new Settings(
                Address.parse(own("address").orElseThrow()),
                Address.parse(own("mask").orElseThrow()),
                own("gateway").map(Address::parse).orElse(null),
                false,
                name,
                name + "." + values.text("domain").orElseThrow(),
                several("name-server-1", "name-server-2"),
                several("time-server-1", "time-server-2", "time-server-3"),
                true);
    }

    private List<String> several(String... names) {
        return Stream.of(names).map(values::text).flatMap(Optional::stream).toList();
    }

    private static final String OF_THE_TAG = "Password on the label";
    private static final String OURS = "New password";

    /** What of {@link #sheet} is another one in each member. */
    public static final Set<String> DIFFER = Set.of("MAC address on the label", "Address", "Name");

    /** What a person enters by hand, by what it is; names of values that are not known yet stand in brackets. */
    public Map<String, String> sheet() {
        Map<String, String> sheet = new LinkedHashMap<>();
        sheet.put("MAC address on the label", step.mac().fill(values::text).orElse("(not known yet)"));
        sheet.put("Account", user());
        sheet.put("Address", own("address").orElse("(not allocated yet)"));
        sheet.put("Mask", own("mask").orElse("(not allocated yet)"));
        sheet.put("Gateway", own("gateway").orElse("none"));
        sheet.put("DHCP", "off");
        sheet.put(
                "Name",
                own("name")
                        .map(name -> name
                                + values.text("domain")
                                        .map(domain -> "." + domain)
                                        .orElse(""))
                        .orElse("(not allocated yet)"));
        sheet.put("Name servers", String.join(", ", several("name-server-1", "name-server-2")));
        sheet.put("Time servers", String.join(", ", several("time-server-1", "time-server-2", "time-server-3")));
        return sheet;
    }

    /** By what a person enters it as, the names of its two passwords. */
    public Map<String, String> passwords() {
        Map<String, String> names = new LinkedHashMap<>();
        names.put(OF_THE_TAG, step.delivered());
        names.put(OURS, step.phrase());
        return names;
    }

    /** Why a person is wanted before it is set; nothing where none is. */
    public Optional<Hold> stops(int place, Mode mode) {
        String summary = sheet().entrySet().stream()
                .filter(row -> !Objects.equals(row.getValue(), ""))
                .map(row -> row.getKey() + ": " + row.getValue())
                .collect(Collectors.joining("\n"));
        return mode == Mode.ASK
                ? Optional.of(
                        new Hold(Hold.Why.NEXT, place, DialogueText.NEXT_OVER_REDFISH.text(step.title()), summary, ""))
                : Optional.empty();
    }
}
