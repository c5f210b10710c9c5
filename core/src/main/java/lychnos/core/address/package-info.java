/** Addresses, prefixes, runs of addresses and sets of them: pure arithmetic on IPv4 and IPv6. */
package lychnos.core.address;
