package lychnos.server.api.problem;

import static org.junit.jupiter.api.Assertions.assertEquals;
import static org.junit.jupiter.api.Assertions.assertThrows;

import jakarta.validation.Valid;
import jakarta.validation.Validation;
import jakarta.validation.constraints.Max;
import java.util.List;
import lychnos.server.api.problem.Refusal.FieldFault;
import lychnos.server.text.ShapeText;
import org.junit.jupiter.api.Test;

class ShapesTest {

    private static final Shapes SHAPES =
            new Shapes(Validation.buildDefaultValidatorFactory().getValidator());

    record Part(@Max(value = 9, message = "VLAN") int size) {}

    record Wanted(@OneLine String name, @Reason String why, List<@Valid Part> parts) {}

    @Test
    void everyFaultIsNamedByTheFieldThatItIsEnteredIn() {
        assertEquals(
                List.of(
                        new FieldFault("name", ShapeText.NAME.said()),
                        new FieldFault("parts.1", ShapeText.VLAN.said()),
                        new FieldFault("why", ShapeText.REASON.said())),
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
