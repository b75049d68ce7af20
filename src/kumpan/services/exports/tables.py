"""Tests, additions, care and costs as tables: for one pool, a round or all, from a day to a day."""

from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass
from datetime import date, datetime
from enum import StrEnum
from itertools import chain
from uuid import UUID
from zoneinfo import ZoneInfo

from kumpan.core.errors import InvalidInput, NotPermitted
from kumpan.core.journal import (
    AdditionMade,
    CareDone,
    Entry,
    TestTaken,
    VisualCheck,
    WaterChanged,
    effective,
    of_kind,
    value_in,
)
from kumpan.core.messages import Message
from kumpan.core.quantities.names import NAMES
from kumpan.core.quantities.readings import READING_MEASURES, Measure
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, Units, fahrenheit_from_celsius
from kumpan.services.journal.ledger import Scope, pool_entries, pool_ids, pool_state, require_pool
from kumpan.services.journal.log import describe
from kumpan.services.journal.rounds import rounds
from kumpan.services.products.costs import costs
from kumpan.services.treatments.at_hand import stocked, store
from kumpan.wording.render import render

MOST_DAYS = 36_600
People = Mapping[UUID | None, str]


class TableOf(StrEnum):
    """What a table holds."""

    TESTS = "tests"
    ADDITIONS = "additions"
    CARE = "care"
    COSTS = "costs"


@dataclass(frozen=True, kw_only=True)
class Wanted:
    """Which rows: of one pool, of one technician's rounds, or of all; days count by each pool's own clock."""

    pool_id: UUID | None = None
    technician_id: UUID | None = None
    first: date | None = None
    last: date | None = None
    units: Units = Units.US


@dataclass(frozen=True)
class TableOut:
    """A header and its rows, all as text."""

    header: tuple[str, ...]
    rows: tuple[tuple[str, ...], ...]


@dataclass(frozen=True)
class _Pool:
    name: str
    zone: ZoneInfo
    entries: tuple[Entry, ...]


async def table(scope: Scope, what: TableOf, wanted: Wanted) -> TableOut:
    """The rows, the oldest first within each pool. Raises NotFound, InvalidInput, NotPermitted."""
    if wanted.first and wanted.last and wanted.first > wanted.last:
        raise InvalidInput(Message("The first day lies after the last; swap them."), "first")
    if what is TableOf.COSTS and not scope.staff:
        raise NotPermitted(Message("Costs stay with those who bought; ask the office."))
    if what is TableOf.COSTS:
        return await _costs(scope, wanted)
    pools = [await _pool(scope, id_, wanted) for id_ in await _chosen(scope, wanted)]
    people = await _people(scope, pools)
    match what:
        case TableOf.TESTS:
            return _tests(pools, people, wanted.units)
        case TableOf.ADDITIONS:
            return await _additions(scope, pools, people)
        case _:
            return _care(pools, people)


async def _chosen(scope: Scope, wanted: Wanted) -> list[UUID]:
    if wanted.pool_id is not None:
        return [(await require_pool(scope, wanted.pool_id)).id]
    ids = await pool_ids(scope)
    if wanted.technician_id is None:
        return ids
    found = await rounds(scope.tx, scope.workspace_id, scope.now)
    driven = set(
        chain.from_iterable(stops for (who, _), stops in found.items() if who == wanted.technician_id)
    )
    return [id_ for id_ in ids if id_ in driven]


async def _pool(scope: Scope, pool_id: UUID, wanted: Wanted) -> _Pool:
    set_up = (await pool_state(scope, pool_id)).settings
    zone = ZoneInfo(set_up.time_zone if set_up else "UTC")
    first, last = wanted.first or date.min, wanted.last or date.max
    entries = effective(await pool_entries(scope, pool_id))
    within = (entry for entry in entries if first <= entry.at.astimezone(zone).date() <= last)
    return _Pool(set_up.name if set_up else "", zone, tuple(within))


async def _people(scope: Scope, pools: Iterable[_Pool]) -> People:
    ids = {entry.person_id for pool in pools for entry in pool.entries if entry.person_id is not None}
    return dict((await scope.tx.shares.people_names(ids)).items())


def _when(pool: _Pool, at: datetime) -> tuple[str, str, str]:
    local = at.astimezone(pool.zone)
    return pool.name, local.date().isoformat(), local.strftime("%H:%M")


def _tests(pools: Sequence[_Pool], people: People, units: Units) -> TableOut:
    """Readings as they were measured: a table that is brought in again gives the same tests."""
    measures = [*READING_MEASURES, Measure.COMBINED_CHLORINE]
    header = (
        "Pool",
        "Day",
        "Time",
        "By",
        *(measure_title(one, units) for one in measures),
        "Clarity",
        "Kit",
        "Note",
    )
    rows = []
    for pool in pools:
        for entry in pool.entries:
            found = _test_cells(entry, measures, units)
            if found is not None:
                rows.append((*_when(pool, entry.at), people.get(entry.person_id, ""), *found))
    return _without_empty(header, rows)


