package lychnos.server.kinds;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.transaction.Transactional;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import lychnos.core.kind.KindFault;
import lychnos.core.kind.KindFaults;
import lychnos.core.kind.KindForm;
import lychnos.core.kind.KindReader;
import lychnos.server.api.problem.Refusal;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.identity.caller.Who;
import lychnos.server.text.KindText;
import org.hibernate.Session;

/** New kinds from the short form: what is typed becomes a draft. */
@ApplicationScoped
public class KindForms {

    private static final int MOST_ENTRIES = 40;
    private static final int HTTPS = 443;

    /** By where a fault lies in the description, the field of the form that it comes from. */
    private static final Map<String, String> FIELDS = Map.of(
            "kind", "title",
            "title", "title",
            "short", "shortName",
            "members", "members",
            "addresses", "each",
            "factory", "user",
            "checks", "port",
            "dialogue", "sheet",
            "facts", "label");

    private final Session db;
    private final KindDrafts drafts;

    KindForms(Session db, KindDrafts drafts) {
        this.db = db;
        this.drafts = drafts;
    }

    /** A field of a value sheet: what the machine calls it, and what is entered there. */
    public record SheetField(String name, String value) {}

    /** A page of a value sheet. */
    public record FormSheet(String title, List<SheetField> fields) {}

    /** The form as it is typed; what is left out is empty. {@code port} is 443 where it is left out. */
    public record KindFormText(
            String title,
            String shortName,
            List<String> members,
            int each,
            int shared,
            List<String> label,
            String user,
            String password,
            Integer port,
            List<Integer> open,
            List<Integer> closed,
            String firstPage,
            List<FormSheet> sheet) {

        private KindForm form() {
            List<KindForm.Page> pages = new ArrayList<>();
            for (FormSheet page : orNone(sheet)) {
                Map<String, String> fields = new LinkedHashMap<>();
                orNone(page.fields).forEach(field -> fields.put(orEmpty(field.name), orEmpty(field.value)));
                pages.add(new KindForm.Page(orEmpty(page.title), fields));
            }
            return new KindForm(
                    KindForm.word(orEmpty(title)),
                    orEmpty(title).strip(),
                    orEmpty(shortName).strip(),
                    stripped(members),
                    each,
                    shared,
                    stripped(label),
                    orEmpty(user),
                    orEmpty(password),
                    port == null ? HTTPS : port,
                    orNone(open),
                    orNone(closed),
                    orEmpty(firstPage),
                    pages);
        }

        private static List<String> stripped(List<String> texts) {
            return orNone(texts).stream()
                    .map(text -> orEmpty(text).strip())
                    .filter(text -> !text.isEmpty())
                    .toList();
        }

        private static String orEmpty(String text) {
            return text == null ? "" : text;
        }

        private static <T> List<T> orNone(List<T> all) {
            List<T> list = all == null ? List.of() : all;
            if (list.size() > MOST_ENTRIES || list.stream().anyMatch(Objects::isNull)) {
                throw Refusal.bad(KindText.LIST_OF_THE_FORM_HAS_AT_MOST_ENTRIES.said(MOST_ENTRIES));
            }
            return list;
        }
    }

    /** Saves what the form says as the draft of a new kind. */
    @Transactional
    public KindDrafts.KindDraftView save(KindFormText form, Who.Person person) {
        KindForm typed = form.form();
        String text = text(typed);
        if (!db.createNativeQuery("select 1 from kind where id = :id", Integer.class)
                .setParameter("id", typed.id())
                .getResultList()
                .isEmpty()) {
            throw Refusal.fields(List.of(new FieldFault("title", KindText.A_KIND.said(typed.id()))));
        }
        return drafts.save(typed.id(), text, "0", person);
    }

    private static String text(KindForm form) {
        try {
            String text = form.text();
            KindReader.read(text);
            return text;
        } catch (KindFaults e) {
            throw Refusal.fields(e.faults().stream().map(KindForms::fault).toList());
        } catch (IllegalArgumentException e) {
            throw Refusal.fields(List.of(new FieldFault("each", e.getMessage())));
        }
    }

    private static FieldFault fault(KindFault fault) {
        return new FieldFault(FIELDS.getOrDefault(fault.path().split("[.\\[ ]")[0], "title"), fault.reason());
    }
}
