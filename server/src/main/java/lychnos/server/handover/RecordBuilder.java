package lychnos.server.handover;

import jakarta.enterprise.context.ApplicationScoped;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import lychnos.core.export.Endpoint;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.kind.Kind;
import lychnos.core.proof.Beside;
import lychnos.core.proof.Outcome;
import lychnos.core.text.Sha256;
import lychnos.server.configure.bench.Recordings;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.server.identity.caller.Who;
import lychnos.server.kinds.Kinds;
import lychnos.server.prove.Proof;
import lychnos.server.units.BringUps;
import lychnos.server.units.GivenFact;
import lychnos.server.units.RackChecks;
import lychnos.server.units.Unit;
import org.hibernate.Session;

/**
 * Puts together what is signed of a unit: facts, addresses and names, fingerprints, what was seen from where, and who
 * did what.
 */
@ApplicationScoped
public class RecordBuilder {

    static final String FORMAT = "lychnos record 1";

    private final Session db;
    private final BringUps bringUps;
    private final Kinds kinds;
    private final Recordings recordings;
    private final OpenItems items;
    private final RackChecks rackChecks;

    RecordBuilder(
            Session db, BringUps bringUps, Kinds kinds, Recordings recordings, OpenItems items, RackChecks rackChecks) {
        this.rackChecks = rackChecks;
        this.db = db;
        this.bringUps = bringUps;
        this.kinds = kinds;
        this.recordings = recordings;
        this.items = items;
    }

    /** Everything of it as maps, lists, texts and whole numbers: what has a canonical form. No password is among it. */
    Map<String, Object> of(Unit unit, List<Inventory.InventoryEntry> entries, Who.Person by, Instant at) {
        BringUps.BringUpName named = bringUps.named(unit.bringUpId);
        Map<String, Object> body = new LinkedHashMap<>();
        body.put("format", FORMAT);
        body.put("site", named.site());
        body.put("bringUp", named.name());
        body.put("unit", entries.get(0).endpoint().machine().unit());
        body.put("kind", unit.kind);
        body.put("kindVersion", unit.kindVersion);
        body.put("kindDigest", kinds.published(unit).digest());
        body.put("kindTitle", kinds.of(unit).title());
        body.put("place", unit.place());
        body.put("members", unit.members);
        body.put("serial", unit.serial);
        body.put("mac", unit.mac == null ? null : unit.mac.toString());
        body.put("facts", facts(unit, kinds.of(unit)));
        body.put("rack", rack(unit));
        body.put("endpoints", endpoints(unit, entries));
        body.put("names", names(unit));
        body.put("accepted", accepted(unit));
        body.put(
                "items",
                items.of(unit.bringUpId).stream()
                        .filter(item -> item.unitId() == null || item.unitId().equals(unit.id))
                        .map(OpenItems.OpenItemView::body)
                        .toList());
        body.put("recordings", recordings(unit));
        body.put("journal", journal(unit));
        body.put("signedBy", by.name());
        body.put("signedAt", at);
        return body;
    }

    private List<Map<String, Object>> facts(Unit unit, Kind kind) {
        Map<String, FactSpec> specs =
                kind.facts().stream().collect(Collectors.toMap(FactSpec::name, Function.identity()));
        List<Map<String, Object>> facts = new ArrayList<>();
        for (GivenFact given : db.createQuery(
                        "from GivenFact f where f.key.unitId = :unit order by f.key.member, f.key.name",
                        GivenFact.class)
                .setParameter("unit", unit.id)
                .getResultList()) {
            FactSpec spec = specs.get(given.key.name());
            // a password never leaves the store in a record
            if (spec != null && spec.type() != FactType.SECRET && given.sealed == null) {
                facts.add(new TreeMap<>(Map.of(
                        "member",
                        given.key.member(),
                        "name",
                        given.key.name(),
                        "title",
                        spec.title(),
                        "value",
                        given.value,
                        "source",
                        given.source.name())));
            }
        }
        return facts;
    }

    /** What was checked at the rack; what was not has no {@code by} and no {@code at}. */
    private List<Map<String, Object>> rack(Unit unit) {
        List<Map<String, Object>> all = new ArrayList<>();
        rackChecks
                .of(unit)
                .forEach((member, checks) -> checks.forEach(check -> {
                    Map<String, Object> body = new TreeMap<>(Map.of("member", member, "check", check.text()));
                    body.put("by", check.by());
                    body.put("at", check.at());
                    all.add(body);
                }));
        return all;
    }

    private List<Map<String, Object>> endpoints(Unit unit, List<Inventory.InventoryEntry> entries) {
        Map<Long, Proof> proofs = db.createQuery("from Proof where unitId = :unit", Proof.class)
                .setParameter("unit", unit.id)
                .getResultStream()
                .collect(Collectors.toMap(proof -> proof.claimId, Function.identity()));
        return entries.stream()
                .map(entry -> endpoint(entry.endpoint(), proofs.get(entry.claimId())))
                .toList();
    }

