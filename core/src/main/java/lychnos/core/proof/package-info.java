/** What was measured of an endpoint, and what that comes to. */
package lychnos.core.proof;
