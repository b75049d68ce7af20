"""What is told about a technician's round over HTTP."""

from typing import Annotated
from uuid import UUID

from pydantic import Field, StrictBool

from kumpan.core.journal import VisitDone
from kumpan.services.visits.queries import MOST_STOPS
from kumpan.web.requests.journal import Note
from kumpan.web.requests.pools import StampIn

Weekday = Annotated[int, Field(ge=0, le=6, strict=True)]


class RoundIn(StampIn):
    """The stops of a weekday (0 is Monday), in order; it holds every week."""

    weekday: Weekday
    stops: Annotated[list[UUID], Field(max_length=MOST_STOPS)]


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
