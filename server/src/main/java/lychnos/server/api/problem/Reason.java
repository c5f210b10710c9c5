package lychnos.server.api.problem;

import jakarta.validation.Constraint;
import jakarta.validation.Payload;
import jakarta.validation.ReportAsSingleViolation;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.lang.annotation.Documented;
import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/** Why somebody does something: 1 to 400 characters, kept in the journal. */
@NotBlank
@Size(max = Reason.LONGEST)
@ReportAsSingleViolation
@Constraint(validatedBy = {})
@Documented
@Target({ElementType.FIELD, ElementType.PARAMETER, ElementType.METHOD, ElementType.RECORD_COMPONENT})
@Retention(RetentionPolicy.RUNTIME)
public @interface Reason {

    int LONGEST = 400;

    String message() default "REASON";

    Class<?>[] groups() default {};

    Class<? extends Payload>[] payload() default {};
}
