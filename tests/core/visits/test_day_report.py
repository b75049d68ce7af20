"""A day for the owner: what was found first, what went in and why, who was there, and what it cost."""

from datetime import UTC, date, datetime, timedelta
from uuid import UUID, uuid5
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.hazards import Hazard
from kumpan.core.journal import (
    AdditionMade,
    Body,
    CareDone,
    Clarity,
    Entry,
    Level,
    PoolState,
    PressureRead,
    TestTaken,
    TreatmentStarted,
    VisitDone,
    VisualCheck,
    WaterChange,
    WaterChanged,
    fold,
    kind_of,
)
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.verdicts import VerdictCode
from kumpan.core.records.step import ADD, Step
from kumpan.core.testing.methods import Method, measured
from kumpan.core.visits.day_report import DayReport, day_report, days_with_reports, usual_day
from tests.words import told

M = Measure
ZONE = ZoneInfo("America/Chicago")
DAY = date(2026, 6, 2)
NINE = datetime(2026, 6, 2, 14, 0, tzinfo=UTC)  # nine in the morning at the pool
ANN, BEN = UUID(int=11), UUID(int=12)
SPACE = UUID(int=77)
BANDS = {M.FREE_CHLORINE: Band(2.0, 4.0, 3.0), M.PH: Band(7.2, 7.8, 7.5)}
SHEET = UUID(int=500)


def reported(*bodies: tuple[float, Body], by: UUID | None = ANN) -> PoolState:
    """Bodies by their hour after nine."""
    return fold(
        Entry(
            id=SHEET if isinstance(body, TreatmentStarted) else uuid5(SPACE, str(n)),
            pool_id=SPACE,
            at=NINE + timedelta(hours=hours, milliseconds=n),
            recorded_at=NINE + timedelta(hours=hours, milliseconds=n),
            person_id=by,
            body=body,
        )
        for n, (hours, body) in enumerate(bodies)
    )


def read(**values: float) -> TestTaken:
    return TestTaken(tuple(measured(M(name), value, Method.DROPS) for name, value in values.items()), "drops")


def poured(grams: float = 1000.0, product: str = "liquid", step: int | None = None) -> AdditionMade:
    return AdditionMade(
        chemical="sodium_hypochlorite",
        strength_percent=10.0,
        label="Liquid chlorine",
        mass_g=grams,
        product_id=product,
        treatment_id=None if step is None else SHEET,
        step_number=step,
    )


def report(state: PoolState, day: date = DAY, prices: dict[str, float] | None = None) -> DayReport:
    return day_report(state, ZONE, day, BANDS, prices or {})


def test_a_day_without_anything_is_empty() -> None:
    assert report(reported()).empty
    assert report(reported((48, read(ph=7.5)))).empty


def test_it_is_how_the_pool_was_found_and_not_the_retest() -> None:
    state = reported((0, read(free_chlorine=0.6, ph=8.0)), (0.5, poured()), (2, read(free_chlorine=3.2)))
    found = {one.measure: one for one in report(state).found}
    assert found[M.FREE_CHLORINE].value == 0.6
    assert found[M.FREE_CHLORINE].verdict.code is VerdictCode.LOW
    assert (found[M.PH].low, found[M.PH].high, found[M.PH].verdict.code) == (7.2, 7.8, VerdictCode.HIGH)


def test_a_measure_that_is_not_managed_here_has_no_range() -> None:
    [copper] = report(reported((0, read(copper=0.1)))).found
    assert (copper.low, copper.high, copper.verdict.code) == (None, None, VerdictCode.NOT_MANAGED)


def test_what_went_in_carries_the_sheets_reason() -> None:
    step = Step(
        kind=ADD,
        day=1,
        offset_min=0,
        title=Message("Liquid chlorine"),
        why=Message("Free chlorine from 0.6 to 3."),
        hazard=Hazard.OXIDIZER_LIQUID,
        cautions=(),
    )
    treatment = TreatmentStarted(steps=(step,), profile="household", before=Readings(), predicted=Readings())
    state = reported((0, treatment), (0.2, poured(step=0)), (0.4, poured(500.0)), (0.6, poured(step=7)))
    assert [told(one.why) for one in report(state).poured] == ["Free chlorine from 0.6 to 3.", "", ""]


@pytest.mark.parametrize(
    ("prices", "cost"),
    [({"liquid": 0.002, "acid": 0.01}, 0.002 * 1500), ({}, None), ({"acid": 0.01}, None)],
)
def test_the_cost_is_told_only_where_every_price_is_known(
    prices: dict[str, float], cost: float | None
) -> None:
    state = reported((0, poured(1000.0)), (1, poured(500.0)))
    assert report(state, prices=prices).cost == (None if cost is None else pytest.approx(cost))


def test_the_rest_that_was_done_stands_in_its_order() -> None:
    state = reported(
        (2, WaterChanged(kind=WaterChange.BACKWASH, volume_l=900.0)),
        (1, PressureRead(120.0)),
        (1.5, CareDone("backwash")),
        (0, VisualCheck(Clarity.HAZY, Level.LOW)),
    )
    found = report(state)
    assert [kind_of(entry.body) for entry in found.other] == ["pressure", "care", "water"]
    assert [visual_check.clarity for visual_check in found.visual_checks] == [Clarity.HAZY]


def test_who_was_there_is_named_once_each() -> None:
    state = fold(
        Entry(
            id=uuid5(SPACE, str(n)),
            pool_id=SPACE,
            at=NINE + timedelta(minutes=n),
            recorded_at=NINE,
            person_id=who,
            body=read(ph=7.5),
        )
        for n, who in enumerate((ANN, None, BEN, ANN))
    )
    assert report(state).people == (ANN, BEN)


def test_the_note_the_return_and_the_trade_come_from_the_visit() -> None:
    [visit] = report(
        reported((1, VisitDone("gate left open", needs_return=True, trade="electrician")))
    ).visits
    assert (visit.note, visit.needs_return, visit.trade) == ("gate left open", True, "electrician")


def test_the_day_is_the_pools_own() -> None:
    """Eleven at night in Chicago is the next day in UTC and still this one at the pool."""
    late = reported((14, read(ph=7.4)))
    assert not report(late).empty
    assert report(late, DAY + timedelta(days=1)).empty
    assert days_with_reports(late, ZONE) == (DAY,)


def test_the_usual_day_is_the_last_visit_and_not_a_later_chore() -> None:
    chores = reported((0, read(ph=7.5)), (72, CareDone("brush")))
    assert usual_day(chores, ZONE) == DAY
    assert usual_day(reported((72, CareDone("brush"))), ZONE) == DAY + timedelta(days=3)
    assert usual_day(reported(), ZONE) is None


@given(st.lists(st.integers(0, 20), min_size=1, max_size=12))
def test_every_entry_is_told_on_one_day_and_every_told_day_tells_something(days: list[int]) -> None:
    state = reported(
        *((24.0 * day, read(ph=7.5)) for day in days), *((24.0 * day + 1, poured()) for day in days)
    )
    listed = days_with_reports(state, ZONE)
    assert list(listed) == sorted(set(listed))
    assert {(day - DAY).days for day in listed} == set(days)
    assert sum(len(report(state, day).poured) for day in listed) == len(days)
    assert not any(report(state, day).empty for day in listed)
