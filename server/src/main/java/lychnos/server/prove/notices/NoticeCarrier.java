package lychnos.server.prove.notices;

import com.fasterxml.jackson.core.JsonProcessingException;
import com.fasterxml.jackson.databind.ObjectMapper;
import jakarta.enterprise.context.ApplicationScoped;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.time.Duration;
import java.util.HexFormat;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import lychnos.core.address.Address;
import lychnos.core.fact.Secret;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.site.BringUp;
import lychnos.server.site.Network;
import lychnos.server.site.NetworkDefinitions;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.text.NoticeText;
import lychnos.server.units.BringUps;
import lychnos.wire.fault.WireFault;
import lychnos.wire.http.HttpAnswer;
import lychnos.wire.http.HttpCall;
import lychnos.wire.smtp.Letter;
import lychnos.wire.vantage.Vantage;

/** Carries notices: to a webhook over HTTPS, signed; by mail through the site's relay. */
@ApplicationScoped
public class NoticeCarrier {

    private static final Duration PATIENCE = Duration.ofSeconds(10);
    private static final int SMTP = 25;
    private static final int HTTPS = 443;
    private static final int SHOWN_IN_A_LETTER = 60;

    private final Vantage vantage;
    private final SealedStore sealed;
    private final BringUps bringUps;
    private final NetworkDefinitions networkDefinitions;
    private final SiteResources siteResources;
    private final ObjectMapper json;

    NoticeCarrier(
            Vantage vantage,
            SealedStore sealed,
            BringUps bringUps,
            NetworkDefinitions networkDefinitions,
            SiteResources siteResources,
            ObjectMapper json) {
        this.vantage = vantage;
        this.sealed = sealed;
        this.bringUps = bringUps;
        this.networkDefinitions = networkDefinitions;
        this.siteResources = siteResources;
        this.json = json;
    }

    /** @throws WireFault where it did not come through */
    void carry(NoticeTarget target, Notices.NoticeBatch batch) throws WireFault {
        if (target.sort.equals(NoticeTarget.MAIL)) {
            mail(target, batch);
        } else {
            post(target, batch);
        }
    }

    private List<Network> networks(NoticeTarget target) {
        return networkDefinitions.networks(bringUps.get(target.bringUpId));
    }

    // --- webhook ---

    private void post(NoticeTarget target, Notices.NoticeBatch batch) throws WireFault {
        URI url = URI.create(target.target);
        byte[] body;
        try {
            body = json.writeValueAsBytes(batch);
        } catch (JsonProcessingException e) {
            throw new IllegalStateException("a notice can be written", e);
        }
        Secret secret = sealed.openText(SealKeys.ofNotice(target.id), target.keyId, target.nonce, target.sealed);
        String path = url.getRawPath() == null || url.getRawPath().isEmpty()
                ? "/"
                : url.getRawPath() + (url.getRawQuery() == null ? "" : "?" + url.getRawQuery());
        Map<String, String> headers = Map.of(
                "Content-Type",
                "application/json",
                "Host",
                url.getAuthority(),
                "X-Lychnos-Signature",
                "sha256=" + signature(secret, body));
        HttpAnswer answer = vantage.http(new HttpCall(
                resolved(target, url.getHost()),
                url.getPort() > 0 ? url.getPort() : HTTPS,
                "POST",
                path,
                headers,
                body,
                target.fingerprint,
                PATIENCE));
        if (answer.status() >= 300) {
            throw new WireFault(WireFault.Kind.REFUSED, NoticeText.WEBHOOK_ANSWERS_HTTP.text(answer.status()));
        }
        target.fingerprint = answer.fingerprint(); // remembered at first sight; another one later gets nothing
    }

