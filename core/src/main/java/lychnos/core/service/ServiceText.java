package lychnos.core.service;

import lychnos.core.text.Message;

/** Texts of measured services: what is odd about an answer. */
enum ServiceText implements Message {
    ALONE("{offset} from the clock of this server, and there is no other source to tell which is wrong"),
    ANSWERS_IN_MODE_NOT_AS_SERVER("answers in mode {mode}, not as a server"),
    CLOCK_NEVER_SET("answers, but its own clock was never set"),
    DOES_NOT_SERVE("does not serve {zone}"),
    KISS_OF_DEATH("refuses to serve us (kiss-o’-death)"),
    LAGS("lags in {zone}: serial {serial}, elsewhere {newest}"),
    OFF("is off by {offset} from {count} that agree"),
    OTHER_ANSWER("sends an answer that does not match the question"),
    REFUSED("refused: {reason}"),
    SERIAL("serial {serial}"),
    STRATUM("{offset}, stratum {stratum}"),
    TCP_ONLY("answers over TCP only"),
    TWO_DISAGREE("{offset}; the other source differs, and with two Lychnos cannot tell which is wrong"),
    UDP_ONLY("answers over UDP only; long answers need TCP");

    private final String pattern;

    ServiceText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
