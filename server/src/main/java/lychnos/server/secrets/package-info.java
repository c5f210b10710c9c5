/** What is kept sealed: the key, the store, backups and files for somebody who has a key. */
package lychnos.server.secrets;
