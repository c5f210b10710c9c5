/** The process that holds all stand-in machines of a hall. */
package lychnos.lab.hall;
