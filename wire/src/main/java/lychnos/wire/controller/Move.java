package lychnos.wire.controller;

import lychnos.core.address.Address;
import lychnos.core.proof.Settings;
import lychnos.wire.controller.ControllerStop.Cause;
import lychnos.wire.fault.WireFault;

/**
 * Follows a controller from the address it had to its planned one. A controller that restarts answers at its old
 * address for a while, then nowhere, then at the new one; a controller that did not keep the setting comes back at the
 * old one.
 */
public final class Move {

    private final ControllerSetup setup;
    private final Address old;
    private final Settings planned;
    private boolean left;

    Move(ControllerSetup setup, Address old, Settings planned) {
        this.setup = setup;
        this.old = old;
        this.planned = planned;
    }

    public Address from() {
        return old;
    }

    /**
     * Looks once.
     *
     * @param late whether it has had the time that it usually needs: if it is at its old address still, it stays there
     * @return whether it answers at its planned address
     */
    public boolean arrived(boolean late) throws WireFault, ControllerStop {
        Address address = planned.address();
        if (setup.answersAt(address, true)) {
            return true;
        }
        boolean atOld = !old.equals(address) && setup.portOpen(old);
        if (atOld && (left || late) && setup.mayBeOurs(old)) {
            throw new ControllerStop(
                    Cause.BACK_AT_OLD_ADDRESS,
                    ControllerText.NOT_KEPT.text(old, address),
                    ControllerText.NOT_KEPT_FIX.text());
        }
        left |= !atOld;
        return false;
    }
}
