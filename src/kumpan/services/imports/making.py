"""A queued file made into entries in one transaction, its progress told meanwhile; and taken back whole."""

import json
from collections.abc import Iterable, Sequence
from dataclasses import replace
from datetime import datetime
from uuid import UUID, uuid5

import structlog

from kumpan.core.errors import Conflict, KumpanError, Unavailable
from kumpan.core.journal import (
    BasinMeasured,
    Body,
    EquipmentSet,
    EventNoted,
    NotedEvent,
    ProductBought,
    RoundSet,
    SettingsMade,
    TestTaken,
    Voided,
    kind_of,
)
from kumpan.core.messages import Message
from kumpan.core.notebook.other_tables import PoolRow, StockRow, StopRow
from kumpan.core.notebook.rows import RowRead, RowVerdict
from kumpan.core.pool.equipment import Traits
from kumpan.services.imports.files import entry_id, known_here, require_file, rows_of
from kumpan.services.imports.manner import FileManner, from_stored
from kumpan.services.imports.reading import Outcome, outcomes
from kumpan.services.journal.ledger import Scope, Stamp, forget_pools, record
from kumpan.services.journal.rounds import rounds
from kumpan.services.people.audit import audited
from kumpan.services.people.commands import by_names
from kumpan.services.pools.commands import NewPool, set_up
from kumpan.services.products.commands import add_product
from kumpan.services.workers import WORKERS
from kumpan.storage.repositories.imports import StoredImport
from kumpan.storage.repositories.journal import StoredEntry
from kumpan.storage.transaction import Database
from kumpan.storage.wire.kinds import write_body

CHUNK = 1_000


async def work_off(database: Database, now: datetime) -> int:
    """Make every queued file; how many there were. One that fails says why and changes nothing."""
    async with database.transaction() as tx:
        waiting = await tx.imports.queued()
    for file in waiting:
        try:
            await _make(database, file, now)
        except Unavailable:
            raise
        except Exception as trouble:
            known = isinstance(trouble, KumpanError)
            if not known:
                structlog.get_logger().error("a file cannot be brought in", exc_info=trouble)
            why = (
                trouble.message.template
                if isinstance(trouble, KumpanError)
                else "It could not be brought in."
            )
            async with database.transaction() as tx:
                await tx.imports.change(file.id, state="refused", trouble=why[:400])
    return len(waiting)


async def _make(database: Database, file: StoredImport, now: datetime) -> None:
    manner = from_stored(file.manner or {})
    async with database.transaction() as tx:
        scope = Scope(tx, file.workspace_id, now, person_id=file.person_id)
        rows, known = await rows_of(scope, file.id, manner), await known_here(scope, manner)
    found: list[Outcome] = []
    for begin in range(0, len(rows), CHUNK):
        part = rows[begin : begin + CHUNK]
        found += await WORKERS.run(outcomes, part, manner, replace(known, first=known.first + begin))
        async with database.transaction() as tx:
            await tx.imports.change(file.id, done=begin + len(part))
    async with database.transaction() as tx:
        scope = Scope(tx, file.workspace_id, now, person_id=file.person_id)
        await _written(scope, file, manner, [one for one in found if one.verdict is not RowVerdict.REFUSED])


async def _written(scope: Scope, file: StoredImport, manner: FileManner, rows: Sequence[Outcome]) -> None:
    await scope.tx.workspace.one_writer(scope.workspace_id)
    if (await require_file(scope, file.id)).state != "queued":
        return  # another process made it
    made = {
        "entries": await _entries(scope, file.id, manner, rows),
        "pools": [str(await _pool(scope, file.id, one)) for one in rows if isinstance(one.row, PoolRow)],
    }
    made["entries"] += [
        str(id_) for one in rows if isinstance(one.row, StockRow) for id_ in await _stock(scope, file.id, one)
    ]
    made["entries"] += await _stops(scope, file.id, rows)
    await scope.tx.imports.change(file.id, state="applied", made=made)
    await audited(
        scope,
        file.person_id,
        "file_in",
        file=str(file.id),
        entries=len(made["entries"]),
        pools=len(made["pools"]),
    )


async def _entries(scope: Scope, file_id: UUID, manner: FileManner, rows: Sequence[Outcome]) -> list[str]:
    """Tests, looks, additions and notes, written at once; a test that stands there already is not doubled."""
    notebook = [one for one in rows if isinstance(one.row, RowRead) and one.pool_id is not None]
    pools = sorted({one.pool_id for one in notebook if one.pool_id is not None}, key=str)
    known: set[tuple[UUID, datetime, str]] = set()
    for pool_id in pools:
        await scope.tx.journal.one_writer(pool_id)
        stored = (await scope.tx.journal.entries_of_pool(pool_id)).rows
        gone = {row.supersedes for row in stored}
        known |= {(pool_id, row.at, row.text) for row in stored if row.id not in gone}
    people = {one.row.person for one in notebook if isinstance(one.row, RowRead)}
    who = await by_names(scope, people - {""})
    new: list[StoredEntry] = []
    for one in notebook:
        assert isinstance(one.row, RowRead)
        assert one.pool_id is not None
        for n, (at, body) in enumerate(_bodies(one.row, manner)):
            new.append(
                StoredEntry(
                    id=entry_id(file_id, one.number, str(n)),
                    workspace_id=scope.workspace_id,
                    pool_id=one.pool_id,
                    person_id=who.get(one.row.person, scope.person_id),
                    kind=kind_of(body),
                    at=at,
                    recorded_at=scope.now,
                    supersedes=None,
                    text=json.dumps(write_body(body)),
                )
            )
    fresh = [entry for entry in new if entry.pool_id and (entry.pool_id, entry.at, entry.text) not in known]
    await scope.tx.journal.add_entries(fresh)
    return [str(entry.id) for entry in fresh]


