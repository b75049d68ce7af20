"""What is seen of a round, and what the owner is told."""

from dataclasses import dataclass
from datetime import date, datetime
from uuid import UUID

from kumpan.core.assessment.assessment import NextThing
from kumpan.core.findings import Finding
from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure
from kumpan.core.visits.day_report import (
    FoundValue,
)
from kumpan.services.pools.views import PoolHeader


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
class StopView:
    """One stop: what is due, what today's sheet pours, what the next visit will find, what drifts."""

    head: PoolHeader
    tests: tuple[StopNeed, ...]
    care: tuple[Message, ...]
    doses: tuple[Message, ...]
    next_visit: tuple[Finding, ...]
    holds: bool | None
    drift: tuple[Finding, ...]
    done: VisitView | None
    last_visit: VisitView | None


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
    one.

    `nearest_next` is empty where the order is that already; lengths as the crow flies, km.
    """

    weekday: int
    day_name: Message
    is_today: bool
    stops: tuple[StopView, ...]
    others: tuple[StopView, ...]
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
