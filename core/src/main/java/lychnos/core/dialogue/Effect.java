package lychnos.core.dialogue;

import lychnos.core.fact.Secret;

/** What is to be done because of what happened. */
public sealed interface Effect {

    /**
     * Send to the line. It must be kept that this was sent before it is: no answer goes out twice unless it was asked
     * for twice.
     *
     * @param step whose answer it is; -1 for keys that answer nothing
     */
    record Send(int step, String text) implements Effect {}

    /** Send a password and Enter. */
    record SendSecret(int step, Secret secret) implements Effect {}

    /** A step is done; the evidence is what the line showed, without secrets. */
    record Done(int step, String evidence) implements Effect {}

    /** The answer to this step accepts the terms of the maker. */
    record Agreed(int step, TermsText terms) implements Effect {}

    /** The line told a value. */
    record Read(String name, String value) implements Effect {}

    /** The machine has shown its own log, or what came of it in time. */
    record Logged(String text) implements Effect {}

    /** What was seen on the line is the machine that was wanted. */
    record Identified(java.util.Map<String, String> seen) implements Effect {

        public Identified {
            seen = java.util.Map.copyOf(seen);
        }
    }

    /** Something that people should see, and that stops nothing. */
    record Note(String sentence) implements Effect {}
}