    private static Map<String, Object> endpoint(Endpoint endpoint, Proof proof) {
        Map<String, Object> body = new TreeMap<>();
        Endpoint.EndpointNetwork network = endpoint.network();
        body.put("role", endpoint.role());
        body.put("name", endpoint.name());
        body.put("address", endpoint.address().toString());
        body.put("prefix", network.prefix().toString());
        body.put("network", network.name());
        body.put("vlan", network.vlan());
        body.put("gateway", network.gateway() == null ? "" : network.gateway().toString());
        body.put("serial", endpoint.machine().serial());
        body.put("mac", endpoint.seen().mac());
        body.put("firmware", endpoint.seen().firmware());
        body.put("certificate", endpoint.seen().certificate());
        body.put("chain", endpoint.seen().chain());
        body.put("hostKey", endpoint.seen().hostKey());
        if (proof != null) {
            body.put("provenAt", proof.provenAt);
            body.put("checkedAt", proof.at);
            body.put("from", proof.place);
            body.put("sentence", proof.sentence);
            List<Map<String, Object>> rungs = new ArrayList<>();
            for (Outcome outcome : proof.outcomes) {
                rungs.add(rung(outcome.rung().title(), outcome.standing().name(), outcome.seen()));
            }
            for (Beside beside : proof.beside) {
                rungs.add(rung(
                        beside.mark().name().toLowerCase(java.util.Locale.ROOT),
                        beside.standing().name(),
                        beside.seen()));
            }
            body.put("seen", rungs);
        }
        return body;
    }

    private static Map<String, Object> rung(String what, String standing, String seen) {
        return new TreeMap<>(Map.of("what", what, "standing", standing, "seen", seen == null ? "" : seen));
    }

    private List<Map<String, Object>> names(Unit unit) {
        return db.createNativeQuery(
                        "select n.zone, n.owner, n.type, n.data from name_record n join claim c on c.id = n.claim_id "
                                + "where c.unit_id = :unit and c.released_at is null and n.state = 'MADE' order by "
                                + "n.owner, n.type",
                        Object[].class)
                .setParameter("unit", unit.id)
                .getResultStream()
                .<Map<String, Object>>map(
                        row -> new TreeMap<>(Map.of("zone", row[0], "owner", row[1], "type", row[2], "data", row[3])))
                .toList();
    }

    private List<Map<String, Object>> accepted(Unit unit) {
        return db.createNativeQuery(
                        "select c.host_name, t.what, t.before, t.now, t.reason, a.name, t.decided_at from "
                                + "trait_change t join claim c on c.id = t.claim_id join account a on a.id = "
                                + "t.decided_by where c.unit_id = :unit and c.released_at is null and "
                                + "t.state = 'ACCEPTED' order by t.id",
                        Object[].class)
                .setParameter("unit", unit.id)
                .getResultStream()
                .map(row -> {
                    Map<String, Object> each = new TreeMap<>(Map.of(
                            "endpoint",
                            row[0],
                            "what",
                            row[1],
                            "before",
                            row[2],
                            "now",
                            row[3],
                            "reason",
                            row[4],
                            "by",
                            row[5]));
                    each.put("at", (Instant) row[6]);
                    return each;
                })
                .toList();
    }

    private List<Map<String, Object>> recordings(Unit unit) {
        List<Map<String, Object>> all = new ArrayList<>();
        for (MemberDialogue dialogue : dialogues(unit)) {
            byte[] cast = recordings.asciicast(dialogue.id).getBytes(StandardCharsets.UTF_8);
            all.add(new TreeMap<>(Map.of(
                    "member",
                    dialogue.member,
                    "file",
                    file(unit, dialogue),
                    "sha256",
                    Sha256.hex(cast),
                    "dialogue",
                    dialogue.id)));
        }
        return all;
    }

    /** Those of its newest setup of which something was recorded. */
    private List<MemberDialogue> dialogues(Unit unit) {
        return db.createQuery(
                        "from MemberDialogue d where d.unitId = :unit and d.runId = (select max(r.id) from Run r "
                                + "where r.unitId = :unit and r.purpose = 'console' and r.earlier = false) order by "
                                + "d.place",
                        MemberDialogue.class)
                .setParameter("unit", unit.id)
                .getResultStream()
                .filter(dialogue -> !db.createNativeQuery(
                                "select 1 from line_piece where dialogue_id = :id limit 1", Integer.class)
                        .setParameter("id", dialogue.id)
                        .getResultList()
                        .isEmpty())
                .toList();
    }

    private static String file(Unit unit, MemberDialogue dialogue) {
        String name = unit.label() + (dialogue.member.isEmpty() ? "" : "-" + dialogue.member);
        return name.toLowerCase(java.util.Locale.ROOT).replaceAll("[^a-z0-9]+", "-") + ".cast";
    }

    private List<Map<String, Object>> journal(Unit unit) {
        return db.createNativeQuery(
                        "select at, actor, act from journal where unit_id = :unit order by id", Object[].class)
                .setParameter("unit", unit.id)
                .getResultStream()
                .map(row -> {
                    Map<String, Object> each = new TreeMap<>(Map.of("actor", row[1], "act", row[2]));
                    each.put("at", (Instant) row[0]);
                    return each;
                })
                .toList();
    }
}
