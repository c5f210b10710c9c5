package lychnos.server.api.problem;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import jakarta.validation.Valid;
import jakarta.validation.Validation;
import jakarta.validation.constraints.Max;
import java.util.List;
import lychnos.server.api.problem.Refusal.FieldFault;
import org.junit.jupiter.api.Test;

class ShapesTest {

    private static final Shapes SHAPES =
            new Shapes(Validation.buildDefaultValidatorFactory().getValidator());

    record Part(@Max(value = 9, message = "Nine at most.") int size) {}

    record Wanted(@OneLine String name, @Reason String why, List<@Valid Part> parts) {}

    @Test
    void everyFaultIsNamedByTheFieldThatItIsEnteredIn() {
        assertEquals(
                List.of(
                        new FieldFault("name", "A name has 1 to 80 characters, in one line."),
                        new FieldFault("parts.1", "Nine at most."),
                        new FieldFault("why", "Enter a reason, at most 400 characters.")),
                SHAPES.faults(new Wanted("two\nlines", " ", List.of(new Part(9), new Part(10)))));
    }

    @Test
    void nothingIsWrongUpToTheLimits() {
        assertEquals(List.of(), SHAPES.faults(new Wanted("n".repeat(80), "w".repeat(400), null)));
        assertEquals(
                2,
                SHAPES.faults(new Wanted("n".repeat(81), "w".repeat(401), null)).size());
        assertEquals(2, SHAPES.faults(new Wanted(null, null, null)).size());
    }

    @Test
    void aRequestWithoutABodyIsRefused() {
        assertEquals(400, assertThrows(Refusal.class, () -> SHAPES.refuse(null)).status());
    }
}
