package lychnos.wire.redfish;

import com.fasterxml.jackson.databind.JsonNode;

/**
 * A resource as it was read.
 *
 * @param path where it lies
 * @param json what it says
 * @param etag its entity tag as given, or null
 */
public record Resource(String path, JsonNode json, String etag) {}
