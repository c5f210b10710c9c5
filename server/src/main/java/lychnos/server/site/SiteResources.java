package lychnos.server.site;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import jakarta.transaction.TransactionSynchronizationRegistry;
import jakarta.transaction.Transactional;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneOffset;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import lychnos.core.address.Address;
import lychnos.core.dialogue.TermsText;
import lychnos.core.fact.FactSpec;
import lychnos.core.fact.FactType;
import lychnos.core.fact.Secret;
import lychnos.core.site.SitePolicies;
import lychnos.core.site.SiteResource;
import lychnos.core.site.SiteResourceSort;
import lychnos.server.api.problem.IfMatch;
import lychnos.server.api.problem.OneLine;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.api.problem.Shapes;
import lychnos.server.identity.caller.Who;
import lychnos.server.journal.Journal;
import lychnos.server.live.Live;
import lychnos.server.secrets.SealKeys;
import lychnos.server.secrets.SealedStore;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;

/** What a site has besides networks: stated, changed, removed. */
@ApplicationScoped
public class SiteResources {

    /** What stands in the sheet for a value that is sealed. */
    public static final String SEALED = "(sealed)";

    private static final int MOST = 2000;
    /** So many digits of a digest name the terms that it is of. */
    private static final int SHORT_DIGEST = 12;

    private final Session db;
    private final Sites sites;
    private final SealedStore sealed;
    private final OperatorReach reach;
    private final Shapes shapes;
    private final Journal journal;
    private final Live live;
    private final TransactionSynchronizationRegistry transaction;

    SiteResources(
            Session db,
            Sites sites,
            SealedStore sealed,
            OperatorReach reach,
            Shapes shapes,
            Journal journal,
            Live live,
            TransactionSynchronizationRegistry transaction) {
        this.db = db;
        this.sites = sites;
        this.sealed = sealed;
        this.reach = reach;
        this.shapes = shapes;
        this.journal = journal;
        this.live = live;
        this.transaction = transaction;
    }

    /**
     * A resource as it is typed; an id changes the one that is there.
     *
     * @param version the version that was seen; null overwrites any version
     */
    public record SiteResourceStatement(
            Long id, String sort, @OneLine String name, Map<String, String> values, String version) {}

    /** The version of a site resource, as a digest. */
    public static String version(SiteResourceRow resource) {
        return IfMatch.version(List.of(
                resource.name,
                resource.value,
                resource.nonce == null ? "" : java.util.HexFormat.of().formatHex(resource.nonce)));
    }

    /** A resource of the site of a bring-up. */
    @Transactional
    public SiteResourceRow one(long bringUpId, long resourceId) {
        return one(bringUpId, resourceId, LockModeType.NONE);
    }

    private SiteResourceRow one(long bringUpId, long resourceId, LockModeType lock) {
        SiteResourceRow resource = db.find(SiteResourceRow.class, resourceId, lock);
        if (resource == null || !resource.siteId.equals(sites.bringUp(bringUpId).site.id)) {
            throw Refusal.notFound(PrepareText.NO_SUCH_ENTRY_AT_THIS_SITE.said());
        }
        return resource;
    }

    /** What a transaction has read of a site. */
    private record ResourceReading(long siteId) {}

    /**
     * Everything that a site has; read once in a transaction, since much of what is worked out for many units asks for
     * it.
     */
    public List<SiteResourceRow> rows(long siteId) {
        if (transaction.getTransactionKey() == null) {
            return read(siteId);
        }
        ResourceReading key = new ResourceReading(siteId);
        @SuppressWarnings("unchecked")
        List<SiteResourceRow> rows = (List<SiteResourceRow>) transaction.getResource(key);
        if (rows == null) {
            rows = read(siteId);
            transaction.putResource(key, rows);
        }
        return rows;
    }

    private List<SiteResourceRow> read(long siteId) {
        return db.createQuery("from SiteResourceRow where siteId = :site order by sort, name", SiteResourceRow.class)
                .setParameter("site", siteId)
                .getResultList();
    }

    private void readAgain(long siteId) {
        transaction.putResource(new ResourceReading(siteId), null);
    }

    public List<SiteResource> of(long siteId) {
        return rows(siteId).stream().map(SiteResourceRow::resource).toList();
    }

