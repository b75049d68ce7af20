"""Kept lists: the latest of each, what is ticked, and what of them is due. Source: season-lists."""

from collections.abc import Iterator
from dataclasses import dataclass
from datetime import date, datetime, timedelta, tzinfo
from uuid import UUID

from kumpan.core.journal import (
    Entry,
    ListItemDone,
    Outcome,
    PoolState,
    SeasonListSaved,
    Which,
    Winter,
    is_green,
)
from kumpan.core.maintenance.due import DueItem, Standing
from kumpan.core.maintenance.recurrence import local_day
from kumpan.core.messages import NOTHING, Cased, Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.season.plans import DatedItem, saved_plan

SOURCE = "season-lists"

TASK = "season"
NAGS_FOR = timedelta(days=21)
DUTIES_FOR = timedelta(days=210)
SOON_DAYS = 3


@dataclass(frozen=True)
class RecordedItem:
    """The last tick of an item."""

    entry: Entry
    body: ListItemDone


def saved_lists(state: PoolState) -> tuple[SeasonListSaved, ...]:
    """Each list as it was kept last; dropped ones are gone. In the order of their days."""
    found: dict[UUID, SeasonListSaved] = {}
    for entry in state.season_lists:
        found[entry.body.list_id] = entry.body
    return tuple(sorted((one for one in found.values() if not one.dropped), key=lambda one: one.day))


def records_of(state: PoolState, list_id: UUID) -> dict[str, RecordedItem]:
    """Item -> its last tick."""
    return {
        entry.body.item: RecordedItem(entry, entry.body)
        for entry in state.list_items_done
        if entry.body.list_id == list_id
    }


def closed_for_the_winter(state: PoolState, traits: Traits) -> bool:
    """A closing list whose every item is done or left out, and no opening begun after it.

    A mild winter's list closes nothing.
    """
    closed = False
    for saved in saved_lists(state):
        recorded = records_of(state, saved.list_id)
        if saved.which is Which.OPENING:
            closed = closed and not recorded
        elif saved.winter is not Winter.MILD:
            once = [item for item in saved_plan(saved, traits, green=False).items if not item.every_days]
            closed = bool(once) and all(item.key in recorded for item in once)
    return closed


def task_key(list_id: UUID, item: str) -> str:
    """The due list's key for an item of a season's list."""
    return f"{TASK}/{list_id}/{item}"


def read_task(task: str) -> tuple[UUID, str] | None:
    """List and item of a due task; None for a task of the usual care."""
    parts = task.split("/", 2)
    if len(parts) != 3 or parts[0] != TASK:
        return None
    try:
        return UUID(parts[1]), parts[2]
    except ValueError:
        return None


def season_due(
    state: PoolState, traits: Traits, zone: tzinfo, now: datetime, ahead_days: int
) -> tuple[DueItem, ...]:
    """What the kept lists ask for: items not yet ticked, and winter duties each time they come round."""
    today = local_day(now, zone)
    later = _put_off(state)
    found: list[DueItem] = []
    for saved in saved_lists(state):
        steps_done = records_of(state, saved.list_id)
        for item in saved_plan(saved, traits, green=is_green(state)).items:
            on = _due_on(item, steps_done.get(item.key), zone)
            if on is None or today - on > (DUTIES_FOR if item.every_days else NAGS_FOR):
                continue
            if on > saved.day + DUTIES_FOR:
                continue
            shown = max(on, later.get(task_key(saved.list_id, item.key), on))
            ahead = tuple(_ahead(item, shown, begin=saved.day, today=today, ahead_days=ahead_days))
            found.append(_due(saved, item, on=on, shown=shown, today=today, ahead=ahead))
    return tuple(found)


@dataclass(frozen=True)
class ListLine:
    """An item of a kept list that stands on a day: its task, and what became of it."""

    task: str
    item: DatedItem
    outcome: Outcome | None
    at: datetime | None


def list_lines(state: PoolState, traits: Traits, today: date) -> tuple[ListLine, ...]:
    """The lists that go on today, in their order: what is to be done by now, and what was. Duties of a closed
    pool are none of it.
    """
    found = []
    for saved in saved_lists(state):
        if not saved.day - NAGS_FOR <= today <= saved.day + NAGS_FOR:
            continue
        done = records_of(state, saved.list_id)
        for item in saved_plan(saved, traits, green=is_green(state)).items:
            record = done.get(item.key)
            if not item.every_days and (item.day <= today or record is not None):
                outcome = record.body.outcome if record is not None else None
                at = record.entry.at if record is not None else None
                found.append(ListLine(task_key(saved.list_id, item.key), item, outcome, at))
    return tuple(found)


def _put_off(state: PoolState) -> dict[str, date]:
    """Until when an item was put off."""
    return {entry.body.task: entry.body.until for entry in state.put_off if entry.body.until is not None}


def _due_on(item: DatedItem, done_as: RecordedItem | None, zone: tzinfo) -> date | None:
    if done_as is None:
        return item.day
    if not item.every_days:
        return None
    return local_day(done_as.entry.at, zone) + timedelta(days=item.every_days)


def _ahead(item: DatedItem, on: date, begin: date, today: date, ahead_days: int) -> Iterator[date]:
    until = min(today + timedelta(days=ahead_days), begin + DUTIES_FOR)
    while on <= until and ahead_days:
        if on >= today:
            yield on
        if not item.every_days:
            return
        on += timedelta(days=item.every_days)


_TITLES = {Which.OPENING: "Opening: {item}", Which.CLOSING: "Closing: {item}"}


def _due(
    saved: SeasonListSaved, item: DatedItem, on: date, shown: date, today: date, ahead: tuple[date, ...]
) -> DueItem:
    return DueItem(
        task=task_key(saved.list_id, item.key),
        title=Message(_TITLES[saved.which], item=Cased(item.title)),
        due_on=on,
        standing=_standing(shown, today),
        late_days=max(0, (today - on).days),
        why=item.text,
        early=NOTHING,
        late=NOTHING,
        procedure=None,
        station="season",
        days=float(item.every_days) or None,
        put_off_until=shown if shown != on else None,
        ahead=ahead,
    )


def _standing(on: date, today: date) -> Standing:
    left = (on - today).days
    if left < 0:
        return Standing.OVERDUE
    if left == 0:
        return Standing.DUE
    return Standing.SOON if left <= SOON_DAYS else Standing.LATER
