"""Who may come in and how, as the entry point was told."""

from dataclasses import dataclass

LOOPBACK = frozenset({"localhost", "127.0.0.1", "::1"})


@dataclass(frozen=True, kw_only=True)
class Door:
    """`hosts` are the names that this server goes by; `demo`: the demo's people sign in by one tap.

    `first_code` lets the first person in, as long as nobody can sign in; empty: nobody.
    """

    hosts: frozenset[str] = LOOPBACK
    demo: bool = False
    first_code: str = ""
    strict_transport: bool = False


AT_HOME = Door()
