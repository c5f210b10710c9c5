package lychnos.server.site;

import io.quarkus.runtime.ShutdownEvent;
import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.event.Observes;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.Callable;
import java.util.concurrent.ExecutionException;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.Future;
import lychnos.core.address.Address;
import lychnos.core.kind.Kind;
import lychnos.core.service.Measured;
import lychnos.core.service.Measured.State;
import lychnos.core.service.NameJudge;
import lychnos.core.service.NameSample;
import lychnos.core.service.Reply;
import lychnos.core.service.ServiceKind;
import lychnos.core.service.TimeJudge;
import lychnos.core.service.TimeSample;
import lychnos.server.text.PrepareText;
import lychnos.wire.dns.NameKey;
import lychnos.wire.fault.WireFault;
import lychnos.wire.icmp.Echo;
import lychnos.wire.proxy.ProxyProbe.ProxySeen;
import lychnos.wire.smtp.RelaySeen;
import lychnos.wire.vantage.Vantage;
import org.jboss.logging.Logger;

/** Asks services of a site, all of them at once. */
@ApplicationScoped
public class ServiceProbes {

    private static final Logger LOG = Logger.getLogger(ServiceProbes.class);
    private static final Duration PATIENCE = Duration.ofSeconds(2);

    private static final int AT_ONCE = 16;

    private final SiteResources siteResources;
    private final Vantage vantage;
    private final Clock clock;
    private final ExecutorService threads = Executors.newFixedThreadPool(AT_ONCE);

    ServiceProbes(SiteResources siteResources, Vantage vantage, Clock clock) {
        this.siteResources = siteResources;
        this.vantage = vantage;
        this.clock = clock;
    }

    void stop(@Observes ShutdownEvent event) {
        threads.shutdownNow();
    }

    /** The questions, read in one transaction; they are asked outside of the transaction. */
    record Questions(
            long siteId,
            Set<String> gateways,
            Set<String> names,
            Set<String> times,
            List<String> zones,
            Map<String, Map<String, NameKey>> keys,
            List<SiteResourceRow> services,
            List<String> senders,
            List<String> planned) {

        /** What is asked, in words: another question is asked at once, however fresh the last answer is. */
        String what() {
            return gateways + " " + names + " " + times + " " + zones + " " + keys + " "
                    + services.stream()
                            .map(resource -> resource.name + resource.value)
                            .toList() + " " + senders + " " + planned;
        }
    }

    /** Asks every service; one that does not answer is measured as silent. */
    List<Measured> all(Questions questions) {
        Instant at = clock.instant();
        List<Future<List<Measured>>> asked = new ArrayList<>();
        questions.gateways.forEach(gateway -> asked.add(threads.submit(() -> List.of(gateway(gateway, at)))));
        asked.add(threads.submit(() -> names(questions, at)));
        asked.add(threads.submit(() -> times(questions.times, at)));
        questions.services.forEach(
                resource -> asked.add(threads.submit(() -> List.of(service(resource, questions, at)))));
        List<Measured> measured = new ArrayList<>();
        for (Future<List<Measured>> each : asked) {
            measured.addAll(await(each));
        }
        return measured;
    }

    private static <T> T await(Future<T> future) {
        try {
            return future.get();
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted while services were asked", e);
        } catch (ExecutionException e) {
            throw new IllegalStateException("a service could not be asked", e.getCause());
        }
    }

    private static Measured measured(ServiceKind kind, String address, State state, String sentence, Instant at) {
        return new Measured(kind, address, state, sentence, Map.of(), at);
    }

    private Measured gateway(String gateway, Instant at) {
        try {
            Echo echo = vantage.ping(Address.parse(gateway), PATIENCE);
            boolean answers = echo.state() == Echo.State.ANSWERED;
            String sentence = answers
                    ? "answers"
                    : echo.state() == Echo.State.SILENT
                            ? "silent"
                            : PrepareText.NOT_MEASURED_MAY_NOT_PING.text(vantage.name());
            return measured(
                    ServiceKind.GATEWAY,
                    gateway,
                    echo.state() == Echo.State.SILENT ? State.SILENT : State.FINE,
                    sentence,
                    at);
        } catch (WireFault e) {
            return measured(ServiceKind.GATEWAY, gateway, State.SILENT, e.getMessage(), at);
        }
    }

    private List<Measured> names(Questions questions, Instant at) {
        Map<String, Future<NameSample>> asked = new LinkedHashMap<>();
        questions.names.forEach(server -> asked.put(server, threads.submit(sample(server, questions))));
        Map<String, NameSample> samples = new LinkedHashMap<>();
        asked.forEach((server, sample) -> samples.put(server, await(sample)));
        List<Measured> judged = NameJudge.judge(samples, questions.zones, at);
        return judged.stream()
                .map(server -> server.state() == State.SILENT || server != judged.get(0)
                        ? server
                        : withRecords(server, questions.planned))
                .toList();
    }

    /** What planned names lead to already, as the first name server has it. */
    private Measured withRecords(Measured server, List<String> planned) {
        Map<String, String> detail = new LinkedHashMap<>(server.detail());
        Map<String, Future<List<String>>> asked = new LinkedHashMap<>();
        planned.forEach(name -> asked.put(
                name, threads.submit(() -> vantage.resolve(Address.parse(server.address()), name, "A", PATIENCE))));
        asked.forEach((name, answer) -> {
            try {
                answer.get().stream().findFirst().ifPresent(address -> detail.put(Measures.RECORD + name, address));
            } catch (ExecutionException e) {
                LOG.debugf("%s does not answer for %s", server.address(), name);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
            }
        });
        return new Measured(
                server.kind(),
                server.address(),
                server.state(),
                server.sentence(),
                detail,
                server.replies(),
                server.at());
    }

