"""A node and a web process killed in the middle of writes: nothing acknowledged is lost, nothing doubled."""

import asyncio
import tempfile
from pathlib import Path

import pytest

from kumpan.tools.cluster import Cluster, Trial, trial

# A stage of its own in `./run test`: beside other work a node may take longer to join than its time allows.
pytestmark = pytest.mark.cluster


@pytest.fixture(scope="module")
def tried() -> Trial:
    """What `./run cluster --trial` finds, in a shorter time."""
    with tempfile.TemporaryDirectory(prefix="kumpan-cluster-", dir="/tmp") as folder:
        cluster = Cluster(Path(folder))
        try:
            cluster.start()
            return asyncio.run(trial(cluster, seconds=3.0))
        finally:
            cluster.stop()


def test_every_acknowledged_entry_is_on_every_node_and_once(tried: Trial) -> None:
    assert tried.written > 100
    assert (tried.lost, tried.doubled, tried.alike) == (0, 0, True)


def test_writes_go_on_within_ten_seconds_and_the_node_rejoins(tried: Trial) -> None:
    assert tried.gap_node_s < 10
    assert tried.gap_web_s < 10
    assert tried.rejoined_s < 60
