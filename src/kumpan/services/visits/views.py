"""What is seen of a round, and what the owner is told."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import date, datetime
from uuid import UUID

from kumpan.core.assessment.assessment import NextThing
from kumpan.core.findings import Finding
from kumpan.core.journal import Entry, TechnicianAway, VisitKind
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.visits.day_report import (
    FoundValue,
)
from kumpan.core.visits.fair import Measure as RoundMeasure
from kumpan.core.visits.visit import VisitLine
from kumpan.core.visits.weeks import DayAhead, Unplaced
from kumpan.storage.repositories.summaries import Summary


@dataclass(frozen=True, kw_only=True)
class VisitView:
    """A stop as it was finished."""

    entry_id: UUID
    at: datetime
    person_id: UUID | None
    note: str
    needs_return: bool
    trade: str


@dataclass(frozen=True)
class StopNeed:
    """A test that is due at a stop, and why."""

    measure: Measure
    why: Message


@dataclass(frozen=True, kw_only=True)
class StopInside:
    """One stop without its head: what is due, what today's sheet pours, what the next visit will find, what
    drifts.
    """

    tests: tuple[StopNeed, ...]
    care: tuple[Message, ...]
    doses: tuple[Message, ...]
    next_visit: tuple[Finding, ...]
    holds: bool | None
    drift: tuple[Finding, ...]


@dataclass(frozen=True, kw_only=True)
class LoadLineView:
    """One product of the load list in words; `short_text` empty where the truck has enough."""

    product_id: str
    label: str
    need_text: Message
    on_truck_text: Message
    short_text: Message


@dataclass(frozen=True)
class TrayView:
    """One tray of the truck with its caution and what goes into it."""

    title: Message
    caution: Message
    lines: tuple[LoadLineView, ...]


@dataclass(frozen=True, kw_only=True)
class RoundView:
    """A weekday's round: stops in order, the other pools, the load by tray, and a shorter way if there is
    one. Stops and pools are read from their stored summaries; `done` are those finished today, `arrivals`
    when those that are left will be reached.

    `standing`: the pools of the weekly round, from which a single day may differ.

    `nearest_next` is empty where the order is that already; lengths as the crow flies, km.
    """

    weekday: int
    day_name: Message
    is_today: bool
    stops: tuple[Summary, ...]
    standing: tuple[UUID, ...]
    others: tuple[Summary, ...]
    done: frozenset[UUID]
    arrivals: Mapping[UUID, datetime]
    load: tuple[TrayView, ...]
    nearest_next: tuple[UUID, ...]
    length_km: float
    nearest_km: float
    days: tuple[int, ...]


@dataclass(frozen=True)
class ReportLine:
    """A thing that was done: when, what, and the reason or the figures beside it."""

    at: datetime
    title: Message
    detail: Message


@dataclass(frozen=True)
class AheadLine:
    """What falls on a day ahead, all of it in one line."""

    day: date
    title: Message


@dataclass(frozen=True, kw_only=True)
class OwnerReport:
    """One day for the owner.

    `days` are those with something to tell, newest first; `text` is all of it to send.
    """

    pool: str
    place: str
    day: date
    days: tuple[date, ...]
    by: tuple[str, ...]
    empty: bool
    visual_checks: tuple[Message, ...]
    found: tuple[FoundValue, ...]
    poured: tuple[ReportLine, ...]
    done: tuple[ReportLine, ...]
    notes: tuple[str, ...]
    trades: tuple[str, ...]
    comes_back: bool
    cost: float | None
    currency: str
    swim: Message
    next: NextThing
    ahead: tuple[AheadLine, ...]
    text: tuple[Message, ...]


@dataclass(frozen=True)
class UsedOnDay:
    """A product that was poured that day, and how much."""

    product_id: str
    label: str
    amount: Message


@dataclass(frozen=True)
class PoolOfDay:
    """A pool of the day: what was poured there is worth `cost`, None where a price is missing; `ended`: the
    visit was, so that its owner can be told.
    """

    pool_id: UUID
    name: str
    cost: float | None
    ended: bool


@dataclass(frozen=True)
class DayClosed:
    """A technician's day: used, by pool, and what the sums leave out."""

    currency: str
    used: tuple[UsedOnDay, ...]
    pools: tuple[PoolOfDay, ...]
    left_out: Message | None


@dataclass(frozen=True)
class Technician:
    """Somebody who drives."""

    id: UUID
    name: str


@dataclass(frozen=True)
class FairRound:
    """A suggested day: whose, which weekday, its pools by name in order."""

    technician: UUID
    name: str
    weekday: int
    pools: tuple[str, ...]


@dataclass(frozen=True, kw_only=True)
class FairView:
    """Fairer days as a suggestion, and what both come to."""

    before: RoundMeasure
    after: RoundMeasure
    rounds: tuple[FairRound, ...]


@dataclass(frozen=True)
class PlannedPool:
    """A pool by its name; `on_plan`: it stands on some day of the plan. `returns`: it asks for a return."""

    id: UUID
    name: str
    on_plan: bool
    returns: bool


@dataclass(frozen=True, kw_only=True)
class FirmView:
    """The weeks ahead of all technicians, what found no day, and who is away."""

    first: date
    today: date
    technicians: tuple[Technician, ...]
    days: tuple[DayAhead, ...]
    unplaced: tuple[Unplaced, ...]
    pools: tuple[PlannedPool, ...]
    absences: tuple[Entry[TechnicianAway], ...]


@dataclass(frozen=True, kw_only=True)
class VisitGoing:
    """The visit that goes on (`entry_id`, `begun_at`), or one that would begin now; its lines in order.

    `tested`: the water was tested in it, so that chemicals may follow.
    """

    entry_id: UUID | None
    begun_at: datetime | None
    kind: VisitKind
    lines: tuple[VisitLine, ...]
    tested: bool
    zone: str
