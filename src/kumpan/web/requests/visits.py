"""What is told about a technician's round over HTTP."""

from typing import Annotated
from uuid import UUID

from pydantic import Field, StrictBool

from kumpan.core.journal import StopMoved, TechnicianAway, VisitDone, VisitKind, WorkOnce
from kumpan.services.visits.queries import MOST_STOPS
from kumpan.web.requests.base import Day
from kumpan.web.requests.journal import Note
from kumpan.web.requests.pools import StampIn

Weekday = Annotated[int, Field(ge=0, le=6, strict=True)]


class RoundIn(StampIn):
    """The stops of a weekday (0 is Monday), in order; it holds every week."""

    weekday: Weekday
    technician_id: UUID | None = None
    stops: Annotated[list[UUID], Field(max_length=MOST_STOPS)]


class AwayIn(StampIn):
    """Somebody does not drive, both days included."""

    technician_id: UUID
    first: Day
    last: Day
    note: Annotated[str, Field(max_length=200)] = ""

    def to_core(self) -> TechnicianAway:
        """As an entry."""
        return TechnicianAway(self.technician_id, self.first, self.last, self.note)


class OnceIn(StampIn):
    """Work at a pool on one day, by a technician where one is named."""

    pool_id: UUID
    day: Day
    technician_id: UUID | None = None
    minutes: Annotated[float, Field(ge=1, le=480)] = 20.0
    what: Annotated[str, Field(max_length=120)] = ""

    def to_core(self) -> WorkOnce:
        """As an entry."""
        return WorkOnce(
            pool_id=self.pool_id,
            day=self.day,
            technician_id=self.technician_id,
            minutes=self.minutes,
            what=self.what,
        )


class StopMoveIn(StampIn):
    """One stop on another day, this once, by whom."""

    pool_id: UUID
    from_day: Day
    to_day: Day
    technician_id: UUID

    def to_core(self) -> StopMoved:
        """As an entry."""
        return StopMoved(
            pool_id=self.pool_id,
            from_day=self.from_day,
            to_day=self.to_day,
            technician_id=self.technician_id,
        )


class TruckItemIn(StampIn):
    """What the truck holds of one product now, as typed: "2 gal", "3 bags"."""

    product_id: Annotated[str, Field(max_length=60)]
    amount: Annotated[str, Field(max_length=40)]


class VisitIn(StampIn):
    """A stop that is finished; `trade` is what a licensed trade must look at; an owner never reads
    `internal_note`.
    """

    note: Note = ""
    needs_return: StrictBool = False
    trade: Annotated[str, Field(max_length=200)] = ""
    internal_note: Note = ""

    def to_core(self) -> VisitDone:
        return VisitDone(self.note.strip(), self.needs_return, self.trade.strip(), self.internal_note.strip())


class VisitBegunIn(StampIn):
    kind: VisitKind


class UsualIn(StampIn):
    """Lines of the visit that are as usual."""

    keys: Annotated[tuple[Annotated[str, Field(max_length=60)], ...], Field(min_length=1, max_length=60)]
