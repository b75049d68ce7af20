"""A server that is no member of a cluster, or does not answer, is not written to."""

import asyncio
from pathlib import Path

from kumpan.tools.mariadb_server import MariaDbServer
from kumpan.tools.node_check import HOLDS_S, Heard, usable


def test_a_server_without_a_cluster_and_one_that_is_not_there_are_not_usable(
    mariadb: MariaDbServer, tmp_path: Path
) -> None:
    assert not asyncio.run(usable(mariadb.socket))
    assert not asyncio.run(usable(str(tmp_path / "nobody")))


def test_what_was_heard_holds_for_a_while_and_no_longer() -> None:
    now = 100.0
    heard = Heard(clock=lambda: now)
    assert heard.status.startswith(b"503")  # nothing was heard yet
    heard.hear(fine=True)
    now += HOLDS_S
    assert heard.status.startswith(b"200")
    now += 0.1
    assert heard.status.startswith(b"503")
    heard.hear(fine=False)
    assert heard.status.startswith(b"503")
