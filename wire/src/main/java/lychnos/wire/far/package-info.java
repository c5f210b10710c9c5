/** A place in another network that does what is asked of it: the link to it, and the calls that go over that. */
package lychnos.wire.far;
