/** What is known about a unit before it is touched: labels, hardware addresses, positions, secrets. */
package lychnos.core.fact;
