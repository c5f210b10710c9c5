/** Web proxies. */
package lychnos.wire.proxy;
