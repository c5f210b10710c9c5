/** The fact sheet: what is known of every unit, where it comes from, and what is still to be found out. */
package lychnos.core.sheet;
