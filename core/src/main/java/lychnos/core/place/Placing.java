package lychnos.core.place;

import java.util.function.Function;

/** What comes of looking for addresses: a {@link Placement} or a {@link NoFit}. */
public sealed interface Placing permits Placement, NoFit {

    <T> T fold(Function<Placement, T> found, Function<NoFit, T> none);
}
