"""One message, queued once: by mail where somebody has an address, and to each device of theirs."""

from collections.abc import Awaitable, Callable
from dataclasses import dataclass
from uuid import uuid4

from kumpan.core.errors import KumpanError
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope
from kumpan.services.outgoing.choices import Letter
from kumpan.storage.repositories.outgoing import QUEUED, Mail, MailChoice
from kumpan.wording.reader import Reader

NOTHING, BY_DEVICE_ONLY = "nothing", "devices"
# Short enough for a screen that is locked; reports and weeks are read at a table.
TO_DEVICES = (Letter.DUE, Letter.STEP, Letter.SWIM)


@dataclass(frozen=True)
class Text:
    """What a message says, and the paper that goes with it."""

    subject: str
    text: str
    file: bytes | None = None


Maker = Callable[[Scope], Awaitable[Text | None]]


def reader_of(choice: MailChoice) -> Reader:
    """In which units somebody reads."""
    return Reader(Units(choice.units))


async def once(scope: Scope, choice: MailChoice, kind: Letter, *, about: str, make: Maker) -> int:
    """Queue a message that was not queued before; what has nothing to say is noted, and not made again."""
    if await scope.tx.outgoing.is_known(about):
        return 0
    devices = await scope.tx.push.devices(choice.person_id) if kind in TO_DEVICES else []
    try:
        told = await make(scope) if choice.address or devices else None
    except KumpanError:
        told = None  # a pool without a set-up says nothing
    mail = Mail(
        id=uuid4(),
        workspace_id=choice.workspace_id,
        person_id=choice.person_id,
        kind=kind,
        once=about,
        address=choice.address,
        subject=told.subject[:200] if told else "",
        text=told.text if told else "",
        file_name="report.pdf" if told and told.file else "",
        file=told.file if told else None,
        created_at=scope.now,
        next_at=scope.now,
        state=NOTHING if told is None else QUEUED if choice.address else BY_DEVICE_ONLY,
    )
    if not await scope.tx.outgoing.queue(mail) or told is None:
        return 0
    for device in devices:
        await scope.tx.push.queue(device.id, mail.id, scope.now)
    return 1
