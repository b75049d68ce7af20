"""What a list needs at hand: each thing once, ticked one by one, gone with the item that needed it."""

from dataclasses import replace
from datetime import UTC, date, datetime
from uuid import UUID

import pytest

from kumpan.core.journal import (
    Body,
    Cover,
    Entry,
    ListItemDone,
    Outcome,
    PoolKind,
    SeasonListSaved,
    Which,
    fold,
)
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.season.materials import material_key, materials_of
from kumpan.core.season.plans import CLOSING, OPENING, saved_plan
from kumpan.core.season.saved import records_of
from tests.words import told

LIST = UUID(int=5)
DAY = date(2026, 10, 4)
SALT = Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.CARTRIDGE)
CLOSED = SeasonListSaved(list_id=LIST, which=Which.CLOSING, day=DAY)
OPENED = SeasonListSaved(list_id=LIST, which=Which.OPENING, day=DAY)


def needs(saved: SeasonListSaved) -> tuple[str, ...]:
    return tuple(map(told, saved_plan(saved, SALT, green=False).materials))


@pytest.mark.parametrize(
    ("saved", "thing"),
    [
        # Handbook 09, common practice: what each step takes.
        (CLOSED, "non-foaming winter algaecide"),
        (CLOSED, "sequestrant, if metals are found"),
        (CLOSED, "winter plugs"),
        (CLOSED, "cell spacer"),
        (CLOSED, "water bags"),
        (CLOSED, "cover pump"),
        (replace(CLOSED, skimmer_plate=True), "skimmer seal or plate"),
        (replace(CLOSED, kind=PoolKind.ABOVE_GROUND), "air pillow"),
        (OPENED, "pool salt"),
        (OPENED, "stabilizer"),
        (OPENED, "cartridge"),
        (OPENED, "fresh reagents or strips"),
    ],
)
def test_each_step_brings_what_it_takes(saved: SeasonListSaved, thing: str) -> None:
    assert thing in needs(saved)


def test_what_nobody_needs_is_not_asked_for() -> None:
    assert "air pillow" not in needs(CLOSED)
    assert "cover pump" not in needs(replace(CLOSED, cover=Cover.NONE))
    assert "winter plugs" not in needs(replace(CLOSED, left_out=("lines",)))


def test_a_thing_stands_once_however_many_steps_take_it() -> None:
    found = needs(CLOSED)
    assert len(found) == len(set(found))


def test_a_thing_is_at_hand_once_it_is_ticked() -> None:
    at = datetime(2026, 10, 1, tzinfo=UTC)
    reported: tuple[Body, ...] = (
        CLOSED,
        ListItemDone(LIST, material_key(Message("winter plugs")), Outcome.DONE),
        ListItemDone(LIST, material_key(Message("water bags")), Outcome.SKIPPED),
    )
    state = fold(
        Entry(id=UUID(int=20 + n), pool_id=UUID(int=1), at=at, recorded_at=at, person_id=None, body=body)
        for n, body in enumerate(reported)
    )
    found = {
        told(one.name): one.at_hand
        for one in materials_of(saved_plan(CLOSED, SALT, green=False).materials, records_of(state, LIST))
    }
    assert (found["winter plugs"], found["water bags"], found["cover pump"]) == (True, False, False)


def test_no_item_is_taken_for_a_thing() -> None:
    """A tick names an item or a thing; the two never share a key, and both are short enough to be sent."""
    items = {row.key for row in (*OPENING, *CLOSING)}
    things = {material_key(thing) for row in (*OPENING, *CLOSING) for thing in row.materials}
    assert not items & things
    assert max(len(key) for key in items | things) <= 60
