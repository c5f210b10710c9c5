package lychnos.server.configure.network;

import java.time.Clock;
import java.util.List;
import java.util.stream.IntStream;
import lychnos.core.dialogue.Conversation.Progress;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep;
import lychnos.core.dialogue.DialogueStep.Controller;
import lychnos.core.dialogue.DialogueStep.Page;
import lychnos.core.dialogue.DialogueStep.Remote;
import lychnos.core.dialogue.Values;
import lychnos.server.configure.model.LineKeys;
import lychnos.server.configure.plan.Openings;
import lychnos.server.jobs.Held;
import lychnos.server.text.ConfigureText;
import lychnos.wire.fault.WireFault;
import lychnos.wire.vantage.Vantage;

/** Carries steps out over the wire: a page over its documented interface, a controller over Redfish. */
final class WireSteps {

    private final Held held;
    private final Dialogue dialogue;
    private final Values own;
    private final Vantage vantage;
    private final int usualPort;
    private final PageSurroundings around;
    private final Clock clock;
    private final List<DialogueStep> steps;
    private final List<Progress> progress;
    private final PageSteps pages;

    /** @param progress of each step, as it is at any time */
    WireSteps(
            Held held,
            Openings.LineOpening opening,
            Values own,
            Vantage vantage,
            PageSurroundings around,
            Clock clock,
            List<DialogueStep> steps,
            List<Progress> progress) {
        this.held = held;
        this.dialogue = opening.dialogue();
        this.own = own;
        this.vantage = vantage;
        this.usualPort = opening.values().known().kind().port();
        this.around = around;
        this.clock = clock;
        this.steps = steps;
        this.progress = progress;
        pages = new PageSteps(dialogue.over(), own, vantage, usualPort, this::trusts);
    }

    /** Over the page's documented interface, or over Redfish. */
    RemoteStep step(int place, Remote step) {
        return step instanceof Page page
                ? pages.step(place, page, phrase())
                : new ControllerStep(
                        place,
                        (Controller) step,
                        own,
                        vantage,
                        usualPort,
                        (mac, port) -> around.find(held, mac, port),
                        this::trusts,
                        clock);
    }

    /**
     * The machine's own log, as its interface shows it.
     *
     * @throws WireFault if its kind names no resource for it, or that cannot be read
     */
    String log() throws WireFault {
        if (dialogue.log() == null || dialogue.log().onConsole()) {
            throw new WireFault(WireFault.Kind.NOT_DECLARED, ConfigureText.KIND_NAMES_NO_RESOURCE_FOR_IT.text());
        }
        return pages.log(dialogue.log().resource(), phrase());
    }

    /** As long as this setup runs; a machine that has the address later must not be trusted for it. */
    private boolean trusts(String place, String fingerprint) {
        return around.trusts(LineKeys.during(held.runId(), place), fingerprint);
    }

    /** Where the password of this member's pages stands. */
    private PageSteps.Phrase phrase() {
        String phrase = dialogue.over().phrase();
        List<Progress> setting = IntStream.range(0, steps.size())
                .filter(i -> steps.get(i) instanceof Page page
                        && PageSteps.setting(phrase).test(page))
                .mapToObj(progress::get)
                .toList();
        if (setting.contains(Progress.DONE)) {
            return PageSteps.Phrase.OURS;
        }
        if (setting.contains(Progress.SENT)) {
            return PageSteps.Phrase.BEING_CHANGED;
        }
        return around.proven(held, phrase) ? PageSteps.Phrase.PERHAPS_OURS : PageSteps.Phrase.AS_DELIVERED;
    }
}
