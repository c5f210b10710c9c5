package lychnos.server.configure.plan;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.security.SecureRandom;
import java.time.Clock;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.AgreedTerms;
import lychnos.core.dialogue.Hold;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.PasswordMaker;
import lychnos.core.fact.Secret;
import lychnos.core.kind.Kind;
import lychnos.core.sheet.MemberValues;
import lychnos.core.sheet.UnitFacts;
import lychnos.core.site.SitePolicies;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.allocate.Plans;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.site.BringUp;
import lychnos.server.site.Network;
import lychnos.server.site.SiteResourceRow;
import lychnos.server.site.SiteResources;
import lychnos.server.units.BringUps;
import lychnos.server.units.Facts;
import lychnos.server.units.GivenFact;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/** Puts together what a unit's dialogues are answered with, and makes its passwords before any of them is sent. */
@ApplicationScoped
public class Answers {

    private static final int PASSWORD_LENGTH = 16;

    private final Session db;
    private final BringUps bringUps;
    private final Facts facts;
    private final Plans plans;
    private final SiteResources siteResources;
    private final SealedStore sealed;
    private final Clock clock;
    private final PasswordMaker passwords = new PasswordMaker(new SecureRandom());

    Answers(
            Session db,
            BringUps bringUps,
            Facts facts,
            Plans plans,
            SiteResources siteResources,
            SealedStore sealed,
            Clock clock) {
        this.db = db;
        this.bringUps = bringUps;
        this.facts = facts;
        this.plans = plans;
        this.siteResources = siteResources;
        this.sealed = sealed;
        this.clock = clock;
    }

    /** What is known of a unit. */
    @Transactional
    public UnitFacts known(Unit unit) {
        return facts.of(unit, bringUps.get(unit.bringUpId));
    }

    /**
     * By member, what its dialogue is answered with.
     *
     * @param told what members' lines have told so far
     */
    @Transactional
    public Map<String, MemberValues> of(Unit unit, Map<String, String> told) {
        BringUp bringUp = bringUps.get(unit.bringUpId);
        UnitFacts known = known(unit);
        List<MemberValues.Seat> seats = plans.seatsOf(unit.id).stream()
                .map(seat -> {
                    Network network = db.find(Network.class, seat.networkId());
                    return new MemberValues.Seat(
                            seat.role(),
                            seat.address(),
                            seat.hostName(),
                            seat.domain(),
                            new MemberValues.Net(
                                    network.name,
                                    network.prefix,
                                    network.gateway,
                                    network.vlan,
                                    List.copyOf(network.nameServers),
                                    List.copyOf(network.timeServers)));
                })
                .toList();
        AgreedTerms terms = SitePolicies.terms(
                siteResources.of(bringUp.site.id), known.kind().id());
        Map<String, MemberValues> values = new LinkedHashMap<>();
        List<GivenFact> typed = typed(unit);
        Stated stated = stated(bringUp.site.id, known);
        Map<String, Optional<Secret>> made = new HashMap<>();
        for (String member : known.kind().members().of(unit.members)) {
            values.put(
                    member,
                    new MemberValues(
                            known,
                            member,
                            unit.label(),
                            seats,
                            stated.texts,
                            told,
                            secrets(unit, known, member, typed, made, stated),
                            terms));
        }
        return values;
    }

    /** What the site states once and machines are told: by name, and the one password among it. */
    private record Stated(Map<String, String> texts, Optional<Secret> proxyWord) {}

