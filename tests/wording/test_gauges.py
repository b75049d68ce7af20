"""The lane's one scale: places and values are each other's inverse, in order, and inside the edges."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.quantities.names import BOARD_ORDER
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import PROFILES, Band, bands
from kumpan.wording.gauges import AIM_STEPS, LINEAR_BANDS, marker_on, spot, value_at
from tests.core.samples import INDOOR, PLASTER, SALT_POOL, VINYL_TABLETS

BANDS = st.builds(
    lambda low, width: Band(low, low + width, low + width / 2), st.floats(0.0, 3000), st.floats(0.2, 2000)
)
PLACES = st.floats(-1.55, 2.55)  # an arrow stands for what lies beyond


@given(BANDS, PLACES)
def test_a_value_is_drawn_where_it_was_taken_from(band: Band, place: float) -> None:
    value = value_at(place, band)
    found = spot(value, band)
    if value > 0:
        assert found.position == pytest.approx(place, abs=1e-6)


@given(BANDS, PLACES, PLACES)
def test_further_right_is_more(band: Band, one: float, other: float) -> None:
    if one < other:
        assert value_at(one, band) <= value_at(other, band)


@given(BANDS, st.floats(-3, 4))
def test_no_place_means_less_than_nothing(band: Band, place: float) -> None:
    assert value_at(place, band) >= 0


def test_the_ropes_are_at_nought_and_one_and_linear_one_band_beyond() -> None:
    """product.md: linear between the ropes and one band beyond, then logarithmic."""
    band = Band(80, 120, 100)
    assert value_at(0, band) == 80
    assert value_at(1, band) == 120
    assert value_at(1 + LINEAR_BANDS, band) == pytest.approx(120 + 40 * LINEAR_BANDS)
    beyond = value_at(1 + LINEAR_BANDS + 0.2, band) - value_at(1 + LINEAR_BANDS, band)
    assert beyond > 0.2 * 40  # compressed: the same way on the lane is more of the measure


@pytest.mark.parametrize("traits", [PLASTER, SALT_POOL, VINYL_TABLETS, INDOOR])
@pytest.mark.parametrize("key", list(PROFILES))
def test_every_school_draws_every_managed_measure_on_the_lane(key: str, traits: object) -> None:
    rows = bands(PROFILES[key], traits, 40.0)  # type: ignore[index, arg-type]
    for measure in BOARD_ORDER:
        band = rows.get(measure)
        if band is None or band.high is None or band.high == (band.low or 0):
            continue
        middle = ((band.low or 0) + band.high) / 2
        drawn = marker_on(band, middle, middle, middle)
        assert drawn.at.position == pytest.approx(0.5)
        assert drawn.at.off_edge == 0


def test_an_unmanaged_measure_has_a_number_and_no_place_of_its_own() -> None:
    drawn = marker_on(None, 900.0, 900.0, 900.0)
    assert drawn.value == 900.0
    assert drawn.at.off_edge == 0


def test_every_nudge_is_a_step_that_its_test_can_see() -> None:
    for measure, step in AIM_STEPS.items():
        assert step > 0
        assert measure in BOARD_ORDER
    assert Measure.COMBINED_CHLORINE not in AIM_STEPS  # nothing is poured for it
    assert Measure.SATURATION_INDEX not in AIM_STEPS
