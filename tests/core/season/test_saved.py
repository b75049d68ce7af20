"""Kept lists: the newest of each counts, what is ticked is gone, what is left is due, duties come round
until spring.
"""

import itertools
from datetime import UTC, date, datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.journal import (
    Body,
    CarePutOff,
    Clarity,
    Entry,
    Level,
    ListItemDone,
    Outcome,
    OwnItem,
    PoolState,
    SeasonListSaved,
    VisualCheck,
    Which,
    fold,
)
from kumpan.core.maintenance.due import DueItem, Standing
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.season.plans import CLOSING, saved_plan
from kumpan.core.season.saved import read_task, records_of, saved_lists, season_due, task_key

ZONE = ZoneInfo("America/Chicago")
LIST, OTHER = UUID(int=5), UUID(int=6)
DAY = date(2026, 10, 4)
TRAITS = Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND)
CLOSED = SeasonListSaved(list_id=LIST, which=Which.CLOSING, day=DAY)


def noon(day: date) -> datetime:
    return datetime(day.year, day.month, day.day, 18, tzinfo=UTC)


def state_of(*reported: tuple[date, Body]) -> PoolState:
    return fold(
        Entry(
            id=UUID(int=100 + n),
            pool_id=UUID(int=1),
            at=noon(day) + timedelta(seconds=n),
            recorded_at=noon(day),
            person_id=None,
            body=body,
        )
        for n, (day, body) in enumerate(reported)
    )


def due(state: PoolState, on: date, ahead: int = 0) -> dict[str, DueItem]:
    found = season_due(state, TRAITS, ZONE, noon(on), ahead)
    return {item.task.rsplit("/", 1)[1]: item for item in found}


def test_the_newest_of_each_list_counts_and_a_dropped_one_is_gone() -> None:
    moved = SeasonListSaved(list_id=LIST, which=Which.CLOSING, day=DAY + timedelta(days=7))
    opened = SeasonListSaved(list_id=OTHER, which=Which.OPENING, day=date(2027, 4, 10))
    state = state_of((DAY, CLOSED), (DAY, opened), (DAY, moved))
    assert saved_lists(state) == (moved, opened)
    gone = SeasonListSaved(list_id=OTHER, which=Which.OPENING, day=date(2027, 4, 10), dropped=True)
    assert saved_lists(state_of((DAY, CLOSED), (DAY, opened), (DAY, gone))) == (CLOSED,)


def test_what_is_left_out_is_gone_and_ones_own_stands_on_its_day() -> None:
    own = OwnItem("lamp", -1, "Lamp out", "bulb in the shed")
    saved = SeasonListSaved(
        list_id=LIST, which=Which.CLOSING, day=DAY, left_out=("store", "fittings"), own=(own,)
    )
    items = {item.key: item for item in saved_plan(saved, TRAITS, green=False).items}
    assert "store" not in items
    assert (items["lamp"].day, items["lamp"].own) == (DAY - timedelta(days=1), True)
    days = [item.day for item in saved_plan(saved, TRAITS, green=False).items]
    assert days == sorted(days)


def test_a_tick_takes_an_item_off_the_due_list_and_the_last_one_counts() -> None:
    state = state_of(
        (DAY, CLOSED),
        (DAY, ListItemDone(LIST, "cover", Outcome.DONE)),
        (DAY, ListItemDone(OTHER, "shock", Outcome.DONE)),
    )
    assert "cover" not in due(state, DAY)
    assert "shock" in due(state, DAY)
    assert set(records_of(state, LIST)) == {"cover"}


@pytest.mark.parametrize(
    ("days", "standing"),
    [
        (-10, Standing.LATER),
        (-2, Standing.SOON),
        (0, Standing.DUE),
        (1, Standing.OVERDUE),
        (21, Standing.OVERDUE),
    ],
)
def test_an_item_presses_as_its_day_comes(days: int, standing: Standing) -> None:
    assert (
        due(state_of((DAY - timedelta(days=30), CLOSED)), DAY + timedelta(days=days))["cover"].standing
        is standing
    )


def test_three_weeks_late_it_nags_no_more_but_the_duties_go_on() -> None:
    found = due(state_of((DAY, CLOSED)), DAY + timedelta(days=40))
    assert "cover" not in found
    assert "duty_water" in found


def test_a_duty_comes_round_from_its_last_tick_until_spring() -> None:
    """Over 3 in pumped off: looked at every three weeks, and not a year later."""
    done_as = DAY + timedelta(days=25)
    state = state_of((DAY, CLOSED), (done_as, ListItemDone(LIST, "duty_water", Outcome.DONE)))
    assert due(state, done_as)["duty_water"].due_on == done_as + timedelta(days=21)
    ahead = due(state, done_as, ahead=100)["duty_water"].ahead
    assert [(b - a).days for a, b in itertools.pairwise(ahead)] == [21] * (len(ahead) - 1)
    assert max(ahead) <= done_as + timedelta(days=100)
    assert "duty_water" not in due(state, DAY + timedelta(days=300))


def test_put_off_moves_the_reminder_and_not_the_day() -> None:
    later = DAY + timedelta(days=5)
    state = state_of((DAY, CLOSED), (DAY, CarePutOff(task_key(LIST, "cover"), later, "wind")))
    item = due(state, DAY)["cover"]
    assert (item.due_on, item.put_off_until, item.standing) == (DAY, later, Standing.LATER)


def test_found_green_an_opening_asks_for_the_rescue_in_place_of_the_first_shock() -> None:
    opened = SeasonListSaved(list_id=LIST, which=Which.OPENING, day=DAY)
    green = state_of((DAY, opened), (DAY, VisualCheck(Clarity.GREEN, Level.NORMAL)))
    assert {"rescue"} <= set(due(green, DAY))
    assert "first_shock" not in due(green, DAY)
    assert "first_shock" in due(state_of((DAY, opened)), DAY)


@given(st.uuids(), st.sampled_from([row.key for row in CLOSING]))
def test_a_task_is_read_back_as_it_was_written(list_id: UUID, item: str) -> None:
    assert read_task(task_key(list_id, item)) == (list_id, item)


@pytest.mark.parametrize(
    "task", ["", "brush", "season/", "season/not-a-list/cover", "test_ph", "other/" + str(LIST) + "/cover"]
)
def test_a_task_of_the_usual_care_is_none_of_a_list(task: str) -> None:
    assert read_task(task) is None


@given(st.lists(st.sampled_from([row.key for row in CLOSING]), unique=True, max_size=12), st.integers(-5, 15))
def test_due_and_ticked_never_overlap_but_for_duties(done_as: list[str], days: int) -> None:
    reported: list[tuple[date, Body]] = [(DAY - timedelta(days=9), CLOSED)]
    reported += [(DAY - timedelta(days=6), ListItemDone(LIST, key, Outcome.DONE)) for key in done_as]
    found = due(state_of(*reported), DAY + timedelta(days=days))
    assert {key for key in found if key in done_as and not key.startswith("duty")} == set()
