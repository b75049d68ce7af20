"""Named queries on who may come in: accounts, sessions, tokens, links, pools given, audit."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy import ColumnElement, delete, select, update
from sqlalchemy.exc import IntegrityError
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.core.errors import Conflict
from kumpan.core.messages import Message
from kumpan.storage.tables import (
    AccountRow,
    ApiTokenRow,
    AuditRow,
    PersonRow,
    PoolGivenRow,
    SecretLinkRow,
    SessionRow,
)


@dataclass(frozen=True, kw_only=True)
class Account:
    """How somebody signs in."""

    id: UUID
    person_id: UUID
    login: str
    password_hash: str
    totp_secret: str | None = None
    totp_used_step: int | None = None


@dataclass(frozen=True, kw_only=True)
class KnownPerson:
    """Who stands behind a session or a token, and since when."""

    person_id: UUID
    workspace_id: UUID
    name: str
    role: str
    created_at: datetime
    seen_at: datetime | None
    scope: str = "write"


@dataclass(frozen=True, kw_only=True)
class SignedInDevice:
    """A session as its owner sees it."""

    id: str
    device: str
    created_at: datetime
    seen_at: datetime


@dataclass(frozen=True, kw_only=True)
class ApiToken:
    """A token without its secret."""

    id: UUID
    person_id: UUID
    name: str
    scope: str
    created_at: datetime
    used_at: datetime | None
    revoked_at: datetime | None


@dataclass(frozen=True, kw_only=True)
class SecretLink:
    """An invitation, a reset or a guest link without its secret."""

    id: UUID
    workspace_id: UUID
    kind: str
    name: str
    person_id: UUID | None
    pool_id: UUID | None
    created_at: datetime
    expires_at: datetime | None
    ended_at: datetime | None


@dataclass(frozen=True, kw_only=True)
class AuditLine:
    """Who did what from where."""

    person_id: UUID | None
    at: datetime
    action: str
    address: str
    detail: dict[str, object]


class AccountRepository:
    """Who may come in."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def any_account(self) -> bool:
        """Whether anybody can sign in yet."""
        return await self._session.scalar(select(AccountRow.id).limit(1)) is not None

    async def account(self, login: str) -> Account | None:
        """By its login in lower case."""
        return _account(await self._session.scalar(select(AccountRow).where(AccountRow.login == login)))

    async def account_of(self, person_id: UUID) -> Account | None:
        """That of a person."""
        where = AccountRow.person_id == person_id
        return _account(await self._session.scalar(select(AccountRow).where(where)))

    async def logins(self, workspace_id: UUID) -> dict[UUID, str]:
        """The logins of a workspace's people, by person."""
        rows = await self._session.execute(
            select(AccountRow.person_id, AccountRow.login)
            .join(PersonRow, PersonRow.id == AccountRow.person_id)
            .where(PersonRow.workspace_id == workspace_id)
        )
        return {row.person_id: row.login for row in rows}

    async def save_account(self, account: Account, at: datetime) -> None:
        """Add or change one. Raises Conflict where the login belongs to somebody else."""
        row = await self._session.get(AccountRow, account.id)
        if row is None:
            row = AccountRow(id=account.id, person_id=account.person_id)
            self._session.add(row)
        row.login, row.password_hash, row.changed_at = account.login, account.password_hash, at
        row.totp_secret, row.totp_used_step = account.totp_secret, account.totp_used_step
        try:
            await self._session.flush()
        except IntegrityError as trouble:
            taken = Message("This name to sign in with is taken; choose another.")
            raise Conflict(taken, "login") from trouble

    async def end_account(self, person_id: UUID) -> None:
        """Nobody signs in as this person any more."""
        await self._session.execute(delete(AccountRow).where(AccountRow.person_id == person_id))

    async def workspace_of(self, person_id: UUID) -> UUID:
        """Where a person belongs."""
        found = await self._session.scalar(select(PersonRow.workspace_id).where(PersonRow.id == person_id))
        assert found is not None
        return found

    # Sessions.
    async def behind_session(self, hash_: str) -> KnownPerson | None:
        """Who a session belongs to; None for a person who left."""
        row = (
            await self._session.execute(
                select(
                    PersonRow.id,
                    PersonRow.workspace_id,
                    PersonRow.name,
                    PersonRow.role,
                    SessionRow.created_at,
                    SessionRow.seen_at,
                )
                .join(SessionRow, SessionRow.person_id == PersonRow.id)
                .where(SessionRow.id == hash_, PersonRow.ended_at.is_(None))
            )
        ).first()
        if row is None:
            return None
        return KnownPerson(
            person_id=row.id,
            workspace_id=row.workspace_id,
            name=row.name,
            role=row.role,
            created_at=row.created_at,
            seen_at=row.seen_at,
        )

    async def add_session(self, hash_: str, person_id: UUID, device: str, at: datetime) -> None:
        """A device that has just signed in."""
        row = SessionRow(id=hash_, person_id=person_id, device=device[:120], created_at=at, seen_at=at)
        self._session.add(row)
        await self._session.flush()

    async def seen(self, hash_: str, at: datetime) -> None:
        """A device that is still in use."""
        await self._session.execute(update(SessionRow).where(SessionRow.id == hash_).values(seen_at=at))

    async def devices(self, person_id: UUID) -> list[SignedInDevice]:
        """Where a person is signed in, the last used first."""
        rows = await self._session.scalars(
            select(SessionRow).where(SessionRow.person_id == person_id).order_by(SessionRow.seen_at.desc())
        )
        return [
            SignedInDevice(id=row.id, device=row.device, created_at=row.created_at, seen_at=row.seen_at)
            for row in rows
        ]

    async def end_session(self, hash_: str) -> None:
        """Sign one device out."""
        await self._session.execute(delete(SessionRow).where(SessionRow.id == hash_))

    async def end_sessions(self, person_id: UUID, but: str | None = None) -> None:
        """Sign a person out everywhere, or everywhere else."""
        where: list[ColumnElement[bool]] = [SessionRow.person_id == person_id]
        if but is not None:
            where.append(SessionRow.id != but)
        await self._session.execute(delete(SessionRow).where(*where))

    # Tokens.
    async def behind_token(self, hash_: str) -> KnownPerson | None:
        """Who a token acts for; None for one that was revoked or whose person left."""
        row = (
            await self._session.execute(
                select(
                    PersonRow.id,
                    PersonRow.workspace_id,
                    PersonRow.name,
                    PersonRow.role,
                    ApiTokenRow.created_at,
                    ApiTokenRow.used_at,
                    ApiTokenRow.scope,
                )
                .join(ApiTokenRow, ApiTokenRow.person_id == PersonRow.id)
                .where(
                    ApiTokenRow.hash == hash_,
                    ApiTokenRow.revoked_at.is_(None),
                    PersonRow.ended_at.is_(None),
                )
            )
        ).first()
        if row is None:
            return None
        return KnownPerson(
            person_id=row.id,
            workspace_id=row.workspace_id,
            name=row.name,
            role=row.role,
            created_at=row.created_at,
            seen_at=row.used_at,
            scope=row.scope,
        )

    async def token_used(self, hash_: str, at: datetime) -> None:
        """A token that is still in use."""
        await self._session.execute(update(ApiTokenRow).where(ApiTokenRow.hash == hash_).values(used_at=at))

    async def add_token(self, token: ApiToken, hash_: str) -> None:
        """One more."""
        row = ApiTokenRow(
            id=token.id,
            person_id=token.person_id,
            name=token.name,
            scope=token.scope,
            hash=hash_,
            created_at=token.created_at,
        )
        self._session.add(row)
        await self._session.flush()

    async def tokens(self, person_id: UUID) -> list[ApiToken]:
        """A person's tokens, the newest first."""
        rows = await self._session.scalars(
            select(ApiTokenRow)
            .where(ApiTokenRow.person_id == person_id)
            .order_by(ApiTokenRow.created_at.desc())
        )
        return [
            ApiToken(
                id=row.id,
                person_id=row.person_id,
                name=row.name,
                scope=row.scope,
                created_at=row.created_at,
                used_at=row.used_at,
                revoked_at=row.revoked_at,
            )
            for row in rows
        ]

    async def revoke_tokens(self, person_id: UUID, at: datetime, only: UUID | None = None) -> None:
        """From now on they open nothing."""
        where: list[ColumnElement[bool]] = [
            ApiTokenRow.person_id == person_id,
            ApiTokenRow.revoked_at.is_(None),
        ]
        if only is not None:
            where.append(ApiTokenRow.id == only)
        await self._session.execute(update(ApiTokenRow).where(*where).values(revoked_at=at))

    # Links.
    async def add_link(self, link: SecretLink, hash_: str) -> None:
        """One more."""
        self._session.add(
            SecretLinkRow(
                id=link.id,
                workspace_id=link.workspace_id,
                kind=link.kind,
                hash=hash_,
                name=link.name,
                person_id=link.person_id,
                pool_id=link.pool_id,
                created_at=link.created_at,
                expires_at=link.expires_at,
            )
        )
        await self._session.flush()

    async def link(self, hash_: str) -> SecretLink | None:
        """By its secret's hash; locked, so that a link for once is used once."""
        row = await self._session.scalar(
            select(SecretLinkRow).where(SecretLinkRow.hash == hash_).with_for_update()
        )
        return None if row is None else _link(row)

    async def open_link(self, hash_: str, kind: str, now: datetime) -> SecretLink | None:
        """By its secret's hash, while it opens something."""
        row = await self._session.scalar(
            select(SecretLinkRow).where(
                SecretLinkRow.hash == hash_, SecretLinkRow.kind == kind, SecretLinkRow.ended_at.is_(None)
            )
        )
        if row is None or (row.expires_at is not None and row.expires_at <= now):
            return None
        return _link(row)

    async def links(self, workspace_id: UUID) -> list[SecretLink]:
        """Those of a workspace, the newest first."""
        rows = await self._session.scalars(
            select(SecretLinkRow)
            .where(SecretLinkRow.workspace_id == workspace_id)
            .order_by(SecretLinkRow.created_at.desc())
        )
        return [_link(row) for row in rows]

    async def end_link(self, link_id: UUID, at: datetime) -> None:
        """From now on it opens nothing."""
        await self._session.execute(
            update(SecretLinkRow)
            .where(SecretLinkRow.id == link_id, SecretLinkRow.ended_at.is_(None))
            .values(ended_at=at)
        )

    async def end_links_for(self, person_id: UUID, at: datetime) -> None:
        """No invitation or reset of a person opens anything any more."""
        await self._session.execute(
            update(SecretLinkRow)
            .where(SecretLinkRow.person_id == person_id, SecretLinkRow.ended_at.is_(None))
            .values(ended_at=at)
        )

    # Pools that somebody was given.
    async def pools_given(self, person_id: UUID) -> set[UUID]:
        """The pools of an owner, or what a technician was given beside the rounds."""
        where = PoolGivenRow.person_id == person_id
        return set(await self._session.scalars(select(PoolGivenRow.pool_id).where(where)))

    async def give_pools(self, person_id: UUID, pool_ids: set[UUID]) -> None:
        """These and no others."""
        await self._session.execute(delete(PoolGivenRow).where(PoolGivenRow.person_id == person_id))
        for pool_id in sorted(pool_ids):
            self._session.add(PoolGivenRow(person_id=person_id, pool_id=pool_id))
        await self._session.flush()

    # Audit.
    async def add_audit(self, workspace_id: UUID, line: AuditLine) -> None:
        """One more line; none is ever changed."""
        self._session.add(
            AuditRow(
                workspace_id=workspace_id,
                person_id=line.person_id,
                at=line.at,
                action=line.action,
                address=line.address[:45],
                detail=line.detail,
            )
        )
        await self._session.flush()

    async def audit(self, workspace_id: UUID, most: int) -> list[AuditLine]:
        """The last lines of a workspace, the newest first."""
        rows = await self._session.scalars(
            select(AuditRow)
            .where(AuditRow.workspace_id == workspace_id)
            .order_by(AuditRow.at.desc(), AuditRow.id.desc())
            .limit(most)
        )
        return [
            AuditLine(
                person_id=row.person_id,
                at=row.at,
                action=row.action,
                address=row.address,
                detail=row.detail,
            )
            for row in rows
        ]


def _account(row: AccountRow | None) -> Account | None:
    if row is None:
        return None
    return Account(
        id=row.id,
        person_id=row.person_id,
        login=row.login,
        password_hash=row.password_hash,
        totp_secret=row.totp_secret,
        totp_used_step=row.totp_used_step,
    )


def _link(row: SecretLinkRow) -> SecretLink:
    return SecretLink(
        id=row.id,
        workspace_id=row.workspace_id,
        kind=row.kind,
        name=row.name,
        person_id=row.person_id,
        pool_id=row.pool_id,
        created_at=row.created_at,
        expires_at=row.expires_at,
        ended_at=row.ended_at,
    )
