"""Who may come in: accounts, sessions, tokens, links with a secret, what was done, what was tried."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import JSON, BigInteger, ForeignKey, Index, LargeBinary, String, UniqueConstraint, Uuid
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime

HASH = String(64)  # SHA-256 of a secret in hexadecimal: the secret itself is never stored


class AccountRow(Base):
    """How somebody signs in. `login` is an email address or a user name in lower case."""

    __tablename__ = "account"
    __table_args__ = (UniqueConstraint("login"), UniqueConstraint("person_id"))

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id"))
    login: Mapped[str] = mapped_column(String(254))
    password_hash: Mapped[str] = mapped_column(String(200))
    totp_secret: Mapped[str | None] = mapped_column(String(64))
    totp_used_step: Mapped[int | None] = mapped_column(BigInteger)
    changed_at: Mapped[datetime] = mapped_column(UtcDateTime)


class SessionRow(Base):
    """One signed-in device."""

    __tablename__ = "session"

    id: Mapped[str] = mapped_column(HASH, primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id"), index=True)
    device: Mapped[str] = mapped_column(String(120))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    seen_at: Mapped[datetime] = mapped_column(UtcDateTime)


class ApiTokenRow(Base):
    """A named token of a person for other programs; `scope` is read or write."""

    __tablename__ = "api_token"
    __table_args__ = (UniqueConstraint("hash"),)

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id"), index=True)
    name: Mapped[str] = mapped_column(String(80))
    scope: Mapped[str] = mapped_column(String(10))
    hash: Mapped[str] = mapped_column(HASH)
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    used_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    revoked_at: Mapped[datetime | None] = mapped_column(UtcDateTime)


class PasskeyRow(Base):
    """A passkey: the public key of a device that proves whose it is. `id` is the hash of `credential_id`."""

    __tablename__ = "passkey"

    id: Mapped[str] = mapped_column(HASH, primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id"), index=True)
    credential_id: Mapped[bytes] = mapped_column(LargeBinary(1023))
    public_key: Mapped[bytes] = mapped_column(LargeBinary(2000))
    signature_counter: Mapped[int] = mapped_column(BigInteger)
    name: Mapped[str] = mapped_column(String(80))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    used_at: Mapped[datetime | None] = mapped_column(UtcDateTime)


class ChallengeRow(Base):
    """What a passkey was asked to sign: the hash of it, for one answer."""

    __tablename__ = "challenge"

    id: Mapped[str] = mapped_column(HASH, primary_key=True)
    expires_at: Mapped[datetime] = mapped_column(UtcDateTime, index=True)


class SecretLinkRow(Base):
    """A link that lets somebody in: an invitation or a reset (once, a person), a guest link or a calendar
    feed (to a pool), an offer to share a pool (once, another workspace).
    """

    __tablename__ = "secret_link"
    __table_args__ = (UniqueConstraint("hash"),)

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"), index=True)
    kind: Mapped[str] = mapped_column(String(10))
    hash: Mapped[str] = mapped_column(HASH)
    name: Mapped[str] = mapped_column(String(80))
    person_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    pool_id: Mapped[UUID | None] = mapped_column(ForeignKey("pool.id"))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    expires_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    ended_at: Mapped[datetime | None] = mapped_column(UtcDateTime)


class PoolGivenRow(Base):
    """A pool that a technician was given or that an owner has."""

    __tablename__ = "pool_given"

    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id"), primary_key=True)
    pool_id: Mapped[UUID] = mapped_column(ForeignKey("pool.id"), primary_key=True)


class AuditRow(Base):
    """Who did what from where; only ever added to."""

    __tablename__ = "audit"
    __table_args__ = (Index(None, "workspace_id", "at"),)

    id: Mapped[int] = mapped_column(BigInteger, primary_key=True, autoincrement=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id"))
    person_id: Mapped[UUID | None] = mapped_column(ForeignKey("person.id"))
    at: Mapped[datetime] = mapped_column(UtcDateTime)
    action: Mapped[str] = mapped_column(String(40))
    address: Mapped[str] = mapped_column(String(45))
    detail: Mapped[dict[str, object]] = mapped_column(JSON)


class AttemptRow(Base):
    """How often something was tried in a window of time; the key is a hash."""

    __tablename__ = "attempt"

    key: Mapped[str] = mapped_column(HASH, primary_key=True)
    count: Mapped[int] = mapped_column(BigInteger)
    expires_at: Mapped[datetime] = mapped_column(UtcDateTime, index=True)
