/** Notices to people about what checks found, by mail and webhook. */
package lychnos.server.prove.notices;
