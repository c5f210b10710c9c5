/** Texts for people, found by their code. */
package lychnos.core.text;
