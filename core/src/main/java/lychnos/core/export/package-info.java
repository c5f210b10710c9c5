/** What other teams' tools read: each export is a function of the same inventory, written as it goes. */
package lychnos.core.export;
