/** Network file system, as far as its presence goes. */
package lychnos.wire.nfs;
