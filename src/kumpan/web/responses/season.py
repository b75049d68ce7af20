"""Answers of opening, closing and climate."""

from datetime import date, datetime
from uuid import UUID

from kumpan.core.hazards import Hazard
from kumpan.core.journal.season_entries import Cover, PoolKind, Which, Winter
from kumpan.core.journal.treatment_entries import Outcome
from kumpan.core.season.plans import Dosed
from kumpan.web.responses.base import Response, Text, read_from
from kumpan.web.responses.shared import Finding


class OwnItem(Response):
    """An item that the user put on a list; `day` counts from the list's day."""

    key: Text
    day: int
    title: Text
    text: Text


class SeasonListSaved(Response):
    """An opening or closing as it is planned from now on. The same `list_id` again changes that list."""

    list_id: UUID
    which: Which
    day: date
    kind: PoolKind
    cover: Cover
    winter: Winter
    skimmer_plate: bool
    left_out: tuple[Text, ...]
    own: tuple[OwnItem, ...]
    dropped: bool


class DatedItem(Response):
    """An item on its day, with the cautions of its step."""

    key: Text
    day: date
    title: Text
    text: Text
    hazard: Hazard
    cautions: tuple[Text, ...]
    minutes: int
    station: Text | None
    dosed: Dosed | None
    every_days: int
    materials: tuple[Text, ...]
    own: bool


class ItemRecord(Response):
    """How an item was ticked; `entry_id` takes it back."""

    entry_id: UUID
    at: datetime
    person_id: UUID | None
    outcome: Outcome
    note: Text


class DoseLine(Response):
    """One product of an item: how much in all, in how many parts on their own days, and what is short of it
    on the shelf (None where the stock is not counted).
    """

    product_id: Text
    label: Text
    amount: Text
    parts: int
    short: Text | None


class ItemDoses(Response):
    """What an item takes by the last test; `left` is why there is none, or what must be tested first."""

    lines: tuple[DoseLine, ...]
    left: tuple[Text, ...]


class ListItem(Response):
    """An item with its tick, its amounts by the last test, and until when to circulate after it."""

    item: DatedItem
    ticked: ItemRecord | None = read_from("done_as")
    doses: ItemDoses | None
    circulate_until: datetime | None


class MaterialLine(Response):
    """A thing to have at hand, by the key that ticks it; `entry_id` takes its tick back."""

    name: Text
    key: Text
    at_hand: bool
    entry_id: UUID | None


class Crossing(Response):
    """The next day on which the water should cross 65 F, and where that is from: "log" or "table"; None
    where it never does.
    """

    on: date | None
    source: Text


class SeasonListView(Response):
    """One list.

    `kept` is how it is kept (a preview is not kept yet); `tested_at` the test behind the amounts.
    """

    kept: SeasonListSaved = read_from("saved")
    is_kept: bool = read_from("is_saved")
    items: tuple[ListItem, ...]
    materials: tuple[MaterialLine, ...]
    notes: tuple[Text, ...]
    winter: tuple[Finding, ...]
    crossing: Crossing
    crossing_text: Text | None
    tested_at: datetime | None
    done: int


class Suggested(Response):
    """How the form is filled before anybody touches it."""

    opening_day: date
    closing_day: date
    kind: PoolKind
    cover: Cover
    winter: Winter
    skimmer_plate: bool


class ClimateView(Response):
    """The water by month, C; `own` once the user has set it; when it crosses, as days and in words; and what
    a new list begins with.
    """

    monthly_c: tuple[float, ...]
    own: bool
    opening: Crossing
    closing: Crossing
    text: Text
    suggested: Suggested
