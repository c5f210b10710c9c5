/** Whether this machine and the database give the server what it needs, and what to do where they do not. */
package lychnos.server.doctor;
