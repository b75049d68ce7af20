"""What was poured of each product: the books of the shelf and of the trucks, kept with each entry.

A workspace of thousands of pools has a million additions. Nobody walks through them to know what is left:
a line is added and taken back in the transaction of its entry, and counted into a total by pool, so that
writers at two pools never wait for each other.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy import and_, delete, func, or_, select, update
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.tables import PouredRow, PouredTotalRow


@dataclass(frozen=True, kw_only=True)
class Pour:
    """One addition of a product of the shelf: by whom, when, g."""

    entry_id: UUID
    workspace_id: UUID
    pool_id: UUID
    person_id: UUID | None
    product_id: str
    at: datetime
    mass_g: float


class PouredRepository:
    """Sums over what was poured; g by product."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def add(self, pour: Pour) -> None:
        """With its entry."""
        self._session.add(PouredRow(**pour.__dict__))
        await self._session.flush()
        total = insert(PouredTotalRow).values(
            workspace_id=pour.workspace_id,
            product_id=pour.product_id,
            pool_id=pour.pool_id,
            mass_g=pour.mass_g,
        )
        more = PouredTotalRow.mass_g + pour.mass_g
        await self._session.execute(total.on_duplicate_key_update(mass_g=more))

    async def take_back(self, entry_id: UUID) -> None:
        """With the entry that replaces it; nothing where that was no addition."""
        row = await self._session.get(PouredRow, entry_id)
        if row is None:
            return
        of_it = (
            PouredTotalRow.workspace_id == row.workspace_id,
            PouredTotalRow.product_id == row.product_id,
            PouredTotalRow.pool_id == row.pool_id,
        )
        less = PouredTotalRow.mass_g - row.mass_g
        await self._session.execute(update(PouredTotalRow).where(*of_it).values(mass_g=less))
        await self._session.execute(delete(PouredRow).where(PouredRow.entry_id == entry_id))

    async def totals(self, workspace_id: UUID) -> Mapping[str, float]:
        """All that was ever poured."""
        rows = await self._session.execute(
            select(PouredTotalRow.product_id, func.sum(PouredTotalRow.mass_g))
            .where(PouredTotalRow.workspace_id == workspace_id)
            .group_by(PouredTotalRow.product_id)
        )
        return {row[0]: float(row[1]) for row in rows}

    async def since(self, workspace_id: UUID, at: datetime) -> Mapping[str, float]:
        """What was poured after a time."""
        rows = await self._session.execute(
            select(PouredRow.product_id, func.sum(PouredRow.mass_g))
            .where(PouredRow.workspace_id == workspace_id, PouredRow.at > at)
            .group_by(PouredRow.product_id)
        )
        return {row[0]: float(row[1]) for row in rows}

    async def since_each(self, workspace_id: UUID, at: Mapping[str, datetime]) -> Mapping[str, float]:
        """What was poured of each product after a time of its own; 0 where nothing was."""
        if not at:
            return {}
        after = or_(*(and_(PouredRow.product_id == key, PouredRow.at > time) for key, time in at.items()))
        rows = await self._session.execute(
            select(PouredRow.product_id, func.sum(PouredRow.mass_g))
            .where(PouredRow.workspace_id == workspace_id, PouredRow.at > min(at.values()), after)
            .group_by(PouredRow.product_id)
        )
        return dict.fromkeys(at, 0.0) | {row[0]: float(row[1]) for row in rows}

    async def by_pool_and_month(self, workspace_id: UUID, at: datetime) -> list[tuple[str, UUID, str, float]]:
        """Product, pool, month as in 2026-07 (UTC) and g, of what was poured after a time."""
        month = func.date_format(PouredRow.at, "%Y-%m")
        rows = await self._session.execute(
            select(PouredRow.product_id, PouredRow.pool_id, month, func.sum(PouredRow.mass_g))
            .where(PouredRow.workspace_id == workspace_id, PouredRow.at > at)
            .group_by(PouredRow.product_id, PouredRow.pool_id, month)
        )
        return [(row[0], row[1], row[2], float(row[3])) for row in rows]

    async def by_person(
        self, workspace_id: UUID, person_id: UUID | None, product_id: str, after: datetime
    ) -> float:
        """What one person poured of one product after a time."""
        found = await self._session.scalar(
            select(func.sum(PouredRow.mass_g)).where(
                PouredRow.workspace_id == workspace_id,
                PouredRow.product_id == product_id,
                PouredRow.at > after,
                PouredRow.person_id == person_id if person_id else PouredRow.person_id.is_(None),
            )
        )
        return float(found or 0.0)

    async def of_person(
        self, workspace_id: UUID, person_id: UUID | None, after: datetime
    ) -> list[tuple[UUID, str, float]]:
        """Pool, product and g of what one person poured after a time."""
        rows = await self._session.execute(
            select(PouredRow.pool_id, PouredRow.product_id, func.sum(PouredRow.mass_g))
            .where(
                PouredRow.workspace_id == workspace_id,
                PouredRow.at > after,
                PouredRow.person_id == person_id if person_id else PouredRow.person_id.is_(None),
            )
            .group_by(PouredRow.pool_id, PouredRow.product_id)
        )
        return [(row[0], row[1], float(row[2])) for row in rows]
