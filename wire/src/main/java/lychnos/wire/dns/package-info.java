/** Name servers: asked, transferred from, and updated. */
package lychnos.wire.dns;
