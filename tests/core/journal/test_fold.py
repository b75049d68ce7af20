"""The fold: corrections, voids, late entries; the order of entry does not matter."""

from datetime import UTC, datetime, timedelta
from uuid import UUID, uuid5

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.forecast.expected import expected_now
from kumpan.core.journal import (
    KINDS,
    AdditionMade,
    BasinMeasured,
    Body,
    Entry,
    Outcome,
    PoolState,
    StepDone,
    TestTaken,
    TreatmentStarted,
    Voided,
    fold,
    last_reading,
    open_treatment,
)
from kumpan.core.journal.fold import LISTS, NOT_UNDERSTOOD
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import profile
from kumpan.core.ranges.targets import aims
from kumpan.core.testing.methods import Method, measured
from kumpan.core.treatment.plan import plan
from tests.core.samples import PLASTER, POOL_L

START = datetime(2026, 6, 1, 18, tzinfo=UTC)
SPACE = UUID(int=7)
M = Measure


def entry(name: str, minutes: int, body: Body, supersedes: str | None = None) -> Entry:
    at = START + timedelta(minutes=minutes)
    return Entry(
        id=uuid5(SPACE, name),
        pool_id=SPACE,
        at=at,
        recorded_at=at,
        person_id=None,
        body=body,
        supersedes=uuid5(SPACE, supersedes) if supersedes else None,
    )


def a_test(free: float, ph: float = 7.5) -> TestTaken:
    values = (measured(M.FREE_CHLORINE, free, Method.DROPS), measured(M.PH, ph, Method.COMPARATOR))
    return TestTaken(values, "drops")


def poured(mass_g: float) -> AdditionMade:
    return AdditionMade(
        chemical="sodium_hypochlorite", strength_percent=10.0, label="Liquid chlorine", mass_g=mass_g
    )


def free_now(state: PoolState) -> float:
    last = last_reading(state, M.FREE_CHLORINE)
    assert last is not None
    return last.value.value


def test_a_correction_replaces_and_a_void_takes_back() -> None:
    entries = [
        entry("a", 0, a_test(1.0)),
        entry("b", 60, a_test(2.0)),
        entry("b2", 60, a_test(2.4), supersedes="b"),
        entry("a-gone", 90, Voided(), supersedes="a"),
    ]
    state = fold(entries)
    assert [free_now(state), len(state.tests)] == [2.4, 1]


def test_a_correction_may_be_corrected_again() -> None:
    entries = [
        entry("a", 0, a_test(1.0)),
        entry("a2", 0, a_test(1.5), "a"),
        entry("a3", 0, a_test(1.7), "a2"),
    ]
    assert free_now(fold(entries)) == 1.7


def test_a_late_entry_counts_at_its_true_time() -> None:
    entries = [entry("new", 600, a_test(3.0)), entry("late", 60, a_test(1.0))]
    assert free_now(fold(entries)) == 3.0
    assert free_now(fold(entries, START + timedelta(minutes=100))) == 1.0


@given(st.permutations(range(5)))
def test_the_order_of_entry_does_not_matter(order: list[int]) -> None:
    entries = [
        entry("a", 0, a_test(1.0)),
        entry("p", 30, poured(500)),
        entry("b", 60, a_test(2.0)),
        entry("b2", 60, a_test(2.2), "b"),
        entry("v", 30, BasinMeasured(volume_l=POOL_L)),
    ]
    assert fold([entries[i] for i in order]) == fold(entries)


def test_the_water_now_is_the_last_reading_and_what_was_poured_since() -> None:
    entries = [
        entry("basin", 0, BasinMeasured(volume_l=37854.0)),
        entry("before", 5, poured(1000)),
        entry("test", 70, a_test(1.0)),
        entry("after", 80, poured(12.8 * 29.5735 * 1.13)),
    ]
    # Handbook 04: 12.8 fl oz of 10 % liquid chlorine raise 10,000 gal by 1 ppm.
    assert expected_now(fold(entries)).free_chlorine == pytest.approx(2.0, abs=0.01)


def test_combined_and_total_follow_from_each_other() -> None:
    values = (measured(M.FREE_CHLORINE, 2.0, Method.DROPS), measured(M.COMBINED_CHLORINE, 0.4, Method.DROPS))
    state = fold([entry("t", 0, TestTaken(values, "drops"))])
    total = last_reading(state, M.TOTAL_CHLORINE)
    assert total is not None
    assert total.value.value == pytest.approx(2.4)


def test_a_sheet_is_open_until_each_step_is_ticked_or_left_out() -> None:
    readings = Readings(free_chlorine=1, ph=7.5, total_alkalinity=100, calcium_hardness=260, cyanuric_acid=40)
    found = plan(
        readings, POOL_L, PLASTER, aims(profile("household"), PLASTER, readings, {}), STANDARD_INVENTORY
    )
    treatment = entry(
        "sheet",
        0,
        TreatmentStarted(steps=found.steps, profile="household", before=readings, predicted=found.predicted),
    )
    steps_done = [
        entry(f"tick{n}", n + 1, StepDone(treatment.id, n, Outcome.DONE if n else Outcome.SKIPPED))
        for n, step in enumerate(found.steps)
        if step.kind != "wait"
    ]
    assert open_treatment(fold([treatment, *steps_done[:-1]])) == treatment
    assert open_treatment(fold([treatment, *steps_done])) is None
    undone = entry("undo", 99, Voided(), supersedes="tick0")
    assert open_treatment(fold([treatment, *steps_done, undone])) == treatment


def test_every_kind_of_a_pool_folds_into_a_list_that_there_is() -> None:
    """A list renamed without the table of kinds would drop its entries in silence."""
    latest = {"settings", "basins", "equipments"}
    named = {kind.folds_into for kind in KINDS if kind.folds_into is not None}
    assert named - latest | {NOT_UNDERSTOOD} == set(LISTS)
