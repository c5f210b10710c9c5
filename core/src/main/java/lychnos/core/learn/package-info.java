/**
 * Turns what a person typed at a console into a description of that setup: which answers were values of the plan, how
 * the machine was identified, where it restarted, and what only a person can say. Nothing here writes to a line.
 */
package lychnos.core.learn;
