package lychnos.wire.console;

import lychnos.core.text.Message;

/** Texts about lines: serial ports, console servers and SSH sessions. */
enum ConsoleText implements Message {
    BREAK_NOT_SENT("The break was not sent: {fault}."),
    CONNECTION_REFUSED(
            "The console server refuses the connection ({peer}). The port may be in use, or its service " + "off."),
    CONNECTION_TIMED_OUT("The console server does not answer ({peer})."),
    DATA_BITS("data bits"),
    IN_USE("another program has it open"),
    LINE_BROKE("The connection to the console server was lost: {fault}."),
    LINE_CLOSED("The console server has closed the connection."),
    NOT_A_SERIAL_PORT("{port} is not a serial port of this server."),
    NO_BREAK_ON_RAW_LINE("A raw TCP line has no BREAK; nothing was sent."),
    NO_DEVICE("there is no such device"),
    NO_INPUT_ACCEPTED("The console server has accepted no input for too long; the last input is lost."),
    NO_PERMISSION("Lychnos has no permission to open it; its user must be in the group of the device"),
    PEER("{address} port {port}"),
    PORT_ERROR("error {error}"),
    PORT_FAILS("The serial port {port} cannot be used: {fault}."),
    PORT_GONE("The serial port {port} is gone."),
    ONLY_A_BROWSER_OPENS_IT("This serial port can only be opened by the browser that has it."),
    PORT_NO_INPUT("The serial port {port} accepts no input: {fault}."),
    SCREEN_SIZE_NOT_SENT("The screen size was not sent: {fault}."),
    SERVER_KEEPS_SETTINGS(
            "The console server does not allow Lychnos to set its serial port. Set it to {settings} there."),
    SERVER_SETS_OTHERWISE(
            "The console server has set the {setting} of its port to {is}, expected {expected} " + "({settings})."),
    SSH_ENDED("The SSH session has ended."),
    SSH_FAILS("SSH to {address} failed: {fault}."),
    SSH_NO_INPUT("The SSH session accepts no input: {fault}."),
    STOP_BITS("stop bits");

    private final String pattern;

    ConsoleText(String pattern) {
        this.pattern = pattern;
    }

    @Override
    public String pattern() {
        return pattern;
    }
}
