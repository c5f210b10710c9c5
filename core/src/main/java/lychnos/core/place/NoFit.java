package lychnos.core.place;

import java.util.function.Function;

/**
 * Why a unit cannot be placed.
 *
 * @param network the purpose of the network that cannot give what is needed
 * @param wanted how many addresses in a row, growth included
 * @param free how many its pools still have
 * @param why a sentence for the engineer
 */
public record NoFit(String network, int wanted, long free, String why) implements Placing {

    @Override
    public <T> T fold(Function<Placement, T> found, Function<NoFit, T> none) {
        return none.apply(this);
    }
}
