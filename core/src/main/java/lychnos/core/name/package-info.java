/** Host names: patterns, the rules they obey, and the records they need. */
package lychnos.core.name;
