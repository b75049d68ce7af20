"""Named queries on pools shared between workspaces, and on the journals kept after the end."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy import delete, select, update
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.tables import (
    JournalCopyRow,
    PersonRow,
    PoolGivenRow,
    PoolRow,
    PoolShareRow,
    SecretLinkRow,
    WorkspaceRow,
)


@dataclass(frozen=True, kw_only=True)
class PoolShare:
    """A pool that a second workspace works on: whose it is (`home_id`), and who else's."""

    id: UUID
    pool_id: UUID
    home_id: UUID
    home: str
    workspace_id: UUID
    workspace: str
    created_at: datetime


@dataclass(frozen=True, kw_only=True)
class JournalCopy:
    """A copy of a journal without its content."""

    id: UUID
    pool_id: UUID
    name: str
    at: datetime


class ShareRepository:
    """Who works on whose pools."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def workspace_name(self, workspace_id: UUID) -> str:
        """What a workspace is called."""
        found = await self._session.scalar(select(WorkspaceRow.name).where(WorkspaceRow.id == workspace_id))
        return found or ""

    async def workspace_names(self, ids: set[UUID]) -> dict[UUID, str]:
        """What some workspaces are called."""
        where = WorkspaceRow.id.in_(ids)
        return {row.id: row.name for row in await self._session.scalars(select(WorkspaceRow).where(where))}

    async def people_names(self, ids: set[UUID]) -> dict[UUID, str]:
        """What some people are called, of whatever workspace."""
        where = PersonRow.id.in_(ids)
        return {row.id: row.name for row in await self._session.scalars(select(PersonRow).where(where))}

    async def add(self, id_: UUID, pool_id: UUID, workspace_id: UUID, at: datetime) -> None:
        """From now on that workspace works on the pool as well."""
        row = PoolShareRow(id=id_, pool_id=pool_id, workspace_id=workspace_id, created_at=at)
        self._session.add(row)
        await self._session.flush()

    async def of_pool(self, pool_id: UUID) -> list[PoolShare]:
        """The sharings of a pool that have not ended, the oldest first."""
        home, partner = WorkspaceRow.__table__.alias("home"), WorkspaceRow.__table__.alias("partner")
        rows = await self._session.execute(
            select(
                PoolShareRow.id,
                PoolShareRow.workspace_id,
                PoolShareRow.created_at,
                PoolRow.workspace_id.label("home_id"),
                home.c.name.label("home"),
                partner.c.name.label("workspace"),
            )
            .join(PoolRow, PoolRow.id == PoolShareRow.pool_id)
            .join(home, home.c.id == PoolRow.workspace_id)
            .join(partner, partner.c.id == PoolShareRow.workspace_id)
            .where(PoolShareRow.pool_id == pool_id, PoolShareRow.ended_at.is_(None))
            .order_by(PoolShareRow.created_at)
        )
        return [PoolShare(pool_id=pool_id, **row._mapping) for row in rows]

    async def end(self, share: PoolShare, at: datetime) -> None:
        """That workspace works on the pool no longer: what it gave its people and guests ends as well."""
        await self._session.execute(
            update(PoolShareRow).where(PoolShareRow.id == share.id).values(ended_at=at)
        )
        theirs = select(PersonRow.id).where(PersonRow.workspace_id == share.workspace_id)
        await self._session.execute(
            delete(PoolGivenRow).where(
                PoolGivenRow.pool_id == share.pool_id, PoolGivenRow.person_id.in_(theirs)
            )
        )
        await self._session.execute(
            update(SecretLinkRow)
            .where(
                SecretLinkRow.pool_id == share.pool_id,
                SecretLinkRow.workspace_id == share.workspace_id,
                SecretLinkRow.ended_at.is_(None),
            )
            .values(ended_at=at)
        )

    # Journals kept.
    async def add_copy(self, journal: JournalCopy, workspace_id: UUID, content: bytes) -> None:
        """A copy for the workspace that leaves."""
        row = JournalCopyRow(
            id=journal.id,
            workspace_id=workspace_id,
            pool_id=journal.pool_id,
            name=journal.name[:120],
            at=journal.at,
            content=content,
        )
        self._session.add(row)
        await self._session.flush()

    async def copies(self, workspace_id: UUID) -> list[JournalCopy]:
        """The copies of a workspace, the newest first."""
        rows = await self._session.execute(
            select(JournalCopyRow.id, JournalCopyRow.pool_id, JournalCopyRow.name, JournalCopyRow.at)
            .where(JournalCopyRow.workspace_id == workspace_id)
            .order_by(JournalCopyRow.at.desc())
        )
        return [JournalCopy(**row._mapping) for row in rows]

    async def copy_content(self, workspace_id: UUID, id_: UUID) -> bytes | None:
        """One copy, if it is the workspace's."""
        found: bytes | None = await self._session.scalar(
            select(JournalCopyRow.content).where(
                JournalCopyRow.id == id_, JournalCopyRow.workspace_id == workspace_id
            )
        )
        return found
