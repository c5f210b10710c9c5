/** Requests to other teams: what they are asked for, by whom, until when, and whether it is so. */
package lychnos.server.requests;
