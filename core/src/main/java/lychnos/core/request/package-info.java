/** What other teams are asked for before machines are set up: firewalls, mail, downloads and keys. */
package lychnos.core.request;
