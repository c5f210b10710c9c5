"""A mail relay for the hall, on Debian's aiosmtpd: takes mail from domains that lead somewhere, and keeps it.

usage: relay.py ADDRESS PORT NAME-SERVER CERTIFICATE KEY [MAILBOX]
"""
import asyncio
import signal
import ssl
import subprocess
import sys

from aiosmtpd.smtp import SMTP


class Relay:
    def __init__(self, name_server, mailbox):
        self.name_server = name_server
        self.mailbox = mailbox

    async def leads_somewhere(self, domain):
        for kind in ("MX", "A", "AAAA"):
            asked = await asyncio.create_subprocess_exec(
                "dig", "+short", "+time=1", "+tries=1", f"@{self.name_server}", domain, kind, stdout=subprocess.PIPE)
            answer, _ = await asked.communicate()
            if answer.strip() and not answer.startswith(b";"):
                return True
        return False

    async def handle_MAIL(self, server, session, envelope, address, options):
        if not await self.leads_somewhere(address.rpartition("@")[2]):
            return "550 5.1.8 the sender's domain has neither MX nor address record"
        envelope.mail_from = address
        return "250 OK"

    async def handle_RCPT(self, server, session, envelope, address, options):
        envelope.rcpt_tos.append(address)
        return "250 OK"

    async def handle_DATA(self, server, session, envelope):
        if self.mailbox:
            with open(self.mailbox, "ab") as box:
                box.write(f"to {', '.join(envelope.rcpt_tos)}\n".encode() + envelope.content + b"\n")
        return "250 2.0.0 taken; nothing leaves the hall"


async def main(address, port, name_server, certificate, key, mailbox=None):
    tls = ssl.create_default_context(ssl.Purpose.CLIENT_AUTH)
    tls.load_cert_chain(certificate, key)
    loop = asyncio.get_running_loop()
    server = await loop.create_server(
        lambda: SMTP(
            Relay(name_server, mailbox), hostname="relay.ardal.example", ident="relay of the hall", tls_context=tls
        ),
        address,
        int(port),
    )
    for name in (signal.SIGTERM, signal.SIGINT):
        loop.add_signal_handler(name, server.close)
    print("relay ready", flush=True)
    async with server:
        await server.wait_closed()


asyncio.run(main(*sys.argv[1:]))
