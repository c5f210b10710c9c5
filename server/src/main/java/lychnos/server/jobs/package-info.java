/** Long work as jobs with leases and fences: claimed by one server, carried on by the next. */
package lychnos.server.jobs;
