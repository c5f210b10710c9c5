package lychnos.core.place;

import lychnos.core.text.Message;

/** Texts about where a unit fits, and why it does not. */
enum PlaceText implements Message {
    CANNOT_BE_ALLOCATED("{address} cannot be allocated."),
    CONTINUES_AFTER("continues after {name}"),
    FILLS_GAP("fills a gap"),
    FREE_BUT_SCATTERED(
            "{count} {count|address is|addresses in a row are} needed in {purpose}. {free} are free, but not in a "
                    + "row. Extend a pool, or release unused addresses."),
    HELD_BACK("{first}: {address} was released a short time ago and is not allocated again yet"),
    IN_A_ROW("{count} in a row"),
    LOWEST_THAT_FITS("lowest that fits"),
    NONE_FREE("{count} {count|address is|addresses in a row are} needed in {purpose}, {free} are free. Add or extend a "
            + "pool, or release unused addresses."),
    NOT_FREE("{address} is not free, and {count} are needed in a row."),
    NO_NETWORK("No network for {purpose} is defined. Define one in Prepare."),
    OUTSIDE("{address} is not in that network."),
    STARTS_ON_A_TEN("starts on a ten"),
    TOO_FEW_FREE(
            "{count} {count|address is|addresses in a row are} needed in {purpose}, {free} {free|is|are} free. Extend "
                    + "a pool, or release unused addresses."),
    WRONG_START("{address} cannot be the first address: the addresses of this kind start on a multiple of "
            + "{multiple}.");

    private final String pattern;

    PlaceText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
