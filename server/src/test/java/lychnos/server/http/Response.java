package lychnos.server.http;

import static org.hamcrest.MatcherAssert.assertThat;
import static org.junit.jupiter.api.Assertions.assertEquals;

import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.TreeMap;
import org.hamcrest.Matcher;

/** What the server answered. */
public final class Response {

    private final HttpResponse<byte[]> answer;

    Response(HttpResponse<byte[]> answer) {
        this.answer = answer;
    }

    public int statusCode() {
        return answer.statusCode();
    }

    /** @return null where it is not there */
    public String header(String name) {
        return answer.headers().firstValue(name).orElse(null);
    }

    public Map<String, String> headers() {
        Map<String, String> all = new TreeMap<>(String.CASE_INSENSITIVE_ORDER);
        answer.headers().map().forEach((name, values) -> all.put(name, String.join(", ", values)));
        return all;
    }

    /** The value of a cookie that the answer sets. */
    public String cookie(String name) {
        return answer.headers().allValues("Set-Cookie").stream()
                .filter(set -> set.startsWith(name + "="))
                .map(set -> set.substring(name.length() + 1).split(";")[0])
                .findFirst()
                .orElse(null);
    }

    public byte[] asByteArray() {
        return answer.body();
    }

    public String asString() {
        return new String(answer.body(), StandardCharsets.UTF_8);
    }

    public Json json() {
        return Json.parse(asString());
    }

    // --- what is expected of it; each returns the same answer

    public Response statusCode(int expected) {
        assertEquals(expected, statusCode(), () -> answer.request() + " answered: " + asString());
        return this;
    }

    public Response statusCode(Matcher<Integer> expected) {
        assertThat(asString(), statusCode(), expected);
        return this;
    }

    public Response body(Matcher<? super String> expected) {
        assertThat(asString(), expected);
        return this;
    }

    /** @param path {@link Path in the JSON} of the body */
    public <T> Response body(String path, Matcher<T> expected) {
        Object value = json().get(path);
        assertThat(path + " in " + asString(), value, cast(expected));
        return this;
    }

    public Response header(String name, Matcher<? super String> expected) {
        assertThat(name, header(name), expected);
        return this;
    }

    public Response header(String name, String expected) {
        assertEquals(expected, header(name), name);
        return this;
    }

    public Response contentType(String expected) {
        assertEquals(expected, header("Content-Type").split(";")[0]);
        return this;
    }

    @SuppressWarnings("unchecked")
    private static Matcher<Object> cast(Matcher<?> matcher) {
        return (Matcher<Object>) matcher;
    }
}
