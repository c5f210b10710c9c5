/** Addresses that are in use already, as other tools' files tell. */
package lychnos.core.existing;
