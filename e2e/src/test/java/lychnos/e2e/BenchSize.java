package lychnos.e2e;

/** How large a bench measures. */
final class BenchSize {

    private BenchSize() {}

    /**
     * A size as it is measured, or a small one that shows that the row can be measured at all ({@code
     * -Dlychnos.bench.small=true}).
     */
    static int of(int whole, int small) {
        return Boolean.getBoolean("lychnos.bench.small") ? small : whole;
    }
}
