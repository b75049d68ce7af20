"""A stand-in for a mail server: takes what is sent to it, shows each message once, keeps nothing for ever.

It speaks as much SMTP (RFC 5321) as a sender needs. Two messages with one Message-ID are one.
"""

import asyncio
from collections import OrderedDict
from dataclasses import dataclass
from email import message_from_bytes, policy
from email.message import EmailMessage

MOST = 200
MOST_BYTES = 20_000_000


@dataclass(frozen=True)
class Taken:
    """A message as it came, and how often it came."""

    message: EmailMessage
    times: int


class Mailbox:
    """All messages by their Message-ID, the newest last."""

    def __init__(self) -> None:
        self.taken: OrderedDict[str, Taken] = OrderedDict()
        self._server: asyncio.Server | None = None
        self._came = asyncio.Condition()

    async def start(self, port: int) -> int:
        """Listen on loopback; the port."""
        self._server = await asyncio.start_server(self._talk, "127.0.0.1", port, limit=MOST_BYTES)
        return int(self._server.sockets[0].getsockname()[1])

    async def stop(self) -> None:
        """Listen no more."""
        if self._server is not None:
            self._server.close()
            await self._server.wait_closed()

    def take(self, content: bytes) -> None:
        """One message."""
        message = message_from_bytes(content, policy=policy.default)
        assert isinstance(message, EmailMessage)
        id_ = str(message["Message-ID"] or f"<none-{len(self.taken)}>")
        times = self.taken[id_].times if id_ in self.taken else 0
        self.taken[id_] = Taken(message, times + 1)
        while len(self.taken) > MOST:
            self.taken.popitem(last=False)

    async def next_or(self, enough: int, before: int) -> None:
        """Wait until a message came besides those `before`, or there are `enough`."""
        async with self._came:
            await self._came.wait_for(lambda: len(self.taken) > before or len(self.taken) >= enough)

    async def _talk(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        async def say(line: str) -> None:
            writer.write(f"{line}\r\n".encode())
            await writer.drain()

        try:
            await say("220 mailbox of the demo")
            while line := await reader.readline():
                word = line.strip().upper().decode("ascii", "replace")
                if word.startswith("QUIT"):
                    await say("221 bye")
                    break
                if word == "DATA":
                    await say("354 go on")
                    content = await reader.readuntil(b"\r\n.\r\n")
                    self.take(content[:-3].replace(b"\r\n..", b"\r\n."))
                    async with self._came:
                        self._came.notify_all()
                await say("250 ok")
        except (ConnectionError, asyncio.IncompleteReadError, asyncio.LimitOverrunError):
            pass  # whoever sent it sends it again
        finally:
            writer.close()
