package lychnos.server.configure.bench;

import io.quarkus.narayana.jta.QuarkusTransaction;
import jakarta.enterprise.context.ApplicationScoped;
import java.net.URI;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.kind.Kind;
import lychnos.core.kind.Laptop;
import lychnos.server.api.problem.Refusal;
import lychnos.server.kinds.Kinds;
import lychnos.server.text.ConfigureText;
import lychnos.server.units.BringUps;
import lychnos.server.vantage.Vantages;
import lychnos.wire.fault.WireFault;
import lychnos.wire.tcp.PortState;
import lychnos.wire.vantage.Vantage;

/**
 * Tries the service port of a machine from the laptop that is plugged into it. The port has the same address on every
 * such machine, in a subnet that is nobody's network: a vantage point on the laptop reaches it.
 */
@ApplicationScoped
public class ServicePorts {

    private static final Duration PATIENCE = Duration.ofSeconds(3);
    private static final int HTTP = 80;
    private static final int HTTPS = 443;

    private final BringUps bringUps;
    private final Kinds kinds;
    private final Vantages vantages;

    ServicePorts(BringUps bringUps, Kinds kinds, Vantages vantages) {
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.vantages = vantages;
    }

    /** What was found from one place. */
    public enum ServicePortState {
        ANSWERS,
        /** The laptop is set as it must be; the machine does not answer. */
        SILENT,
        /** The laptop has no address in the subnet of the port. */
        OTHER_SUBNET,
        /** The vantage point could not try it. */
        NOT_TRIED
    }

    /** What the service port does, tried from one vantage point. */
    public record ServicePortAnswer(String from, ServicePortState state, String sentence) {}

    /** A service port with its first page, and what a laptop is set to for it. */
    public record ServicePort(Address address, URI page, Laptop laptop) {

        /** The one of a kind; empty where it has no page there, or does not say what a laptop is set to. */
        static Optional<ServicePort> of(Kind kind) {
            Laptop laptop = kind.setup().laptop();
            return laptop == null
                    ? Optional.empty()
                    : kind.dialogue().stream()
                            .flatMap(dialogue -> dialogue.pages().stream())
                            .filter(DialogueStep.Page.class::isInstance)
                            .flatMap(page -> ((DialogueStep.Page) page).open().fill(name -> Optional.empty()).stream())
                            .map(URI::create)
                            .filter(page -> kind.setup().factoryAddress().equals(page.getHost()))
                            .findFirst()
                            .map(page ->
                                    new ServicePort(Address.parse(kind.setup().factoryAddress()), page, laptop));
        }

        int port() {
            int usual = page.getScheme().equals("https") ? HTTPS : HTTP;
            return page.getPort() > 0 ? page.getPort() : usual;
        }
    }

    /**
     * Tries it from every vantage point that is connected; this server itself is in the hall's own networks.
     *
     * @return nothing where no vantage point is connected
     */
    List<ServicePortAnswer> tryAll(long unitId) {
        ServicePort port = QuarkusTransaction.requiringNew().call(() -> ServicePort.of(kinds.of(bringUps.unit(unitId)))
                .orElseThrow(() -> Refusal.bad(ConfigureText.KIND_HAS_NO_SERVICE_PORT.said())));
        List<ServicePortAnswer> answers = new ArrayList<>();
        for (Vantage from : vantages.connected()) {
            answers.add(tryFrom(from, port));
        }
        return answers;
    }

    static ServicePortAnswer tryFrom(Vantage from, ServicePort port) {
        try {
            Optional<Address> source = from.source(port.address());
            if (source.filter(port.laptop()::reaches).isEmpty()) {
                return new ServicePortAnswer(
                        from.name(),
                        ServicePortState.OTHER_SUBNET,
                        source.map(own -> ConfigureText.LAPTOP_IN_ANOTHER_SUBNET.text(
                                        from.name(), own, port.address(), port.laptop()))
                                .orElseGet(() -> ConfigureText.LAPTOP_HAS_NO_ROUTE.text(
                                        from.name(), port.address(), port.laptop())));
            }
            boolean open = from.port(port.address(), port.port(), PATIENCE) == PortState.OPEN;
            return new ServicePortAnswer(
                    from.name(),
                    open ? ServicePortState.ANSWERS : ServicePortState.SILENT,
                    (open ? ConfigureText.SERVICE_PORT_ANSWERS : ConfigureText.SERVICE_PORT_IS_SILENT)
                            .text(from.name(), source.get(), port.address(), port.port()));
        } catch (WireFault e) {
            return new ServicePortAnswer(from.name(), ServicePortState.NOT_TRIED, e.getMessage());
        }
    }
}
