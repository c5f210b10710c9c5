package lychnos.server.prove;

import jakarta.enterprise.context.ApplicationScoped;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.PageFill;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.MemberValues;
import lychnos.server.allocate.Claim;
import lychnos.server.configure.model.LineKeys;
import lychnos.server.configure.model.MemberDialogue;
import lychnos.wire.ladder.Target;
import lychnos.wire.pages.MachinePages;

/** The documented interfaces of machines' pages that checks read. */
@ApplicationScoped
class CheckedPages {

    private final LineKeys keys;

    CheckedPages(LineKeys keys) {
        this.keys = keys;
    }

    /**
     * The interface of the machine's pages, where it is served at this address; or where it is served at the address
     * of the controller inside the machine, and this is the first address of the machine itself.
     *
     * @param setUp its setup; null before that
     * @return null where nothing is read there
     */
    Target.Pages of(
            Endpoints.EndpointsAbout about,
            Dialogue dialogue,
            Claim claim,
            String member,
            MemberValues own,
            MemberDialogue setUp) {
        Dialogue.PageInterface over = dialogue.over();
        String at = over.at().fill(own::text).orElse("");
        boolean here = at.matches("https://\\Q" + claim.address + "\\E[:/].*");
        Optional<String> elsewhere = here || at.isEmpty() || setUp == null || !isFirstOfItsOwn(about, claim, member)
                ? Optional.empty()
                : keys.remembered(LineKeys.during(
                        setUp.runId, MachinePages.peer(at, about.kind().port())));
        if (!here && elsewhere.isEmpty()) {
            return null;
        }
        String user = over.user().fill(own::text).orElse("");
        Map<String, String> must = over.must().entrySet().stream()
                .filter(each -> each.getValue().fill(own::text).isPresent())
                .collect(Collectors.toMap(
                        Map.Entry::getKey,
                        each -> each.getValue().fill(own::text).get()));
        Map<String, Target.Fill> fills = new LinkedHashMap<>();
        List<DialogueStep> pages = new ArrayList<>(dialogue.withPages(member, false));
        pages.addAll(over.reads());
        for (DialogueStep step : pages) {
            if (step instanceof DialogueStep.Page page
                    && page.driven()
                    && !new PageFill(page, own).planned().isEmpty()
                    && new PageFill(page, own).lacking().isEmpty()) {
                fills.put(page.title(), new Target.Fill(page.resource(), new PageFill(page, own)));
            }
        }
        Secret factory = about.rows().with(about.kind(), about.unit().id, member).logins().stream()
                .filter(login -> ("factory." + login.way() + ".phrase").equals(over.first()))
                .map(login -> login.login().phrase())
                .findFirst()
                .orElse(over.hasFirst() ? about.phrase(over.first(), member) : null); // it stands on the machine's card
        return new Target.Pages(
                at,
                new Target.Login(
                        user,
                        Optional.ofNullable(about.phrase(over.phrase(), member))
                                .orElse(setUp != null ? about.typed().get(over.phrase()) : null)),
                new Target.Login(user, factory),
                over.about(),
                must,
                over.shows(),
                fills,
                elsewhere.orElse(null));
    }

    /** Whether no controller has this address, and no earlier one of the member is without a controller. */
    private static boolean isFirstOfItsOwn(Endpoints.EndpointsAbout about, Claim claim, String member) {
        List<String> controllers = about.kind().dialogue().orElseThrow().withPages(member, false).stream()
                .filter(DialogueStep.Controller.class::isInstance)
                .map(step -> (member + " " + ((DialogueStep.Controller) step).role()).strip())
                .toList();
        return !controllers.isEmpty()
                && about.rows().claims().getOrDefault(about.unit().id, List.of()).stream()
                        .map(each -> each.role)
                        .filter(role -> role.equals(member) || role.startsWith(member + " "))
                        .filter(role -> !controllers.contains(role))
                        .findFirst()
                        .filter(claim.role::equals)
                        .isPresent();
    }
}
