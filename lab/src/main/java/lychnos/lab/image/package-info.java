/** Image files of the virtual machines of the lab. */
package lychnos.lab.image;
