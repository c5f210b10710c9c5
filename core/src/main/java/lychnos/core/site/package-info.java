/** What a site has besides networks and units: racks, hosts, fabrics, domains, services, policies. */
package lychnos.core.site;
