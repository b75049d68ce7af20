"""Named queries on duties that only one of several processes has.

A row, and no lock of the server: such a lock holds on one node of a cluster only.
"""

from datetime import datetime, timedelta
from uuid import UUID

from sqlalchemy import CursorResult, Update, or_, select, update
from sqlalchemy.dialects.mysql import Insert, insert
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.tables import LeaseRow


class LeaseRepository:
    """Who does what."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def take(self, name: str, holder: UUID, now: datetime, lasts: timedelta) -> bool:
        """Take or renew a duty; whether it is the holder's now. One that ran out is anybody's."""
        row, until = LeaseRow, now + lasts
        free = or_(row.until <= now, row.holder == holder)
        taken = update(row).where(row.name == name, free).values(holder=holder, until=until)
        if await self._changed(taken):
            return True
        if await self._session.scalar(select(row.name).where(row.name == name)):
            return False
        first = insert(row).values(name=name, holder=holder, until=until).prefix_with("IGNORE")
        return await self._changed(first)

    async def _changed(self, statement: Update | Insert) -> bool:
        done = await self._session.execute(statement)
        assert isinstance(done, CursorResult)
        return done.rowcount == 1
