package lychnos.core.learn;

import lychnos.core.text.Message;

/** Why a step was learnt as it was, and why nothing can be learnt. */
public enum LearnText implements Message {
    ALWAYS_THE_SAME("A person said that it is always so."),
    COMMAND("Typed at a prompt that is shown again afterwards."),
    COMPARED("The machine shows planned values here."),
    ENTER_ALONE("Enter alone was typed."),
    FACT_OF_A_PERSON("Not planned; a person said what it is."),
    FACTORY_PASSWORD("Typed once, without being shown, before any password was set."),
    LISTED_IN_THE_QUESTION("The question lists this answer."),
    LOGIN_REFUSED("The password from before the new one was typed again, and the machine asked for the log-in again."),
    NEW_PASSWORD("Typed twice in a row, without being shown."),
    NO_KEYS("The recording does not hold what was typed. Record the setup once more with a program that keeps the "
            + "keys too."),
    NOT_PLANNED("Not planned: say what it is."),
    PASSWORD_OF_THE_PLAN("A password of this unit."),
    PASSWORD_WORKS("The password that was set before is asked for again."),
    SEVERAL_VALUES("Several planned values are equal to the entry."),
    SILENT("The machine was silent here."),
    SUGGESTED("The machine suggested it, and Enter took it."),
    VALUE_OF_THE_PLAN("The entry is equal to this planned value."),
    YES_OR_NO("A yes or a no.");

    private final String pattern;

    LearnText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
