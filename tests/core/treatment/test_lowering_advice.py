"""What only water or time lowers: shares, liters, the reducer, and the words on the plan."""

from math import exp

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.chlorine_reducer import reducer_dose
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.dosing.water_change import left_after_overflowing, share_to_replace, water_change
from kumpan.core.errors import InvalidInput
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import profile
from kumpan.core.ranges.targets import aims
from kumpan.core.treatment.plan import Plan, plan
from tests.core.samples import PLASTER, POOL_L
from tests.words import told

M = Measure
REDUCER = Product("thio", "sodium_thiosulfate", 100)


@given(st.floats(1, 2000), st.floats(0, 1), st.floats(0, 1))
def test_the_share_replaced_reaches_what_was_wanted(now: float, wanted_part: float, fill_part: float) -> None:
    wanted = now * wanted_part
    in_fill = wanted * fill_part
    share = share_to_replace(now, wanted, in_fill)
    if share is None:
        assert in_fill >= wanted
    else:
        assert 0 <= share <= 1
        assert now + (in_fill - now) * share == pytest.approx(wanted, abs=1e-6 * now)


def test_half_the_stabilizer_takes_half_the_water_or_seven_tenths_run_through() -> None:
    """Exact: 1/2 drained, ln 2 = 0.693 pool volumes overflowing (common practice: overflowing wastes
    water).
    """
    change = water_change(120, 60, 0, 40_000)
    assert change is not None
    assert change.drained_first_l == pytest.approx(20_000)
    assert change.overflowing_l == pytest.approx(27_726, abs=1)
    assert left_after_overflowing(change.overflowing_l / 40_000) == pytest.approx(0.5)
    assert left_after_overflowing(1) == pytest.approx(exp(-1))


def test_hard_fill_water_cannot_soften() -> None:
    assert water_change(600, 260, 300, 40_000) is None
    assert share_to_replace(200, 260, 300) == 0.0


def test_reducer_by_theory_by_practice_and_first_half() -> None:
    """Handbook 04: 0.875 g a gram of chlorine in theory, about 2 in practice, half of it first.

    7 mg/L in 50,000 L.
    """
    dose = reducer_dose(10, 3, 50_000, REDUCER)
    assert dose.theory_g == pytest.approx(350 * 0.875, rel=1e-3)
    assert dose.practice_g == pytest.approx(700)
    assert dose.first_g == pytest.approx(350)
    assert reducer_dose(2, 3, 50_000, REDUCER).practice_g == 0


def test_another_chemical_is_no_reducer() -> None:
    with pytest.raises(InvalidInput, match="thiosulfate"):
        reducer_dose(10, 3, 50_000, STANDARD_INVENTORY[0])


def planned(readings: Readings, fill: Readings | None = None, *, reducer: bool = False) -> Plan:
    inventory = (*STANDARD_INVENTORY, REDUCER) if reducer else STANDARD_INVENTORY
    aimed = aims(profile("household"), PLASTER, readings, {})
    return plan(readings, POOL_L, PLASTER, aimed, inventory, fill=fill)


def reason(found: Plan, measure: Measure) -> str:
    return next(told(left.reason) for left in found.unmet if left.measure is measure)


HARD = Readings(free_chlorine=2.5, ph=7.5, total_alkalinity=100, calcium_hardness=600, cyanuric_acid=120)


def test_stabilizer_needs_no_test_of_the_fill_water_calcium_does() -> None:
    found = planned(HARD)
    assert "67 % new water" in reason(found, M.CYANURIC_ACID)
    assert "Ask a professional" in reason(found, M.CYANURIC_ACID)
    assert "Test the fill water's calcium" in reason(found, M.CALCIUM_HARDNESS)


def test_with_a_tested_fill_the_liters_are_told() -> None:
    text = reason(planned(HARD, Readings(calcium_hardness=50)), M.CALCIUM_HARDNESS)
    assert "62 % new water: 12,400 gal drained and refilled" in text


def test_a_fill_that_is_as_hard_is_told() -> None:
    assert "holds 300 itself" in reason(planned(HARD, Readings(calcium_hardness=300)), M.CALCIUM_HARDNESS)


def test_the_reducer_is_named_only_when_it_stands_on_the_shelf_and_chlorine_is_far_over() -> None:
    high = Readings(free_chlorine=12, ph=7.5, total_alkalinity=100, calcium_hardness=260, cyanuric_acid=40)
    assert "half of what is computed" in reason(planned(high, reducer=True), M.FREE_CHLORINE)
    assert "today" not in reason(planned(high), M.FREE_CHLORINE)
    little = Readings(free_chlorine=4, ph=7.5, total_alkalinity=100, calcium_hardness=260, cyanuric_acid=40)
    assert "today" not in reason(planned(little, reducer=True), M.FREE_CHLORINE)
