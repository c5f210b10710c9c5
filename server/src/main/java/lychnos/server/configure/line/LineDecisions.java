package lychnos.server.configure.line;

import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;
import java.util.stream.Stream;
import lychnos.core.dialogue.Conversation;
import lychnos.core.dialogue.Dialogue;
import lychnos.core.dialogue.DialogueStep.Asked;
import lychnos.core.dialogue.Effect;
import lychnos.core.dialogue.Hold;
import lychnos.core.fact.Secret;
import lychnos.core.sheet.MemberValues;
import lychnos.server.text.ConfigureText;

/** What people decide on a line. Each says why not, or nothing. */
final class LineDecisions {

    private final Conversation conversation;
    private final Dialogue dialogue;
    private final LineChanges changes;
    private final Consumer<List<Effect>> apply;

    /** @param apply keeps and carries out what the conversation wants done */
    LineDecisions(Conversation conversation, Dialogue dialogue, LineChanges changes, Consumer<List<Effect>> apply) {
        this.conversation = conversation;
        this.dialogue = dialogue;
        this.changes = changes;
        this.apply = apply;
    }

    Optional<String> goOn(String typed, Instant now) {
        Optional<Hold> before = conversation.hold();
        if (before.isEmpty()) {
            return Optional.of(ConfigureText.NO_DECISION_IS_NEEDED.text());
        }
        if (!before.get().why().passable()) {
            return Optional.of(ConfigureText.CANNOT_BE_SKIPPED.text(before.get().sentence()));
        }
        apply.accept(conversation.goOn(typed, now));
        boolean stays =
                conversation.hold().equals(before) && !before.get().typed().isEmpty();
        return stays
                ? Optional.of(ConfigureText.TYPE_IT_TO_SEND.text(before.get().typed()))
                : Optional.empty();
    }

    /** Types a planned value or a password, where a person sets the machine up by hand. */
    Optional<String> typeValue(String name, MemberValues values, Instant now) {
        Optional<Secret> value = values.text(name).map(Secret::of).or(() -> values.secret(name));
        if (!dialogue.byHand() || value.isEmpty()) {
            return Optional.of(ConfigureText.NO_VALUE_TO_TYPE.text(name));
        }
        apply.accept(value.get().use(keys -> conversation.typed(keys, now)));
        return Optional.empty();
    }

    /** A person says that the setup by hand has come to its end. */
    Optional<String> finish() {
        if (!dialogue.byHand()) {
            return Optional.of(ConfigureText.SETUP_IS_NOT_BY_HAND.text());
        }
        apply.accept(conversation.finish());
        return Optional.empty();
    }

    Optional<String> fetchLog(Instant now) {
        Optional<String> refused = conversation.fetchLog(now);
        apply.accept(conversation.effects());
        return refused;
    }

    Optional<String> again(Instant now) {
        if (conversation.state() != Conversation.State.STOPPED) {
            return Optional.of(ConfigureText.LINE_IS_NOT_STOPPED.text());
        }
        changes.note("");
        apply.accept(conversation.again(now));
        return Optional.empty();
    }

    /** What the step lacks that a person or another team still has to say; empty where nothing is waited for. */
    List<String> lacks(MemberValues values) {
        return conversation
                .hold()
                .filter(hold -> hold.why().endsWhenKnown() && hold.step() >= 0)
                .map(hold -> (Asked) conversation.steps().get(hold.step()))
                .map(asked -> Stream.concat(Stream.of(asked.after()), asked.answer().names().stream())
                        .filter(name -> !name.isEmpty() && values.text(name).isEmpty())
                        .toList())
                .orElse(List.of());
    }
}
