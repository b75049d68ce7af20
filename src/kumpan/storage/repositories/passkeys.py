"""Named queries on passkeys, and on what they were asked to sign."""

from dataclasses import dataclass
from datetime import datetime
from uuid import UUID

from sqlalchemy import CursorResult, delete, select, update
from sqlalchemy.ext.asyncio import AsyncSession

from kumpan.storage.tables import ChallengeRow, PasskeyRow, PersonRow


@dataclass(frozen=True, kw_only=True)
class Passkey:
    """The public key of one device of a person; `id` is the hash of the credential's own id."""

    id: str
    person_id: UUID
    credential_id: bytes
    public_key: bytes
    signature_counter: int
    name: str
    created_at: datetime
    used_at: datetime | None


class PasskeyRepository:
    """Passkeys and challenges."""

    def __init__(self, session: AsyncSession) -> None:
        self._session = session

    async def issue_challenge(self, hash_: str, expires_at: datetime, now: datetime) -> None:
        """Something was asked to be signed; what nobody answered in time is forgotten."""
        await self._session.execute(delete(ChallengeRow).where(ChallengeRow.expires_at <= now))
        self._session.add(ChallengeRow(id=hash_, expires_at=expires_at))
        await self._session.flush()

    async def redeem_challenge(self, hash_: str, now: datetime) -> bool:
        """Whether this was asked and still waits: once, then it is forgotten."""
        gone = await self._session.execute(
            delete(ChallengeRow).where(ChallengeRow.id == hash_, ChallengeRow.expires_at > now)
        )
        assert isinstance(gone, CursorResult)
        return gone.rowcount == 1

    async def add(self, passkey: Passkey) -> None:
        """One more."""
        self._session.add(
            PasskeyRow(
                id=passkey.id,
                person_id=passkey.person_id,
                credential_id=passkey.credential_id,
                public_key=passkey.public_key,
                signature_counter=passkey.signature_counter,
                name=passkey.name,
                created_at=passkey.created_at,
            )
        )
        await self._session.flush()

    async def passkey(self, id_: str) -> Passkey | None:
        """One of somebody who has not left."""
        row = await self._session.scalar(
            select(PasskeyRow)
            .join(PersonRow, PersonRow.id == PasskeyRow.person_id)
            .where(PasskeyRow.id == id_, PersonRow.ended_at.is_(None))
        )
        return None if row is None else _passkey(row)

    async def of_person(self, person_id: UUID) -> list[Passkey]:
        """A person's, the newest first."""
        rows = await self._session.scalars(
            select(PasskeyRow).where(PasskeyRow.person_id == person_id).order_by(PasskeyRow.created_at.desc())
        )
        return [_passkey(row) for row in rows]

    async def used(self, id_: str, signature_counter: int, at: datetime) -> None:
        """It has just signed."""
        await self._session.execute(
            update(PasskeyRow)
            .where(PasskeyRow.id == id_)
            .values(signature_counter=signature_counter, used_at=at)
        )

    async def end(self, person_id: UUID, only: str | None = None) -> None:
        """All of a person's open nothing any more, or only one."""
        where = [PasskeyRow.person_id == person_id]
        if only is not None:
            where.append(PasskeyRow.id == only)
        await self._session.execute(delete(PasskeyRow).where(*where))


def _passkey(row: PasskeyRow) -> Passkey:
    return Passkey(
        id=row.id,
        person_id=row.person_id,
        credential_id=row.credential_id,
        public_key=row.public_key,
        signature_counter=row.signature_counter,
        name=row.name,
        created_at=row.created_at,
        used_at=row.used_at,
    )
