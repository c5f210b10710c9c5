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
import com.fasterxml.jackson.databind.introspect.Annotated;
import com.fasterxml.jackson.databind.introspect.AnnotatedClass;
import com.fasterxml.jackson.databind.introspect.JacksonAnnotationIntrospector;
import com.fasterxml.jackson.databind.jsontype.NamedType;
import com.fasterxml.jackson.databind.module.SimpleModule;
import com.fasterxml.jackson.databind.ser.std.StdSerializer;
import com.fasterxml.jackson.datatype.jdk8.Jdk8Module;
import com.fasterxml.jackson.datatype.jsr310.JavaTimeModule;
import java.io.IOException;
import java.lang.reflect.Type;
import java.util.Arrays;
import java.util.List;
import java.util.function.Function;
import java.util.stream.Stream;
import lychnos.core.address.Address;
import lychnos.core.address.Prefix;
import lychnos.core.fact.Secret;

/**
 * How messages are written on a link. Addresses are texts; a secret is written as it is, since the far side needs it,
 * and only here: a link is to go over TLS. The name of a record of a sealed family is its type on the link.
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
        json.setAnnotationIntrospector(new SealedFamilies());
    }

    /** Knows the members of a sealed interface without a list of them. */
    private static final class SealedFamilies extends JacksonAnnotationIntrospector {

        private static final long serialVersionUID = 1;

        @Override
        public List<NamedType> findSubtypes(Annotated annotated) {
            Class<?> family = annotated.getRawType();
            return family.isSealed()
                    ? members(family)
                            .map(member -> new NamedType(member, name(member)))
                            .toList()
                    : super.findSubtypes(annotated);
        }

        @Override
        public String findTypeName(AnnotatedClass annotated) {
            return name(annotated.getRawType());
        }

        private static Stream<Class<?>> members(Class<?> family) {
            return Arrays.stream(family.getPermittedSubclasses())
                    .flatMap(member -> member.isSealed() ? members(member) : Stream.of(member));
        }

        private static String name(Class<?> member) {
            return Character.toLowerCase(member.getSimpleName().charAt(0))
                    + member.getSimpleName().substring(1);
        }
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

    public String write(Object value) {
        try {
            return json.writeValueAsString(value);
        } catch (IOException e) {
            throw new IllegalStateException("what goes over a link can be written", e);
        }
    }

    public JsonNode tree(Object value) {
        return json.valueToTree(value);
    }

    /** @throws IOException where the text is not what it should be */
    public <T> T read(String text, Class<T> type) throws IOException {
        return json.readValue(text, type);
    }

    /** @throws IOException where the value is not what it should be */
    public <T> T read(JsonNode value, Class<T> type) throws IOException {
        return json.treeToValue(value, type);
    }

    /** @throws IOException where the value is not what it should be */
    public Object read(JsonNode value, Type type) throws IOException {
        return json.readerFor(json.constructType(type)).readValue(value);
    }
}
