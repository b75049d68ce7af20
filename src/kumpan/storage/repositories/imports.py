"""Named queries on files that are brought in."""

import gzip
import json
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from sqlalchemy import delete, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.core.errors import Conflict
from kumpan.core.messages import Message
from kumpan.storage.tables import ImportRow


@dataclass(frozen=True, kw_only=True)
class StoredImport:
    """A file without its rows. `state`: open, queued, applied, refused or undone."""

    id: UUID
    workspace_id: UUID
    person_id: UUID | None
    created_at: datetime
    name: str
    signature: str
    manner: dict[str, Any] | None
    state: str
    done: int = 0
    total: int = 0
    trouble: str = ""


_COLUMNS = (
    ImportRow.id,
    ImportRow.workspace_id,
    ImportRow.person_id,
    ImportRow.created_at,
    ImportRow.name,
    ImportRow.signature,
    ImportRow.manner,
    ImportRow.state,
    ImportRow.done,
    ImportRow.total,
    ImportRow.trouble,
)


class ImportRepository:
    """Files brought in, by workspace."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def add(self, new: StoredImport, tables: object) -> None:
        """A file with its rows. Raises Conflict where the id stands for another."""
        self._session.add(ImportRow(**vars(new), tables=_packed(tables)))
        try:
            await self._session.flush()
        except IntegrityError as trouble:
            raise Conflict(
                Message("This id already stands for another file; choose the file again."), "id"
            ) from trouble

    async def one(self, workspace_id: UUID, id_: UUID) -> StoredImport | None:
        """One file of a workspace."""
        where = (ImportRow.workspace_id == workspace_id, ImportRow.id == id_)
        row = (await self._session.execute(select(*_COLUMNS).where(*where))).first()
        return None if row is None else StoredImport(**row._mapping)

    async def tables(self, id_: UUID) -> Any:
        """The rows of a file, as they were added."""
        return _unpacked(await self._session.scalar(select(ImportRow.tables).where(ImportRow.id == id_)))

    async def made(self, id_: UUID) -> Any:
        """What a file became; None before it was applied."""
        return _unpacked(await self._session.scalar(select(ImportRow.made).where(ImportRow.id == id_)))

    async def recent(self, workspace_id: UUID, most: int) -> list[StoredImport]:
        """The last files of a workspace, the newest first."""
        rows = await self._session.execute(
            select(*_COLUMNS)
            .where(ImportRow.workspace_id == workspace_id)
            .order_by(ImportRow.created_at.desc())
            .limit(most)
        )
        return [StoredImport(**row._mapping) for row in rows]

    async def manner_of(self, workspace_id: UUID, signature: str) -> dict[str, Any] | None:
        """How the last file with these headers was read and applied; None where there was none."""
        found: dict[str, Any] | None = await self._session.scalar(
            select(ImportRow.manner)
            .where(ImportRow.workspace_id == workspace_id, ImportRow.signature == signature)
            .where(ImportRow.state.in_(("applied", "undone")))
            .order_by(ImportRow.created_at.desc())
            .limit(1)
        )
        return found

    async def queued(self) -> list[StoredImport]:
        """Files that wait to be applied, of whatever workspace, the oldest first."""
        rows = await self._session.execute(
            select(*_COLUMNS).where(ImportRow.state == "queued").order_by(ImportRow.created_at)
        )
        return [StoredImport(**row._mapping) for row in rows]

    async def change(self, id_: UUID, **values: object) -> None:
        """Another state, manner or count."""
        if "made" in values:
            values["made"] = _packed(values["made"])
        await self._session.execute(update(ImportRow).where(ImportRow.id == id_).values(**values))

    async def drop(self, workspace_id: UUID, id_: UUID) -> None:
        """A file that was not applied is gone."""
        await self._session.execute(
            delete(ImportRow).where(
                ImportRow.workspace_id == workspace_id,
                ImportRow.id == id_,
                ImportRow.state.in_(("open", "refused")),
            )
        )


def _packed(value: object) -> bytes:
    return gzip.compress(json.dumps(value).encode(), 3, mtime=0)


def _unpacked(packed: bytes | None) -> Any:
    return None if packed is None else json.loads(gzip.decompress(packed))
