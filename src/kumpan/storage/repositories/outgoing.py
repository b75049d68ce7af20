"""Named queries on what goes out by itself."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy import func, select, update
from sqlalchemy.dialects.mysql import insert
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.tables import HookCallRow, HookRow, MailChoiceRow, MailRow

QUEUED, SENT, FAILED = "queued", "sent", "failed"


@dataclass(frozen=True, kw_only=True)
class Mail:
    """One message, as it waits or went."""

    id: UUID
    workspace_id: UUID
    person_id: UUID | None
    kind: str
    once: str
    address: str
    subject: str
    text: str
    created_at: datetime
    next_at: datetime
    file_name: str = ""
    file: bytes | None = None
    tries: int = 0
    state: str = QUEUED
    sent_at: datetime | None = None
    trouble: str = ""


@dataclass(frozen=True, kw_only=True)
class MailChoice:
    """What somebody wants by mail."""

    person_id: UUID
    workspace_id: UUID
    address: str
    kinds: tuple[str, ...]
    hour: int
    time_zone: str
    secret: str
    units: str = "us"


@dataclass(frozen=True, kw_only=True)
class Hook:
    """A program that is told."""

    id: UUID
    workspace_id: UUID
    url: str
    secret: str
    created_at: datetime
    ended_at: datetime | None = None


@dataclass(frozen=True, kw_only=True)
class HookCall:
    """What it is told, and where to."""

    id: UUID
    url: str
    secret: str
    body: str
    tries: int


class OutgoingRepository:
    """Queues of mail and of calls."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    # Mail.
    async def queue(self, mail: Mail) -> bool:
        """Whether it is new: what it is about was not queued before."""
        row = insert(MailRow).values(**vars(mail)).prefix_with("IGNORE")
        return bool((await self._session.execute(row)).rowcount)  # type: ignore[attr-defined]

    async def is_known(self, once: str) -> bool:
        """Whether a message about this was queued before."""
        return await self._session.scalar(select(MailRow.id).where(MailRow.once == once)) is not None

    async def due_mail(self, now: datetime, most: int) -> list[Mail]:
        """What waits and may be tried, the oldest first."""
        rows = await self._session.scalars(
            select(MailRow)
            .where(MailRow.state == QUEUED, MailRow.next_at <= now)
            .order_by(MailRow.created_at)
            .limit(most)
        )
        return [_mail(row) for row in rows]

    async def change_mail(self, id_: UUID, **values: object) -> None:
        """Another state or time."""
        await self._session.execute(update(MailRow).where(MailRow.id == id_).values(**values))

    async def mails(self, workspace_id: UUID, most: int) -> list[Mail]:
        """The last messages of a workspace, the newest first."""
        rows = await self._session.scalars(
            select(MailRow)
            .where(MailRow.workspace_id == workspace_id)
            .order_by(MailRow.created_at.desc(), MailRow.id)
            .limit(most)
        )
        return [_mail(row) for row in rows]

    # Choices.
    async def choice(self, person_id: UUID) -> MailChoice | None:
        """What one person wants."""
        row = await self._session.get(MailChoiceRow, person_id)
        return None if row is None else _choice(row)

    async def choices(self) -> list[MailChoice]:
        """What everybody wants who wants anything, of whatever workspace."""
        return [_choice(row) for row in await self._session.scalars(select(MailChoiceRow))]

    async def choose(self, choice: MailChoice) -> None:
        """In the place of what was wanted before."""
        values = {**vars(choice), "kinds": list(choice.kinds)}
        changed = {name: value for name, value in values.items() if name not in ("person_id", "secret")}
        await self._session.execute(insert(MailChoiceRow).values(**values).on_duplicate_key_update(**changed))

    async def end_by_secret(self, secret: str) -> bool:
        """Nothing more to whoever has this secret; whether there is one."""
        done = await self._session.execute(
            update(MailChoiceRow).where(MailChoiceRow.secret == secret).values(kinds=[])
        )
        found = await self._session.scalar(
            select(func.count()).select_from(MailChoiceRow).where(MailChoiceRow.secret == secret)
        )
        return bool(done) and bool(found)

    # Hooks.
    async def hooks(self, workspace_id: UUID) -> list[Hook]:
        """The programs that a workspace tells."""
        rows = await self._session.scalars(
            select(HookRow).where(HookRow.workspace_id == workspace_id, HookRow.ended_at.is_(None))
        )
        return [Hook(**{name: getattr(row, name) for name in Hook.__dataclass_fields__}) for row in rows]

    async def add_hook(self, hook: Hook) -> None:
        """One more."""
        self._session.add(HookRow(**vars(hook)))
        await self._session.flush()

    async def end_hook(self, id_: UUID, at: datetime) -> None:
        """It is told nothing more."""
        await self._session.execute(update(HookRow).where(HookRow.id == id_).values(ended_at=at))

    async def call(self, id_: UUID, hook_id: UUID, body: str, at: datetime) -> None:
        """Something to tell it; the same id again changes nothing."""
        row = insert(HookCallRow).values(
            id=id_, hook_id=hook_id, body=body, created_at=at, next_at=at, state=QUEUED, trouble=""
        )
        await self._session.execute(row.prefix_with("IGNORE"))

    async def due_calls(self, now: datetime, most: int) -> list[HookCall]:
        """What waits and may be tried, the oldest first."""
        rows = await self._session.execute(
            select(HookCallRow.id, HookRow.url, HookRow.secret, HookCallRow.body, HookCallRow.tries)
            .join(HookRow, HookRow.id == HookCallRow.hook_id)
            .where(HookCallRow.state == QUEUED, HookCallRow.next_at <= now, HookRow.ended_at.is_(None))
            .order_by(HookCallRow.created_at)
            .limit(most)
        )
        return [HookCall(**row._mapping) for row in rows]

    async def change_call(self, id_: UUID, **values: object) -> None:
        """Another state or time."""
        await self._session.execute(update(HookCallRow).where(HookCallRow.id == id_).values(**values))


def _mail(row: MailRow) -> Mail:
    return Mail(**{name: getattr(row, name) for name in Mail.__dataclass_fields__})


def _choice(row: MailChoiceRow) -> MailChoice:
    values = {name: getattr(row, name) for name in MailChoice.__dataclass_fields__}
    return MailChoice(**{**values, "kinds": tuple(row.kinds)})
