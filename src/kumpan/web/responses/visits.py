"""Answers of the round and of the report."""

from datetime import date, datetime
from uuid import UUID

from kumpan.core.quantities.readings import Measure
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Finding, NextThing, PoolHeader, Verdict


class StopNeed(Response):
    """A test that is due at a stop, and why."""

    measure: Measure
    why: Text


class VisitView(Response):
    """A stop as it was finished."""

    entry_id: UUID
    at: datetime
    person_id: UUID | None
    note: Text
    needs_return: bool
    trade: Text


class StopView(Response):
    """One stop: what is due, what today's sheet pours, what the next visit will find, what drifts."""

    head: PoolHeader
    tests: tuple[StopNeed, ...]
    care: tuple[Text, ...]
    doses: tuple[Text, ...]
    next_visit: tuple[Finding, ...]
    holds: bool | None
    drift: tuple[Finding, ...]
    done: VisitView | None
    last_visit: VisitView | None


class LoadLineView(Response):
    """One product of the load list in words; `short_text` empty where the truck has enough."""

    product_id: Text
    label: Text
    need_text: Text
    on_truck_text: Text
    short_text: Text


class TrayView(Response):
    title: Text
    caution: Text
    lines: tuple[LoadLineView, ...]


class RoundView(Response):
    """A weekday's round: stops in order, the other pools, the load by tray, and a shorter way if there is
    one.
    """

    weekday: int
    day_name: Text
    is_today: bool
    stops: tuple[StopView, ...]
    others: tuple[StopView, ...]
    load: tuple[TrayView, ...]
    nearest_next: tuple[UUID, ...]
    length_km: float
    nearest_km: float
    days: tuple[int, ...]


class FoundValue(Response):
    """A value as it was tested, its range here (None: no such side), and what it means."""

    measure: Measure
    value: float
    low: float | None
    high: float | None
    verdict: Verdict


class ReportLine(Response):
    """A thing that was done: when, what, and the reason or the figures beside it."""

    at: datetime
    title: Text
    detail: Text


class AheadLine(Response):
    """What falls on a day ahead, all of it in one line."""

    day: date
    title: Text


class OwnerReport(Response):
    """One day for the owner.

    `days` are those with something to tell, newest first; `text` is all of it to send.
    """

    pool: Text
    place: Text
    day: date
    days: tuple[date, ...]
    by: tuple[Text, ...]
    empty: bool
    looks: tuple[Text, ...] = read_from("visual_checks")
    found: tuple[FoundValue, ...]
    poured: tuple[ReportLine, ...]
    done: tuple[ReportLine, ...]
    notes: tuple[Text, ...]
    trades: tuple[Text, ...]
    comes_back: bool
    cost: float | None
    currency: Text
    swim: Text
    next: NextThing
    ahead: tuple[AheadLine, ...]
    text: Text
