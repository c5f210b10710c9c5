package lychnos.server.configure.line;

import java.util.List;
import lychnos.server.configure.model.Change;
import lychnos.server.jobs.Held;
import lychnos.server.jobs.HoldLost;
import lychnos.wire.console.ConsoleLine;
import lychnos.wire.fault.WireFault;

/** What the line works with. */
public interface LineSurroundings {
    void save(Held held, Change change, List<Change.RecordingPiece> pieces) throws HoldLost;

    /** Keeps what was recorded, and nothing else. */
    void save(Held held, List<Change.RecordingPiece> pieces) throws HoldLost;

    ConsoleLine open(MemberLine line) throws WireFault;

    /** The member's line has told something that others may wait for. */
    void told(OpenLine line, String name, String value);

    /** The member has told that it is the machine it should be, and that it takes setup. */
    void identified(OpenLine line);

    /** The member is done. */
    void done(OpenLine line);

    /** This server has the unit no more. */
    void lost(OpenLine line);

    boolean trusts(String server, String fingerprint);
}