    /** A name is asked of the name servers of the bring-up's networks, never of this machine's own. */
    private Address resolved(NoticeTarget target, String host) throws WireFault {
        Optional<Address> literal = Address.tryParse(host.replaceAll("[\\[\\]]", ""));
        if (literal.isPresent()) {
            return literal.get();
        }
        for (Network network : networks(target)) {
            for (String server : network.nameServers) {
                Optional<Address> found = Address.tryParse(server).flatMap(address -> asked(address, host));
                if (found.isPresent()) {
                    return found.get();
                }
            }
        }
        throw new WireFault(WireFault.Kind.SILENT, NoticeText.NO_NAME_SERVER_KNOWS.text(host));
    }

    private Optional<Address> asked(Address server, String host) {
        try {
            return vantage.resolve(server, host, "A", Duration.ofSeconds(2)).stream()
                    .findFirst()
                    .flatMap(Address::tryParse);
        } catch (WireFault e) {
            return Optional.empty(); // another one may know it
        }
    }

    static String signature(Secret secret, byte[] body) {
        try {
            Mac mac = Mac.getInstance("HmacSHA256");
            mac.init(new SecretKeySpec(secret.use(text -> text.getBytes(StandardCharsets.UTF_8)), "HmacSHA256"));
            return HexFormat.of().formatHex(mac.doFinal(body));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("HMAC-SHA256 is part of every Java", e);
        }
    }

    // --- mail ---

    private void mail(NoticeTarget target, Notices.NoticeBatch batch) throws WireFault {
        BringUp bringUp = bringUps.get(target.bringUpId);
        SiteResourceRow relay = siteResources.rows(bringUp.site.id).stream()
                .filter(row -> row.sort.equals(SiteResourceSort.RELAY.word()))
                .findFirst()
                .orElseThrow(() -> new WireFault(WireFault.Kind.SILENT, NoticeText.SITE_STATES_NO_MAIL_RELAY.text()));
        String domain = networks(target).stream()
                .map(network -> network.domain)
                .filter(name -> name != null && !name.isEmpty())
                .findFirst()
                .orElse("lychnos.invalid");
        long off = batch.changes().stream()
                .filter(item -> !item.proven())
                .map(Notices.NoticeItem::endpoint)
                .distinct()
                .count();
        String subject = batch.changes().isEmpty()
                ? NoticeText.SUBJECT_DUE.text(
                        batch.site(), batch.bringUp(), batch.due().size())
                : off == 0
                        ? NoticeText.SUBJECT_ALL_PROVEN.text(
                                batch.site(), batch.bringUp(), batch.changes().size())
                        : NoticeText.SUBJECT.text(
                                batch.site(), batch.bringUp(), batch.changes().size(), off);
        String text = batch.changes().stream()
                .limit(SHOWN_IN_A_LETTER)
                .map(NoticeCarrier::line)
                .collect(Collectors.joining("\n"));
        String dates = batch.due().stream().map(NoticeCarrier::line).collect(Collectors.joining());
        long more = batch.more() + Math.max(0, batch.changes().size() - SHOWN_IN_A_LETTER);
        Letter letter = new Letter(
                "lychnos@" + domain,
                target.target,
                subject,
                dates + text + (more > 0 ? "\n\nand " + more + " more" : "") + "\n");
        vantage.mail(
                Address.parse(relay.value.get("address")),
                Integer.parseInt(relay.value.getOrDefault("port", String.valueOf(SMTP))),
                letter,
                PATIENCE);
    }

    private static String line(DatedItems.DatedItem item) {
        return (item.days() < 0 ? NoticeText.WAS_DUE : NoticeText.IS_DUE)
                        .text(item.due(), (item.unit().isEmpty() ? "" : item.unit() + ": ") + item.text())
                + "\n";
    }

    private static String line(Notices.NoticeItem item) {
        String at = item.at().toString().substring(0, 16).replace('T', ' ');
        return at + " UTC  " + item.endpoint() + " (" + item.address() + ")\n  "
                + (item.what().equals("ladder") ? "" : item.what() + ": ") + item.now()
                + (item.was().isEmpty() ? "" : "\n  before: " + item.was()) + "\n";
    }
}
