package lychnos.server.configure.network;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiPredicate;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Dialogue.PageInterface;
import lychnos.core.dialogue.DialogueStep.Mark;
import lychnos.core.dialogue.DialogueStep.Page;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.Mode;
import lychnos.core.dialogue.PageFill;
import lychnos.core.dialogue.Template;
import lychnos.core.dialogue.Values;
import lychnos.core.fact.SecretSearch;
import lychnos.server.text.ConfigureText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.pages.MachinePages;
import lychnos.wire.pages.MachinePages.Login;
import lychnos.wire.pages.PageFault;
import lychnos.wire.vantage.Vantage;

/** A member's pages, over the interface that its machine documents. */
final class PageSteps {

    /** Where the password of the pages stands. */
    enum Phrase {
        AS_DELIVERED,
        /** As delivered as far as is known, unless an earlier setup changed it. */
        PERHAPS_OURS,
        /** It was being changed when the work was broken off. */
        BEING_CHANGED,
        OURS
    }

    private final PageInterface over;
    private final Values values;
    private final Vantage vantage;
    private final int usualPort;
    private final BiPredicate<String, String> trusts;
    private boolean known;

    /** @param trusts whether the certificate of a place is the one that it has shown before */
    PageSteps(PageInterface over, Values values, Vantage vantage, int usualPort, BiPredicate<String, String> trusts) {
        this.over = over;
        this.values = values;
        this.vantage = vantage;
        this.usualPort = usualPort;
        this.trusts = trusts;
    }

    static Predicate<Page> setting(String phrase) {
        return page -> page.driven()
                && page.fields().values().stream()
                        .anyMatch(field -> field.value().names().contains(phrase));
    }

    /** @param phrase where their password stands now */
    RemoteStep step(int place, Page page, Phrase phrase) {
        return new Filling(place, page, phrase);
    }

    private MachinePages pages() throws WireFault {
        MachinePages pages = new MachinePages(
                vantage,
                over.at()
                        .fill(values::text)
                        .orElseThrow(() -> new WireFault(
                                WireFault.Kind.NOT_DECLARED, ConfigureText.ITS_ADDRESS_IS_NOT_KNOWN.text())),
                usualPort);
        String shown = pages.see();
        if (!trusts.test(pages.peer(), shown)) {
            throw new WireFault(
                    WireFault.Kind.OTHER_CERTIFICATE, ConfigureText.PAGES_SHOW_ANOTHER_CERTIFICATE.text(shown));
        }
        return pages;
    }

    private Login login(String phrase) throws WireFault {
        String user = over.user().fill(values::text).orElse("");
        return new Login(
                user,
                values.secret(phrase)
                        .orElseThrow(() -> new WireFault(
                                WireFault.Kind.NOT_DECLARED, ConfigureText.ITS_PASSWORD_IS_NOT_KNOWN.text())));
    }

    /** What logs in now. Where that is not sure, one try each, the likelier one first. */
    private Login login(MachinePages pages, Phrase phrase) throws WireFault, PageFault {
        Login ours = login(over.phrase());
        Login delivered = login(over.first());
        return switch (phrase) {
            case OURS -> ours;
            case AS_DELIVERED -> delivered;
            case BEING_CHANGED -> admits(pages, ours) ? ours : delivered;
            case PERHAPS_OURS -> admits(pages, delivered) ? delivered : ours;
        };
    }

    /** What a resource shows, as text, without passwords. */
    String log(String resource, Phrase phrase) throws WireFault {
        try {
            MachinePages pages = pages();
            String text = pages.text(resource, login(pages, phrase));
            return new SecretSearch(values.secrets()).blank(text).text();
        } catch (PageFault e) {
            throw new WireFault(WireFault.Kind.GARBAGE, e.getMessage(), e);
        }
    }

    private boolean admits(MachinePages pages, Login login) throws WireFault, PageFault {
        try {
            pages.read(over.about(), login);
            return true;
        } catch (PageFault e) {
            if (!e.refusesLogin()) {
                throw e;
            }
            return false;
        }
    }

    /** One page. */
    private final class Filling implements RemoteStep {

        private final int place;
        private final Page page;
        private final PageFill fill;
        private final Phrase phrase;
        private final boolean setsPhrase;

        Filling(int place, Page page, Phrase phrase) {
            this.place = place;
            this.page = page;
            this.phrase = phrase;
            fill = new PageFill(page, values);
            setsPhrase = setting(over.phrase()).test(page);
        }

