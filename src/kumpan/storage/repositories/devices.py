"""Named queries on raw device readings: add, the last one, a day's, and thinning.

They flush, they never commit.
"""

from datetime import datetime
from uuid import UUID

from sqlalchemy import delete, select
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.tables import DeviceReadingRow as Row

Stored = tuple[datetime, dict[str, object]]


class DeviceRepository:
    """Raw readings of devices."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def add(
        self, workspace_id: UUID, pool_id: UUID, device: str, *, at: datetime, reading: dict[str, object]
    ) -> None:
        """Keep one reading."""
        self._session.add(
            Row(workspace_id=workspace_id, pool_id=pool_id, device=device, at=at, reading=reading)
        )
        await self._session.flush()

    async def last(self, pool_id: UUID, device: str) -> Stored | None:
        """The latest reading with its time."""
        rows = await self._session.execute(
            select(Row.at, Row.reading)
            .where(Row.pool_id == pool_id, Row.device == device)
            .order_by(Row.at.desc(), Row.id.desc())
            .limit(1)
        )
        found = rows.first()
        return (found[0], found[1]) if found is not None else None

    async def between(self, pool_id: UUID, device: str, begin: datetime, end: datetime) -> list[Stored]:
        """From `begin` to before `end`, oldest first."""
        rows = await self._session.execute(
            select(Row.at, Row.reading)
            .where(
                Row.pool_id == pool_id,
                Row.device == device,
                Row.at >= begin,
                Row.at < end,
            )
            .order_by(Row.at, Row.id)
        )
        return [(at, reading) for at, reading in rows]

    async def thin(self, pool_id: UUID, hourly_before: datetime, none_before: datetime) -> None:
        """Keep one an hour before `hourly_before`, and none at all before `none_before`."""
        await self._session.execute(delete(Row).where(Row.pool_id == pool_id, Row.at < none_before))
        rows = await self._session.execute(
            select(Row.id, Row.device, Row.at)
            .where(Row.pool_id == pool_id, Row.at < hourly_before)
            .order_by(Row.at, Row.id)
        )
        seen: set[tuple[str, datetime]] = set()
        spare = []
        for id_, device, at in rows:
            hour = (device, at.replace(minute=0, second=0, microsecond=0))
            if hour in seen:
                spare.append(id_)
            seen.add(hour)
        if spare:
            await self._session.execute(delete(Row).where(Row.id.in_(spare)))
