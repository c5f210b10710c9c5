/** Images of virtual machines: their formats, what comes with them, and what was found in them. */
package lychnos.core.image;
