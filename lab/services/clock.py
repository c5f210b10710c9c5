"""A time server that answers in good form (RFC 5905) and is wrong on purpose.

usage: clock.py ADDRESS PORT SECONDS-AHEAD
"""
import socket
import struct
import sys
import time

EPOCH = 2208988800


def stamp(seconds):
    return int((seconds + EPOCH) * 2**32)


address, port, ahead = sys.argv[1], int(sys.argv[2]), float(sys.argv[3])
server = socket.socket(socket.AF_INET, socket.SOCK_DGRAM)
server.bind((address, port))
print("clock ready", flush=True)
while True:
    question, peer = server.recvfrom(512)
    if len(question) >= 48:
        now = time.time() + ahead
        origin = struct.unpack("!Q", question[40:48])[0]
        server.sendto(struct.pack("!BBBbIIIQQQQ", 0x24, 3, 6, -20, 655, 655, 0x7f7f0101, stamp(now - 5), origin, stamp(now), stamp(time.time() + ahead)), peer)
