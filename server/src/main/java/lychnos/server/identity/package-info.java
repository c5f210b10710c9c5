/** Accounts, sessions and tokens: who may sign in, and how that is held against guessing. */
package lychnos.server.identity;
