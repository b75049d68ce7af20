"""Mail and calls that wait are sent: at least once, under one name, to whom they are meant for."""

import asyncio
import hmac
import json
import os
import signal
import subprocess
import sys
from collections.abc import AsyncIterator
from datetime import datetime, timedelta
from email.message import EmailMessage
from hashlib import sha256
from uuid import UUID

import aiosmtplib
import httpx
import pytest
import pytest_asyncio

from kumpan.core.errors import InvalidInput
from kumpan.devices.mailbox import Mailbox
from kumpan.devices.outgoing import WAITS_MIN, call_hooks, message_of, send_mail, smtp
from kumpan.services.journal.ledger import Scope
from kumpan.services.outgoing import letters
from kumpan.services.outgoing.choices import invitation_by_mail
from kumpan.services.outgoing.hooks import add_hook, end_hook
from kumpan.services.outgoing.letters import queue_due
from kumpan.services.people.queries import the_workspace
from kumpan.settings import Settings
from kumpan.storage.repositories.outgoing import Mail
from kumpan.storage.transaction import Database
from tests.web.conftest import START, Api, api, new_id, office_token

__all__ = ["api"]


@pytest_asyncio.fixture
async def mailbox() -> AsyncIterator[tuple[Mailbox, int]]:
    found = Mailbox()
    port = await found.start(0)
    yield found, port
    await found.stop()


def settings(port: int = 1) -> Settings:
    return Settings(
        database_url="none",
        mail_host="127.0.0.1",
        mail_port=port,
        mail_tls=False,
        mail_from="Kumpan <pools@example.com>",
        public_address="https://pools.example.com",
    )


async def chosen(api: Api, *kinds: str, hour: int = 8) -> None:
    body = {"address": "ann@example.com", "kinds": list(kinds), "hour": hour, "time_zone": "America/Chicago"}
    await api.post("/mail-choice", body)


async def sent(api: Api, port: int) -> int:
    await queue_due(api.database, api.now)
    return await send_mail(api.database, settings(port), smtp(settings(port)), api.now)


async def test_a_report_goes_after_a_visit_once_with_its_paper(
    api: Api, mailbox: tuple[Mailbox, int]
) -> None:
    box, port = mailbox
    pool = await api.new_pool()
    await api.test(pool, free_chlorine="3", ph="7.5")
    await chosen(api, "report")
    await api.post(
        f"/pools/{pool}/visits", {"id": new_id(), "note": "Gate is loose.", "internal_note": "Bill it."}
    )
    assert await sent(api, port) == 1
    assert await sent(api, port) == 0
    ((id_, taken),) = box.taken.items()
    assert (taken.times, taken.message["To"]) == (1, "ann@example.com")
    assert taken.message["Subject"] == "Test pool: the visit of June 1"
    assert id_.endswith("@example.com>")
    text = str(taken.message.get_body(("plain",)))
    assert "Gate is loose." in text
    assert "Bill it" not in text
    (paper,) = list(taken.message.iter_attachments())
    assert paper.get_content()[:5] == b"%PDF-"
    (line,) = await api.get("/outbox")
    assert (line["state"], line["kind"], line["tries"]) == ("sent", "report", 1)


async def test_a_visit_that_was_taken_back_is_reported_to_nobody(api: Api) -> None:
    pool = await api.new_pool()
    await chosen(api, "report")
    visits = [new_id(), new_id()]
    for visit in visits:
        await api.post(f"/pools/{pool}/visits", {"id": visit, "note": "x"})
    await api.post(f"/entries/{visits[0]}/void", {"id": new_id(), "reason": "a slip"})
    assert await queue_due(api.database, api.now) == 1


