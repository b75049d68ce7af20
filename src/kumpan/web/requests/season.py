"""What is told about opening, closing and the climate over HTTP."""

from typing import Annotated
from uuid import UUID

from pydantic import Field

from kumpan.core.journal import (
    ClimateSet,
    Cover,
    ListItemDone,
    Outcome,
    OwnItem,
    PoolKind,
    SeasonListSaved,
    Which,
    Winter,
)
from kumpan.core.quantities.typed import Dimension
from kumpan.core.quantities.units import Units
from kumpan.web.requests.base import Day, Strict
from kumpan.web.requests.pools import StampIn, Typed, quantity

PREVIEW = UUID(int=0)
Key = Annotated[str, Field(min_length=1, max_length=60)]


class ListFields(Strict):
    """Which list, for which day, and how the pool stands over winter."""

    which: Which
    day: Day
    kind: PoolKind = PoolKind.IN_GROUND
    cover: Cover = Cover.SOLID
    winter: Winter = Winter.FROST
    skimmer_plate: bool = False


class ListAsked(ListFields):
    """A list to look at before it is kept."""

    def to_core(self) -> SeasonListSaved:
        return SeasonListSaved(
            list_id=PREVIEW,
            which=self.which,
            day=self.day,
            kind=self.kind,
            cover=self.cover,
            winter=self.winter,
            skimmer_plate=self.skimmer_plate,
        )


class OwnItemIn(Strict):
    """An item of the user's own; `day` counts from the list's day."""

    key: Key
    day: Annotated[int, Field(ge=-60, le=200)]
    title: Annotated[str, Field(max_length=120)]
    text: Annotated[str, Field(max_length=400)] = ""


class KeepListIn(ListFields, StampIn):
    """A list as it is kept from now on."""

    list_id: UUID
    left_out: Annotated[list[Key], Field(max_length=60)] = []
    own: Annotated[list[OwnItemIn], Field(max_length=60)] = []
    dropped: bool = False

    def to_core(self) -> SeasonListSaved:
        return SeasonListSaved(
            list_id=self.list_id,
            which=self.which,
            day=self.day,
            kind=self.kind,
            cover=self.cover,
            winter=self.winter,
            skimmer_plate=self.skimmer_plate,
            left_out=tuple(self.left_out),
            own=tuple(
                OwnItem(item.key, item.day, item.title.strip(), item.text.strip()) for item in self.own
            ),
            dropped=self.dropped,
        )


class TickItemIn(StampIn):
    list_id: UUID
    item: Key
    outcome: Outcome = Outcome.DONE
    note: Annotated[str, Field(max_length=2000)] = ""

    def to_core(self) -> ListItemDone:
        return ListItemDone(self.list_id, self.item, self.outcome, self.note.strip())


class ClimateIn(StampIn):
    """Twelve temperatures as typed, January first; Fahrenheit unless metric or a unit says else."""

    monthly: Annotated[list[Typed], Field(min_length=12, max_length=12)]

    def to_core(self, units: Units) -> ClimateSet:
        unit = "c" if units is Units.METRIC else "f"
        return ClimateSet(
            tuple(quantity(text, Dimension.TEMPERATURE, unit, "monthly") for text in self.monthly)
        )
