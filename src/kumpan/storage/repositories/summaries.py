"""Named queries on the summaries of pools: a page of them, the ones that no longer hold, one more."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from datetime import UTC, datetime
from enum import StrEnum
from typing import Any
from uuid import UUID

from sqlalchemy import ColumnElement, and_, func, or_, select, tuple_, update
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.repositories.journal import works_on
from kumpan.storage.tables import PoolRow, PoolShareRow, PoolSummaryRow, WorkspaceRow

NEVER = datetime(1970, 1, 1, tzinfo=UTC)


class Order(StrEnum):
    """In which order a list is read: what asks for something first, by name, by place and then name (those
    without a place last), longest untested first.
    """

    ATTENTION = "attention"
    NAME = "name"
    PLACE = "place"
    TESTED = "tested"


class Shown(StrEnum):
    """Which of the pools a list shows: all, what asks for something, what was not tested for long."""

    ALL = "all"
    ASKS = "asks"
    UNTESTED = "untested"


@dataclass(frozen=True, kw_only=True)
class Summary:
    """One pool as one workspace sees it; `rendered` by units; `unreadable` why it is not.

    `needs` in g by product id; `visit` holds what the stop needs where the pool stands on a round; `returns`
    where the last visit asked to come back or for a trade.
    """

    workspace_id: UUID
    pool_id: UUID
    name: str
    place: str
    searched: str
    rank: int
    tested_at: datetime | None
    made_at: datetime
    holds_until: datetime
    pool_writes: int
    workspace_writes: int
    program: str
    unreadable: str
    rendered: dict[str, object]
    returns: bool
    needs: dict[str, float]
    visit: dict[str, object]


@dataclass(frozen=True, kw_only=True)
class Listed:
    """A line of a page: the pool, how often it and the shelf were written by now, what is stored."""

    pool_id: UUID
    pool_writes: int
    workspace_writes: int
    summary: Summary | None

    def holds(self, now: datetime, program: str) -> bool:
        """Nothing was written since, its time is not over, and this program made it."""
        made = self.summary
        return made is not None and (
            (made.pool_writes, made.workspace_writes, made.program)
            == (self.pool_writes, self.workspace_writes, program)
            and now < made.holds_until
        )


# What a list is ordered by, down to the id, so that no two lines are alike and a page begins where one ended.
_KEYS = {
    Order.ATTENTION: (
        func.coalesce(PoolSummaryRow.rank, 0),
        func.coalesce(PoolSummaryRow.name, ""),
        PoolRow.id,
    ),
    Order.NAME: (func.coalesce(PoolSummaryRow.name, ""), PoolRow.id),
    Order.PLACE: (
        func.coalesce(PoolSummaryRow.place, "") == "",
        func.coalesce(PoolSummaryRow.place, ""),
        func.coalesce(PoolSummaryRow.name, ""),
        PoolRow.id,
    ),
    Order.TESTED: (func.coalesce(PoolSummaryRow.tested_at, NEVER), PoolRow.id),
}


@dataclass(frozen=True, kw_only=True)
class Wanted:
    """Which lines: `query` anywhere in name or place; `asks_to` is the last rank that asks for something."""

    query: str
    shown: Shown
    asks_to: int
    untested_since: datetime


def _wanted(wanted: Wanted) -> tuple[ColumnElement[bool], ...]:
    row = PoolSummaryRow
    which: dict[Shown, tuple[ColumnElement[bool], ...]] = {
        Shown.ALL: (),
        Shown.ASKS: (func.coalesce(row.rank, 0) <= wanted.asks_to,),
        Shown.UNTESTED: (func.coalesce(row.tested_at, NEVER) < wanted.untested_since,),
    }
    words = (row.searched.contains(wanted.query.casefold(), autoescape=True),) if wanted.query else ()
    return (*which[wanted.shown], *words)


def _seen(workspace_id: UUID, visible: Collection[UUID] | None) -> tuple[ColumnElement[bool], ...]:
    """The pools that are worked on, of those that somebody may see."""
    of_them = () if visible is None else (PoolRow.id.in_(visible),)
    return (works_on(workspace_id), PoolRow.archived_at.is_(None), *of_them)


def key_of(order: Order, line: Listed) -> tuple[Any, ...]:
    """A line's place in an order, as the database reckons it."""
    summary = line.summary
    name = "" if summary is None else summary.name
    if order is Order.ATTENTION:
        return (0 if summary is None else summary.rank, name, line.pool_id)
    if order is Order.NAME:
        return (name, line.pool_id)
    if order is Order.PLACE:
        place = "" if summary is None else summary.place
        return (int(place == ""), place, name, line.pool_id)
    return ((summary.tested_at if summary else None) or NEVER, line.pool_id)