def _test_cells(entry: Entry, measures: Sequence[Measure], units: Units) -> tuple[str, ...] | None:
    """Readings, clarity, kit and note of a test or a look; None for anything else."""
    if isinstance(entry.body, VisualCheck):
        return (*("" for _ in measures), entry.body.clarity.replace("_", " "), "", entry.body.note)
    if not isinstance(entry.body, TestTaken):
        return None
    values = ((one, value_in(entry.body.values, one)) for one in measures)
    cells = (_reading(one, found.value if found else None, units) for one, found in values)
    return (*cells, "", entry.body.kit, entry.body.note)


def measure_title(measure: Measure, units: Units) -> str:
    """A measure with the unit that its numbers are in."""
    name = NAMES[measure].template
    if measure is Measure.PH:
        return name
    if measure is Measure.TEMPERATURE:
        return f"{name} ({'°F' if units is Units.US else '°C'})"
    return f"{name} ({'ppb' if measure is Measure.PHOSPHATE else 'mg/L'})"


def _reading(measure: Measure, value: float | None, units: Units) -> str:
    if value is None:
        return ""
    if measure is Measure.TEMPERATURE and units is Units.US:
        value = fahrenheit_from_celsius(value)
    return f"{round(value, 3):.10g}"


def _without_empty(header: Sequence[str], rows: Sequence[tuple[str, ...]]) -> TableOut:
    """Columns of readings that nobody ever took are left out."""
    used = [n for n, title in enumerate(header) if n < 4 or title == "Note" or any(row[n] for row in rows)]
    return TableOut(tuple(header[n] for n in used), tuple(tuple(row[n] for n in used) for row in rows))


async def _additions(scope: Scope, pools: Sequence[_Pool], people: People) -> TableOut:
    shelf = await store(scope)
    prices = (
        {one.id: stocked(shelf, one, scope.now).price_per_g for one in shelf.products} if scope.staff else {}
    )
    header: tuple[str, ...] = (
        "Pool",
        "Day",
        "Time",
        "By",
        "Product",
        "Chemical",
        "Strength (%)",
        "Mass (g)",
        "Mass (lb)",
    )
    header += ("Volume (mL)", "Volume (gal)") + (
        (f"Cost ({shelf.preferences.currency})",) if scope.staff else ()
    )
    rows = []
    for pool in pools:
        for entry in of_kind(pool.entries, AdditionMade):
            body, price = entry.body, prices.get(entry.body.product_id or "")
            ml = body.volume_ml
            rows.append(
                (
                    *_when(pool, entry.at),
                    people.get(entry.person_id, ""),
                    body.label,
                    body.chemical,
                    f"{body.strength_percent:.10g}",
                    f"{body.mass_g:.6g}",
                    f"{body.mass_g / G_PER_LB:.4g}",
                    "" if ml is None else f"{ml:.6g}",
                    "" if ml is None else f"{ml / (1000.0 * L_PER_US_GAL):.4g}",
                    *(("" if price is None else f"{price * body.mass_g:.2f}",) if scope.staff else ()),
                )
            )
    return TableOut(header, tuple(rows))


def _care(pools: Sequence[_Pool], people: People) -> TableOut:
    header = ("Pool", "Day", "Time", "By", "What", "Values", "Water replaced (L)", "Note")
    rows = []
    for pool in pools:
        for entry in pool.entries:
            by = people.get(entry.person_id, "")
            if isinstance(entry.body, CareDone):
                values = ", ".join(f"{one.name} {one.value:g}" for one in entry.body.values)
                rows.append(
                    (*_when(pool, entry.at), by, render(describe(entry.body)[0]), values, "", entry.body.note)
                )
            elif isinstance(entry.body, WaterChanged):
                liters = f"{entry.body.volume_l:.6g}"
                rows.append(
                    (*_when(pool, entry.at), by, render(describe(entry.body)[0]), "", liters, entry.body.note)
                )
    return TableOut(header, tuple(rows))


async def _costs(scope: Scope, wanted: Wanted) -> TableOut:
    """By product, pool, month and round, at the last prices, over as many days as the first day says."""
    days = min(MOST_DAYS, max(1, (scope.now.date() - wanted.first).days)) if wanted.first else 365
    found = await costs(scope, days, wanted.units)
    header = ("Of", "Name", f"Cost ({found.currency})")
    parts = (
        ("product", found.products),
        ("pool", found.pools),
        ("month", found.months),
        ("round", found.rounds),
    )
    rows = [
        (of, str(one.name), "" if one.cost is None else f"{one.cost:.2f}")
        for of, lines in parts
        for one in lines
    ]
    return TableOut(header, tuple(rows))
