/** What is handed over. */
package lychnos.core.record;
