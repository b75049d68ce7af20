"""Green pools with a law of their own, a volume that is not quite right and a noisy kit, rescued by the plan.

Ten of each severity here; a hundred in `./run study`, where the band is counted too.
"""

from zoneinfo import ZoneInfo

import pytest

from kumpan.core.journal import Severity
from kumpan.core.training.green_study import rescued

ZONE = ZoneInfo("America/Chicago")


@pytest.mark.parametrize("severity", list(Severity))
def test_ten_pools_of_each_severity_reach_the_end_unharmed(severity: Severity) -> None:
    """All signs of the end, chlorine never to nothing between two tests, never over the cap in truth."""
    found = [rescued(severity, number, ZONE) for number in range(10)]
    assert all(run.days is not None for run in found)
    assert sum(run.drained_unseen for run in found) == 0
    assert max(run.over_cap_mg_l for run in found) <= 0
    assert sum(run.inside for run in found) >= 7  # of ten; the hundred are counted in the study
    later = sum(len(run.later) for run in found)
    assert later >= 10
    assert sum(run.later_inside for run in found) >= 0.75 * later


def test_the_same_pool_is_rescued_the_same_way() -> None:
    assert rescued(Severity.LIGHT, 3, ZONE) == rescued(Severity.LIGHT, 3, ZONE)
