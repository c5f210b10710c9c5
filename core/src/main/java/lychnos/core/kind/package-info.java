/** Descriptions of kinds of equipment. */
package lychnos.core.kind;
