"""Named queries on the workspace, its people and its shelf. They flush, they never commit."""

from dataclasses import KW_ONLY, dataclass
from datetime import datetime, timedelta
from uuid import UUID

from sqlalchemy import func, select, update
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.core.products.by_label import LabelDose
from kumpan.core.products.product import Product
from kumpan.storage.tables import PersonRow, ProductRow, WorkspaceRow


@dataclass(frozen=True)
class Person:
    """Somebody who works with the pools; `role` by its stored name; `ended_at` when they left."""

    id: UUID
    name: str
    initials: str
    role: str = "technician"
    _: KW_ONLY
    ended_at: datetime | None = None


def _person(row: PersonRow) -> Person:
    return Person(row.id, row.name, row.initials, row.role, ended_at=row.ended_at)


class WorkspaceRepository:
    """Workspaces, people and products."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def first_workspace_id(self) -> UUID | None:
        """The oldest workspace, if there is one."""
        found: UUID | None = await self._session.scalar(
            select(WorkspaceRow.id).order_by(WorkspaceRow.created_at).limit(1)
        )
        return found

    async def workspace_ids(self) -> list[UUID]:
        """All of them, the oldest first."""
        return list(await self._session.scalars(select(WorkspaceRow.id).order_by(WorkspaceRow.created_at)))

    async def add_workspace(self, id_: UUID, name: str, at: datetime) -> None:
        """A new workspace. It is never older than those before it: the first stays the first by any clock."""
        newest = await self._session.scalar(select(func.max(WorkspaceRow.created_at)))
        later = at if newest is None else max(at, newest + timedelta(milliseconds=1))
        self._session.add(WorkspaceRow(id=id_, name=name, created_at=later))
        await self._session.flush()

    async def one_writer(self, id_: UUID) -> None:
        """Whoever else writes to what belongs to no pool waits until this transaction ends."""
        row = WorkspaceRow
        await self._session.execute(update(row).where(row.id == id_).values(writes=row.writes + 1))

    async def stock_changed(self, id_: UUID) -> None:
        """What every plan of the workspace is made with has changed: summaries made before no longer hold."""
        row = WorkspaceRow
        await self._session.execute(
            update(row).where(row.id == id_).values(stock_writes=row.stock_writes + 1)
        )

    async def mark(self, id_: UUID) -> str | None:
        """The hash of the picture that stands on its papers."""
        found: str | None = await self._session.scalar(
            select(WorkspaceRow.mark).where(WorkspaceRow.id == id_)
        )
        return found

    async def set_mark(self, id_: UUID, sha256: str | None) -> None:
        """Another picture for its papers, or none."""
        await self._session.execute(update(WorkspaceRow).where(WorkspaceRow.id == id_).values(mark=sha256))

    async def name_workspace(self, id_: UUID, name: str) -> None:
        """What a workspace is called from now on."""
        await self._session.execute(update(WorkspaceRow).where(WorkspaceRow.id == id_).values(name=name))

    async def people(self, workspace_id: UUID) -> list[Person]:
        """Everybody of a workspace, the first added first."""
        rows = await self._session.scalars(
            select(PersonRow).where(PersonRow.workspace_id == workspace_id).order_by(PersonRow.created_at)
        )
        return [_person(row) for row in rows]

    async def person(self, workspace_id: UUID, person_id: UUID) -> Person | None:
        """One of them."""
        row = await self._session.get(PersonRow, person_id)
        return _person(row) if row is not None and row.workspace_id == workspace_id else None

    async def anybody(self, person_id: UUID) -> Person | None:
        """Somebody of whatever workspace: for signing in, before one is known."""
        row = await self._session.get(PersonRow, person_id)
        return None if row is None else _person(row)

    async def change_person(self, person: Person) -> None:
        """Another name, role or end."""
        values = {
            "name": person.name,
            "initials": person.initials,
            "role": person.role,
            "ended_at": person.ended_at,
        }
        await self._session.execute(update(PersonRow).where(PersonRow.id == person.id).values(**values))

    async def add_person(self, workspace_id: UUID, person: Person, at: datetime) -> None:
        """One more person."""
        self._session.add(
            PersonRow(
                id=person.id,
                workspace_id=workspace_id,
                name=person.name,
                initials=person.initials,
                role=person.role,
                ended_at=person.ended_at,
                created_at=at,
            )
        )
        await self._session.flush()

    async def products(self, workspace_id: UUID) -> list[Product]:
        """Every product of a workspace, the first added first."""
        rows = await self._session.scalars(
            select(ProductRow)
            .where(ProductRow.workspace_id == workspace_id)
            .order_by(ProductRow.created_at, ProductRow.id)
        )
        return [
            Product(
                str(row.id),
                row.chemical,
                row.strength_percent,
                package_g=row.package_g,
                package_ml=row.package_ml,
                density_g_per_ml=row.density_g_per_ml,
                name=row.name,
                label_dose=_label_dose(row.label_dose),
            )
            for row in rows
        ]

    async def add_product(self, workspace_id: UUID, product: Product, at: datetime) -> None:
        """One more product."""
        self._session.add(
            ProductRow(
                id=UUID(product.id),
                workspace_id=workspace_id,
                name=product.name,
                chemical=product.chemical,
                strength_percent=product.strength_percent,
                package_g=product.package_g,
                package_ml=product.package_ml,
                density_g_per_ml=product.density_g_per_ml,
                label_dose=None if product.label_dose is None else dict(vars(product.label_dose)),
                created_at=at,
            )
        )
        await self._session.flush()


def _label_dose(stored: dict[str, float | None] | None) -> LabelDose | None:
    """As stored by this version or an older one: what is not there is not told."""
    if stored is None or not stored.get("first_per_l"):
        return None
    repeat, swim = stored.get("repeat_days"), stored.get("swim_wait_min")
    return LabelDose(
        first_per_l=float(stored["first_per_l"] or 0.0),
        upkeep_per_l=stored.get("upkeep_per_l"),
        most_per_l=stored.get("most_per_l"),
        repeat_days=None if repeat is None else int(repeat),
        swim_wait_min=LabelDose.swim_wait_min if swim is None else int(swim),
    )
