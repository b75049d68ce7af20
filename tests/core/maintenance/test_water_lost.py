"""What a backwash takes with it: as noted, else an estimate that says what it is reckoned by."""

import pytest

from kumpan.core.journal import PlantSet
from kumpan.core.maintenance.procedures import PROCEDURES
from kumpan.core.maintenance.water_lost import WaterLost, water_lost
from kumpan.core.quantities.units import L_PER_US_GAL
from tests.core.samples import PLASTER
from tests.words import told

GAL = L_PER_US_GAL
POOL_GAL = 20_000
UNKNOWN = PlantSet()


def lost(
    key: str = "backwash", plant: PlantSet = UNKNOWN, pool_gal: float | None = POOL_GAL, **values: float
) -> WaterLost | None:
    pool_l = None if pool_gal is None else pool_gal * GAL
    return water_lost(PROCEDURES[key], PLASTER, plant, pool_l=pool_l, small=False, values=values)


def test_flow_times_time() -> None:
    """Handbook 08: 60 gal a minute for two minutes of wash and half a minute of rinse is 150 gal."""
    found = lost(plant=PlantSet(pump_flow_l_min=60 * GAL), wash_s=120, rinse_s=30)
    assert found is not None
    assert found.volume_l == pytest.approx(150 * GAL)
    assert found.estimated_by.template == ""


@pytest.mark.parametrize(
    ("plant", "pool_gal", "gal", "by"),
    [
        # 15 gal a minute through a square foot (common practice): 3 square feet, 2.5 min.
        (PlantSet(filter_area_m2=3 * 0.09290304), POOL_GAL, 112.5, "the filter's size"),
        # 20,000 gal in eight hours are 41.7 gal a minute.
        (PlantSet(), POOL_GAL, 104.2, "a usual pump for this pool"),
        (PlantSet(), None, None, ""),
    ],
)
def test_without_a_flow_it_is_estimated_and_said(
    plant: PlantSet, pool_gal: float | None, gal: float | None, by: str
) -> None:
    found = lost(plant=plant, pool_gal=pool_gal, wash_s=120, rinse_s=30)
    if gal is None:
        assert found is None
        return
    assert found is not None
    assert found.volume_l / GAL == pytest.approx(gal, rel=0.01)
    assert told(found.estimated_by) == by


def test_without_a_time_the_procedures_own_timers_are_taken() -> None:
    """Handbook 08: 90 s to 2 min of wash, 20 to 60 s of rinse: 105 and 40 in the middle."""
    found = lost(plant=PlantSet(pump_flow_l_min=60.0))
    assert found is not None
    assert found.volume_l == pytest.approx(145.0)
    assert told(found.estimated_by) == "the usual time"


def test_a_wash_of_no_time_and_care_without_waste_lose_nothing() -> None:
    assert lost(wash_s=0.0) is None
    assert lost("clean") is None