    /** What the site's policies answer, by their names. */
    public Map<String, String> policies(long siteId) {
        return SitePolicies.of(of(siteId));
    }

    /** The secrets of all site resources. */
    @Transactional
    public List<Secret> secrets() {
        return db.createQuery("from SiteResourceRow where sealed is not null", SiteResourceRow.class)
                .getResultStream()
                .flatMap(resource -> secret(resource).stream())
                .toList();
    }

    /** The secret of a site resource, such as the key of a domain. */
    public Optional<Secret> secret(SiteResourceRow resource) {
        return resource.sealed == null
                ? Optional.empty()
                : Optional.of(sealed.openText(
                        SealKeys.ofEntry(resource.id), resource.keyId, resource.nonce, resource.sealed));
    }

    @Transactional
    public long state(long bringUpId, SiteResourceStatement statement, Who.Person person) {
        BringUp bringUp = sites.bringUp(bringUpId);
        SiteResourceSort sort = SiteResourceSort.named(String.valueOf(statement.sort()))
                .orElseThrow(() -> Refusal.bad(PrepareText.NO_SUCH_TYPE.said(statement.sort())));
        SiteResourceRow resource = statement.id() == null
                ? new SiteResourceRow()
                : db.find(SiteResourceRow.class, statement.id(), LockModeType.PESSIMISTIC_WRITE);
        if (resource == null
                || resource.id != null
                        && (!resource.siteId.equals(bringUp.site.id) || !resource.sort.equals(sort.word()))) {
            throw Refusal.notFound(PrepareText.NO_SUCH_ENTRY_AT_THIS_SITE.said());
        }
        if (resource.id != null) {
            IfMatch.require(statement.version(), version(resource), resource.sort + " “" + resource.name + "”");
        }
        List<FieldFault> faults = shapes.faults(statement);
        String name = statement.name() == null ? "" : statement.name().strip();
        Map<String, String> typed = statement.values() == null ? Map.of() : statement.values();
        Map<String, String> values = read(sort, typed, resource, faults);
        for (String field : List.of("address", "primary")) {
            Optional.ofNullable(values.get(field))
                    .flatMap(Address::tryParse)
                    .flatMap(address -> reach.refuses(address, sort == SiteResourceSort.RELAY))
                    .ifPresent(why -> faults.add(new FieldFault(field, why)));
        }
        if (keepsSecret(resource, values) && leadsElsewhere(sort, resource, values)) {
            faults.add(new FieldFault("key", PrepareText.TYPE_THE_PASSWORD_AGAIN.said()));
        }
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
        if ((values.containsKey("key") || resource.sealed != null)
                && !person.role().equals("lead")) {
            throw Refusal.forbidden(PrepareText.ENTRIES_WITH_A_PASSWORD_CAN_ONLY_BE_ADDED.said());
        }
        refuseTwin(bringUp.site.id, sort, name, resource.id);
        if (resource.id == null && rows(bringUp.site.id).size() >= MOST) {
            throw Refusal.bad(PrepareText.SITE_HAS_AT_MOST_ENTRIES.said(MOST));
        }
        resource.siteId = bringUp.site.id;
        resource.sort = sort.word();
        resource.name = name;
        String secret = values.remove("key");
        resource.value = values;
        readAgain(resource.siteId);
        if (resource.id == null) {
            db.persist(resource);
            db.flush();
        }
        if (secret != null && !secret.equals(SEALED)) {
            SealKeys.Box box = sealed.sealText(SealKeys.ofEntry(resource.id), Secret.of(secret));
            resource.keyId = box.keyId();
            resource.nonce = box.nonce();
            resource.sealed = box.sealed();
        }
        db.flush();
        journal.write(
                person,
                bringUpId,
                null,
                "saved " + sort.title().toLowerCase(java.util.Locale.ROOT) + " “" + name + "”",
                null,
                values);
        live.tell(bringUpId, "prepare");
        return resource.id;
    }

    /** The unit of a bring-up whose machine has shown licence terms, and its kind. */
    public record ShownBy(long bringUpId, long unitId, String unit, String kind) {}

