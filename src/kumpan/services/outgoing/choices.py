"""What somebody wants by mail, chosen by each person and ended by a link in every message."""

from collections.abc import Sequence
from dataclasses import replace
from enum import StrEnum
from re import fullmatch
from uuid import UUID, uuid4
from zoneinfo import available_timezones

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.core.messages import Message
from kumpan.core.quantities.units import Units
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.accounts import DEAD_LINK
from kumpan.services.people.secret import new_secret
from kumpan.storage.repositories.outgoing import Mail, MailChoice
from kumpan.storage.transaction import Transaction

MOST_LISTED = 100


class Letter(StrEnum):
    """Kinds of mail. Invitations and resets go to whom the office names, the others to who chose them."""

    INVITATION = "invitation"
    REPORT = "report"
    DUE = "due"
    STEP = "step"
    SWIM = "swim"
    DIGEST = "digest"


CHOSEN = (Letter.REPORT, Letter.DUE, Letter.STEP, Letter.SWIM, Letter.DIGEST)
NOTHING = MailChoice(
    person_id=UUID(int=0), workspace_id=UUID(int=0), address="", kinds=(), hour=8, time_zone="UTC", secret=""
)


def checked_address(address: str) -> str:
    """Raises InvalidInput for what is no address; whether somebody reads there only a message can tell."""
    clean = address.strip()
    if not fullmatch(r"[^@\s<>,;:\"]{1,64}@[^@\s<>,;:\"]{1,180}\.[^@\s<>,;:\".]{2,}", clean):
        raise InvalidInput(Message("This is no mail address; write it like name@example.com."), "address")
    return clean


async def choice_of(scope: Scope) -> MailChoice:
    """What who acts wants by mail; nothing before it was chosen."""
    found = None if scope.person_id is None else await scope.tx.outgoing.choice(scope.person_id)
    return found or NOTHING


async def choose(
    scope: Scope,
    *,
    address: str,
    kinds: Sequence[Letter],
    hour: int,
    time_zone: str,
    units: Units = Units.US,
) -> None:
    """What who acts wants from now on, by mail where there is an address. Raises InvalidInput."""
    if scope.person_id is None:
        raise InvalidInput(Message("Sign in as a person first."), "person_id")
    if time_zone not in available_timezones():
        raise InvalidInput(Message("This is no time zone; choose one like America/Chicago."), "time_zone")
    if address.strip() or (kinds and not await scope.tx.push.devices(scope.person_id)):
        address = checked_address(address)
    before = await scope.tx.outgoing.choice(scope.person_id)
    await scope.tx.outgoing.choose(
        MailChoice(
            person_id=scope.person_id,
            workspace_id=scope.workspace_id,
            address=address,
            kinds=tuple(kind.value for kind in CHOSEN if kind in kinds),
            hour=hour,
            time_zone=time_zone,
            secret=before.secret if before else new_secret(),
            units=units.value,
        )
    )


async def end_by_link(tx: Transaction, secret: str) -> None:
    """No more mail to whoever this link is of. Raises NotFound."""
    if not await tx.outgoing.end_by_secret(secret):
        raise NotFound(DEAD_LINK)


async def outbox(scope: Scope) -> list[Mail]:
    """The last messages of the workspace, sent, waiting or given up, the newest first."""
    mails = await scope.tx.outgoing.mails(scope.workspace_id, MOST_LISTED)
    return [replace(mail, file=None) for mail in mails if mail.state != "nothing"]


async def send_again(scope: Scope, id_: UUID) -> None:
    """A message that was given up is tried once more. Raises NotFound."""
    mails = await scope.tx.outgoing.mails(scope.workspace_id, MOST_LISTED)
    found = next((one for one in mails if one.id == id_), None)
    if found is None:
        raise NotFound(Message("There is no such message here; reload the list."))
    if found.state == "failed":
        await scope.tx.outgoing.change_mail(id_, state="queued", tries=0, next_at=scope.now)


async def invitation_by_mail(scope: Scope, address: str, link: str, *, reset: bool) -> None:
    """A link by which somebody comes in, as a message. Raises InvalidInput."""
    firm = await scope.tx.shares.workspace_name(scope.workspace_id)
    what = "choose a new password" if reset else "choose a login and a password"
    subject = "A new password for Kumpan" if reset else f"{firm} invites you to Kumpan"
    last = "It works once. If you did not expect this, ignore it."
    text = f"{subject}.\n\nOpen this link to {what}:\n{link}\n\n{last}"
    id_ = uuid4()
    await scope.tx.outgoing.queue(
        Mail(
            id=id_,
            workspace_id=scope.workspace_id,
            person_id=None,
            kind=Letter.INVITATION,
            once=f"invitation:{id_}",
            address=checked_address(address),
            subject=subject[:200],
            text=text,
            created_at=scope.now,
            next_at=scope.now,
        )
    )
