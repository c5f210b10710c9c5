package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of people, sessions and tokens. */
public enum IdentityText implements Message {
    ALREADY_AN_ACCOUNT("There is already an account “{login}”."),
    AND_MORE_FROM_THERE_SINCE_THE_ENTRY_BEFORE(" (and {since} more from there since the entry before)"),
    CHANGED_THE_ACCOUNT("changed the account {login}"),
    CHANGED_THE_PASSWORD("changed the password"),
    CODE_DOES_NOT_MATCH_THE_SERVER_LOG("This code does not match the server's log, or has been used already."),
    CREATED_A_PASSWORD_LINK("created a password link for {login}"),
    CREATED_THE_TOKEN_FOR_A_PROGRAM("created the token “{name}” for a program, as {role}, until {ends}"),
    ENDED_SESSIONS("ended {count} {count|session|sessions} of {login}"),
    ENTER_CODE_LOGIN("Enter code, login, name and password."),
    ENTER_LOGIN_AND_PASSWORD("Enter login and password."),
    ENTER_YOUR_CURRENT_PASSWORD("Enter your current password."),
    ENTER_YOUR_PASSWORD("Enter your password."),
    INVITED("invited {login} as {role}"),
    IS_DISABLED_ENABLE_THE_ACCOUNT_FIRST("{login} is disabled. Enable the account first."),
    IS_NOT_YOUR_PASSWORD("This is not your password."),
    IS_THE_ONLY_LEAD("{login} is the only lead. Make another person a lead first."),
    LINK_HAS_BEEN_USED_ALREADY_OR_HAS_EXPIRED(
            "This link has been used already or has expired. Ask a lead for a new one."),
    LOGIN_OR_PASSWORD_IS_WRONG("Login or password is wrong."),
    NO_ACCOUNT_HAS_THIS_PASSWORD("no account has this password"),
    NO_SUCH_ACCOUNT("There is no such account."),
    PASSWORD_CONSISTS_OF_COMMON_WORDS(
            "This password consists of common words that are tried first. Use several words that have "
                    + "nothing to do with each other."),
    PASSWORD_HAS_AT_LEAST_CHARACTERS("A password has at least {shortest} characters."),
    PASSWORD_HAS_AT_MOST_BYTES("A password has at most {longest} bytes."),
    PASSWORD_HAS_AT_MOST_CHARACTERS("A password has at most {longest} characters."),
    PASSWORD_IS_A_SIMPLE_PATTERN(
            "This password is a simple pattern that is guessed quickly. Use several words that have "
                    + "nothing to do with each other."),
    REFUSED_AN_UNKNOWN_LOGIN("refused a sign-in from {source}: no such login"),
    REFUSED_A_WRONG_PASSWORD("refused a sign-in as {login} from {source}: wrong password"),
    REFUSED_SIGN_INS("refused sign-ins from {source}: too many at once"),
    REVOKED_THE_TOKEN("revoked the token “{name}”"),
    SET_A_PASSWORD_BY_A_LINK("set a password by a link"),
    SET_UP_THE_FIRST_LEAD("set up the account of the first lead"),
    SIGNED_IN("signed in from {source}"),
    SIGNED_OUT("signed out of {count} {count|session|sessions}"),
    SIGN_IN_AGAIN("Enter your password again for this."),
    TOKEN_CANNOT_DO_THIS("A token cannot do this. Sign in as a person."),
    TOKEN_CANNOT_HAVE_A_HIGHER_ROLE_THAN_YOU("A token cannot have a higher role than you: {most}."),
    TOO_MANY_SIGN_INS_AT_THE_MOMENT("Too many sign-ins at the moment. Try again in {seconds} seconds."),
    WHAT_IS_CHANGED("What is changed?"),
    YOU_ALREADY_HAVE_A_TOKEN("You already have a token “{name}”; revoke it first."),
    YOU_HAVE_NO_SUCH_SESSION("You have no such session."),
    YOU_HAVE_NO_SUCH_TOKEN("You have no such token.");

    private final String pattern;

    IdentityText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
