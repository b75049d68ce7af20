"""What is seen of openings and closings."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from kumpan.core.findings import Finding
from kumpan.core.journal import (
    Outcome,
    SeasonListSaved,
)
from kumpan.core.messages import Message
from kumpan.core.season.climate import Crossing
from kumpan.core.season.doses import ItemDoses
from kumpan.core.season.plans import DatedItem
from kumpan.core.season.suggested import Suggested


@dataclass(frozen=True, kw_only=True)
class ItemRecord:
    """How an item was ticked; `entry_id` takes it back."""

    entry_id: UUID
    at: datetime
    person_id: UUID | None
    outcome: Outcome
    note: str


@dataclass(frozen=True)
class ListItem:
    """An item with its tick, its amounts by the last test, and until when to circulate after it."""

    item: DatedItem
    done_as: ItemRecord | None
    doses: ItemDoses | None
    circulate_until: datetime | None


@dataclass(frozen=True)
class MaterialLine:
    """A thing to have at hand, by the key that ticks it; `entry_id` takes its tick back."""

    name: Message
    key: str
    at_hand: bool
    entry_id: UUID | None


@dataclass(frozen=True, kw_only=True)
class SeasonListView:
    """One list.

    `kept` is how it is kept (a preview is not kept yet); `tested_at` the test behind the amounts.
    """

    saved: SeasonListSaved
    is_saved: bool
    items: tuple[ListItem, ...]
    materials: tuple[MaterialLine, ...]
    notes: tuple[Message, ...]
    winter: tuple[Finding, ...]
    crossing: Crossing
    crossing_text: Message | None
    tested_at: datetime | None
    done: int


@dataclass(frozen=True, kw_only=True)
class ClimateView:
    """The water by month, C; `own` once the user has set it; when it crosses, as days and in words; and what
    a new list begins with.
    """

    monthly_c: tuple[float, ...]
    own: bool
    opening: Crossing
    closing: Crossing
    text: Message
    suggested: Suggested
