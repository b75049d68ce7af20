"""Free ports on loopback.

Below those that the kernel gives to outgoing connections (32768 and up here): a port from that range that was
free a moment ago may be the near end of somebody's connection when a server comes to listen there.
"""

import secrets
import socket

LOWEST, HIGHEST = 20000, 32000


def free_port() -> int:
    """A port of the loopback that nobody uses now."""
    return free_ports(1)[0]


def free_ports(count: int) -> list[int]:
    """As many, no two alike, in no order."""
    found: list[int] = []
    while len(found) < count:
        port = LOWEST + secrets.randbelow(HIGHEST - LOWEST)
        if port not in found and _is_free(port):
            found.append(port)
    return found


def _is_free(port: int) -> bool:
    with socket.socket() as probe:
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            return False
    return True