class SummaryRepository:
    """The stored heads of pools."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def page(
        self,
        workspace_id: UUID,
        visible: Collection[UUID] | None,
        *,
        order: Order,
        wanted: Wanted,
        after: Sequence[Any] | None,
        most: int,
    ) -> list[Listed]:
        """Lines in their order, after a place in it."""
        keys = _KEYS[order]
        where = [*_wanted(wanted), *_seen(workspace_id, visible)]
        if after is not None:
            where.append(tuple_(*keys) > tuple_(*after))
        # Ordered by the light columns alone: what is rendered is read for these few lines only.
        mine = and_(PoolSummaryRow.pool_id == PoolRow.id, PoolSummaryRow.workspace_id == workspace_id)
        ids = select(PoolRow.id).outerjoin(PoolSummaryRow, mine).where(*where).order_by(*keys).limit(most)
        return await self._lines(workspace_id, list(await self._session.scalars(ids)))

    async def count(self, workspace_id: UUID, visible: Collection[UUID] | None, wanted: Wanted) -> int:
        """How many pools a list would have in all."""
        mine = and_(PoolSummaryRow.pool_id == PoolRow.id, PoolSummaryRow.workspace_id == workspace_id)
        found = select(func.count()).select_from(PoolRow).outerjoin(PoolSummaryRow, mine)
        return await self._session.scalar(found.where(*_wanted(wanted), *_seen(workspace_id, visible))) or 0

    async def some(self, workspace_id: UUID, pool_ids: Sequence[UUID]) -> list[Listed]:
        """Those of the pools named that the workspace works on, in the order named; no archived one."""
        where = (works_on(workspace_id), PoolRow.archived_at.is_(None), PoolRow.id.in_(pool_ids))
        here = set(await self._session.scalars(select(PoolRow.id).where(*where)))
        return await self._lines(workspace_id, [pool_id for pool_id in pool_ids if pool_id in here])

    async def beside(
        self, workspace_id: UUID, visible: Collection[UUID] | None, listed: Collection[UUID], most: int
    ) -> list[Listed]:
        """Pools outside a round: first those that ask to be come back to, then by attention."""
        row = PoolSummaryRow
        mine = and_(row.pool_id == PoolRow.id, row.workspace_id == workspace_id)
        where = [works_on(workspace_id), PoolRow.archived_at.is_(None), PoolRow.id.not_in(listed)]
        if visible is not None:
            where.append(PoolRow.id.in_(visible))
        chosen = select(PoolRow.id).outerjoin(row, mine).where(*where)
        chosen = chosen.order_by(row.returns.desc(), *_KEYS[Order.ATTENTION]).limit(most)
        return await self._lines(workspace_id, list(await self._session.scalars(chosen)))

    async def returning(self, workspace_id: UUID) -> list[UUID]:
        """Pools that somebody said to come back to, before their turn or with a licensed trade."""
        row = PoolSummaryRow
        where = [row.workspace_id == workspace_id, row.returns.is_(True), PoolRow.archived_at.is_(None)]
        found = (
            select(row.pool_id).join(PoolRow, PoolRow.id == row.pool_id).where(*where, works_on(workspace_id))
        )
        return list(await self._session.scalars(found))

    async def needs(
        self, workspace_id: UUID, visible: Collection[UUID] | None
    ) -> list[tuple[UUID, dict[str, float]]]:
        """What each pool's sheet would take as last made, g by product id."""
        row = PoolSummaryRow
        where = [row.workspace_id == workspace_id, PoolRow.archived_at.is_(None), works_on(workspace_id)]
        if visible is not None:
            where.append(row.pool_id.in_(visible))
        chosen = select(row.pool_id, row.needs).join(PoolRow, PoolRow.id == row.pool_id).where(*where)
        return [(one.pool_id, one.needs) for one in await self._session.execute(chosen)]

    async def _lines(self, workspace_id: UUID, ids: Sequence[UUID]) -> list[Listed]:
        rows = await self._session.execute(_listed(workspace_id).where(PoolRow.id.in_(ids)))
        lines = {row[0]: _line(row) for row in rows}
        return [lines[pool_id] for pool_id in ids]

    async def missing(self, workspace_id: UUID, most: int) -> list[UUID]:
        """Pools of a workspace that have no summary yet."""
        mine = and_(PoolSummaryRow.pool_id == PoolRow.id, PoolSummaryRow.workspace_id == workspace_id)
        where = (works_on(workspace_id), PoolRow.archived_at.is_(None), PoolSummaryRow.pool_id.is_(None))
        chosen = select(PoolRow.id).outerjoin(PoolSummaryRow, mine).where(*where)
        return list(await self._session.scalars(chosen.order_by(PoolRow.id).limit(most)))

    async def out_of_date(
        self, now: datetime, program: str, *, most: int, workspace_id: UUID | None = None
    ) -> list[tuple[UUID, UUID]]:
        """Workspace and pool of summaries that are missing or no longer hold, those longest overdue first; of
        one workspace where it is named.
        """
        row = PoolSummaryRow
        of_one = () if workspace_id is None else (WorkspaceRow.id == workspace_id,)
        homes = select(PoolRow.workspace_id.label("workspace_id"), PoolRow.id.label("pool_id"))
        guests = select(PoolShareRow.workspace_id, PoolShareRow.pool_id).where(
            PoolShareRow.ended_at.is_(None)
        )
        seen = homes.union(guests).subquery()
        stale = (
            row.pool_id.is_(None),
            row.holds_until <= now,
            row.pool_writes != PoolRow.writes,
            row.workspace_writes != WorkspaceRow.stock_writes,
            row.program != program,
        )
        rows = await self._session.execute(
            select(seen.c.workspace_id, seen.c.pool_id)
            .join(PoolRow, PoolRow.id == seen.c.pool_id)
            .join(WorkspaceRow, WorkspaceRow.id == seen.c.workspace_id)
            .outerjoin(row, and_(row.workspace_id == seen.c.workspace_id, row.pool_id == seen.c.pool_id))
            .where(
                PoolRow.archived_at.is_(None),
                or_(*stale),
                *of_one,
            )
            .order_by(func.coalesce(row.made_at, NEVER), seen.c.pool_id)
            .limit(most)
        )
        return [(one.workspace_id, one.pool_id) for one in rows]

    async def writes(self, workspace_id: UUID, pool_id: UUID) -> tuple[int, int]:
        """How often the pool and the shelf of the workspace were written by now."""
        own = select(WorkspaceRow.stock_writes).where(WorkspaceRow.id == workspace_id).scalar_subquery()
        row = (await self._session.execute(select(PoolRow.writes, own).where(PoolRow.id == pool_id))).one()
        return row[0], row[1]

    async def expire(self, workspace_id: UUID, pool_ids: Sequence[UUID], now: datetime) -> None:
        """From now on these are out of date."""
        row = PoolSummaryRow
        which = (row.workspace_id == workspace_id, row.pool_id.in_(pool_ids))
        await self._session.execute(update(row).where(*which).values(holds_until=now))

    async def save(self, summary: Summary) -> None:
        """In place of the one before."""
        values = dict(summary.__dict__)
        statement = insert(PoolSummaryRow).values(**values)
        changed = {name: value for name, value in values.items() if name not in ("workspace_id", "pool_id")}
        await self._session.execute(statement.on_duplicate_key_update(**changed))


def _listed(workspace_id: UUID) -> Any:
    mine = and_(PoolSummaryRow.pool_id == PoolRow.id, PoolSummaryRow.workspace_id == workspace_id)
    own = select(WorkspaceRow.stock_writes).where(WorkspaceRow.id == workspace_id).scalar_subquery()
    return (
        select(PoolRow.id, PoolRow.writes, own, PoolSummaryRow)
        .select_from(PoolRow)
        .outerjoin(PoolSummaryRow, mine)
    )


def _line(row: Any) -> Listed:
    stored: PoolSummaryRow | None = row[3]
    names = Summary.__dataclass_fields__
    summary = None if stored is None else Summary(**{name: getattr(stored, name) for name in names})
    return Listed(pool_id=row[0], pool_writes=row[1], workspace_writes=row[2], summary=summary)
