"""Opening and closing: a list that is kept, its ticks, and the water's climate."""

from dataclasses import dataclass
from datetime import date
from enum import StrEnum
from uuid import UUID

from kumpan.core.journal.treatment_entries import Outcome


class Which(StrEnum):
    """Opening or closing."""

    OPENING = "opening"
    CLOSING = "closing"


class PoolKind(StrEnum):
    """In the ground or above it."""

    IN_GROUND = "in_ground"
    ABOVE_GROUND = "above_ground"


class Cover(StrEnum):
    """What lies over the pool in winter."""

    NONE = "none"
    SOLID = "solid"
    MESH = "mesh"


class Winter(StrEnum):
    """Whether pipes can freeze here."""

    FROST = "frost"
    MILD = "mild"


@dataclass(frozen=True)
class OwnItem:
    """An item that the user put on a list; `day` counts from the list's day."""

    key: str
    day: int
    title: str
    text: str = ""


@dataclass(frozen=True, kw_only=True)
class SeasonListSaved:
    """An opening or closing as it is planned from now on. The same `list_id` again changes that list.

    `left_out` are the handbook's items that this pool does without; `dropped` takes the whole list away.
    """

    list_id: UUID
    which: Which
    day: date
    kind: PoolKind = PoolKind.IN_GROUND
    cover: Cover = Cover.SOLID
    winter: Winter = Winter.FROST
    skimmer_plate: bool = False
    left_out: tuple[str, ...] = ()
    own: tuple[OwnItem, ...] = ()
    dropped: bool = False


@dataclass(frozen=True)
class ListItemDone:
    """An item of a kept list, done or left out this time."""

    list_id: UUID
    item: str
    outcome: Outcome
    note: str = ""


@dataclass(frozen=True)
class ClimateSet:
    """The water's usual temperature in the middle of each month, C, January first, as the user has it."""

    monthly_c: tuple[float, ...]
