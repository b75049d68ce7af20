"""When the next test is due: dusk, morning, or before free chlorine may run low; never later than the
belief allows.
"""

from datetime import timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.algae.criteria import finished
from kumpan.core.algae.next_test import RESERVE_MG_L, hours_to_reserve, wait_and_test
from kumpan.core.algae.request import RescueRequest
from kumpan.core.algae.stages import stage_plan
from kumpan.core.journal import Clarity, RescueSet, Severity
from kumpan.core.quantities.readings import Measure
from kumpan.core.records.step import ADD, TEST, WAIT, Step
from kumpan.core.treatment.schedule import Timeline
from tests.core.algae.cases import ZONE, Case
from tests.words import told


def under_way(free: float, *, severity: Severity = Severity.GREEN, hour: float = 0.0) -> RescueRequest:
    """A first round was done; free chlorine was just read, so many hours after seven in the morning."""
    case = Case(setting=RescueSet(severity=severity)).begin().prepared().pour(16.0)
    return case.later(hours=1 + hour).test(free_chlorine=free, total_chlorine=free + 0.4).request()


def next_test(request: RescueRequest, rise: float = 0.0) -> Step:
    line = Timeline(request.volume_l, request.readings, request.display)
    wait_and_test(request, line, rise)
    return next(step for step in line.steps if step.kind == TEST)


def test_a_well_filled_pool_is_tested_after_dark() -> None:
    """The evening's figure of the overnight test."""
    request = under_way(24.0)
    step = next_test(request)
    at = (request.now + timedelta(minutes=step.offset_min)).astimezone(ZONE)
    assert "After dark" in told(step.why)
    assert 20 <= at.hour <= 22


def test_after_dark_the_morning_comes_next() -> None:
    """Before the sun, so that what is missing was eaten and not burnt."""
    request = under_way(24.0, hour=14.5)
    step = next_test(request)
    at = (request.now + timedelta(minutes=step.offset_min)).astimezone(ZONE)
    assert "Before the sun" in told(step.why)
    assert 5 <= at.hour <= 8


def test_what_may_run_low_is_tested_before() -> None:
    request = under_way(3.0, severity=Severity.OPAQUE)
    step = next_test(request)
    assert "never let it reach zero" in told(step.why)
    assert step.offset_min < 6 * 60


def test_more_poured_means_a_later_test() -> None:
    request = under_way(2.0, severity=Severity.OPAQUE)
    assert next_test(request, rise=12.0).offset_min > next_test(request).offset_min


@given(st.floats(1.5, 28.0), st.floats(0.0, 20.0))
@settings(max_examples=25)
def test_hours_to_the_reserve_grow_with_chlorine(free: float, rise: float) -> None:
    request = under_way(free)
    assert hours_to_reserve(request, rise, 48.0) <= hours_to_reserve(request, rise + 2.0, 48.0)


@pytest.mark.parametrize("severity", list(Severity))
@pytest.mark.parametrize("free", [1.2, 4.0, 12.0])
def test_every_round_ends_in_a_test_within_its_hours(severity: Severity, free: float) -> None:
    """No sheet leaves the pool alone for longer than a night and half a day."""
    treatment = stage_plan(under_way(free, severity=severity))
    tests = [step for step in treatment.steps if step.kind == TEST]
    assert tests
    assert Measure.FREE_CHLORINE in tests[-1].measures
    assert tests[-1].offset_min <= 26 * 60
    assert treatment.steps[-1].kind == TEST


def test_the_wait_says_that_the_pump_runs_and_the_pool_stays_closed() -> None:
    treatment = stage_plan(under_way(8.0))
    waits = [step.why for step in treatment.steps if step.kind == WAIT]
    assert any("stays closed" in told(why) for why in waits)


def test_the_reserve_is_one() -> None:
    """Handbook 07: never let it fall to zero; one is the last that a kit reads surely."""
    assert RESERVE_MG_L == 1.0


@pytest.mark.parametrize("free", [2.5, 4.0, 6.0, 9.0])
def test_the_early_test_is_when_the_reserve_may_be_reached(free: float) -> None:
    """As many hours from now as free chlorine surely lasts: not sooner, and never after it."""
    request = under_way(free, severity=Severity.OPAQUE, hour=3.0)
    step = next_test(request)
    assert "never let it reach zero" in told(step.why)
    lasts = hours_to_reserve(request, 0.0, 48.0)
    assert step.offset_min == pytest.approx(60 * max(lasts, 1.0), abs=1.0)


def test_what_is_poured_at_dusk_does_not_spoil_the_night() -> None:
    """Clear, and only the overnight pair is missing: topped up, mixed, the evening's figure, then nothing."""
    case = Case().begin().prepared().pour(16.0).later(hours=38).visual_check(Clarity.CLEAR)
    case.test(free_chlorine=2.2, total_chlorine=2.4)  # nine in the evening
    first = stage_plan(case.request())
    kinds = [step.kind for step in first.steps]
    assert ADD in kinds
    evening = first.steps[-1]
    assert evening.kind == TEST
    assert "nothing goes in" in told(evening.why)
    mixed = evening.offset_min - next(step.offset_min for step in first.steps if step.kind == ADD)
    assert 60 <= mixed <= 90
    case.pour(2.0).later(minutes=65).test(free_chlorine=4.0, total_chlorine=4.2)
    second = stage_plan(case.request())
    assert not any(step.kind == ADD for step in second.steps)
    case.later(hours=9).visual_check(Clarity.CLEAR).test(free_chlorine=3.6, total_chlorine=3.8)
    assert finished(case.request())


def test_the_week_is_kept_by_the_worst_day_of_late() -> None:
    """A pool that loses half of its chlorine in a day is filled to twice what must still be there."""
    case = Case(setting=RescueSet(severity=Severity.BLACK)).begin().prepared().pour(16.0)
    quiet = case.later(hours=30).test(free_chlorine=8.0).later(hours=10).test(free_chlorine=7.6).request()
    case.later(hours=4).test(free_chlorine=7.6).later(hours=10).test(free_chlorine=3.8)
    over = quiet.row.week_over_mg_l or 0.0
    assert quiet.usual_mg_l == pytest.approx(over + 3.0)
    assert case.request().usual_mg_l == pytest.approx((over + 0.8) / 0.5)