        @Override
        public String what() {
            return ConfigureText.ITS_PAGES.text();
        }

        @Override
        public List<String> lacking() {
            return fill.lacking();
        }

        @Override
        public Optional<Hold> stops(Mode mode) {
            return fill.stops(place, mode);
        }

        @Override
        public Outcome carryOut(boolean begun, Sending sending) throws WireFault {
            try {
                MachinePages pages = pages();
                Login login = login(pages, phrase);
                Optional<Hold> other = isAnother(pages, login);
                return other.isPresent() ? new Outcome.Stands(other.get()) : fillIn(pages, login, sending);
            } catch (PageFault e) {
                return refused(e);
            }
        }

        /** Identifies the machine once, before anything is written. */
        private Optional<Hold> isAnother(MachinePages pages, Login login) throws WireFault, PageFault {
            if (known) {
                return Optional.empty();
            }
            Map<String, String> about = pages.read(over.about(), login);
            for (Map.Entry<String, Template> must : over.must().entrySet()) {
                String wanted = must.getValue().fill(values::text).orElse("unknown");
                String is = about.getOrDefault(must.getKey(), "");
                if (!is.equals(wanted)) {
                    return Optional.of(hold(
                            Why.WRONG_MACHINE,
                            ConfigureText.PAGES_ARE_OF_ANOTHER_MACHINE.text(
                                    pages.peer(), (is.isEmpty() ? "missing" : is), wanted),
                            ""));
                }
            }
            known = true;
            return Optional.empty();
        }

        private Outcome fillIn(MachinePages pages, Login login, Sending sending) throws WireFault, PageFault {
            Map<String, String> before = pages.read(page.resource(), login);
            List<String> inTheWay = fill.missingBefore(before);
            if (!inTheWay.isEmpty()) {
                return stands(Why.PAGE, ConfigureText.NOT_WRITTEN.text(page.title(), String.join("; ", inTheWay)), "");
            }
            List<PageFill.Difference> came = fill.differences(before);
            if (!sending.keep(
                    String.join(", ", fill.entry().texts().values()),
                    setsPhrase ? List.of(over.phrase()) : List.of())) {
                return new Outcome.NotKept();
            }
            pages.write(page.resource(), login, fill.entry());
            Map<String, String> shown =
                    pages.read(page.resource(), setsPhrase ? PageSteps.this.login(over.phrase()) : login);
            List<String> off = new ArrayList<>(
                    fill.differences(shown).stream().map(Object::toString).toList());
            off.addAll(fill.missing(shown));
            if (!off.isEmpty()) {
                return stands(Why.PAGE, ConfigureText.WAS_WRITTEN.text(page.title(), String.join("; ", off)), "");
            }
            if (page.waits() != null && !fill.over(shown)) {
                return new Outcome.Works(evidence(came));
            }
            return new Outcome.Done(
                    evidence(came),
                    setsPhrase && page.is(Mark.PROVES) ? List.of(over.phrase()) : List.of(),
                    fill.told(shown));
        }

        private String evidence(List<PageFill.Difference> came) {
            String before = came.stream()
                    .filter(each -> !each.shown().isEmpty() && !each.shown().equals("0"))
                    .map(each -> ConfigureText.FIELD_CAME_AS.text(each.field(), each.shown()))
                    .collect(Collectors.joining("; "));
            int fields = fill.entry().texts().size();
            return (before.isEmpty() ? "" : before + "; ")
                    + (fields == 0 ? "accepted" : ConfigureText.FIELDS_READ_BACK.text(fields, fields));
        }

        @Override
        public Outcome look() throws WireFault {
            try {
                MachinePages pages = pages();
                Map<String, String> shown = pages.read(page.resource(), login(pages, phrase));
                return fill.over(shown) ? new Outcome.Done("", List.of(), fill.told(shown)) : new Outcome.Works("");
            } catch (PageFault e) {
                return refused(e);
            }
        }

        private Outcome refused(PageFault fault) {
            return stands(
                    Why.PAGE,
                    fault.refusesLogin()
                            ? ConfigureText.PAGES_REFUSE_THE_LOGIN.text()
                            : ConfigureText.MACHINE_REJECTED.text(page.title(), fault.getMessage()),
                    fault.getMessage());
        }

        private Outcome stands(Why why, String sentence, String shown) {
            return new Outcome.Stands(hold(why, sentence, shown));
        }

        private Hold hold(Why why, String sentence, String shown) {
            return new Hold(why, place, sentence, shown, "");
        }
    }
}
