/**
 * What every route has in common: keys of requests that are sent twice, which origins may change something, ids that
 * exist.
 */
package lychnos.server.api;