async def test_more_pools_than_a_message_holds_are_said(api: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    monkeypatch.setattr(letters, "MOST_POOLS", 1)
    for _ in range(2):
        await api.new_pool()
    await chosen(api, "digest", hour=0)
    await queue_due(api.database, api.now)
    assert "More pools are only" in (await api.get("/outbox"))[0]["text"]


async def test_what_is_due_comes_at_the_readers_own_hour_and_once_a_day(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, free_chlorine="0", ph="7.5")
    await chosen(api, "due", hour=19)
    assert await queue_due(api.database, api.now) == 0  # 18:00 in Chicago
    api.pass_time(hours=1)
    assert await queue_due(api.database, api.now) == 1
    assert await queue_due(api.database, api.now) == 0
    api.pass_time(hours=5)
    assert await queue_due(api.database, api.now) == 0
    api.pass_time(hours=19)
    assert await queue_due(api.database, api.now) == 1
    (first, *_) = await api.get("/outbox")
    assert "Test pool" in first["text"]
    assert "Swim:" in first["text"]


async def test_the_week_comes_on_mondays(api: Api) -> None:
    await api.new_pool()
    await chosen(api, "digest", hour=0)
    assert START.weekday() == 0
    assert await queue_due(api.database, api.now) == 1
    api.pass_time(days=1)
    assert await queue_due(api.database, api.now) == 0
    (line,) = await api.get("/outbox")
    assert line["subject"] == "Your week at the pool"
    assert "cost $0.00" in line["text"]


async def test_a_link_in_each_message_ends_all_of_it(api: Api, mailbox: tuple[Mailbox, int]) -> None:
    box, port = mailbox
    await api.new_pool()
    await chosen(api, "digest", "due", hour=0)
    await sent(api, port)
    link = str(next(iter(box.taken.values())).message["List-Unsubscribe"]).strip("<>")
    assert link.startswith("https://pools.example.com/unsubscribe/")
    secret = link.rpartition("/")[2]
    del api.client.headers["authorization"]
    assert (await api.client.post("/api/v1/auth/unsubscribe", json={"secret": secret})).status_code == 200
    assert (await api.client.post("/api/v1/auth/unsubscribe", json={"secret": "x" * 40})).status_code == 404
    api.pass_time(days=7)
    assert await queue_due(api.database, api.now) == 0


@pytest.mark.parametrize(
    "address", ["ann", "ann@x", "a b@example.com", "ann@example.com\nBcc: all@example.com", ""]
)
async def test_what_is_no_address_is_said(api: Api, address: str) -> None:
    body = {"address": address, "kinds": ["due"], "hour": 8, "time_zone": "UTC"}
    assert (await api.post("/mail-choice", body, 422))["error"]["field"] == "address"


async def test_an_invitation_goes_by_mail(api: Api) -> None:
    async with api.database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), api.now)
        await invitation_by_mail(scope, "ann@example.com", "http://localhost/join/x", reset=False)
    (line,) = await api.get("/outbox")
    assert "http://localhost/join/x" in line["text"]
    assert line["subject"] == "My pools invites you to Kumpan"


def waiting(now: datetime) -> Mail:
    return Mail(
        id=UUID(int=7),
        workspace_id=UUID(int=1),
        person_id=None,
        kind="due",
        once="x",
        address="ann@example.com",
        subject="Two\nlines",
        text="Grüße 💧",
        created_at=now,
        next_at=now,
    )


def test_the_same_mail_has_the_same_name_each_time() -> None:
    one, two = (message_of(waiting(START), settings()) for _ in range(2))
    assert one["Message-ID"] == two["Message-ID"] == "<00000000-0000-0000-0000-000000000007@example.com>"
    assert one["Subject"] == "Two lines"
    assert one.get_content().strip() == "Grüße 💧"


async def test_a_server_that_refuses_is_tried_less_and_less_often_and_then_given_up(api: Api) -> None:
    await api.new_pool()
    await chosen(api, "digest", hour=0)
    await queue_due(api.database, api.now)
    tries = 0

    async def refuse(_: EmailMessage) -> None:
        nonlocal tries
        tries += 1
        raise aiosmtplib.SMTPConnectError("nobody there")

    for _ in range(400):
        await send_mail(api.database, settings(), refuse, api.now)
        api.pass_time(minutes=10)
    (line,) = await api.get("/outbox")
    assert (line["state"], tries) == ("failed", len(WAITS_MIN))
    assert "nobody there" in line["trouble"]
    await api.post(f"/outbox/{line['id']}/again", {})
    assert (await api.get("/outbox"))[0]["state"] == "queued"


