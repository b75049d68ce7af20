"""A sheet that runs late, and readings too coarse to carry a dose."""

from datetime import UTC, datetime, timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.journal import TreatmentStarted
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import Band, bands, profile
from kumpan.core.ranges.targets import Aims, aims
from kumpan.core.records.step import ADD, WAIT
from kumpan.core.testing.methods import Method, measured
from kumpan.core.treatment.lateness import late_notes, step_times
from kumpan.core.treatment.plan import plan
from kumpan.core.treatment.too_coarse import left_for_a_finer_test, too_coarse
from tests.core.samples import GOOD, PLASTER, POOL_L
from tests.words import told

NOW = datetime(2026, 7, 4, 18, 0, tzinfo=UTC)
LOW = Readings(
    free_chlorine=1, ph=7.9, total_alkalinity=100, calcium_hardness=150, cyanuric_acid=20, temperature_c=26
)
MADE = plan(LOW, POOL_L, PLASTER, aims(profile("household"), PLASTER, LOW, {}), STANDARD_INVENTORY)
SHEET = TreatmentStarted(steps=MADE.steps, profile="household", before=LOW, predicted=MADE.predicted)
TICKABLE = [n for n, step in enumerate(MADE.steps) if step.kind != WAIT]


def minutes(times: tuple[datetime, ...]) -> list[float]:
    return [(at - NOW).total_seconds() / 60 for at in times]


def test_on_time_the_plan_stands() -> None:
    done = {n: NOW + timedelta(minutes=MADE.steps[n].offset_min) for n in TICKABLE}
    assert minutes(step_times(SHEET, NOW, done, NOW)) == [step.offset_min for step in MADE.steps]


def test_a_late_pour_moves_all_that_follows_and_nothing_before() -> None:
    first, second = TICKABLE[:2]
    done = {first: NOW, second: NOW + timedelta(minutes=MADE.steps[second].offset_min + 45)}
    times = minutes(step_times(SHEET, NOW, done, NOW))
    assert times[second] == MADE.steps[second].offset_min
    assert all(times[n] == MADE.steps[n].offset_min + 45 for n in range(second + 1, len(times)))


def test_a_step_that_is_due_and_not_done_holds_up_the_rest() -> None:
    times = minutes(step_times(SHEET, NOW, {}, NOW + timedelta(minutes=30)))
    assert times[TICKABLE[0]] == 0
    assert times[TICKABLE[1]] == MADE.steps[TICKABLE[1]].offset_min + 30


@given(st.lists(st.integers(0, 600), min_size=len(TICKABLE), max_size=len(TICKABLE)))
def test_however_late_the_waits_are_kept(delays: list[int]) -> None:
    """Each step is due no sooner after the one before it was really done than the sheet has it."""
    done: dict[int, datetime] = {}
    for n, delay in zip(TICKABLE, delays, strict=True):
        due = step_times(SHEET, NOW, done, NOW)[n]
        done[n] = due + timedelta(minutes=delay)
        later = [m for m in TICKABLE if m > n]
        if later:
            gap = MADE.steps[later[0]].offset_min - MADE.steps[n].offset_min
            assert step_times(SHEET, NOW, done, NOW)[later[0]] - done[n] >= timedelta(minutes=gap)


def test_long_overdue_is_said() -> None:
    assert late_notes(SHEET, NOW, {}, NOW + timedelta(hours=3)) == ()
    assert "compute again" in told(late_notes(SHEET, NOW, {}, NOW + timedelta(hours=20))[0].text)


def strip(measure: Measure, value: float) -> dict[Measure, object]:
    rows = bands(profile("household"), PLASTER, 40)
    readings = GOOD.with_value(measure, value)
    return dict(too_coarse(readings, (measured(measure, value, Method.STRIP),), rows))


@pytest.mark.parametrize(("measure", "value", "coarse"), [
    (Measure.CYANURIC_ACID, 20, True),  # between the blocks 0 and 40: may be 40 already
    (Measure.CYANURIC_ACID, 0, False),  # at most half way to 40
    (Measure.TOTAL_ALKALINITY, 40, False),
    (Measure.CALCIUM_HARDNESS, 500, False),
    (Measure.FREE_CHLORINE, 0.5, False),
    (Measure.FREE_CHLORINE, 1.5, False),  # under its least: dosed the same day, however coarse
])  # fmt: skip
def test_strips(measure: Measure, value: float, coarse: bool) -> None:
    assert bool(strip(measure, value)) is coarse


def test_what_is_too_coarse_is_held_and_the_finer_test_named() -> None:
    value = measured(Measure.CYANURIC_ACID, 20, Method.STRIP)
    readings = GOOD.with_value(Measure.CYANURIC_ACID, 20)
    rows = bands(profile("household"), PLASTER, 20)
    held = too_coarse(readings, (value,), rows)
    made = plan(readings, POOL_L, PLASTER, Aims(rows, {}, frozenset(held)), STANDARD_INVENTORY)
    assert not [step for step in made.steps if step.chemical == "cyanuric_acid"]
    assert "turbidity tube" in told(left_for_a_finer_test(held)[0].reason)
    free = plan(readings, POOL_L, PLASTER, Aims(rows, {}), STANDARD_INVENTORY)
    assert [step for step in free.steps if step.chemical == "cyanuric_acid" and step.kind == ADD]


def test_a_fine_reading_is_never_too_coarse() -> None:
    rows = {Measure.CALCIUM_HARDNESS: Band(200, 400, 260)}
    value = measured(Measure.CALCIUM_HARDNESS, 180, Method.DROPS)
    assert too_coarse(GOOD.with_value(Measure.CALCIUM_HARDNESS, 180), (value,), rows) == {}


def test_no_salt_goes_in_by_what_the_chlorinator_shows() -> None:
    """Handbook 02: verify independently before adding salt. Far out of doubt by the display's own spread."""
    band = Band(2700, 3400, 3200)
    by_unit = measured(Measure.SALT, 1500, Method.DISPLAY)
    found = too_coarse(Readings(salt=1500), [by_unit], {Measure.SALT: band})
    (unmet,) = left_for_a_finer_test(found)
    assert "by hand" in told(unmet.reason)
    by_hand = measured(Measure.SALT, 1500, Method.METER)
    assert not too_coarse(Readings(salt=1500), [by_hand], {Measure.SALT: band})
