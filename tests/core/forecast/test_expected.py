"""What was poured counts until a test taken after its mixing time (law D.5); figures common practice."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.forecast.expected import MOVES, expected_now, mixed_at, settled_reading
from kumpan.core.journal import WaterChange, WaterChanged
from kumpan.core.quantities.readings import Measure
from tests.core.journals import LITRES, reads, solid, state

M = Measure
GOOD = {"free_chlorine": 2.5, "ph": 7.5, "total_alkalinity": 100.0, "cyanuric_acid": 10.0, "salt": 3000.0}
MINUTE = 1 / 1440


@pytest.mark.parametrize(
    ("chemical", "measure", "minutes"),
    [
        ("hydrochloric_acid", M.PH, 60),
        ("sodium_bicarbonate", M.TOTAL_ALKALINITY, 60),
        ("sodium_hypochlorite", M.FREE_CHLORINE, 60),
        ("calcium_chloride", M.CALCIUM_HARDNESS, 240),
        ("sodium_chloride", M.SALT, 1440),
        ("borax", M.BORATE, 1440),
        ("cyanuric_acid", M.CYANURIC_ACID, 7 * 1440),
    ],
)
def test_a_reading_counts_only_once_what_went_in_is_mixed(
    chemical: str, measure: Measure, minutes: float
) -> None:
    before, poured = reads(**{measure.value: 20.0}), solid(chemical, 500, 31.45)
    early = state((0, before), (1, poured), (1 + (minutes - 5) * MINUTE, reads(**{measure.value: 30.0})))
    late = state((0, before), (1, poured), (1 + (minutes + 5) * MINUTE, reads(**{measure.value: 30.0})))
    assert [settled_reading(s, measure).value.value for s in (early, late)] == [20.0, 30.0]  # type: ignore[union-attr]


def test_stabilizer_poured_yesterday_counts_beside_a_test_that_does_not_see_it_yet() -> None:
    """60 m3: 600 g of stabilizer are 10 mg/L, whatever the tube says on the second day."""
    pool = state((0, reads(**GOOD)), (1, solid("cyanuric_acid", 600)), (2, reads(cyanuric_acid=10.0)))
    assert expected_now(pool).cyanuric_acid == pytest.approx(20.0)


def test_acid_of_the_last_hour_lowers_alkalinity_and_ph_even_where_a_test_came_too_soon() -> None:
    acid = solid("hydrochloric_acid", 500, 31.45)
    pool = state((0, reads(**GOOD)), (1, acid), (1 + 10 * MINUTE, reads(ph=7.5, total_alkalinity=100.0)))
    found = expected_now(pool)
    assert found.ph is not None
    assert found.ph < 7.4
    # 500 g of 31.45 %: 4.313 mol of acid in 60 000 L take 3.6 mg/L as CaCO3 [derived]
    assert found.total_alkalinity == pytest.approx(100 - 4.313 * 50_043 / LITRES, abs=0.05)


def test_a_drain_dilutes_and_what_the_fill_holds_is_unknown_unless_it_is_known() -> None:
    drained = WaterChanged(kind=WaterChange.DRAIN, volume_l=0.3 * LITRES)
    found = expected_now(state((0, reads(**GOOD)), (1, drained)))
    assert found.cyanuric_acid == pytest.approx(7.0)
    assert found.free_chlorine == pytest.approx(1.75)
    assert (found.ph, found.salt) == (None, None)
    rained = WaterChanged(kind=WaterChange.RAIN, volume_l=0.1 * LITRES)
    assert expected_now(state((0, reads(**GOOD)), (1, rained))).salt == pytest.approx(2700.0)
    shower = WaterChanged(kind=WaterChange.RAIN, volume_l=0.017 * LITRES)  # an inch
    assert expected_now(state((0, reads(**GOOD)), (1, shower))).salt == 3000.0


@given(
    chemical=st.sampled_from(sorted(MOVES)),
    grams=st.floats(50, 3000),
    hours=st.floats(0.02, 300),
)
def test_a_test_before_mixing_never_erases_a_pour(chemical: str, grams: float, hours: float) -> None:
    """Law D.5: with a test too soon the water is expected to be what it is without that test."""
    poured = solid(chemical, grams, 31.45)
    rows = ((0.0, reads(**GOOD)), (1.0, poured))
    with_test, without = state(*rows, (1 + hours / 24, reads(**GOOD))), state(*rows)
    found, still = expected_now(with_test), expected_now(without)
    for measure in (M.FREE_CHLORINE, M.TOTAL_ALKALINITY, M.CYANURIC_ACID, M.SALT):
        ready = mixed_at(without.additions[0], measure)
        if ready is not None and with_test.tests[-1].at < ready:
            assert found.value(measure) == pytest.approx(still.value(measure))
