package lychnos.core.learn;

import java.util.List;
import java.util.Optional;
import java.util.Set;

/**
 * What was learnt from one setup.
 *
 * @param see how the machine is identified, as a pattern with a group for its serial number; nothing where it never
 *     said which one it is
 * @param unused what it calls itself before it was set up; empty where it says nothing of it
 * @param logIn what it asks before it is identified
 * @param steps the setup
 * @param chatter patterns of lines that come at any moment
 * @param paging patterns of lines at which a space goes on
 * @param redraws whether a silent line is woken by the key that draws the screen again
 * @param refused how it says that it does not take an answer
 * @param facts that a unit needs besides those that its kind has
 * @param questions what a person has to answer before it is complete
 * @param complete whether all of the log was read
 */
public record Draft(
        Optional<String> see,
        String unused,
        List<LearntStep> logIn,
        List<LearntStep> steps,
        Set<String> chatter,
        Set<String> paging,
        boolean redraws,
        Optional<String> refused,
        List<LearntFact> facts,
        List<LearnQuestion> questions,
        boolean complete) {

    public Draft {
        logIn = List.copyOf(logIn);
        steps = List.copyOf(steps);
        facts = List.copyOf(facts);
        questions = List.copyOf(questions);
    }

    /** Whether nothing is left for a person to answer. */
    public boolean settled() {
        return questions.isEmpty();
    }
}
