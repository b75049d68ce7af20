"""What goes out by itself: mail and calls to other programs, queued until they are taken."""

from datetime import datetime
from uuid import UUID

from sqlalchemy import JSON, ForeignKey, Index, Integer, LargeBinary, String, Text, UniqueConstraint, Uuid
from sqlalchemy.orm import Mapped, mapped_column

from kumpan.storage.tables.base import Base
from kumpan.storage.types import UtcDateTime


class MailRow(Base):
    """One message. Its Message-ID follows from `id`, so that it is the same however often it is sent.

    `once`: what it is about; a second message with the same is not queued.
    """

    __tablename__ = "mail"
    __table_args__ = (UniqueConstraint("once"), Index(None, "state", "next_at"), Index(None, "workspace_id"))

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id", ondelete="CASCADE"))
    person_id: Mapped[UUID | None] = mapped_column(Uuid)
    kind: Mapped[str] = mapped_column(String(20))
    once: Mapped[str] = mapped_column(String(160))
    address: Mapped[str] = mapped_column(String(254))
    subject: Mapped[str] = mapped_column(String(200))
    text: Mapped[str] = mapped_column(Text(2**24 - 1))
    file_name: Mapped[str] = mapped_column(String(80))
    file: Mapped[bytes | None] = mapped_column(LargeBinary(2**24 - 1))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    next_at: Mapped[datetime] = mapped_column(UtcDateTime)
    tries: Mapped[int] = mapped_column(Integer, server_default="0")
    state: Mapped[str] = mapped_column(String(8))
    sent_at: Mapped[datetime | None] = mapped_column(UtcDateTime)
    trouble: Mapped[str] = mapped_column(String(300))


class MailChoiceRow(Base):
    """What somebody wants by mail, where to, and at which hour of their own zone.

    `secret` ends all of it from a link in each message; it opens nothing else.
    """

    __tablename__ = "mail_choice"
    __table_args__ = (UniqueConstraint("secret"),)

    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id", ondelete="CASCADE"), index=True)
    address: Mapped[str] = mapped_column(String(254))
    kinds: Mapped[list[str]] = mapped_column(JSON)
    hour: Mapped[int] = mapped_column(Integer)
    time_zone: Mapped[str] = mapped_column(String(64))
    secret: Mapped[str] = mapped_column(String(64))
    units: Mapped[str] = mapped_column(String(8), server_default="us")


class HookRow(Base):
    """Another program that is told of entries; `secret` signs what it is told."""

    __tablename__ = "hook"

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    workspace_id: Mapped[UUID] = mapped_column(ForeignKey("workspace.id", ondelete="CASCADE"), index=True)
    url: Mapped[str] = mapped_column(String(500))
    secret: Mapped[str] = mapped_column(String(64))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    ended_at: Mapped[datetime | None] = mapped_column(UtcDateTime)


class HookCallRow(Base):
    """One thing that a program is told."""

    __tablename__ = "hook_call"
    __table_args__ = (Index(None, "state", "next_at"),)

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    hook_id: Mapped[UUID] = mapped_column(ForeignKey("hook.id", ondelete="CASCADE"))
    body: Mapped[str] = mapped_column(Text)
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    next_at: Mapped[datetime] = mapped_column(UtcDateTime)
    tries: Mapped[int] = mapped_column(Integer, server_default="0")
    state: Mapped[str] = mapped_column(String(8))
    trouble: Mapped[str] = mapped_column(String(300))


class PushKeyRow(Base):
    """The one key by which push services know this house (VAPID), made at its first use."""

    __tablename__ = "push_key"

    id: Mapped[int] = mapped_column(Integer, primary_key=True)
    secret: Mapped[str] = mapped_column(Text)


class PushDeviceRow(Base):
    """A browser that somebody let messages come to: where its push service is, and its two keys."""

    __tablename__ = "push_device"
    __table_args__ = (UniqueConstraint("endpoint"),)

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), index=True)
    name: Mapped[str] = mapped_column(String(80))
    endpoint: Mapped[str] = mapped_column(String(500))
    p256dh: Mapped[str] = mapped_column(String(120))
    auth: Mapped[str] = mapped_column(String(40))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)


class PushCallRow(Base):
    """A message that goes to one device."""

    __tablename__ = "push_call"
    __table_args__ = (UniqueConstraint("device_id", "mail_id"), Index(None, "state", "next_at"))

    id: Mapped[UUID] = mapped_column(Uuid, primary_key=True)
    device_id: Mapped[UUID] = mapped_column(ForeignKey("push_device.id", ondelete="CASCADE"))
    mail_id: Mapped[UUID] = mapped_column(ForeignKey("mail.id", ondelete="CASCADE"))
    created_at: Mapped[datetime] = mapped_column(UtcDateTime)
    next_at: Mapped[datetime] = mapped_column(UtcDateTime)
    tries: Mapped[int] = mapped_column(Integer, server_default="0")
    state: Mapped[str] = mapped_column(String(8))
    trouble: Mapped[str] = mapped_column(String(300))


class SwimWatchRow(Base):
    """Since when somebody who wants to hear that a pool is open again has seen it closed."""

    __tablename__ = "swim_watch"

    pool_id: Mapped[UUID] = mapped_column(ForeignKey("pool.id", ondelete="CASCADE"), primary_key=True)
    person_id: Mapped[UUID] = mapped_column(ForeignKey("person.id", ondelete="CASCADE"), primary_key=True)
    since: Mapped[datetime] = mapped_column(UtcDateTime)
