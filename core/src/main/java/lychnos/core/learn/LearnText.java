package lychnos.core.learn;

import lychnos.core.text.Message;

/** Why a step was learnt as it was. */
public enum LearnText implements Message {
    ALWAYS_THE_SAME("A person said that it is always so."),
    COMMAND("It was typed at a prompt that shows again afterwards."),
    COMPARED("The machine shows planned values here."),
    ENTER_ALONE("Enter alone was typed."),
    FACT_OF_A_PERSON("It was not planned. A person said what it is."),
    FACTORY_PASSWORD("It was typed once, without being shown, before any password was set."),
    LISTED_IN_THE_QUESTION("The question lists this answer."),
    NEW_PASSWORD("It was typed twice in a row, without being shown."),
    NOT_PLANNED("It was not planned. Say what it is."),
    PASSWORD_OF_THE_PLAN("It is a password of this unit."),
    PASSWORD_WORKS("The password that was set before is asked for again."),
    SEVERAL_VALUES("Several planned values are equal to it."),
    SILENT("The machine was silent here."),
    SUGGESTED("The machine suggested it, and Enter took it."),
    VALUE_OF_THE_PLAN("It is equal to this planned value."),
    YES_OR_NO("It is a yes or a no.");

    private final String pattern;

    LearnText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
