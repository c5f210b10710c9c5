package lychnos.server.configure.network;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import lychnos.core.dialogue.Hold;
import lychnos.core.dialogue.Mode;
import lychnos.wire.fault.WireFault;

/**
 * One step that is set over the network. Whatever is there already is looked at first, so that it can be carried out
 * twice.
 */
public interface RemoteStep {

    /** The result of a step. */
    sealed interface Outcome {

        /**
         * The machine shows what was planned.
         *
         * @param proven names of passwords that have logged in
         * @param told what it has told for later steps, by name
         */
        record Done(String evidence, List<String> proven, Map<String, String> told) implements Outcome {}

        /** It was taken, and the machine works. */
        record Works(String evidence) implements Outcome {}

        /** A person is wanted. */
        record Stands(Hold hold) implements Outcome {}

        /** What was to be kept beforehand could not be kept: nothing was written. */
        record NotKept() implements Outcome {}
    }

    /** Keeps what is about to be written, before it is. */
    @FunctionalInterface
    interface Sending {

        /**
         * Keeps it.
         *
         * @param sent what is written; no password
         * @param tries names of passwords that are tried
         * @return whether it is kept and the unit still ours
         */
        boolean keep(String sent, List<String> tries);
    }

    /** What is worked at, for people: {@code its pages}. */
    String what();

    /** What is not known yet and must be. */
    List<String> lacking();

    /** Why a person is wanted before it is carried out. */
    Optional<Hold> stops(Mode mode);

    /** @param begun whether it was begun before, and broken off */
    Outcome carryOut(boolean begun, Sending sending) throws WireFault;

    /** Looks whether the machine is ready, after {@link Outcome.Works}. */
    Outcome look() throws WireFault;
}
