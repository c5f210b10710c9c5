/** What is refused, as problem documents (RFC 9457), and versions that requests have seen. */
package lychnos.server.api.problem;
