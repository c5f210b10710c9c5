/** What may be done now: the steps of a setup, the states of a run, the order of a round. */
package lychnos.core.order;