    private Callable<NameSample> sample(String server, Questions questions) {
        return () -> {
            try {
                return vantage.names(
                        Address.parse(server),
                        questions.zones,
                        questions.keys.getOrDefault(server, Map.of()),
                        PATIENCE);
            } catch (WireFault e) {
                return new NameSample(false, false, Map.of(), false, List.of(), e.getMessage());
            }
        };
    }

    private List<Measured> times(Set<String> servers, Instant at) {
        Map<String, Future<Optional<TimeSample>>> asked = new LinkedHashMap<>();
        servers.forEach(server -> asked.put(server, threads.submit(() -> {
            try {
                Optional<TimeSample> first = vantage.time(Address.parse(server), PATIENCE);
                // a datagram may be lost on a network in which all is well
                return first.isPresent() ? first : vantage.time(Address.parse(server), PATIENCE);
            } catch (WireFault e) {
                return Optional.<TimeSample>empty();
            }
        })));
        Map<String, Optional<TimeSample>> samples = new LinkedHashMap<>();
        asked.forEach((server, sample) -> samples.put(server, await(sample)));
        return TimeJudge.judge(samples, at);
    }

    private Measured service(SiteResourceRow resource, Questions questions, Instant at) {
        return switch (resource.resource().sort()) {
            case RELAY -> relay(resource, questions, at);
            case PROXY -> proxy(resource, at);
            case DIRECTORY -> DirectoryMeasured.of(resource, login(resource), vantage, PATIENCE, at);
            default -> throw new IllegalArgumentException("is not measured: " + resource.sort);
        };
    }

    private Measured relay(SiteResourceRow resource, Questions questions, Instant at) {
        String address = resource.value.get("address");
        try {
            RelaySeen seen = vantage.relay(
                    Address.parse(address), resource.resource().number("port", 25), questions.senders, null, PATIENCE);
            Map<String, String> detail = new LinkedHashMap<>();
            detail.put("greeting", seen.greeting());
            detail.put("STARTTLS", seen.startTls() ? "offered" : PrepareText.NOT_OFFERED.text());
            List<Reply> replies = new ArrayList<>(seen.senders());
            for (Reply sender : seen.senders()) {
                detail.put("from " + sender.about(), sender.said());
                String domain = sender.about().substring(sender.about().indexOf('@') + 1);
                if (!sender.accepted() && leadsNowhere(domain, questions)) {
                    detail.put(domain, PrepareText.NEITHER_MX_NOR_ADDRESS_RECORD.text());
                    replies.add(Reply.refused(Reply.Request.MAIL_DOMAIN, domain, ""));
                }
            }
            State state = !seen.answers() ? State.SILENT : seen.startTls() ? State.FINE : State.ODD;
            String sentence = !seen.answers()
                    ? "silent"
                    : seen.startTls() ? "answers, TLS" : PrepareText.ANSWERS_BUT_OFFERS_NO_TLS.text();
            return new Measured(ServiceKind.RELAY, address, state, sentence, detail, replies, at);
        } catch (WireFault e) {
            return measured(ServiceKind.RELAY, address, State.SILENT, e.getMessage(), at);
        }
    }

    /** Whether the first name server that answers knows neither a mail exchanger nor an address for a domain. */
    private boolean leadsNowhere(String domain, Questions questions) {
        for (String server : questions.names) {
            try {
                Address at = Address.parse(server);
                return vantage.resolve(at, domain, "MX", PATIENCE).isEmpty()
                        && vantage.resolve(at, domain, "A", PATIENCE).isEmpty()
                        && vantage.resolve(at, domain, "AAAA", PATIENCE).isEmpty();
            } catch (WireFault e) {
                LOG.debugf("%s does not answer; asking the next", server);
            }
        }
        return false;
    }

    private Measured proxy(SiteResourceRow resource, Instant at) {
        String address = resource.value.get("address");
        try {
            ProxySeen seen = vantage.proxy(
                    Address.parse(address),
                    resource.resource().number("port", 3128),
                    resource.value.getOrDefault("target", "activate.invalid:443"),
                    login(resource),
                    PATIENCE);
            boolean through = seen.status() >= 200 && seen.status() < 300;
            State state = through ? State.FINE : seen.status() == 0 ? State.SILENT : State.ODD;
            String sentence = through
                    ? "forwards"
                    : seen.status() == 407
                            ? (login(resource) == null
                                    ? PrepareText.NEEDS_A_LOGIN.text()
                                    : PrepareText.REFUSES_THE_CONFIGURED_LOGIN.text())
                            : seen.status() == 0 ? seen.line() : "answers " + seen.line();
            return new Measured(ServiceKind.PROXY, address, state, sentence, Map.of("answer", seen.line()), at);
        } catch (WireFault e) {
            return measured(ServiceKind.PROXY, address, State.SILENT, e.getMessage(), at);
        }
    }

    private Kind.Login login(SiteResourceRow resource) {
        String user = resource.value.getOrDefault("user", "");
        return user.isEmpty()
                ? null
                : siteResources
                        .secret(resource)
                        .map(phrase -> new Kind.Login(user, phrase))
                        .orElse(null);
    }
}
