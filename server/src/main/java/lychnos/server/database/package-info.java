/** What every table has in common: types of columns, rows for readers, troubles of the connection. */
package lychnos.server.database;
