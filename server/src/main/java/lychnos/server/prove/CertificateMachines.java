package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.PageFill;
import lychnos.server.api.problem.Refusal;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.ProveText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.fault.WireText;
import lychnos.wire.ladder.Target;
import lychnos.wire.pages.MachinePages;
import lychnos.wire.pages.MachinePages.Login;
import lychnos.wire.pages.PageFault;
import lychnos.wire.redfish.RedfishClient;
import lychnos.wire.redfish.RedfishFault;
import lychnos.wire.redfish.WebCertificate;
import lychnos.wire.vantage.Vantage;

/** Has a machine make a signing request and take a certificate, over the interface that it has for that. */
@ApplicationScoped
class CertificateMachines {

    private final Kinds kinds;
    private final Vantage vantage;

    CertificateMachines(Kinds kinds, Vantage vantage) {
        this.kinds = kinds;
        this.vantage = vantage;
    }

    /**
     * A request that a machine has made for a new key of its own.
     *
     * @param pem PKCS #10 (RFC 2986) in PEM
     * @param collection the machine's resource that the certificate will go to; empty where that is described
     */
    record Made(String pem, String collection) {}

    /** How it comes onto this machine; nothing where no certificate of it is known. */
    Optional<CertificateWay> way(Endpoints.TargetEndpoint endpoint) {
        Target target = endpoint.target();
        if (target.fingerprint() == null || target.service() instanceof Target.DataAddress) {
            return Optional.empty();
        }
        if (target.service() instanceof Target.Redfish redfish
                && redfish.login().phrase() != null) {
            return Optional.of(CertificateWay.REDFISH);
        }
        return Optional.of(
                pages(target).isPresent() && described(endpoint).isPresent()
                        ? CertificateWay.PAGES
                        : CertificateWay.BY_HAND);
    }

    private static Optional<Target.Pages> pages(Target target) {
        return target.service() instanceof Target.SignIn signIn
                ? Optional.ofNullable(signIn.pages())
                        .filter(pages -> pages.ours().phrase() != null)
                : Optional.empty();
    }

    private Optional<Dialogue.CertificatePages> described(Endpoints.TargetEndpoint endpoint) {
        return kinds.of(endpoint.unit()).certificatePages();
    }

    private interface Exchange<T> {
        T run() throws WireFault, RedfishFault, PageFault;
    }

    private static <T> T exchange(Endpoints.TargetEndpoint endpoint, Exchange<T> exchange) {
        try {
            return exchange.run();
        } catch (WireFault e) {
            throw Refusal.conflict(ProveText.DOES_NOT_DO.said(endpoint.claim().hostName, e.getMessage()));
        } catch (RedfishFault | PageFault e) {
            throw Refusal.conflict(ProveText.REFUSES.said(endpoint.claim().hostName, e.getMessage()));
        }
    }

    /** Has the machine make a key and a request for it; the certificate in use stays. */
    Made request(Endpoints.TargetEndpoint endpoint, CertificateWay way) {
        String fqdn = endpoint.claim().fqdn();
        String address = endpoint.claim().address.toString();
        return exchange(endpoint, () -> {
            if (way == CertificateWay.REDFISH) {
                try (RedfishClient client = logIn(endpoint.target())) {
                    WebCertificate.Request made = new WebCertificate(client).request(fqdn, List.of(fqdn, address));
                    return new Made(made.pem(), made.collection());
                }
            }
            Dialogue.CertificatePages at = described(endpoint).orElseThrow();
            MachinePages pages = open(endpoint.target());
            Login login = login(endpoint.target());
            pages.write(at.request(), login, new PageFill.Entry(at.asks(fqdn, address), Map.of()));
            String pem = pages.read(at.request(), login).getOrDefault(at.shows(), "");
            if (!pem.contains("CERTIFICATE REQUEST")) {
                throw new WireFault(WireFault.Kind.GARBAGE, WireText.NO_SIGNING_REQUEST.text());
            }
            return new Made(pem, "");
        });
    }

    /** Puts a chain in. A machine that cuts the connection in the middle may have taken it: what it shows tells. */
    void install(Endpoints.TargetEndpoint endpoint, CertificateRequest request, String chain) {
        exchange(endpoint, () -> {
            try {
                put(endpoint, request, chain);
            } catch (WireFault e) {
                if (!e.passing()) {
                    throw e;
                }
            }
            return null;
        });
    }

    private void put(Endpoints.TargetEndpoint endpoint, CertificateRequest request, String chain)
            throws WireFault, RedfishFault, PageFault {
        if (request.way == CertificateWay.REDFISH) {
            try (RedfishClient client = logIn(endpoint.target())) {
                new WebCertificate(client).replace(request.collection, chain);
            }
        } else {
            Dialogue.CertificatePages at = described(endpoint).orElseThrow(CertificateMachines::noLonger);
            open(endpoint.target())
                    .write(
                            at.resource(),
                            login(endpoint.target()),
                            new PageFill.Entry(Map.of(at.chain(), chain), Map.of()));
        }
    }

    private static Refusal noLonger() {
        return Refusal.conflict(ProveText.NO_CERTIFICATE_IS_KNOWN_YET.said());
    }

    /** Logged in to the machine that is known, under the certificate that is known. */
    private RedfishClient logIn(Target target) throws WireFault, RedfishFault {
        Target.Redfish redfish = (Target.Redfish) target.service();
        RedfishClient client = new RedfishClient(vantage, target.address(), target.port(), target.fingerprint());
        client.logIn(redfish.login().user(), redfish.login().phrase());
        return client;
    }

    private MachinePages open(Target target) throws WireFault {
        Target.Pages described = pages(target).orElseThrow(CertificateMachines::noLonger);
        MachinePages pages = new MachinePages(vantage, described.at(), target.port());
        String shown = pages.see();
        if (!shown.equals(target.fingerprint())) {
            throw new WireFault(WireFault.Kind.GARBAGE, WireText.OTHER_CERTIFICATE.text(shown, target.fingerprint()));
        }
        return pages;
    }

    private static Login login(Target target) {
        Target.Login ours =
                pages(target).orElseThrow(CertificateMachines::noLonger).ours();
        return new Login(ours.user(), ours.phrase());
    }
}
