package lychnos.lab.console;

import io.vertx.core.json.JsonObject;

/**
 * Pages that a machine keeps as they were written, behind a password that must be changed first. What else a page does
 * is each model's own.
 */
abstract class KeptPages implements ServedPages.Pages {

    private static final int SHORTEST_PASSWORD = 10;

    final ConsoleMachine machine;
    final Memory memory;
    private final String user;
    private final String factory;
    private final String about;
    private final String door;

    /**
     * @param factory the maker's password
     * @param about the resource that says which machine it is
     * @param door the resource that takes the new password
     */
    KeptPages(ConsoleMachine machine, String user, String factory, String about, String door) {
        this.machine = machine;
        this.memory = machine.memory;
        this.user = user;
        this.factory = factory;
        this.about = about;
        this.door = door;
    }

    /** What a page shows before it was written to; null where there is no such page. */
    abstract JsonObject fresh(String resource);

    /** Takes what was written to a page that exists, and adds what the machine has to say; gives why not, or null. */
    abstract String write(String resource, JsonObject written) throws InterruptedException;

    /** What it is registered with besides, as it says it. */
    final String earlier() {
        return machine.spec.has(Habit.REGISTERED_BEFORE) ? "registered by hall-1" : "none";
    }

    /** Whether somebody else may read and write it. */
    boolean alsoAdmits(String who, String phrase) {
        return false;
    }

    @Override
    public final boolean admits(String who, String phrase) {
        boolean admitted =
                who.equals(user) && phrase.equals(memory.has("web password") ? memory.get("web password") : factory)
                        || alsoAdmits(who, phrase);
        memory.add(admitted ? "seen.webLogins" : "seen.refusedWebLogins");
        return admitted;
    }

    @Override
    public final JsonObject show(String resource) {
        if (resource.equals(about)) {
            return new JsonObject()
                    .put("serial", machine.spec.has(Habit.OTHER_PAGES) ? machine.serial() + "-X" : machine.serial())
                    .put("software", new JsonObject().put("version", machine.release("11.3")))
                    .put("utc", machine.clock());
        }
        if (resource.equals(door)) {
            return new JsonObject().put("password", "");
        }
        return memory.has("page" + resource) ? new JsonObject(memory.get("page" + resource)) : fresh(resource);
    }

    @Override
    public final String take(String resource, JsonObject written) throws InterruptedException {
        if (resource.equals(about)) {
            return "nothing can be set there";
        }
        if (resource.equals(door)) {
            return password(written.getString("password", ""));
        }
        if (!memory.has("web password")) {
            return "the password that it came with must be changed first";
        }
        String refused = write(resource, written);
        if (refused == null) {
            memory.put("page" + resource, written.encode());
        }
        return refused;
    }

    private String password(String password) {
        if (password.length() < SHORTEST_PASSWORD) {
            return SHORTEST_PASSWORD + " characters at least";
        }
        if (!password.equals(memory.get("web password"))) {
            memory.put("web password", password);
            memory.add("seen.webPhraseChanges");
        }
        return null;
    }
}
