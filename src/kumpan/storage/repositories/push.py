"""Named queries on messages to devices, and on who waits for a pool to open."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID, uuid4

from sqlalchemy import delete, select, update
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.repositories.outgoing import QUEUED
from kumpan.storage.tables import MailRow, PushCallRow, PushDeviceRow, PushKeyRow, SwimWatchRow

THE_KEY = 1


@dataclass(frozen=True, kw_only=True)
class PushDevice:
    """A browser that messages may come to; the two keys are base64url, as it gave them."""

    id: UUID
    person_id: UUID
    name: str
    endpoint: str
    p256dh: str
    auth: str
    created_at: datetime


@dataclass(frozen=True, kw_only=True)
class PushCall:
    """A message to one device: what it says, and where to."""

    id: UUID
    mail_id: UUID
    workspace_id: UUID
    device: PushDevice
    once: str
    subject: str
    text: str
    tries: int


class PushRepository:
    """Devices, what goes to them, and pools that are waited for."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def key(self, new: str) -> str:
        """The key of this house; `new` where there is none yet, also if two ask at once."""
        await self._session.execute(insert(PushKeyRow).values(id=THE_KEY, secret=new).prefix_with("IGNORE"))
        found = await self._session.scalar(select(PushKeyRow.secret).where(PushKeyRow.id == THE_KEY))
        assert found is not None
        return found

    async def add(self, device: PushDevice) -> None:
        """One more; a browser that is known by its address belongs to whoever said so last."""
        values = vars(device)
        changed = {name: value for name, value in values.items() if name not in ("id", "endpoint")}
        await self._session.execute(insert(PushDeviceRow).values(**values).on_duplicate_key_update(**changed))

    async def devices(self, person_id: UUID) -> list[PushDevice]:
        """Those of one person, the oldest first."""
        rows = await self._session.scalars(
            select(PushDeviceRow)
            .where(PushDeviceRow.person_id == person_id)
            .order_by(PushDeviceRow.created_at, PushDeviceRow.id)
        )
        return [_device(row) for row in rows]

    async def end(self, id_: UUID) -> None:
        """Nothing comes to it any more."""
        await self._session.execute(delete(PushDeviceRow).where(PushDeviceRow.id == id_))

    async def end_all(self, person_id: UUID) -> None:
        """Nothing comes to any of somebody's."""
        await self._session.execute(delete(PushDeviceRow).where(PushDeviceRow.person_id == person_id))

    async def queue(self, device_id: UUID, mail_id: UUID, at: datetime) -> None:
        """A message goes to a device, once."""
        row = insert(PushCallRow).values(
            id=uuid4(),
            device_id=device_id,
            mail_id=mail_id,
            created_at=at,
            next_at=at,
            state=QUEUED,
            trouble="",
        )
        await self._session.execute(row.prefix_with("IGNORE"))

    async def due(self, now: datetime, most: int) -> list[PushCall]:
        """What waits and may be tried, the oldest first."""
        rows = await self._session.execute(
            select(PushCallRow, PushDeviceRow, MailRow)
            .join(PushDeviceRow, PushDeviceRow.id == PushCallRow.device_id)
            .join(MailRow, MailRow.id == PushCallRow.mail_id)
            .where(PushCallRow.state == QUEUED, PushCallRow.next_at <= now)
            .order_by(PushCallRow.created_at)
            .limit(most)
        )
        return [_call(*row) for row in rows]

    async def change(self, id_: UUID, **values: object) -> None:
        """Another state or time."""
        await self._session.execute(update(PushCallRow).where(PushCallRow.id == id_).values(**values))

    # Who waits for a pool to open.
    async def watched(self, person_id: UUID) -> dict[UUID, datetime]:
        """Since when each pool was seen closed."""
        rows = await self._session.scalars(select(SwimWatchRow).where(SwimWatchRow.person_id == person_id))
        return {row.pool_id: row.since for row in rows}

    async def watch(self, person_id: UUID, pool_id: UUID, since: datetime) -> None:
        """It is closed; since when stays as it was."""
        row = insert(SwimWatchRow).values(person_id=person_id, pool_id=pool_id, since=since)
        await self._session.execute(row.prefix_with("IGNORE"))

    async def unwatch(self, person_id: UUID, pool_id: UUID) -> None:
        """It is open, or nobody waits any more."""
        row = SwimWatchRow
        await self._session.execute(delete(row).where(row.person_id == person_id, row.pool_id == pool_id))


def _device(row: PushDeviceRow) -> PushDevice:
    return PushDevice(**{name: getattr(row, name) for name in PushDevice.__dataclass_fields__})


def _call(call: PushCallRow, device: PushDeviceRow, mail: MailRow) -> PushCall:
    return PushCall(
        id=call.id,
        mail_id=mail.id,
        workspace_id=mail.workspace_id,
        device=_device(device),
        once=mail.once,
        subject=mail.subject,
        text=mail.text,
        tries=call.tries,
    )
