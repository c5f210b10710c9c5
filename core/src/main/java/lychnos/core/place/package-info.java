/** Finds addresses that fit what units need, inside the pools of a network. */
package lychnos.core.place;
