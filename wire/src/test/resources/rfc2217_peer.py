"""An RFC 2217 server of pyserial on one TCP port, before a port that returns what it gets. Prints what is set."""
import socket
import sys
import threading
import time

import serial
import serial.rfc2217

listener = socket.socket()
listener.bind(("127.0.0.1", int(sys.argv[1])))
listener.listen(1)
print("listening", flush=True)
peer, _ = listener.accept()


class Tied:
    """The connection as the port manager wants it."""

    def write(self, data):
        peer.sendall(data)


port = serial.serial_for_url("loop://", timeout=0.05)
manager = serial.rfc2217.PortManager(port, Tied())
known = None
held = False


def hand_back():
    while True:
        data = port.read(1000)
        if data:
            peer.sendall(b"".join(manager.escape(data)))


threading.Thread(target=hand_back, daemon=True).start()
while True:
    data = peer.recv(1024)
    if not data:
        break
    port.write(b"".join(manager.filter(data)))
    now = (port.baudrate, port.bytesize, port.parity, port.stopbits)
    if now != known:
        known = now
        print("set %d %d%s%d" % now, flush=True)
    if port.break_condition != held:
        held = port.break_condition
        print("break %s" % ("on" if held else "off"), flush=True)