def _bodies(row: RowRead, manner: FileManner) -> Iterable[tuple[datetime, Body]]:
    """What a row becomes, in the order of the day; its note goes with the first that can hold it."""
    at, added_at, note = row.at, row.added_at, row.note
    assert at is not None
    assert added_at is not None
    if row.visual_check is not None:
        yield at, replace(row.visual_check, note="" if row.values else note)
    if row.values:
        yield at, TestTaken(row.values, manner.kit, note)
    for addition in row.additions:
        yield added_at, addition
    if note and not row.values and row.visual_check is None:
        yield at, EventNoted(NotedEvent.NOTE, note)


async def _pool(scope: Scope, file_id: UUID, one: Outcome) -> UUID:
    row = one.row
    assert isinstance(row, PoolRow)
    zones = [
        str(body.get("time_zone", ""))
        for body in (await scope.tx.journal.set_ups(scope.workspace_id)).values()
    ]
    pool_id = entry_id(file_id, one.number, "pool")
    new = NewPool(
        id=pool_id,
        settings=SettingsMade(
            name=row.name, place=row.place, time_zone=zones[0] if zones else "UTC", profile="service"
        ),
        basin=BasinMeasured(volume_l=row.volume_l),
        equipment=EquipmentSet(Traits(surface=row.surface, chlorination=row.chlorination, filter=row.filter)),
        entry_ids=(uuid5(pool_id, "settings"), uuid5(pool_id, "basin"), uuid5(pool_id, "equipment")),
    )
    await set_up(scope, new, scope.now, scope.person_id)
    return pool_id


async def _stock(scope: Scope, file_id: UUID, one: Outcome) -> list[UUID]:
    row = one.row
    assert isinstance(row, StockRow)
    product = replace(row.product, id=str(entry_id(file_id, one.number, "product")))
    await add_product(scope, product)
    if not row.packages:
        return []
    id_ = entry_id(file_id, one.number, "bought")
    stamp = Stamp(id_, scope.now, scope.person_id)
    await record(scope, None, stamp, ProductBought(product.id, row.packages, row.price))
    return [id_]


async def _stops(scope: Scope, file_id: UUID, rows: Sequence[Outcome]) -> list[str]:
    """Pools put at the end of somebody's weekday, in the order of the file."""
    stops = [(one, one.row) for one in rows if isinstance(one.row, StopRow)]
    who = await by_names(scope, {row.technician for _, row in stops if row.technician})
    driven = await rounds(scope.tx, scope.workspace_id, scope.now)
    wanted: dict[tuple[UUID | None, int], list[UUID]] = {}
    for one, row in stops:
        key = (who.get(row.technician, scope.person_id), row.weekday)
        known = wanted.setdefault(key, list(driven.get(key, ())))
        if one.pool_id is not None and one.pool_id not in known:
            known.append(one.pool_id)
    made: list[str] = []
    for (person_id, weekday), pools in wanted.items():
        id_ = entry_id(file_id, weekday, f"round of {person_id}")
        await record(
            scope, None, Stamp(id_, scope.now, person_id), RoundSet(weekday, tuple(pools), person_id)
        )
        await scope.tx.summaries.expire(scope.workspace_id, tuple(pools), scope.now)
        made.append(str(id_))
    return made


async def take_back(scope: Scope, file_id: UUID) -> int:
    """Everything that a file became is taken back as one, and stays visible as such; how many entries.

    Pools that it made are archived. What was corrected or taken back since stays so. Twice is once.
    Raises NotFound, and Conflict for a file that was not applied.
    """
    file = await require_file(scope, file_id)
    if file.state == "undone":
        return 0
    if file.state != "applied":
        raise Conflict(Message("This file was not brought in, so there is nothing to take back."))
    made = await scope.tx.imports.made(file_id)
    for pool_id in made["pools"]:
        await scope.tx.journal.archive(UUID(pool_id), scope.now)
    forget_pools(scope)
    rows = await scope.tx.journal.open_entries([UUID(id_) for id_ in made["entries"]])
    for pool_id in sorted({row.pool_id for row in rows if row.pool_id is not None}, key=str):
        await scope.tx.journal.one_writer(pool_id)
    voids = [_void(scope, row) for row in rows]
    await scope.tx.journal.add_entries(voids)
    if any(row.pool_id is None for row in rows):
        await scope.tx.workspace.stock_changed(scope.workspace_id)
    await scope.tx.imports.change(file_id, state="undone")
    await audited(scope, scope.person_id, "file_undone", file=str(file_id), entries=len(voids))
    return len(voids)


def _void(scope: Scope, row: StoredEntry) -> StoredEntry:
    body = Voided("the file was taken back")
    return replace(
        row,
        id=uuid5(row.id, "taken back"),
        person_id=scope.person_id,
        kind=kind_of(body),
        at=scope.now,
        recorded_at=scope.now,
        supersedes=row.id,
        text=json.dumps(write_body(body)),
    )
