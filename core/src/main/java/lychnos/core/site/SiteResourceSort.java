package lychnos.core.site;

import static lychnos.core.fact.FactSpec.Trait.OPTIONAL;

import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;

/** The sorts of things that a site states once and that units and rules refer to by name. */
public enum SiteResourceSort {
    ROOM("Room", "where racks stand", opt("note", FactType.TEXT)),
    RACK("Rack", "R1 in Hall 2", field("room", FactType.TEXT), opt("units", FactType.NUMBER)),
    HOST(
            "Virtualisation host",
            "hv-01",
            field("cores", FactType.NUMBER),
            field("memory", FactType.SIZE),
            field("disk", FactType.SIZE),
            opt("disk-format", FactType.TEXT),
            opt("version", FactType.TEXT),
            opt("virtual-networks", FactType.TEXT),
            opt("line-ports", FactType.TEXT),
            opt("address", FactType.ADDRESS)),
    FABRIC("InfiniBand fabric", "compute", opt("switches", FactType.NUMBER)),
    SOURCE("Management access", "operations", field("prefix", FactType.PREFIX)),
    POLICY(
            "Site policy",
            "telemetry, remote-support, licence-terms, diagnostics, isolated",
            field("answer", FactType.YES_NO),
            field("reason", FactType.TEXT),
            field("who", FactType.TEXT),
            field("when", FactType.DATE),
            opt("text-digest", FactType.DIGEST)),
    TERMS(
            "Accepted terms",
            "interconnect-pair 3f9a61c2e07b",
            field("kind", FactType.TEXT),
            field("digest", FactType.DIGEST),
            field("who", FactType.TEXT),
            field("when", FactType.DATE),
            opt("unit", FactType.TEXT)),
    FIRMWARE(
            "Firmware baseline",
            "blade-chassis",
            choice("rule", "at least", "exactly"),
            field("version", FactType.VERSION)),
    DOMAIN(
            "Domain",
            "ardal.example",
            field("primary", FactType.ADDRESS),
            opt("reverse-zones", FactType.TEXT),
            opt("key-name", FactType.DOMAIN),
            opt("key", FactType.SECRET)),
    TIME("Additional time server", "ntp-4", field("address", FactType.ADDRESS)),
    RELAY("Mail relay", "relay-1", field("address", FactType.ADDRESS), opt("port", FactType.PORT)),
    PROXY(
            "Proxy",
            "proxy-1",
            field("address", FactType.ADDRESS),
            field("port", FactType.PORT),
            opt("target", FactType.HOST_PORT),
            opt("user", FactType.TEXT),
            password()),
    DIRECTORY(
            "Directory",
            "directory-1",
            field("address", FactType.ADDRESS),
            opt("port", FactType.PORT),
            choice("protection", "tls", "starttls", "none"),
            opt("certificate", FactType.DIGEST),
            field("base", FactType.TEXT),
            opt("user", FactType.TEXT),
            password(),
            opt("group", FactType.TEXT)),
    SYSLOG("Syslog", "log-1", field("address", FactType.ADDRESS), opt("port", FactType.PORT)),
    LINES(
            "Console server",
            "lines-1",
            field("address", FactType.ADDRESS),
            choice("protocol", "telnet", "rfc2217", "raw", "ssh"),
            field("ports", FactType.TEXT),
            opt("user", FactType.TEXT),
            password());

    private final String title;
    private final String example;
    private final List<FactSpec> fields;

    SiteResourceSort(String title, String example, FactSpec... fields) {
        this.title = title;
        this.example = example;
        this.fields = List.of(fields);
    }

    private static FactSpec field(String name, FactType type) {
        return spec(name, type, Set.of());
    }

    private static FactSpec opt(String name, FactType type) {
        return spec(name, type, Set.of(OPTIONAL));
    }

    private static FactSpec password() {
        return new FactSpec(
                "key", "password", FactSpec.Scope.UNIT, FactType.SECRET, "", "", null, List.of(), Set.of(OPTIONAL));
    }

    private static FactSpec choice(String name, String... choices) {
        return new FactSpec(name, name, FactSpec.Scope.UNIT, FactType.CHOICE, "", "", null, List.of(choices), Set.of());
    }

    private static FactSpec spec(String name, FactType type, Set<FactSpec.Trait> traits) {
        return new FactSpec(name, name.replace('-', ' '), FactSpec.Scope.UNIT, type, "", "", null, List.of(), traits);
    }

    /** The word by which it is stored and by which a kind refers to it. */
    public String word() {
        return name().toLowerCase(Locale.ROOT);
    }

    public String title() {
        return title;
    }

    /** Whether it has a password or a key, which goes to wherever its other fields lead. */
    public boolean carriesSecret() {
        return fields.stream().anyMatch(field -> field.type() == FactType.SECRET);
    }

    /** Fields that do not decide where its password goes, or as whom. */
    private static final Set<String> HARMLESS = Set.of("target", "reverse-zones", "base", "group");

    /** Whether a change of this field sends its password somewhere else. */
    public boolean leadsSecret(String field) {
        return carriesSecret() && !HARMLESS.contains(field);
    }

    /** A name that such a thing may have. */
    public String example() {
        return example;
    }

    public List<FactSpec> fields() {
        return fields;
    }

    public static Optional<SiteResourceSort> named(String word) {
        for (SiteResourceSort sort : values()) {
            if (sort.word().equals(word)) {
                return Optional.of(sort);
            }
        }
        return Optional.empty();
    }
}
