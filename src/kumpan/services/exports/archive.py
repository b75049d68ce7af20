"""A workspace as one file, and back in: people, shelf, what belongs to no pool, every pool's journal, photos.

A ZIP of open formats: `workspace.json`, `workspace.jsonl` and `journals/ID.jsonl` in the journal format,
`photos/HASH` as they are stored. See docs/journal-format.md.
"""

import io
import json
import zipfile
import zlib
from dataclasses import asdict, dataclass, replace
from typing import Any
from uuid import UUID

from kumpan.core.errors import Conflict, InvalidInput
from kumpan.core.messages import Message, Verbatim
from kumpan.core.products.by_label import LabelDose
from kumpan.core.products.product import Product
from kumpan.formats.journal_jsonl import JournalHeader, JournalLine, header_line, journal_line, read_journal
from kumpan.services.journal.export import journal_file
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.audit import audited
from kumpan.services.photos.photos import put_back
from kumpan.services.sharing.bring_in import bring_in, written
from kumpan.storage.repositories.journal import StoredEntry
from kumpan.storage.repositories.workspace import Person

FORMAT, VERSION = "kumpan-workspace", 1
NO_POOL = UUID(int=0)
MOST_UNPACKED = 2_000_000_000
NOT_OURS = Message(
    "archive: is no archive that Kumpan wrote; choose a file that was downloaded as archive.zip."
)


@dataclass(frozen=True)
class BroughtBack:
    """What came in: pools, entries that are new here, people, products."""

    pools: int
    entries: int
    people: int
    products: int


async def archive_of(scope: Scope) -> bytes:
    """Everything of the workspace that acts. What others wrote in shared pools is theirs to export."""
    tx, id_ = scope.tx, scope.workspace_id
    pools = [*await tx.journal.pools(id_), *await tx.journal.pools(id_, archived=True)]
    own = [pool for pool in pools if pool.workspace_id == id_]
    about = {
        "format": FORMAT,
        "version": VERSION,
        "name": await tx.shares.workspace_name(id_),
        "exported_at": scope.now.isoformat(),
        "people": [
            {
                "id": str(one.id),
                "name": one.name,
                "initials": one.initials,
                "role": one.role,
                "left": one.ended_at is not None,
            }
            for one in await tx.workspace.people(id_)
        ],
        "products": [asdict(product) for product in await tx.workspace.products(id_)],
        "archived": [str(pool.id) for pool in own if pool.archived_at is not None],
    }
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        packed.writestr("workspace.json", json.dumps(about, ensure_ascii=False, indent=1))
        packed.writestr("workspace.jsonl", await _of_no_pool(scope))
        for pool in own:
            packed.writestr(f"journals/{pool.id}.jsonl", (await journal_file(scope, pool.id)).content)
        for digest in await tx.photos.hashes(id_):
            jpeg = await tx.photos.one([id_], digest, thumb=False)
            packed.writestr(zipfile.ZipInfo(f"photos/{digest}.jpg"), jpeg or b"")
    return out.getvalue()


async def _of_no_pool(scope: Scope) -> bytes:
    rows = await scope.tx.journal.entries_of_no_pool(scope.workspace_id)
    people = {one.id: one.name for one in await scope.tx.workspace.people(scope.workspace_id)}
    name = await scope.tx.shares.workspace_name(scope.workspace_id)
    lines = [
        journal_line(
            JournalLine(
                id=row.id,
                kind=row.kind,
                at=row.at,
                recorded_at=row.recorded_at,
                by=people.get(row.person_id, "") if row.person_id else "",
                workspace=row.written_in or name,
                supersedes=row.supersedes,
                body=row.body,
            )
        )
        for row in rows
    ]
    header = JournalHeader(
        pool_id=NO_POOL, name=name, workspace=name, exported_at=scope.now, entries=len(lines)
    )
    return (header_line(header) + "".join(lines)).encode()


