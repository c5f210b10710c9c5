package lychnos.wire.far;

import com.fasterxml.jackson.annotation.JsonAutoDetect.Visibility;
import com.fasterxml.jackson.annotation.PropertyAccessor;
import com.fasterxml.jackson.core.JsonGenerator;
import com.fasterxml.jackson.core.JsonParser;
import com.fasterxml.jackson.core.StreamReadConstraints;
import com.fasterxml.jackson.databind.DeserializationContext;
import com.fasterxml.jackson.databind.JsonNode;
import com.fasterxml.jackson.databind.KeyDeserializer;
import com.fasterxml.jackson.databind.ObjectMapper;
import com.fasterxml.jackson.databind.SerializerProvider;
import com.fasterxml.jackson.databind.deser.std.StdDeserializer;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import java.io.IOException;
import java.lang.reflect.Type;
import java.util.function.Function;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Secret;

/**
 * How calls and what comes of them are written on a link. Addresses are texts; a secret is written as it is, since the
 * far side needs it, and only here: a link is to go over TLS.
 */
public final class Codec {

    private static final int DEEPEST = 40;
    private static final int LONGEST_TEXT = 4_000_000;

    private final ObjectMapper json = new ObjectMapper();

    public Codec() {
        json.getFactory()
                .setStreamReadConstraints(StreamReadConstraints.builder()
                        .maxNestingDepth(DEEPEST)
                        .maxStringLength(LONGEST_TEXT)
                        .build());
        json.setVisibility(PropertyAccessor.ALL, Visibility.NONE);
        json.setVisibility(PropertyAccessor.FIELD, Visibility.ANY);
        json.setVisibility(PropertyAccessor.CREATOR, Visibility.ANY);
        SimpleModule own = new SimpleModule();
        text(own, Address.class, Address::toString, Address::parse);
        text(own, Prefix.class, Prefix::toString, Prefix::parse);
        text(own, Secret.class, secret -> secret.use(text -> text), Secret::of);
        own.addKeySerializer(Address.class, new StdSerializer<>(Address.class) {
            @Override
            public void serialize(Address value, JsonGenerator out, SerializerProvider provider) throws IOException {
                out.writeFieldName(value.toString());
            }
        });
        own.addKeyDeserializer(Address.class, new KeyDeserializer() {
            @Override
            public Object deserializeKey(String key, DeserializationContext context) {
                return Address.parse(key);
            }
        });
        json.registerModules(own, new Jdk8Module(), new JavaTimeModule());
    }

    private static <T> void text(
            SimpleModule module, Class<T> type, Function<T, String> write, Function<String, T> read) {
        module.addSerializer(type, new StdSerializer<>(type) {
            @Override
            public void serialize(T value, JsonGenerator out, SerializerProvider provider) throws IOException {
                out.writeString(write.apply(value));
            }
        });
        module.addDeserializer(type, new StdDeserializer<>(type) {
            @Override
            public T deserialize(JsonParser in, DeserializationContext context) throws IOException {
                try {
                    return read.apply(in.getValueAsString());
                } catch (IllegalArgumentException e) {
                    throw context.weirdStringException(in.getText(), type, e.getMessage());
                }
            }
        });
    }

    /** More that is to be written and read. */
    public ObjectMapper json() {
        return json;
    }

    public String write(Object message) {
        try {
            return json.writeValueAsString(message);
        } catch (IOException e) {
            throw new IllegalStateException("what goes over a link can be written", e);
        }
    }

    public JsonNode tree(Object value) {
        return json.valueToTree(value);
    }

    public JsonNode read(String text) throws IOException {
        return json.readTree(text);
    }

    /** @throws IOException where it is not what it should be */
    public Object read(JsonNode node, Type type) throws IOException {
        return json.readerFor(json.constructType(type)).readValue(node);
    }
}