# Fifty by hand (KUMPAN_KILLS=50); each start of a worker takes seconds.
KILLS = int(os.environ.get("KUMPAN_KILLS", "5"))
SENDER = """
import asyncio, sys
from datetime import datetime
from kumpan.devices.outgoing import send_mail, smtp
from kumpan.settings import Settings
from kumpan.storage.transaction import Database
settings = Settings(mail_host="127.0.0.1", mail_port=int(sys.argv[1]), mail_tls=False, mail_from="k@example.com")
async def main():
    database = Database(settings.database_url)
    print("up", flush=True)
    while True:
        await send_mail(database, settings, smtp(settings), datetime.fromisoformat(sys.argv[2]))
asyncio.run(main())
"""


async def test_a_worker_that_is_killed_sends_each_message_and_the_mailbox_shows_it_once(
    database_url: str, mailbox: tuple[Mailbox, int]
) -> None:
    box, port = mailbox
    database = Database(database_url)
    await office_token(database)
    async with database.transaction() as tx:
        workspace = await tx.workspace.first_workspace_id()
        assert workspace is not None
        for n in range(60):
            about = {"id": UUID(int=n + 1), "once": f"m{n}", "workspace_id": workspace}
            await tx.outgoing.queue(Mail(**{**vars(waiting(START)), **about}))
    around = {**os.environ, "KUMPAN_DATABASE_URL": database_url, "PYTHONPATH": "src"}
    kills, now = 0, START
    while kills < KILLS:
        now += timedelta(days=1)  # what was claimed and not sent may be tried again
        worker = await asyncio.create_subprocess_exec(
            sys.executable, "-c", SENDER, str(port), now.isoformat(), stdout=subprocess.PIPE, env=around
        )
        assert worker.stdout is not None
        await worker.stdout.readline()
        before = len(box.taken)
        await asyncio.wait_for(box.next_or(60, before), 60)
        worker.send_signal(signal.SIGKILL)
        await worker.wait()
        kills += 1
    for days in range(1, 9):
        await send_mail(database, settings(port), smtp(settings(port)), now + timedelta(days=days))
    assert {UUID(id_.strip("<>").partition("@")[0]).int for id_ in box.taken} == set(range(1, 61))
    await database.close()


async def test_other_programs_are_told_of_entries_signed_and_once(api: Api) -> None:
    async with api.database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), api.now)
        hook = await add_hook(scope, "http://127.0.0.1:9/hook")
    pool = await api.new_pool()
    await api.test(pool, ph="7.5")
    heard: list[httpx.Request] = []
    answers = [500, 302, 200]

    def answer(request: httpx.Request) -> httpx.Response:
        heard.append(request)
        return httpx.Response(answers[min(len(heard) - 1, 2)])

    client = httpx.AsyncClient(transport=httpx.MockTransport(answer))
    assert await call_hooks(api.database, client, api.now) == 2
    api.pass_time(hours=1)
    assert await call_hooks(api.database, client, api.now) == 2
    assert await call_hooks(api.database, client, api.now) == 0
    bodies = {request.headers["kumpan-delivery"]: json.loads(request.content) for request in heard}
    assert [one["kind"] for one in bodies.values()].count("test") == 1
    assert len(bodies) == 4
    last = heard[-1]
    time, _, signed = last.headers["kumpan-signature"].partition(",v1=")
    body = f"{time.removeprefix('t=')}.".encode() + last.content
    assert signed == hmac.new(hook.secret.encode(), body, sha256).hexdigest()
    assert (await api.get("/hooks"))[0].keys() == {"id", "url", "created_at"}
    refused = await api.post(f"/hooks/{hook.id}/end", {}, 403)
    assert "sign in as a person" in refused["error"]["message"]
    async with api.database.transaction() as tx:
        await end_hook(Scope(tx, await the_workspace(tx), api.now), hook.id)
    await api.test(pool, ph="7.6")
    assert await call_hooks(api.database, client, api.now) == 0
    await client.aclose()


@pytest.mark.parametrize(
    "url", ["example.com", "ftp://x", "http://example.com/x", "https://a:b@example.com", "https://"]
)
async def test_what_is_no_address_of_a_program_is_said(api: Api, url: str) -> None:
    async with api.database.transaction() as tx:
        with pytest.raises(InvalidInput) as refused:
            await add_hook(Scope(tx, await the_workspace(tx), api.now), url)
    assert refused.value.field == "url"
