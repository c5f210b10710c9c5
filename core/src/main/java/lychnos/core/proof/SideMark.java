package lychnos.core.proof;

/** What stands beside the ladder, on its own: a machine may be right and its name wrong. */
public enum SideMark {
    NAME("name"),
    REVERSE("reverse"),
    TIME("time");

    private final String title;

    SideMark(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