async def bring_back(scope: Scope, content: bytes) -> BroughtBack:
    """All of an archive or nothing; the same again adds nothing.

    People keep their ids and roles and have no way in until they are invited anew. Raises InvalidInput for
    what is no archive, Conflict where an id stands for something else here.
    """
    packed, about = _opened(content)
    people = await _people(scope, about["people"])
    products = await _products(scope, about["products"])
    added, pools = 0, 0
    with packed:
        header, lines = read_journal(_member(packed, "workspace.jsonl"))
        if header.pool_id != NO_POOL:
            raise InvalidInput(NOT_OURS, "archive")
        added += await _no_pool_in(scope, lines)
        for name in sorted(packed.namelist()):
            if name.startswith("journals/"):
                came = await bring_in(scope, _member(packed, name))
                added, pools = added + came.added, pools + 1
            elif name.startswith("photos/"):
                await put_back(scope, _member(packed, name))
    for id_ in about["archived"]:
        await scope.tx.journal.archive(UUID(id_), scope.now)
    await scope.tx.workspace.stock_changed(scope.workspace_id)
    await audited(scope, scope.person_id, "archive_in", pools=pools, entries=added)
    return BroughtBack(pools, added, people, products)


def _member(packed: zipfile.ZipFile, name: str) -> bytes:
    """One file of it. Raises InvalidInput for one that is damaged."""
    try:
        return packed.read(name)
    except (zipfile.BadZipFile, zlib.error, OSError, EOFError, RuntimeError) as trouble:
        raise InvalidInput(
            Message("archive: {name} in it is damaged; download it once more.", name=Verbatim(name[:80])),
            "archive",
        ) from trouble


def _opened(content: bytes) -> tuple[zipfile.ZipFile, dict[str, Any]]:
    try:
        packed = zipfile.ZipFile(io.BytesIO(content))
        if sum(one.file_size for one in packed.infolist()) > MOST_UNPACKED:
            raise InvalidInput(Message("archive: is too large once unpacked."), "archive")
        about: dict[str, Any] = json.loads(packed.read("workspace.json"))
        packed.getinfo("workspace.jsonl")
        if about["format"] != FORMAT or not isinstance(about["version"], int):
            raise InvalidInput(NOT_OURS, "archive")
        if about["version"] > VERSION:
            raise InvalidInput(
                Message(
                    "archive: was written by a newer version of Kumpan; bring this one up to date first."
                ),
                "archive",
            )
        for one in about["people"]:
            Person(UUID(one["id"]), str(one["name"]), str(one["initials"]), str(one["role"]))
        for one in about["products"]:
            _product(one)
        for id_ in about["archived"]:
            UUID(id_)
    except (
        zipfile.BadZipFile,
        LookupError,
        ValueError,
        TypeError,
        AttributeError,
        RecursionError,
    ) as trouble:
        raise InvalidInput(NOT_OURS, "archive") from trouble
    return packed, about


def _product(stored: dict[str, Any]) -> Product:
    dose = stored["label_dose"]
    found = Product(**{**stored, "label_dose": None if dose is None else LabelDose(**dose)})
    UUID(found.id)
    if not 0 < float(found.strength_percent) <= 100 or found.row.key != found.chemical:
        raise ValueError(found.id)
    return found


async def _people(scope: Scope, given: list[dict[str, Any]]) -> int:
    known = {person.id for person in await scope.tx.workspace.people(scope.workspace_id)}
    names = {person.name for person in await scope.tx.workspace.people(scope.workspace_id)}
    added = 0
    for one in given:
        id_, name = UUID(one["id"]), str(one["name"])[:120]
        if id_ in known or name in names:
            continue
        if await scope.tx.workspace.anybody(id_) is not None:
            raise Conflict(Message("archive: {name} is in another workspace here.", name=Verbatim(name)))
        role = str(one["role"]) if one["role"] in ("office", "technician", "owner") else "technician"
        person = Person(
            id_, name, str(one["initials"])[:8], role, ended_at=scope.now if one.get("left") else None
        )
        await scope.tx.workspace.add_person(scope.workspace_id, person, scope.now)
        added += 1
    return added


async def _products(scope: Scope, given: list[dict[str, Any]]) -> int:
    known = {product.id for product in await scope.tx.workspace.products(scope.workspace_id)}
    new = [product for one in given if (product := _product(one)).id not in known]
    for product in new:
        await scope.tx.workspace.add_product(
            scope.workspace_id, replace(product, name=product.name[:120]), scope.now
        )
    return len(new)


async def _no_pool_in(scope: Scope, lines: list[JournalLine]) -> int:
    known = {row.id: row for row in await scope.tx.journal.entries_of_no_pool(scope.workspace_id)}
    new = [line for line in lines if line.id not in known]
    rows: list[StoredEntry] = await written(scope, None, new)
    await scope.tx.journal.add_entries(rows)
    return len(rows)
