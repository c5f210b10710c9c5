package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.List;
import java.util.Optional;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import lychnos.core.address.Address;
import lychnos.core.fact.Fact;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.text.ConfigureText;
import lychnos.wire.console.LineAddress;

/** Finds the line of a member: its port on one of the site's line servers. */
@ApplicationScoped
public class ConsoleLines {

    private static final Pattern RANGE = Pattern.compile("\\s*(\\d{1,5})\\s*(?:-\\s*(\\d{1,5})\\s*)?");

    private final SiteResources siteResources;

    ConsoleLines(SiteResources siteResources) {
        this.siteResources = siteResources;
    }

    /** A line, and how people call it. */
    public record OpenableLine(LineAddress address, String title) {}

    /**
     * Where a member's console is: on a line server, on a device of this machine, or on a line port of the host it
     * lives on.
     */
    @Transactional
    public Optional<OpenableLine> of(long siteId, UnitFacts known, String member) {
        Optional<String> host = ofMember(known, member, "host");
        Optional<String> port = ofMember(known, member, "line");
        if (host.isPresent() && port.isPresent()) {
            return onHost(siteId, host.get(), port.get());
        }
        return ofMember(known, member, "console").flatMap(plug -> find(siteId, plug));
    }

    private static Optional<String> ofMember(UnitFacts known, String member, String name) {
        return known.fact(member, name).or(() -> known.fact("", name)).map(Fact::value);
    }

    private Optional<OpenableLine> onHost(long siteId, String host, String port) {
        return siteResources.rows(siteId).stream()
                .filter(row -> row.sort.equals(SiteResourceSort.HOST.word())
                        && row.name.equals(host)
                        && row.value.containsKey("address"))
                .filter(row -> has(row.value.getOrDefault("line-ports", ""), port))
                .findFirst()
                .map(row -> new OpenableLine(
                        LineAddress.tcp(
                                LineAddress.Protocol.RAW,
                                Address.parse(row.value.get("address")),
                                Integer.parseInt(port)),
                        ConfigureText.LINE_PORT.text(row.name, port)));
    }

    /** @param port what the fact sheet says of the member's console */
    @Transactional
    public Optional<OpenableLine> find(long siteId, String port) {
        if (port.equals(FactType.BROWSER)) {
            return Optional.of(new OpenableLine(LineAddress.browser(), ConfigureText.LINE_OF_BROWSER.text()));
        }
        if (port.startsWith("/dev/")) {
            return Optional.of(new OpenableLine(LineAddress.device(port), port));
        }
        return siteResources.rows(siteId).stream()
                .filter(row -> row.sort.equals(SiteResourceSort.LINES.word()))
                .filter(row -> has(row.value.getOrDefault("ports", ""), port))
                .findFirst()
                .map(row -> new OpenableLine(address(row, Integer.parseInt(port)), row.name + " port " + port));
    }

    private LineAddress address(SiteResourceRow row, int port) {
        Address server = Address.parse(row.value.get("address"));
        LineAddress.Protocol protocol = LineAddress.Protocol.valueOf(
                row.value.getOrDefault("protocol", "telnet").toUpperCase(java.util.Locale.ROOT));
        return protocol == LineAddress.Protocol.SSH
                ? LineAddress.ssh(
                        server,
                        port,
                        row.value.getOrDefault("user", ""),
                        siteResources.secret(row).orElse(Secret.of("none")))
                : LineAddress.tcp(protocol, server, port);
    }

    private static boolean has(String ranges, String port) {
        if (!port.matches("\\d{1,5}")) {
            return false;
        }
        int wanted = Integer.parseInt(port);
        return List.of(ranges.split("[,;]")).stream()
                .map(RANGE::matcher)
                .filter(Matcher::matches)
                .anyMatch(range -> {
                    int first = Integer.parseInt(range.group(1));
                    int last = range.group(2) == null ? first : Integer.parseInt(range.group(2));
                    return wanted >= first && wanted <= last;
                });
    }
}
