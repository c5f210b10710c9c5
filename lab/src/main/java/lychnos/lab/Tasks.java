package lychnos.lab;

import com.fasterxml.jackson.databind.node.ObjectNode;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.Map;

/** Work of a stand-in that goes on after its answer: each takes a moment, and is done. */
final class Tasks {

    private static final Duration TAKES = Duration.ofMillis(80);

    private final Map<String, Instant> ends = new HashMap<>();

    /** Begins one, and gives its id. */
    String begin() {
        String id = String.valueOf(ends.size() + 1);
        ends.put(id, Instant.now().plus(TAKES));
        return id;
    }

    /** A task as its resource shows it: 202 while it runs, 200 once it is done. */
    Reply shown(Resources resources, String id) {
        Instant end = ends.get(id);
        if (end == null) {
            return Reply.error(404, "Base.1.18.ResourceMissingAtURI", "No such task.");
        }
        boolean done = Instant.now().isAfter(end);
        ObjectNode task = resources.node(Paths.TASK + id, "#Task.v1_7_3.Task", "Task " + id);
        task.put("TaskState", done ? "Completed" : "Running").put("TaskStatus", "OK");
        return done ? Reply.ok(task) : new Reply(202, Map.of("Location", Paths.TASK + id), task);
    }
}
