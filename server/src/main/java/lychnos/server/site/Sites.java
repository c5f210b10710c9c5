package lychnos.server.site;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.persistence.LockModeType;
import java.util.List;
import lychnos.server.api.problem.Refusal;
import lychnos.server.text.PrepareText;
import org.hibernate.Session;

/** Sites, the realms of their networks, and the bring-ups at them. */
@ApplicationScoped
public class Sites {

    /** Where nobody names another, all networks of a site route to each other. */
    public static final String REALM = "management";

    private final Session db;

    Sites(Session db) {
        this.db = db;
    }

    /** All bring-ups, the one that is due first at the front. */
    public List<BringUp> bringUps() {
        return db.createQuery("from BringUp order by due nulls last, id", BringUp.class)
                .getResultList();
    }

    /** @throws Refusal if there is none */
    public BringUp bringUp(long id) {
        BringUp found = db.find(BringUp.class, id);
        if (found == null) {
            throw Refusal.notFound(PrepareText.NO_SUCH_BRING_UP.said());
        }
        return found;
    }

    /** The bring-ups of a site. */
    public List<BringUp> bringUpsOf(long siteId) {
        return db.createQuery("from BringUp where site.id = :site order by id", BringUp.class)
                .setParameter("site", siteId)
                .getResultList();
    }

    /** Lets one transaction at a time add something to a site. */
    public void lock(long siteId) {
        db.find(Site.class, siteId, LockModeType.PESSIMISTIC_WRITE);
    }

    /**
     * The site with this code; it is made where it is new.
     *
     * @param name of a new one; where it is null or blank, the code
     */
    public Site site(String code, String name) {
        return db.createQuery("from Site where code = :code", Site.class)
                .setParameter("code", code)
                .getResultStream()
                .findFirst()
                .orElseGet(() -> {
                    Site site = new Site();
                    site.code = code;
                    site.name = name == null || name.isBlank() ? code : name.strip();
                    db.persist(site);
                    db.flush();
                    return site;
                });
    }

    /**
     * The realm of that name: networks that route to each other, in which an address is unique. It is made where it is
     * new.
     */
    public long realm(long siteId, String name) {
        return ((Number) db.createNativeQuery(
                                "insert into realm (site_id, name) values (:site, :name) on conflict (site_id, name) "
                                        + "do update set name = excluded.name returning id",
                                Long.class)
                        .setParameter("site", siteId)
                        .setParameter("name", name)
                        .getSingleResult())
                .longValue();
    }
}
