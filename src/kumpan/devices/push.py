"""Messages that go to browsers, through the push service that each of them named."""

import asyncio
import json
from collections.abc import Awaitable, Callable
from datetime import datetime, timedelta

import requests
from py_vapid import Vapid
from pywebpush import WebPushException, webpush

from kumpan.services.journal.ledger import Scope
from kumpan.services.outgoing.moments import link_of, still_true
from kumpan.services.outgoing.push import house_key
from kumpan.services.outgoing.queueing import NOTHING
from kumpan.settings import Settings
from kumpan.storage.repositories.outgoing import FAILED, SENT
from kumpan.storage.repositories.push import PushCall
from kumpan.storage.transaction import Database

WAITS_MIN = (1, 5, 15, 60, 180)  # a message about an hour is not worth a day of tries
AT_ONCE, WITHIN_S, HELD_S = 20, 20.0, 6 * 3600
MOST_CHARACTERS = 600  # a push service takes at least 4096 bytes (RFC 8030, section 7.2)
GONE = (404, 410)  # the browser let go of it (RFC 8030, section 7.3)

Push = Callable[[PushCall, str], Awaitable[None]]


class NoSuchDevice(Exception):
    """Its push service does not know it any more."""


class NotTaken(Exception):
    """The push service was not there or refused; its words."""


def payload_of(call: PushCall) -> str:
    """What the worker in the browser reads. `tag`: the same message shown twice is shown once."""
    said = {
        "title": call.subject,
        "body": call.text[:MOST_CHARACTERS],
        "url": link_of(call.once),
        "tag": str(call.mail_id),
    }
    return json.dumps(said, ensure_ascii=False)


def web_push(settings: Settings) -> Push:
    """Through the push service, encrypted for the browser and signed with the house's key."""

    async def send(call: PushCall, key: str) -> None:
        await asyncio.to_thread(_send, call, key, settings.mail_from)

    return send


def _send(call: PushCall, key: str, contact: str) -> None:
    device = call.device
    address = contact.rpartition("<")[2].strip("> ")
    try:
        webpush(
            {"endpoint": device.endpoint, "keys": {"p256dh": device.p256dh, "auth": device.auth}},
            payload_of(call),
            vapid_private_key=Vapid.from_pem(key.encode()),
            vapid_claims={"sub": f"mailto:{address}"},
            ttl=HELD_S,
            timeout=WITHIN_S,
            headers={"urgency": "high"},
        )
    except WebPushException as refused:
        code = None if refused.response is None else refused.response.status_code
        if code in GONE:
            raise NoSuchDevice from refused
        raise NotTaken(f"answered {code}" if code else str(refused)) from refused
    except (requests.RequestException, OSError, ValueError) as trouble:
        raise NotTaken(str(trouble)) from trouble


async def send_pushes(database: Database, push: Push, now: datetime) -> int:
    """Whatever may go now; how many were taken."""
    async with database.transaction() as tx:
        due = await tx.push.due(now, AT_ONCE)
        key = await house_key(tx) if due else ""
    taken = 0
    for call in due:
        if not await _claim(database, call, now):
            continue
        values: dict[str, object] = {"state": SENT, "trouble": ""}
        try:
            await push(call, key)
            taken += 1
        except NoSuchDevice:
            async with database.transaction() as tx:
                await tx.push.end(call.device.id)
            continue
        except NotTaken as trouble:
            values = {"trouble": str(trouble)[:300]}
            if call.tries + 1 >= len(WAITS_MIN):
                values["state"] = FAILED
        async with database.transaction() as tx:
            await tx.push.change(call.id, **values)
    return taken


async def _claim(database: Database, call: PushCall, now: datetime) -> bool:
    """Whether it may go: what it says still holds."""
    async with database.transaction() as tx:
        if not await still_true(Scope(tx, call.workspace_id, now), call.once):
            await tx.push.change(call.id, state=NOTHING)
            return False
        wait = timedelta(minutes=WAITS_MIN[min(call.tries, len(WAITS_MIN) - 1)])
        await tx.push.change(call.id, tries=call.tries + 1, next_at=now + wait)
        return True
