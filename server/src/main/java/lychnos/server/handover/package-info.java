/** Signing, packs, exports, and the life of units after that. */
package lychnos.server.handover;
