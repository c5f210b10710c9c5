/** Image files of virtual machines: received or found in a folder, read once to their end, and what was found. */
package lychnos.server.image;