    /**
     * Keeps which text of licence terms was accepted for a kind; one that is kept already stays as it is. The text
     * itself is in the recording of the line.
     *
     * @param who a person's name, or the tool's where the site's recorded consent covered it
     */
    @Transactional
    public void accepted(ShownBy by, TermsText terms, String who, Instant at) {
        String name = by.kind + " " + terms.digest().substring(0, SHORT_DIGEST);
        int added = db.createNativeMutationQuery("insert into site_resource (site_id, sort, name, value) values "
                        + "(:site, :sort, :name, jsonb_build_object('kind', :kind, 'digest', :digest, 'who', :who, "
                        + "'when', :day, 'unit', :unit)) on conflict (site_id, sort, name) do nothing")
                .setParameter("site", sites.bringUp(by.bringUpId).site.id)
                .setParameter("sort", SiteResourceSort.TERMS.word())
                .setParameter("name", name)
                .setParameter("kind", by.kind)
                .setParameter("digest", terms.digest())
                .setParameter("who", who)
                .setParameter("day", LocalDate.ofInstant(at, ZoneOffset.UTC).toString())
                .setParameter("unit", by.unit)
                .executeUpdate();
        if (added > 0) {
            journal.writeWork(by.bringUpId, by.unitId, PrepareText.ACCEPTED_TERMS.text(name, who));
            live.tell(by.bringUpId, "prepare");
        }
    }

    private static Map<String, String> read(
            SiteResourceSort sort, Map<String, String> typed, SiteResourceRow before, List<FieldFault> faults) {
        Map<String, String> values = new LinkedHashMap<>();
        for (FactSpec field : sort.fields()) {
            String text = typed.get(field.name());
            boolean keptSecret = field.type() == FactType.SECRET
                    && before.sealed != null
                    && (text == null || text.isBlank() || text.equals(SEALED));
            if (keptSecret) {
                values.put(field.name(), SEALED);
            } else if (field.type() == FactType.SECRET && SEALED.equals(text)) {
                // the word in place of a secret that went with its entry: it must never pass for the secret, nor for
                // none
                faults.add(new FieldFault(field.name(), PrepareText.PASSWORD_IS_DELETED_WITH_ITS_ENTRY.said()));
            } else if (text == null || text.isBlank()) {
                if (field.wanted()) {
                    faults.add(new FieldFault(field.name(), PrepareText.IS_MISSING.said()));
                }
            } else {
                try {
                    values.put(field.name(), field.read(text));
                } catch (IllegalArgumentException e) {
                    faults.add(new FieldFault(field.name(), e.getMessage()));
                }
            }
        }
        return values;
    }

    private static boolean keepsSecret(SiteResourceRow before, Map<String, String> values) {
        return before.sealed != null && SEALED.equals(values.get("key"));
    }

    /**
     * Whether the password of an entry would be sent to another address, port or service than it was typed for, or as
     * somebody else.
     */
    private static boolean leadsElsewhere(SiteResourceSort sort, SiteResourceRow before, Map<String, String> values) {
        return sort.fields().stream()
                .map(FactSpec::name)
                .filter(field -> !field.equals("key") && sort.leadsSecret(field))
                .anyMatch(field -> !Objects.equals(before.value.get(field), values.get(field)));
    }

    private void refuseTwin(long siteId, SiteResourceSort sort, String name, Long own) {
        boolean twin = rows(siteId).stream()
                .anyMatch(row -> row.sort.equals(sort.word()) && row.name.equals(name) && !row.id.equals(own));
        if (twin) {
            throw Refusal.fields(List.of(new FieldFault("name", PrepareText.ALREADY_AN_ENTRY_WITH_THIS_NAME.said())));
        }
    }

    @Transactional
    public void remove(long bringUpId, long resourceId, String seen, Who.Person person) {
        SiteResourceRow resource = one(bringUpId, resourceId, LockModeType.PESSIMISTIC_WRITE);
        IfMatch.require(seen, version(resource), resource.sort + " “" + resource.name + "”");
        db.remove(resource);
        readAgain(resource.siteId);
        journal.write(
                person, bringUpId, null, "removed " + resource.sort + " “" + resource.name + "”", resource.value, null);
        live.tell(bringUpId, "prepare");
    }
}
