"""One day at a pool for its owner: what was found, what went in and why, what was done.

Source: service-round.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime, tzinfo
from typing import TypeVar
from uuid import UUID

from kumpan.core.journal import (
    AdditionMade,
    Entry,
    PoolState,
    TestTaken,
    VisitDone,
    VisualCheck,
    kind_of,
    value_in,
)
from kumpan.core.messages import NOTHING, Message
from kumpan.core.quantities.names import BOARD_ORDER
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.verdicts import Verdict, verdict

SOURCE = "service-round"


@dataclass(frozen=True, kw_only=True)
class FoundValue:
    """A value as it was tested, its range here (None: no such side), and what it means."""

    measure: Measure
    value: float
    low: float | None
    high: float | None
    verdict: Verdict


@dataclass(frozen=True)
class PouredThen:
    """Something that went in, with the reason of the sheet that asked for it; "" where none did."""

    at: datetime
    body: AdditionMade
    why: Message


@dataclass(frozen=True, kw_only=True)
class DayReport:
    """The day, oldest first.

    `cost` of what went in, None where a price is not told; `other` is the rest that was done.
    """

    day: date
    people: tuple[UUID, ...]
    visual_checks: tuple[VisualCheck, ...]
    found: tuple[FoundValue, ...]
    poured: tuple[PouredThen, ...]
    other: tuple[Entry, ...]
    visits: tuple[VisitDone, ...]
    cost: float | None

    @property
    def empty(self) -> bool:
        """Nothing was seen, found, poured or done that day."""
        return not (self.visual_checks or self.found or self.poured or self.other or self.visits)


def days_with_reports(state: PoolState, zone: tzinfo) -> tuple[date, ...]:
    """The days on which something was found, poured or done, oldest first."""
    return tuple(sorted({entry.at.astimezone(zone).date() for kind in _kinds(state) for entry in kind}))


def usual_day(state: PoolState, zone: tzinfo) -> date | None:
    """The last day on which somebody tested, poured, or finished a visit; else the last with anything to
    tell.
    """
    visits = [entry.at for kind in (state.tests, state.additions, state.visits) for entry in kind]
    days = days_with_reports(state, zone)
    return max(visits).astimezone(zone).date() if visits else days[-1] if days else None


def day_report(
    state: PoolState, zone: tzinfo, day: date, bands: Mapping[Measure, Band], price_per_g: Mapping[str, float]
) -> DayReport:
    """What the journal tells of a day on the pool's own clock. `price_per_g` by product id."""

    def of(entries: tuple[Entry[B], ...]) -> tuple[Entry[B], ...]:
        return tuple(entry for entry in entries if entry.at.astimezone(zone).date() == day)

    poured = tuple(PouredThen(entry.at, entry.body, _why(state, entry.body)) for entry in of(state.additions))
    reported = sorted((entry for kind in _kinds(state) for entry in of(kind)), key=lambda entry: entry.at)
    return DayReport(
        day=day,
        people=tuple(dict.fromkeys(entry.person_id for entry in reported if entry.person_id is not None)),
        visual_checks=tuple(entry.body for entry in of(state.visual_checks)),
        found=_found(of(state.tests), bands),
        poured=poured,
        other=tuple(entry for entry in reported if kind_of(entry.body) in OTHER),
        visits=tuple(entry.body for entry in of(state.visits)),
        cost=_cost(poured, price_per_g),
    )


B = TypeVar("B")
OTHER = ("care", "water", "pressure", "event", "cell", "list_tick")


def _kinds(state: PoolState) -> tuple[tuple[Entry, ...], ...]:
    return (
        state.visual_checks,
        state.tests,
        state.additions,
        state.care,
        state.water_changes,
        state.pressures,
        state.events,
        state.cell_settings,
        state.list_items_done,
        state.visits,
    )


def _found(tests: tuple[Entry[TestTaken], ...], bands: Mapping[Measure, Band]) -> tuple[FoundValue, ...]:
    """The first value of each measure: how the pool was found; a retest after the dose is not how it was."""
    found = []
    for measure in (*BOARD_ORDER, *(one for one in Measure if one not in BOARD_ORDER)):
        for test in tests:
            value = value_in(test.body.values, measure)
            if value is not None:
                band = bands.get(measure)
                low, high = (band.low, band.high) if band is not None else (None, None)
                found.append(
                    FoundValue(
                        measure=measure,
                        value=value.value,
                        low=low,
                        high=high,
                        verdict=verdict(measure, value.value, band),
                    )
                )
                break
    return tuple(found)


def _why(state: PoolState, body: AdditionMade) -> Message:
    treatment = next((entry.body for entry in state.treatments if entry.id == body.treatment_id), None)
    if treatment is None or body.step_number is None:
        return NOTHING
    return treatment.steps[body.step_number].why if body.step_number < len(treatment.steps) else NOTHING


def _cost(poured: tuple[PouredThen, ...], price_per_g: Mapping[str, float]) -> float | None:
    total = 0.0
    for one in poured:
        price = price_per_g.get(one.body.product_id or "")
        if price is None:
            return None
        total += price * one.body.mass_g
    return total
