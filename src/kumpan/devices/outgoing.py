"""What waits to go out, sent: mail by SMTP, calls by HTTP, each at least once and under one name.

A message is claimed before it is sent and noted after it: a worker that dies between the two sends it again,
with the same Message-ID, by which a mailbox shows it once.
"""

import asyncio
from collections.abc import Awaitable, Callable
from datetime import datetime, timedelta
from email.message import EmailMessage
from email.utils import format_datetime

import aiosmtplib
import httpx
import structlog

from kumpan.devices.push import send_pushes, web_push
from kumpan.services.journal.ledger import Scope
from kumpan.services.outgoing.hooks import signature
from kumpan.services.outgoing.letters import queue_due
from kumpan.services.outgoing.moments import still_true
from kumpan.services.outgoing.queueing import NOTHING
from kumpan.settings import Settings
from kumpan.storage.repositories.outgoing import FAILED, QUEUED, SENT, HookCall, Mail
from kumpan.storage.transaction import Database

WAITS_MIN = (1, 5, 15, 60, 180, 720, 1440)  # before each next try; then it is given up, and said
AT_ONCE, WITHIN_S = 20, 20.0

Send = Callable[[EmailMessage], Awaitable[None]]
Clock = Callable[[], datetime]


def message_of(mail: Mail, settings: Settings, secret: str = "") -> EmailMessage:
    """A mail as it travels. The same mail gives the same Message-ID."""
    message = EmailMessage()
    message["From"] = settings.mail_from
    message["To"] = mail.address
    message["Subject"] = " ".join(mail.subject.split())
    message["Date"] = format_datetime(mail.created_at)
    message["Message-ID"] = f"<{mail.id}@{settings.mail_from.rpartition('@')[2].strip('> ')}>"
    message["Auto-Submitted"] = "auto-generated"
    text = mail.text
    if secret:
        link = f"{settings.public_address}/unsubscribe/{secret}"
        message["List-Unsubscribe"] = f"<{link}>"
        text += f"\n\n--\nChoose what comes by mail, or end it: {link}"
    message.set_content(text)
    if mail.file is not None:
        message.add_attachment(mail.file, maintype="application", subtype="pdf", filename=mail.file_name)
    return message


def smtp(settings: Settings) -> Send:
    """By the server that the settings name."""

    async def send(message: EmailMessage) -> None:
        await aiosmtplib.send(
            message,
            hostname=settings.mail_host,
            port=settings.mail_port,
            username=settings.mail_user or None,
            password=settings.mail_password or None,
            start_tls=None if settings.mail_tls else False,
            timeout=WITHIN_S,
        )

    return send


async def send_mail(database: Database, settings: Settings, send: Send, now: datetime) -> int:
    """Whatever may be sent now; how many went."""
    async with database.transaction() as tx:
        due = await tx.outgoing.due_mail(now, AT_ONCE)
        secrets = {one.person_id: one.secret for one in await tx.outgoing.choices()}
    sent = 0
    for mail in due:
        if not await _claim_mail(database, mail, now):
            continue
        try:
            await send(message_of(mail, settings, secrets.get(mail.person_id, "") if mail.person_id else ""))
        except (aiosmtplib.SMTPException, OSError, ValueError, TimeoutError) as trouble:
            values: dict[str, object] = {"trouble": str(trouble)[:300]}
            if mail.tries + 1 >= len(WAITS_MIN) or isinstance(trouble, aiosmtplib.SMTPRecipientsRefused):
                values["state"] = FAILED
        else:
            values, sent = {"state": SENT, "sent_at": now, "trouble": "", "file": None}, sent + 1
        async with database.transaction() as tx:
            await tx.outgoing.change_mail(mail.id, **values)
    return sent


async def _claim_mail(database: Database, mail: Mail, now: datetime) -> bool:
    """Whether it may go: what it says still holds."""
    async with database.transaction() as tx:
        if not await still_true(Scope(tx, mail.workspace_id, now), mail.once):
            await tx.outgoing.change_mail(mail.id, state=NOTHING)
            return False
        wait = timedelta(minutes=WAITS_MIN[min(mail.tries, len(WAITS_MIN) - 1)])
        await tx.outgoing.change_mail(mail.id, tries=mail.tries + 1, next_at=now + wait, state=QUEUED)
        return True


async def call_hooks(database: Database, client: httpx.AsyncClient, now: datetime) -> int:
    """Whatever other programs are to be told now; how many took it."""
    async with database.transaction() as tx:
        due = await tx.outgoing.due_calls(now, AT_ONCE)
    taken = 0
    for call in due:
        wait = timedelta(minutes=WAITS_MIN[min(call.tries, len(WAITS_MIN) - 1)])
        async with database.transaction() as tx:
            await tx.outgoing.change_call(call.id, tries=call.tries + 1, next_at=now + wait)
        trouble = await _trouble_with(client, call, now)
        given_up = bool(trouble) and call.tries + 1 >= len(WAITS_MIN)
        state = FAILED if given_up else QUEUED if trouble else SENT
        taken += not trouble
        async with database.transaction() as tx:
            await tx.outgoing.change_call(call.id, state=state, trouble=trouble[:300])
    return taken


async def _trouble_with(client: httpx.AsyncClient, call: HookCall, now: datetime) -> str:
    """What went wrong; empty where it was taken."""
    headers = {
        "content-type": "application/json",
        "kumpan-delivery": str(call.id),
        "kumpan-signature": signature(call.secret, int(now.timestamp()), call.body),
    }
    try:
        reply = await client.post(
            call.url, content=call.body, headers=headers, timeout=WITHIN_S, follow_redirects=False
        )
    except (httpx.HTTPError, httpx.InvalidURL, OSError) as trouble:
        return str(trouble) or type(trouble).__name__
    return "" if reply.is_success else f"answered {reply.status_code}"


async def round_of_mail(
    database: Database, settings: Settings, client: httpx.AsyncClient, now: datetime
) -> None:
    """One round: letters that are due are made, then what waits is sent. Without a server mail only waits."""
    await queue_due(database, now)
    if settings.mail_host:
        await send_mail(database, settings, smtp(settings), now)
    await send_pushes(database, web_push(settings), now)
    await call_hooks(database, client, now)


async def keep_sending(
    database: Database, settings: Settings, clock: Clock, is_mine: Callable[[], Awaitable[bool]]
) -> None:
    """For as long as the program runs; of several machines one sends."""
    async with httpx.AsyncClient() as client:
        while True:
            try:
                if await is_mine():
                    await round_of_mail(database, settings, client, clock())
            except Exception:
                structlog.get_logger().exception("sending_failed")
            await asyncio.sleep(settings.mail_every_s)
