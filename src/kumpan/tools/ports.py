"""A free port on loopback."""

import socket


def free_port() -> int:
    """A port of the loopback that nobody uses now."""
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        port: int = probe.getsockname()[1]
        return port
