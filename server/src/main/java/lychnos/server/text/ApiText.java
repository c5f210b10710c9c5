package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of what the interface answers for every stage. */
public enum ApiText implements Message {
    TOO_OFTEN("Too often"),
    REQUEST_HAS_NO_BODY("The request has no body."),
    CHANGED_MEANWHILE("Changed meanwhile"),
    SOME_VALUES_ARE_INVALID("Some values are invalid"),
    CONFLICT("Conflict"),
    ADDRESS_DOES_NOT_EXIST("This address does not exist."),
    ADDRESS_OF_THE_REQUEST_IS_TOO_LONG("The address of the request is too long."),
    ADDRESS_TOO_LONG("Address too long"),
    ALREADY_EXISTS("This already exists, perhaps since a moment ago. Reload before you add another."),
    BODY_IS_TOO_LARGE("The body of the request is too large."),
    BODY_IS_TOO_LARGE_FOR_THIS_ROUTE("The body of the request is too large for this route."),
    BODY_OF_THE_REQUEST_COULD_NOT_BE_READ("The body of the request could not be read."),
    DATABASE_DISK_IS_FULL("The database's disk is full"),
    DATABASE_DOES_NOT_ANSWER("The database does not answer"),
    DISK_OF_THE_DATABASE_IS_FULL(
            "Nothing was changed: the disk of the database is full. The operator of this server has to make "
                    + "room; then do it again."),
    FIRST_REQUEST_HAS_NO_ANSWER_YET(
            "The first request with this Idempotency-Key has no answer yet. Check whether it was carried out "
                    + "before you send another one."),
    FIRST_REQUEST_WAS_REFUSED("The first request with this Idempotency-Key was refused. Send the request again."),
    IDEMPOTENCY_KEY_HAS_ANOTHER_LENGTH("An Idempotency-Key has {shortest} to {longest} characters of ASCII."),
    IDEMPOTENCY_KEY_WAS_USED_ALREADY("This Idempotency-Key was used for another request."),
    INTERNAL_ERROR("Internal error"),
    INVALID_REQUEST("Invalid request"),
    LOOK(": look at “{more}”"),
    LOOK_AT_LINE(": look at line {line}, column {column}"),
    METHOD_NOT_ALLOWED("Method not allowed"),
    NOT_ACCEPTABLE("Not acceptable"),
    NOT_ALLOWED("Not allowed"),
    NOT_FOUND("Not found"),
    NOT_POSSIBLE("Not possible"),
    NOT_SIGNED_IN("Not signed in"),
    NOT_UNDERSTOOD("Not understood"),
    NO_SUCH_BRING_UP("There is no such bring-up."),
    REFERS_TO_SOMETHING_THAT_IS_GONE("This refers to something that is gone, or is still in use."),
    REQUEST_CANNOT_BE_CARRIED_OUT("The request cannot be carried out."),
    REQUEST_COMES_FROM_ANOTHER_ORIGIN(
            "This request comes from a page of another origin. Only pages of this server change something here."),
    REQUEST_IS_NOT_JSON_IN_THE_FORMAT("The request is not JSON in the format of this route{place}."),
    REQUEST_WAS_ALREADY_CARRIED_OUT(
            "This request was already carried out; its answer is not stored and cannot be repeated."),
    ROUTE_DOES_NOT_SUPPORT_THE_CONTENT_TYPE(
            "This route does not support the content type of the body; see the API document."),
    ROUTE_DOES_NOT_SUPPORT_THE_FORMATS("This route does not support the formats of the Accept header."),
    ROUTE_DOES_NOT_SUPPORT_THE_METHOD(
            "This route does not support the method; the Allow header lists the supported ones."),
    SERVER_CANNOT_REACH_ITS_DATABASE(
            "The server is running but cannot reach its database. Your last change may not be saved: look again "
                    + "later. Running jobs continue automatically."),
    SESSIONS_CANNOT_BE_READ_NOW("It cannot be read now which sessions are still good"),
    SIGN_IN_FIRST("Sign in first."),
    SOMEBODY_ELSE_CHANGED_OR_DELETED("Somebody else changed or deleted this at the same time. Reload and try again."),
    SOMEBODY_ELSE_CHANGED_THIS_AT_THE_SAME_TIME(
            "Somebody else changed this at the same time, so nothing was changed. Try again."),
    TEXT_CONTAINS_A_CHARACTER_THAT_CANNOT("A text contains a character that cannot be stored, such as NUL."),
    TOO_LARGE("Too large"),
    UNEXPECTED_ERROR_OCCURRED("An unexpected error occurred. The server's log has the details under {id}."),
    UNSUPPORTED_MEDIA_TYPE("Unsupported media type"),
    VALUE_IS_OUT_OF_RANGE("A value is out of range. The API document has the limits."),
    WAS_CHANGED_SINCE_YOU_LOADED_IT(
            "{what} was changed by somebody else since you loaded it, so nothing was saved: look at the current "
                    + "values, then save again."),
    YOUR_ROLE_DOES_NOT_ALLOW("Your role does not allow this. Ask a lead.");

    private final String pattern;

    ApiText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
