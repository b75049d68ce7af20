"""The year as one strip: what stands on which row, in order, inside the year."""

from datetime import timedelta

from kumpan.core.journal import (
    AdditionMade,
    Body,
    CareDone,
    TreatmentStarted,
    VisitDone,
    WaterChange,
    WaterChanged,
)
from kumpan.core.maintenance.ribbon import AHEAD, BACK, Ribbon, RibbonMark, RibbonRow, ribbon
from kumpan.core.maintenance.shocks import chlorine_rise, is_shock, shocks
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Readings
from kumpan.core.quantity import Number
from tests.core.journals import LITRES, bleach, reads, solid, state, when
from tests.words import told


def strip(*rows: tuple[float, Body], day: float = 100, due: tuple[RibbonMark, ...] = ()) -> Ribbon:
    return ribbon(state(*rows), when(day), due)


def texts(found: Ribbon, row: RibbonRow) -> list[str]:
    return [told(mark.text) for mark in found.marks if mark.row is row]


def test_each_kind_stands_on_its_row_in_the_order_of_time() -> None:
    found = strip(
        (1, reads(ph=7.5, temperature_c=27)),
        (2, bleach(2.0)),
        (3, bleach(9.0)),
        (4, WaterChanged(kind=WaterChange.BACKWASH, volume_l=0.02 * LITRES)),
        (5, CareDone("backwash")),
        (6, VisitDone()),
        (7, reads(ph=7.4, free_chlorine=2, temperature_c=25)),
    )
    assert texts(found, RibbonRow.TESTS) == ["Test of 2 measures", "Test of 3 measures"]
    assert texts(found, RibbonRow.ADDED) == ["Liquid chlorine"]
    assert texts(found, RibbonRow.SHOCKS) == ["Liquid chlorine: chlorine +9"]
    assert texts(found, RibbonRow.NEW_WATER) == ["Backwash, 2 % of the water"]
    assert texts(found, RibbonRow.CARE) == ["Backwash the sand filter", "Visit done"]
    assert [point.temperature_c for point in found.warmth] == [27, 25]
    assert list(found.marks) == sorted(found.marks, key=lambda mark: (mark.at, mark.row))


def test_the_strip_is_a_year_of_nine_months_back_and_three_ahead() -> None:
    found = strip((1, reads(ph=7.5)), (390, reads(ph=7.5)), day=400)
    assert found.to_at - found.from_at == BACK + AHEAD
    assert abs((found.to_at - found.from_at) - timedelta(days=365)) <= timedelta(days=1)
    assert len(found.marks) == 1


def test_what_is_due_ahead_is_drawn_and_what_lies_beyond_is_not() -> None:
    due = tuple(
        RibbonMark(when(100 + days), RibbonRow.DUE, Message("in {days}", days=Number(days)))
        for days in (5, 80, 200)
    )
    assert texts(strip(day=100, due=due), RibbonRow.DUE) == ["in 5", "in 80"]


def test_more_of_the_water_makes_a_taller_mark() -> None:
    found = strip(
        (1, WaterChanged(kind=WaterChange.DRAIN, volume_l=0.5 * LITRES)),
        (2, WaterChanged(kind=WaterChange.RAIN, volume_l=0.01 * LITRES)),
    )
    drained, rained = (mark for mark in found.marks if mark.row is RibbonRow.NEW_WATER)
    assert drained.weight > rained.weight
    assert all(0 < mark.weight <= 1 for mark in found.marks)


def test_what_is_a_shock_and_what_is_not() -> None:
    """A pound of granules in 10,000 gal brings about 7 (handbook 04, derived); tablets never shock."""
    none: frozenset[object] = frozenset()
    assert is_shock(bleach(7.5), LITRES, none)  # type: ignore[arg-type]
    assert not is_shock(bleach(6.0), LITRES, none)  # type: ignore[arg-type]
    assert not is_shock(solid("trichlor", 5000, 90), LITRES, none)  # type: ignore[arg-type]
    assert chlorine_rise(solid("hydrochloric_acid", 500, 31.45), LITRES) == 0
    assert is_shock(solid("potassium_monopersulfate", 500, 42.8), LITRES, none)  # type: ignore[arg-type]


def test_a_small_pour_of_a_shocks_sheet_is_a_shock_too() -> None:
    pool = state(
        (
            1,
            TreatmentStarted(
                steps=(), profile="household", before=Readings(), predicted=Readings(), plan="shock"
            ),
        )
    )
    treatment = pool.treatments[0].id
    part = bleach(3.0)
    poured = AdditionMade(
        chemical=part.chemical,
        strength_percent=part.strength_percent,
        label=part.label,
        mass_g=part.mass_g,
        volume_ml=part.volume_ml,
        density_g_per_ml=part.density_g_per_ml,
        treatment_id=treatment,
        step_number=2,
    )
    both = state(
        (
            1,
            TreatmentStarted(
                steps=(), profile="household", before=Readings(), predicted=Readings(), plan="shock"
            ),
        ),
        (1.1, poured),
        (2, part),
    )
    assert [entry.at for entry in shocks(both)] == [when(1.1)]