    private Stated stated(long siteId, UnitFacts known) {
        Map<String, String> texts = new HashMap<>();
        List<SiteResourceRow> rows = siteResources.rows(siteId);
        LocalDate today = LocalDate.ofInstant(clock.instant(), ZoneOffset.UTC);
        known.kind().facts().stream()
                .filter(fact -> fact.type() == FactType.DATE)
                .forEach(fact -> known.fact("", fact.name())
                        .filter(day -> !LocalDate.parse(day.value()).isAfter(today))
                        .ifPresent(day -> texts.put(fact.name() + Hold.REACHED, day.value())));
        first(rows, SiteResourceSort.RELAY).ifPresent(relay -> texts.put("mail-relay", relay.value.get("address")));
        Optional<SiteResourceRow> proxy = first(rows, SiteResourceSort.PROXY)
                .filter(row -> known.fact("", "proxy-needed")
                        .filter(fact -> fact.value().equals("yes"))
                        .isPresent());
        proxy.ifPresent(row -> {
            texts.put("proxy", row.value.get("address"));
            texts.put("proxy-port", row.value.get("port"));
            Optional.ofNullable(row.value.get("user")).ifPresent(user -> texts.put("proxy-user", user));
        });
        return new Stated(texts, proxy.flatMap(siteResources::secret));
    }

    private static Optional<SiteResourceRow> first(List<SiteResourceRow> rows, SiteResourceSort sort) {
        return rows.stream().filter(row -> row.sort.equals(sort.word())).findFirst();
    }

    /** @param made what was made for the unit, by name, as far as it was asked for: the same for every member */
    private Map<String, Secret> secrets(
            Unit unit,
            UnitFacts known,
            String member,
            List<GivenFact> typed,
            Map<String, Optional<Secret>> made,
            Stated stated) {
        Map<String, Secret> secrets = new HashMap<>();
        stated.proxyWord.ifPresent(word -> secrets.put("proxy-word", word));
        Kind kind = typed(typed, unit, member, Kind.OWN_PASSWORD)
                .map(own -> known.kind().withFactory(null, own))
                .orElse(known.kind());
        secrets.put("factory.phrase", kind.factory().phrase());
        kind.logins()
                .forEach(login -> secrets.put(
                        "factory." + login.way() + ".phrase", login.login().phrase()));
        for (FactSpec spec : known.kind().facts()) {
            if (spec.type() == FactType.SECRET) {
                typed(typed, unit, member, spec.name())
                        .or(() -> made.computeIfAbsent(spec.name(), name -> made(unit, name)))
                        .ifPresent(secret -> secrets.put(spec.name(), secret));
            }
        }
        return secrets;
    }

    /** A password that was made for the unit; one that has logged in counts only where no newer one waits for that. */
    private Optional<Secret> made(Unit unit, String name) {
        return sealed.open(unit.id, name, SealedStore.SealedState.MADE)
                .or(() -> sealed.open(unit.id, name, SealedStore.SealedState.PROVEN));
    }

    /** What somebody gave in the fact sheet and must stay hidden. */
    private List<GivenFact> typed(Unit unit) {
        return db.createQuery("from GivenFact where key.unitId = :unit and sealed is not null", GivenFact.class)
                .setParameter("unit", unit.id)
                .getResultList();
    }

    private Optional<Secret> typed(List<GivenFact> typed, Unit unit, String member, String name) {
        return java.util.stream.Stream.of(member, "")
                .flatMap(owner -> typed.stream()
                        .filter(fact -> fact.key.member().equals(owner)
                                && fact.key.name().equals(name)))
                .findFirst()
                .map(fact -> sealed.openText(
                        SealKeys.ofFact(unit.id, fact.key.member(), name), fact.keyId, fact.nonce, fact.sealed));
    }

    /** Makes the passwords that were neither entered nor made before. */
    @Transactional
    public void makePasswords(Unit unit, UnitFacts known) {
        List<GivenFact> typed = typed(unit);
        for (FactSpec spec : known.kind().facts()) {
            if (spec.type() == FactType.SECRET
                    && spec.is(FactSpec.Trait.MADE)
                    && typed(typed, unit, "", spec.name()).isEmpty()
                    && made(unit, spec.name()).isEmpty()) {
                sealed.seal(unit.id, spec.name(), passwords.make(PASSWORD_LENGTH));
            }
        }
    }
}
