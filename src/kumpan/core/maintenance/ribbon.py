"""The year as one strip: water temperature, tests, what went in, shocks, new water, visits.

Source: season-marks.
"""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import UTC, datetime, time, timedelta
from enum import StrEnum
from uuid import UUID

from kumpan.core.journal import (
    AdditionMade,
    Entry,
    PoolState,
    WaterChange,
    Which,
    value_in,
)
from kumpan.core.maintenance.filter_pressure import CLEANINGS
from kumpan.core.maintenance.shocks import chlorine_rise, is_shock, shock_treatments
from kumpan.core.maintenance.tasks import TASKS
from kumpan.core.messages import Message, Verbatim
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number

SOURCE = "season-marks"

NOON = time(17)  # UTC: noon in the middle of North America
BACK, AHEAD = timedelta(days=275), timedelta(days=90)


class RibbonRow(StrEnum):
    """The rows of the strip, top to bottom."""

    TESTS = "tests"
    ADDED = "added"
    SHOCKS = "shocks"
    NEW_WATER = "new_water"
    CARE = "care"
    DUE = "due"


@dataclass(frozen=True)
class RibbonMark:
    """Something that happened, or is due, on its row; `weight` 0 to 1 is how tall it is drawn."""

    at: datetime
    row: RibbonRow
    text: Message
    weight: float = 1.0


@dataclass(frozen=True)
class WarmthPoint:
    """One reading of the water's temperature, C."""

    at: datetime
    temperature_c: float


@dataclass(frozen=True, kw_only=True)
class Ribbon:
    """One rolling year: nine months back, three ahead."""

    from_at: datetime
    now_at: datetime
    to_at: datetime
    warmth: tuple[WarmthPoint, ...]
    marks: tuple[RibbonMark, ...]


def ribbon(state: PoolState, now: datetime, due: tuple[RibbonMark, ...] = ()) -> Ribbon:
    """The strip of one pool as of now; `due` is what lies ahead."""
    begin, end = now - BACK, now + AHEAD
    marks = [mark for mark in (*_marks(state), *_hard_weeks(state), *due) if begin <= mark.at <= end]
    warmth = tuple(point for point in _warmth(state) if begin <= point.at)
    return Ribbon(
        from_at=begin,
        now_at=now,
        to_at=end,
        warmth=warmth,
        marks=tuple(sorted(marks, key=lambda mark: (mark.at, mark.row))),
    )


def _warmth(state: PoolState) -> Iterator[WarmthPoint]:
    for test in state.tests:
        value = value_in(test.body.values, Measure.TEMPERATURE)
        if value is not None:
            yield WarmthPoint(test.at, value.value)


def _marks(state: PoolState) -> Iterator[RibbonMark]:
    volume_l = state.basin.volume_l if state.basin is not None else None
    treatments = shock_treatments(state)
    for test in state.tests:
        count = len(test.body.values)
        yield RibbonMark(
            test.at,
            RibbonRow.TESTS,
            Message("Test of {count} measures", count=Number(count)),
            min(1.0, 0.3 + count / 10),
        )
    for poured in state.additions:
        yield from _addition(poured, volume_l, treatments)
    for change in state.water_changes:
        share = change.body.volume_l / volume_l if volume_l else 0.0
        text = Message(
            "{water}, {share} % of the water",
            water=_WATER[change.body.kind],
            share=Number(100 * share, digits=0),
        )
        yield RibbonMark(change.at, RibbonRow.NEW_WATER, text, min(1.0, 0.3 + 3 * share))
    for visit in state.visits:
        yield RibbonMark(visit.at, RibbonRow.CARE, Message("Visit done"), 0.5)
    for care in state.care:
        title = TASKS[care.body.task].title if care.body.task in TASKS else Message("Care done")
        heavy = care.body.task in CLEANINGS or care.body.task == "cell"
        yield RibbonMark(care.at, RibbonRow.CARE, title, 1.0 if heavy else 0.4)


def _hard_weeks(state: PoolState) -> Iterator[RibbonMark]:
    """A rescue's beginning and end, openings and closings on their days."""
    for begun in state.rescues:
        yield RibbonMark(begun.at, RibbonRow.SHOCKS, Message("Rescue set"), 0.8)
    for ended in state.rescue_ends:
        yield RibbonMark(ended.at, RibbonRow.SHOCKS, Message("Rescue ended"), 0.8)
    lists = {e.body.list_id: e.body for e in state.season_lists}
    for saved in lists.values():
        if not saved.dropped:
            noon = datetime.combine(saved.day, NOON, UTC)
            yield RibbonMark(noon, RibbonRow.CARE, _WHICH[saved.which], 1.0)


_WHICH: dict[Which, Message] = {Which.OPENING: Message("Opening"), Which.CLOSING: Message("Closing")}
_WATER: dict[WaterChange, Message] = {
    WaterChange.BACKWASH: Message("Backwash"),
    WaterChange.REFILL: Message("Refill"),
    WaterChange.RAIN: Message("Rain ran over"),
    WaterChange.DRAIN: Message("Drained and refilled"),
}


def _addition(
    entry: Entry[AdditionMade], volume_l: float | None, treatments: frozenset[UUID]
) -> Iterator[RibbonMark]:
    body, label = entry.body, Verbatim(entry.body.label)
    plain = Message("{label}", label=label)
    if is_shock(body, volume_l, treatments):
        rise = chlorine_rise(body, volume_l)
        text = (
            Message("{label}: chlorine +{rise}", label=label, rise=Number(rise, digits=0)) if rise else plain
        )
        yield RibbonMark(entry.at, RibbonRow.SHOCKS, text)
    else:
        yield RibbonMark(entry.at, RibbonRow.ADDED, plain, 0.6)
