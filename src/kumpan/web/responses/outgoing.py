"""What goes out by itself, as the screens show it."""

from collections.abc import Sequence
from datetime import datetime
from typing import Self
from uuid import UUID

from kumpan.storage.repositories.push import PushDevice
from kumpan.web.responses.base import Response


class MailChosen(Response):
    """What comes by mail, where to, from which hour of one's own day."""

    address: str
    kinds: tuple[str, ...]
    hour: int
    time_zone: str
    units: str


class MailLine(Response):
    """A message: queued, sent or failed, and what went wrong last."""

    id: UUID
    kind: str
    address: str
    subject: str
    text: str
    created_at: datetime
    next_at: datetime
    tries: int
    state: str
    sent_at: datetime | None
    trouble: str


class HookLine(Response):
    """A program that is told of entries."""

    id: UUID
    url: str
    created_at: datetime


class NewHook(HookLine):
    """With the secret that signs what it is told, shown this once."""

    secret: str


class PushLine(Response):
    """A browser that messages come to; `endpoint` tells which of them is this one."""

    id: UUID
    name: str
    endpoint: str
    created_at: datetime


class PushDevices(Response):
    """The house's public key, and the browsers of who asks."""

    key: str
    devices: tuple[PushLine, ...]

    @classmethod
    def of_all(cls, key: str, devices: Sequence[PushDevice]) -> Self:
        """As it goes out."""
        return cls(key=key, devices=tuple(PushLine.of(one) for one in devices))
