package lychnos.server.live;

import io.quarkus.websockets.next.OnOpen;
import io.quarkus.websockets.next.WebSocket;

/** The push channel of the screens: one line a change, {@code BRING-UP TOPIC}. Open to the signed-in alone. */
@WebSocket(path = "/api/live")
public class LiveSocket {

    /** The first line says that the channel stands; whoever missed something looks again. */
    @OnOpen
    public String open() {
        return "0 all";
    }
}
