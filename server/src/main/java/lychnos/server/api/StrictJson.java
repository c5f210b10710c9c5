package lychnos.server.api;

import com.fasterxml.jackson.annotation.JsonSetter;
import com.fasterxml.jackson.annotation.Nulls;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.databind.ObjectMapper;
import io.quarkus.jackson.ObjectMapperCustomizer;
import jakarta.inject.Singleton;

/**
 * Refuses what no form of a request has: a key twice in one object (RFC 8259, section 4), and null as a member of a
 * list.
 */
@Singleton
public class StrictJson implements ObjectMapperCustomizer {

    @Override
    public void customize(ObjectMapper mapper) {
        mapper.enable(JsonParser.Feature.STRICT_DUPLICATE_DETECTION);
        mapper.configOverride(java.util.List.class).setSetterInfo(JsonSetter.Value.forContentNulls(Nulls.FAIL));
        mapper.configOverride(java.util.Set.class).setSetterInfo(JsonSetter.Value.forContentNulls(Nulls.FAIL));
    }
}
