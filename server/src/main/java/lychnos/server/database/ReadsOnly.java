package lychnos.server.database;

import jakarta.interceptor.InterceptorBinding;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * A request that only reads. Its rows are not compared with what they were before every query, which for a hall of
 * thousands costs more than the queries. For the methods of resources, whose transaction nobody else shares.
 */
@InterceptorBinding
@Target({ElementType.METHOD, ElementType.TYPE})
@Retention(RetentionPolicy.RUNTIME)
public @interface ReadsOnly {}
