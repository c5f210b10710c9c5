package lychnos.server.text;

import lychnos.core.text.Message;

/** Texts of notices and those who receive them. */
public enum NoticeText implements Message {
    REQUEST("Request to another team: {title}"),
    REQUEST_BY("Request to another team: {title} ({person})"),
    SUBJECT_ALL_PROVEN("{site}, {bringUp}: {count} {count|change|changes}, all proven"),
    ALREADY_RECEIVES_NOTICES("{target} already receives notices."),
    CERTIFICATE_ENDS("Certificate of {host} ends"),
    CERTIFICATES_END("Certificates of {host} and {count} other {count|endpoint|endpoints} end"),
    IS_DUE("Due on {due}: {what}"),
    WAS_DUE("Overdue since {due}: {what}"),
    SUBJECT_DUE("{site}, {bringUp}: {count} {count|item|items} due soon or overdue"),
    SUBJECT("{site}, {bringUp}: {count} {count|change|changes}, {off} not proven"),
    NOT_TOLD("Not told: {reason}."),
    NO_NAME_SERVER_KNOWS("no name server knows {host}"),
    RECIPIENT_NO_LONGER_RECEIVES_NOTICES("This recipient no longer receives notices."),
    SENDS_NOTICES("sends notices to {target}"),
    SITE_STATES_NO_MAIL_RELAY("the site states no mail relay"),
    STOPPED_NOTICES("stopped notices to {target}"),
    WEBHOOK_ANSWERS_HTTP("the webhook answers HTTP {status}"),
    WEBHOOK_URL_STARTS_WITH_HTTPS("A webhook URL starts with https://, such as https://10.40.8.30/notices.");

    private final String pattern;

    NoticeText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
