package lychnos.server.api;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.enterprise.inject.Any;
import jakarta.enterprise.inject.spi.Bean;
import jakarta.enterprise.inject.spi.BeanManager;
import jakarta.ws.rs.HttpMethod;
import jakarta.ws.rs.Path;
import java.lang.annotation.Annotation;
import java.lang.reflect.Method;
import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Set;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Stream;

/** Which methods each address takes, for the header Allow of a refusal (RFC 9110, section 10.2.1). */
@ApplicationScoped
public class AllowedMethods {

    private static final Pattern PARAMETER = Pattern.compile("\\{\\s*\\w+\\s*(?::([^}]+))?}");

    private final Map<Pattern, Set<String>> routes = new LinkedHashMap<>();

    AllowedMethods(BeanManager beans) {
        for (Bean<?> bean : beans.getBeans(Object.class, Any.Literal.INSTANCE)) {
            Path above = bean.getBeanClass().getAnnotation(Path.class);
            if (above != null) {
                Stream.of(bean.getBeanClass().getMethods()).forEach(method -> add(above, method));
            }
        }
    }

    private void add(Path above, Method method) {
        for (Annotation each : method.getAnnotations()) {
            HttpMethod takes = each.annotationType().getAnnotation(HttpMethod.class);
            if (takes != null) {
                Path own = method.getAnnotation(Path.class);
                String path = above.value() + (own == null ? "" : "/" + own.value());
                Set<String> methods = routes.entrySet().stream()
                        .filter(entry -> entry.getKey().pattern().equals(regex(path)))
                        .map(Map.Entry::getValue)
                        .findFirst()
                        .orElse(null);
                if (methods == null) {
                    methods = new TreeSet<>();
                    routes.put(Pattern.compile(regex(path)), methods);
                }
                methods.add(takes.value());
            }
        }
    }

    private static String regex(String path) {
        return PARAMETER
                        .matcher(path.replaceAll("/+", "/"))
                        .replaceAll(found -> java.util.regex.Matcher.quoteReplacement(
                                "(?:" + (found.group(1) == null ? "[^/]+" : found.group(1)) + ")"))
                + "/?";
    }

    /** The methods of an address, with commas between; empty where it is none of ours. */
    public String of(String path) {
        Set<String> methods = new TreeSet<>();
        routes.forEach((route, takes) -> {
            if (route.matcher(path).matches()) {
                methods.addAll(takes);
            }
        });
        return String.join(", ", methods);
    }
}
