package lychnos.core.dialogue;

import java.time.Instant;
import lychnos.core.dialogue.Conversation.State;
import lychnos.core.dialogue.Hold.Why;
import lychnos.core.dialogue.LineView.Question;

/** What ends a hold: a person who goes on, or the line itself. */
final class Decision {

    private final Course course;
    private final Gap gap;
    private final Identification identification;
    private final HumanInput input;

    Decision(Course course, Gap gap, Identification identification, HumanInput input) {
        this.course = course;
        this.gap = gap;
        this.identification = identification;
        this.input = input;
    }

    /** A person goes on; true, if the conversation may be let go now, false if a typed answer goes out first. */
    boolean apply(Instant now) {
        Why why = course.held().why();
        switch (why) {
            case USED -> {
                course.steps.plan(true);
                course.identified = true;
                course.behind(State.FOLLOWING);
            }
            case CUT -> {
                course.identified = true;
                gap.unheard = true;
                if (course.waitsWithoutEnd()) {
                    course.waitFrom(now);
                }
            }
            case OVERDUE -> {
                course.waitFrom(now);
                gap.mayHaveMissed = true;
            }
            case LATE -> course.waitsForTheNext(now);
            case WRONG_ANSWER, NOT_KNOWN -> {
                course.identified |= why == Why.NOT_KNOWN;
                course.emit(new Effect.Send(course.held().step(), "\r"));
                input.enterTyped(course.held().step(), now);
                return false;
            }
            default -> {
                gap.pageAwaited &= why != Why.NOT_SEEN;
                course.approved = course.held().step();
            }
        }
        return true;
    }

    /**
     * Whether the line itself has ended what a person was called for: it was silent, did not tell which machine it
     * is, asked something unknown and now asks something that is known, or has drawn the page that was judged
     * a second time.
     */
    boolean takenByTheLine() {
        Why why = course.held().why();
        boolean speaks =
                why == Why.SILENT && !gap.unheard && !course.line.shown().isBlank();
        boolean tells = !course.identified
                && (why == Why.CUT || why == Why.UNFORESEEN || why == Why.NOT_KNOWN)
                && course.dialogue.identify().see().in(gap.told(course.line.shown()));
        boolean judgedByItsPage = why == Why.DIFFERS || why == Why.NOT_SEEN || why == Why.UNFORESEEN;
        boolean drawn = course.identified && judgedByItsPage && course.erasedSinceHold();
        boolean asks = course.line.question().filter(Question::last).isPresent()
                && (course.identified || identification.logInStands());
        boolean known = (why == Why.UNFORESEEN || why == Why.LATE)
                && (asks
                        || course.identified
                                && course.dialogue
                                        .pagingKey(course.line.openLine())
                                        .isPresent());
        boolean loggedOut = why == Why.LET_IN
                && course.line
                        .question()
                        .filter(asked -> asked.step()
                                == course.steps.nextAsked(course.held().step()))
                        .isPresent();
        if (speaks || tells) {
            course.become(course.identified ? State.FOLLOWING : State.UNSURE);
        } else if (drawn || known || loggedOut) {
            course.rows.restart();
            course.letGo();
        }
        return course.held() == null;
    }
}
