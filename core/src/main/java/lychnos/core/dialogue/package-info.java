/**
 * The dialogue with a machine on a console line: what its first setup asks, what is answered, and when nothing must be
 * sent.
 *
 * <p>{@link lychnos.core.dialogue.Conversation} is the engine. It is fed what happens (bytes from the line, the clock,
 * what a person does) and gives back what is to be done; it holds no socket and asks no clock, so that a recorded line
 * can be played through it again. Its ways to be are an enum with a list of transitions; one method changes them.
 *
 * <p>{@link lychnos.core.dialogue.Screen} turns the bytes into what a person would see, {@link
 * lychnos.core.dialogue.Look} finds things in that, and {@link lychnos.core.dialogue.Dialogue} says what a kind of
 * machine asks.
 */
package lychnos.core.dialogue;
