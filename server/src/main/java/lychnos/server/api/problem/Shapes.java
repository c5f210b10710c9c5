package lychnos.server.api.problem;

import jakarta.enterprise.context.ApplicationScoped;
import jakarta.validation.ConstraintViolation;
import jakarta.validation.Validator;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import lychnos.core.text.Said;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.text.ShapeText;

/**
 * What the constraints of a request (Jakarta Validation) say is wrong with it, field by field. They tell what one value
 * alone may be; what several values mean together is looked at where they are used.
 */
@ApplicationScoped
public class Shapes {

    private final Validator validator;

    Shapes(Validator validator) {
        this.validator = validator;
    }

    /**
     * The faults of a request, in the order of its fields' names; more can be added.
     *
     * @throws Refusal 400 if there is no request
     */
    public List<FieldFault> faults(Object request) {
        return new ArrayList<>(validator.validate(Refusal.required(request)).stream()
                .map(fault -> new FieldFault(field(fault.getPropertyPath().toString()), said(fault)))
                .sorted(Comparator.comparing(FieldFault::field))
                .toList());
    }

    /** @throws Refusal 400 with every fault */
    public void refuse(Object request) {
        List<FieldFault> faults = faults(request);
        if (!faults.isEmpty()) {
            throw Refusal.fields(faults);
        }
    }

    /** The message of a constraint is a code; the sentence names attributes of the constraint. */
    private static Said said(ConstraintViolation<?> fault) {
        ShapeText message = ShapeText.valueOf(fault.getMessageTemplate());
        var attributes = fault.getConstraintDescriptor().getAttributes();
        return message.said(message.names().stream().map(attributes::get).toArray());
    }

    /** {@code ranges[2].note} is entered in {@code ranges.2}. */
    private static String field(String path) {
        return path.replaceAll("\\[(\\d+)].*", ".$1");
    }
}
