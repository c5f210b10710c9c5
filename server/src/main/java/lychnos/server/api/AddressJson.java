package lychnos.server.api;

import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.ToStringSerializer;
import io.quarkus.jackson.ObjectMapperCustomizer;
import jakarta.inject.Singleton;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;

/**
 * Writes addresses and prefixes as text (RFC 5952, RFC 4632), so that a view can hold them as what they are. Their
 * schemas are in the configuration ({@code mp.openapi.schema}).
 */
@Singleton
public class AddressJson implements ObjectMapperCustomizer {

    @Override
    public void customize(ObjectMapper mapper) {
        SimpleModule addresses = new SimpleModule("addresses");
        addresses.addSerializer(Address.class, ToStringSerializer.instance);
        addresses.addSerializer(Prefix.class, ToStringSerializer.instance);
        mapper.registerModule(addresses);
    }
}
