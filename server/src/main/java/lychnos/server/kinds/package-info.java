/** The kinds of equipment as data of the site: versions, drafts, adjustments, and which version a unit uses. */
package lychnos.server.kinds;
