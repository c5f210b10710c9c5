/**
 * Stand-in machines of an invented maker, for the demo hall and the tests. They speak the real protocols at their own
 * addresses and share no code with what talks to them.
 */
package lychnos.lab;
