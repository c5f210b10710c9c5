package lychnos.server.live;

/** Sessions or tokens have ended, at this server or another one: what they opened is to be looked at. */
public record SessionsChanged() {}
