/** What is known about a unit before it is touched: labels, MAC addresses, positions, secrets. */
package lychnos.core.fact;
