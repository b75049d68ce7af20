"""Whether a node of a Galera cluster may be written to: 200 or 503 on a port for each, for HAProxy's checks.

    python -m kumpan.tools.node_check 3321=SOCKET 3322=SOCKET

A node without quorum answers to its name and refuses every write: it must be ready, synced (state 4) and in
the primary component. Each node is asked all the time and HAProxy is told at once what was heard last: its
checks end after half a second, and a busy machine needs longer than that to ask.
"""

import asyncio
import sys
import time
from collections.abc import Callable
from dataclasses import dataclass

FINE = {"wsrep_ready": "ON", "wsrep_local_state": "4", "wsrep_cluster_status": "Primary"}
SQL = "SHOW STATUS WHERE Variable_name IN ('wsrep_ready', 'wsrep_local_state', 'wsrep_cluster_status')"
ANSWERS_WITHIN_S, EVERY_S = 1.0, 0.3
# What was heard longer ago than this says nothing of now.
HOLDS_S = 3.0


async def usable(socket: str) -> bool:
    """What the node at a socket says of itself; False where it does not answer."""
    command = ("mariadb", "--no-defaults", "-uroot", f"--socket={socket}", "-BN", "-e", SQL)
    process = await asyncio.create_subprocess_exec(
        *command, stdout=asyncio.subprocess.PIPE, stderr=asyncio.subprocess.DEVNULL
    )
    try:
        said, _ = await asyncio.wait_for(process.communicate(), ANSWERS_WITHIN_S)
    except TimeoutError:
        process.kill()
        return False
    return dict(line.split("\t") for line in said.decode().splitlines() if "\t" in line) == FINE


@dataclass
class Heard:
    """What a node said last, and when by the clock given."""

    clock: Callable[[], float] = time.monotonic
    fine: bool = False
    at: float = float("-inf")

    def hear(self, *, fine: bool) -> None:
        """Its answer of now."""
        self.fine, self.at = fine, self.clock()

    @property
    def status(self) -> bytes:
        """The status line for HAProxy."""
        holds = self.fine and self.clock() - self.at <= HOLDS_S
        return b"200 OK" if holds else b"503 Service Unavailable"

    async def answer(self, reader: asyncio.StreamReader, writer: asyncio.StreamWriter) -> None:
        """One check."""
        await reader.readline()
        writer.write(b"HTTP/1.0 " + self.status + b"\r\nContent-Length: 0\r\n\r\n")
        await writer.drain()
        writer.close()


async def follow(socket: str, heard: Heard) -> None:
    """Ask a node for ever."""
    while True:
        heard.hear(fine=await usable(socket))
        await asyncio.sleep(EVERY_S)


async def serve(arguments: list[str]) -> None:
    """For as long as the program runs."""
    async with asyncio.TaskGroup() as tasks:
        for given in arguments:
            port, _, socket = given.partition("=")
            heard = Heard()
            server = await asyncio.start_server(heard.answer, "127.0.0.1", int(port))
            tasks.create_task(server.serve_forever())
            tasks.create_task(follow(socket, heard))


if __name__ == "__main__":
    asyncio.run(serve(sys.argv[1:]))
