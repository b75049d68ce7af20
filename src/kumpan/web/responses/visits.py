"""Answers of the round and of the report."""

from datetime import date, datetime
from typing import Self
from uuid import UUID

from kumpan.core.journal import VisitKind
from kumpan.core.quantities.readings import Measure
from kumpan.core.visits.visit import Group, Mark
from kumpan.core.visits.weeks import Why
from kumpan.services.assessment.summaries import visit_of
from kumpan.services.visits.views import RoundView as CoreRound
from kumpan.storage.repositories.summaries import Summary
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Finding, NextThing, PoolHeader, Verdict
from kumpan.wording.reader import US_READER, Reader

# A pool that is on nobody's round is not told as a stop; its page tells the rest.
NOT_TOLD: dict[str, object] = {
    "tests": (),
    "care": (),
    "doses": (),
    "next_visit": (),
    "holds": None,
    "drift": (),
}


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


class VisitLine(Response):
    """One line of a visit. `usual`: it can be ticked with its group; else it is opened."""

    key: Text
    group: Group
    title: Text
    detail: Text
    usual: bool
    procedure: Text | None
    station: Text | None
    why: Text
    mark: Mark
    at: datetime | None


class VisitGoing(Response):
    """The visit that goes on (`entry_id`, `begun_at`), or one that would begin now; its lines in order."""

    entry_id: UUID | None
    begun_at: datetime | None
    kind: VisitKind
    lines: tuple[VisitLine, ...]
    tested: bool
    zone: Text


class StopInside(Response):
    """What is due at a stop, what today's sheet pours, what the next visit will find, what drifts."""

    tests: tuple[StopNeed, ...]
    care: tuple[Text, ...]
    doses: tuple[Text, ...]
    next_visit: tuple[Finding, ...]
    holds: bool | None
    drift: tuple[Finding, ...]


class StopView(StopInside):
    """One stop with its head, the visit of today where it is done, the last one, and when it will be reached
    today.
    """

    head: PoolHeader
    done: VisitView | None
    last_visit: VisitView | None
    about_at: datetime | None


class OtherPool(Response):
    """A pool outside the round: its head, and the last visit."""

    head: PoolHeader
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


class _RoundInside(Response):
    weekday: int
    day_name: Text
    is_today: bool
    standing: tuple[UUID, ...]
    load: tuple[TrayView, ...]
    nearest_next: tuple[UUID, ...]
    length_km: float
    nearest_km: float
    days: tuple[int, ...]


class RoundView(_RoundInside):
    """A weekday's round: stops in order, the other pools, the load by tray, and a shorter way if there is
    one.
    """

    stops: tuple[StopView, ...]
    others: tuple[OtherPool, ...]

    @classmethod
    def of(cls, value: object, reader: Reader = US_READER) -> Self:
        """Stops and pools stand in the summaries as they were told."""
        assert isinstance(value, CoreRound)
        stops = [
            {**_stop(one, value.done, reader), "about_at": value.arrivals.get(one.pool_id)}
            for one in value.stops
        ]
        others = [
            {"head": one.rendered[reader.units], "last_visit": visit_of(one).last} for one in value.others
        ]
        rest = _RoundInside.of(value, reader).model_dump()
        return cls.model_validate({**rest, "stops": stops, "others": others})


def _stop(one: Summary, done: frozenset[UUID], reader: Reader) -> dict[str, object]:
    visit = visit_of(one)
    today = visit.last if one.pool_id in done else None
    head = one.rendered[reader.units]
    inside = visit.rendered.get(reader.units, NOT_TOLD)
    return {**inside, "head": head, "done": today, "last_visit": visit.last}


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


class Technician(Response):
    id: UUID
    name: Text


class StopAhead(Response):
    """A stop of a day ahead: how long, why it stands there, work beside the usual; `entry` is taken back."""

    pool: UUID
    minutes: float
    why: Why
    extra: tuple[Text, ...]
    entry: UUID | None
    from_day: date | None


class RoundDay(Response):
    """One technician's day: stops in order, minutes at the pools and in the truck, km by road."""

    day: date
    technician: UUID
    stops: tuple[StopAhead, ...]
    stop_min: float
    drive_min: float
    km: float
    too_long: bool


class Unplaced(Response):
    """A stop for which no day was found, and why."""

    pool: UUID
    day: date
    reason: Text
    entry: UUID | None


class PlannedPool(Response):
    """A pool by its name; `on_plan`: it stands on some day of the plan. `returns`: it asks for a return."""

    id: UUID
    name: Text
    on_plan: bool
    returns: bool


class Absence(Response):
    """Who does not drive from when to when."""

    technician_id: UUID
    first: date
    last: date
    note: Text


class AbsenceEntry(Response):
    id: UUID
    body: Absence


class FirmView(Response):
    """The weeks ahead of all technicians, what found no day, and who is away."""

    first: date
    today: date
    technicians: tuple[Technician, ...]
    days: tuple[RoundDay, ...]
    unplaced: tuple[Unplaced, ...]
    pools: tuple[PlannedPool, ...]
    absences: tuple[AbsenceEntry, ...]


class RoundMeasure(Response):
    """What a set of rounds comes to: km a week, the longest and the shortest day in minutes."""

    km: float
    longest_min: float
    shortest_min: float


class FairRound(Response):
    """A suggested day: whose, which weekday, its pools by name in order."""

    technician: UUID
    name: Text
    weekday: int
    pools: tuple[Text, ...]


class FairView(Response):
    """Fairer days as a suggestion, and what both come to."""

    before: RoundMeasure
    after: RoundMeasure
    rounds: tuple[FairRound, ...]


class UsedOnDay(Response):
    """A product that was poured that day, and how much."""

    product_id: Text
    label: Text
    amount: Text


class PoolOfDay(Response):
    """A pool of the day: the worth of what was poured there, None where a price is missing; `ended`: its
    visit was, so that its owner can be told.
    """

    pool_id: UUID
    name: Text
    cost: float | None
    ended: bool


class DayClosed(Response):
    """A technician's day: used, by pool, and what the sums leave out."""

    currency: Text
    used: tuple[UsedOnDay, ...]
    pools: tuple[PoolOfDay, ...]
    left_out: Text | None
