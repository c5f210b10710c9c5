package lychnos.server.configure.network;

import java.util.Optional;
import lychnos.core.fact.Mac;
import lychnos.core.sheet.MemberValues;
import lychnos.server.allocate.FirstAddress;
import lychnos.server.configure.model.Change;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.wire.fault.WireFault;

/** What {@link RemoteWork} works with. */
public interface PageSurroundings {
    void save(Held held, Change change) throws HoldLost;

    /** A person fills the rest in. */
    void byHand(RemoteWork work) throws HoldLost;

    void told(String member, String name, String value);

    void done(RemoteWork work);

    void lost(RemoteWork work);

    boolean trusts(String server, String fingerprint);

    /** What a member is answered with, as it is known now. */
    MemberValues values(String member);

    /** Records a person's consent to a step before it is carried out. */
    void consented(RemoteWork work, String login, String title, String reason) throws HoldLost;

    /** Whether our password of this name has logged in. */
    boolean proven(Held held, String name);

    /** Where a machine answers that was never set up. */
    Optional<FirstAddress.FoundAddress> find(Held held, Mac mac, int port) throws WireFault;
}
