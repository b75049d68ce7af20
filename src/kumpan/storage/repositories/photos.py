"""Named queries on what photos show."""

from collections.abc import Collection
from datetime import datetime
from uuid import UUID

from sqlalchemy import delete, func, select
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.tables import EntryRow, PhotoRow, WorkspaceRow


class PhotoRepository:
    """Pictures by workspace and hash."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def add(self, workspace_id: UUID, sha256: str, pictures: tuple[bytes, bytes], at: datetime) -> None:
        """A picture and its small one; the same again changes nothing."""
        jpeg, thumb = pictures
        row = insert(PhotoRow).values(
            workspace_id=workspace_id,
            sha256=sha256,
            created_at=at,
            size_bytes=len(jpeg) + len(thumb),
            jpeg=jpeg,
            thumb=thumb,
        )
        await self._session.execute(row.on_duplicate_key_update(sha256=PhotoRow.sha256))

    async def one(self, workspaces: Collection[UUID], sha256: str, *, thumb: bool) -> bytes | None:
        """A picture of one of some workspaces."""
        column = PhotoRow.thumb if thumb else PhotoRow.jpeg
        where = (PhotoRow.workspace_id.in_(workspaces), PhotoRow.sha256 == sha256)
        found: bytes | None = await self._session.scalar(select(column).where(*where).limit(1))
        return found

    async def drop(self, workspace_id: UUID, hashes: Collection[str]) -> None:
        """Pictures that nothing names any more: no photo of another pool, not the mark on papers."""
        named = select(func.json_value(EntryRow.body, "$.sha256")).where(
            EntryRow.workspace_id == workspace_id, EntryRow.kind == "photo"
        )
        still = set(await self._session.scalars(named))
        mark = select(WorkspaceRow.mark).where(WorkspaceRow.id == workspace_id)
        still.add(await self._session.scalar(mark))
        gone = [digest for digest in hashes if digest not in still]
        await self._session.execute(
            delete(PhotoRow).where(PhotoRow.workspace_id == workspace_id, PhotoRow.sha256.in_(gone))
        )

    async def total_bytes(self, workspace_id: UUID) -> int:
        """What all pictures of a workspace take."""
        where = PhotoRow.workspace_id == workspace_id
        return int(await self._session.scalar(select(func.sum(PhotoRow.size_bytes)).where(where)) or 0)

    async def hashes(self, workspace_id: UUID) -> list[str]:
        """Every picture of a workspace, by its hash."""
        where = PhotoRow.workspace_id == workspace_id
        return list(
            await self._session.scalars(select(PhotoRow.sha256).where(where).order_by(PhotoRow.sha256))
        )
