/** What units need at a site before they come: networks, services, and how these are measured. */
package lychnos.server.site;
