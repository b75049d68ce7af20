"""No answer outlives a part of its question: every field of every cached question is changed once."""

from collections.abc import Iterator, Mapping
from copy import copy
from dataclasses import dataclass, fields, is_dataclass
from datetime import UTC, datetime, timedelta
from inspect import signature
from types import MappingProxyType
from typing import Any
from uuid import UUID

import pytest

from kumpan.services import cache
from kumpan.services.cache import CACHES, Remembered, frozen, mark_of, remembered
from kumpan.services.journal.ledger import ReadEntries, Scope, pool_state
from kumpan.services.people.queries import the_workspace
from kumpan.storage.repositories.journal import StoredEntry
from kumpan.storage.row_cache import CachedRows
from tests.web.conftest import Api, api

__all__ = ["api"]
NOON = datetime(2026, 6, 1, 12, 0, tzinfo=UTC)
OTHER = ("something else",)
# Rows are never changed once they are written: what names them stands for all that they hold.
ROWS = {StoredEntry: ("id", "recorded_at"), CachedRows: ("key",), ReadEntries: ("rows", "own")}


def like(value: Any) -> Any:
    """A copy; a state's hash follows from its entries' ids, which are no ids any more once it is changed."""
    other = copy(value)
    if "_hash" in vars(value):
        vars(other)["_hash"] = vars(value)["_hash"]
    return other


def changed(value: Any) -> Iterator[tuple[str, Any]]:
    """The same value with each part of it, at whatever depth, replaced once."""
    yield "", OTHER
    if is_dataclass(value) and not isinstance(value, type):
        for field in fields(value):
            if field.name not in ROWS.get(type(value), (field.name,)):
                continue
            for where, part in changed(getattr(value, field.name)):
                other = like(value)
                object.__setattr__(other, field.name, part)
                yield f"{type(value).__name__}.{field.name}{where}", other
    elif isinstance(value, Mapping):
        for name in value:
            yield f"[{name}]", {key: each for key, each in value.items() if key != name}
            for where, part in changed(value[name]):
                yield f"[{name}]{where}", {**value, name: part}
    elif isinstance(value, tuple) and value:
        yield "[0]", value[1:]
        for where, part in changed(value[-1]):
            yield f"[-1]{where}", (*value[:-1], part)


async def asked(api: Api, monkeypatch: pytest.MonkeyPatch) -> dict[int, tuple[Any, ...]]:
    """By cache, one question that was put to it while a pool was looked at from all sides."""
    seen: dict[int, tuple[Any, ...]] = {}
    real = Remembered.question

    def question(self: Remembered[..., Any], *args: Any, **kwargs: Any) -> Any:
        seen[id(self)] = tuple(signature(self.function).bind(*args, **kwargs).arguments.values())
        return real(self, *args, **kwargs)

    monkeypatch.setattr(Remembered, "question", question)
    pool = await api.new_pool()
    await api.test(
        pool,
        free_chlorine="1",
        ph="7.9",
        total_alkalinity="90",
        calcium_hardness="250",
        cyanuric_acid="40",
        temperature_c="80",
    )
    api.pass_time(days=1)
    await api.test(pool, free_chlorine="3", ph="7.8")
    api.pass_time(days=1)
    for view in ("", "/board", "/outlook", "/sheet", "/care", "/rescue", "/ways"):
        await api.get(f"/pools/{pool}{view}")
    async with api.database.transaction() as tx:  # as a customer reads it
        await pool_state(Scope(tx, await the_workspace(tx), api.now, staff=False), UUID(pool))
    await api.test(pool, free_chlorine="0")  # was it to be expected, or is it bleached?
    await api.get(f"/pools/{pool}/assessment")
    await api.get("/towns?find=boi")
    return seen


async def test_each_field_of_each_question_makes_another_question(
    api: Api, monkeypatch: pytest.MonkeyPatch
) -> None:
    seen = await asked(api, monkeypatch)
    hits, tried = [], 0
    for one in CACHES:
        if one.function.__module__.startswith("tests."):
            continue
        args = seen.get(id(one))
        assert args is not None, f"{one.__name__} was never asked: look at the pool from its side too"
        monkeypatch.undo()
        known = one.question(*args)
        for at in range(len(args)):
            for where, other in changed(args[at]):
                if one._key is not None and where == "":
                    continue  # not a row at all
                tried += 1
                question = one.question(*args[:at], other, *args[at + 1 :])
                if question == known:
                    hits.append(f"{one.__name__}: {where}")
    assert hits == []
    assert tried > 500


async def test_a_changed_setting_gives_the_same_clear_date_in_both_units(api: Api) -> None:
    """A rescue asked in US units, then in metric: one setting, one date."""
    pool = await api.new_pool()
    await api.test(pool, free_chlorine="0", ph="7.4", cyanuric_acid="40")
    begun = {"id": "00000000-0000-4000-8000-0000000000aa", "severity": "green"}
    await api.post(f"/pools/{pool}/rescue", begun)
    await api.get(f"/pools/{pool}/rescue")
    again = {"id": "00000000-0000-4000-8000-0000000000ab", "severity": "black", "ph_way": "lowered"}
    await api.post(f"/pools/{pool}/rescue", again)
    us, metric = [await api.get(f"/pools/{pool}/rescue?metric={m}") for m in ("false", "true")]
    assert us["board"]["clear"] == metric["board"]["clear"]


@dataclass(frozen=True)
class Hidden:
    seen: int
    prices: Mapping[str, float]


def test_a_mapping_is_a_part_of_the_question_and_its_order_is_not() -> None:
    one, other = Hidden(1, {"a": 1.0, "b": 2.0}), Hidden(1, MappingProxyType({"b": 2.0, "a": 1.0}))
    assert frozen(one) == frozen(other)
    assert frozen(one) != frozen(Hidden(1, {"a": 1.0, "b": 2.5}))


def test_what_has_no_fixed_content_is_no_question() -> None:
    with pytest.raises(TypeError):
        frozen({1, 2})


def test_the_least_used_answers_are_forgotten(monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(cache, "CACHES", [])
    work: list[int] = []

    @remembered(most=2)
    def doubled(number: int) -> int:
        work.append(number)
        return 2 * number

    assert [doubled(n) for n in (1, 2, 1, 3, 1, 2)] == [2, 4, 2, 6, 2, 4]
    assert work == [1, 2, 3, 2]


def test_a_mark_is_the_last_full_step_and_never_before_what_was_entered() -> None:
    at = NOON + timedelta(minutes=4, seconds=9)
    assert mark_of(at, every_s=300) == NOON
    assert mark_of(at, every_s=300, entered=NOON + timedelta(minutes=3)) == NOON + timedelta(minutes=3)
    assert mark_of(at, every_s=300, entered=NOON - timedelta(days=1)) == NOON
