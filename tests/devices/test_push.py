"""Messages to browsers: encrypted, signed, once, and only while they are true.

Standards: RFC 8030 (Web Push), RFC 8188 and 8291 (encryption), RFC 8292 (the house's key). What the browser
would read is decrypted by http_ece, an independent library of these standards.
"""

import asyncio
import json
import threading
import time
from base64 import urlsafe_b64encode
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field
from http.server import BaseHTTPRequestHandler, ThreadingHTTPServer

import http_ece
import pytest
from cryptography.hazmat.primitives.asymmetric import ec
from cryptography.hazmat.primitives.serialization import Encoding, PublicFormat

from kumpan.core.errors import InvalidInput, NotFound
from kumpan.devices.push import WAITS_MIN, NotTaken, send_pushes, web_push
from kumpan.devices.push_service import PushService
from kumpan.services.journal.ledger import Scope
from kumpan.services.outgoing.letters import queue_due
from kumpan.services.outgoing.push import MOST_DEVICES, devices_of, end_device, let_come
from kumpan.services.people.queries import the_workspace
from kumpan.settings import Settings
from kumpan.storage.repositories.push import PushCall
from kumpan.web.renewal import renew_some
from tests.web.conftest import OFFICE_ID, Api, api, new_id

__all__ = ["api"]

SETTINGS = Settings(database_url="none", mail_from="Kumpan <pools@example.com>")
AUTH = b"sixteen bytes ok"


def text_of(raw: bytes) -> str:
    return urlsafe_b64encode(raw).rstrip(b"=").decode()


@dataclass
class Browser:
    """What a browser holds: a key of its own, and what it can read."""

    key: ec.EllipticCurvePrivateKey = field(default_factory=lambda: ec.generate_private_key(ec.SECP256R1()))

    @property
    def p256dh(self) -> str:
        return text_of(self.key.public_key().public_bytes(Encoding.X962, PublicFormat.UncompressedPoint))

    def read(self, body: bytes) -> dict[str, str]:
        found: dict[str, str] = json.loads(
            http_ece.decrypt(body, private_key=self.key, auth_secret=AUTH, version="aes128gcm")
        )
        return found


@contextmanager
def listening(now_s: float) -> Iterator[PushService]:
    """The stand-in behind a port of loopback."""

    class Handler(BaseHTTPRequestHandler):
        def do_POST(self) -> None:
            body = self.rfile.read(int(self.headers["content-length"]))
            headers = {name.lower(): value for name, value in self.headers.items()}
            self.send_response(service.take(self.path, headers, body, now_s=now_s))
            self.end_headers()

        def log_message(self, *_: object) -> None:
            return

    server = ThreadingHTTPServer(("127.0.0.1", 0), Handler)
    service = PushService(f"http://127.0.0.1:{server.server_port}")
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    try:
        yield service
    finally:
        server.shutdown()
        thread.join()
        server.server_close()


async def let_office(api: Api, endpoint: str, browser: Browser) -> None:
    async with api.database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), api.now, person_id=OFFICE_ID)
        await let_come(scope, name="A phone", endpoint=endpoint, p256dh=browser.p256dh, auth=text_of(AUTH))


async def choose(api: Api, *kinds: str, hour: int = 0) -> None:
    body = {"kinds": list(kinds), "hour": hour, "time_zone": "America/Chicago", "units": "metric"}
    await api.post("/mail-choice", body)


async def with_a_push(api: Api, endpoint: str, browser: Browser) -> str:
    """A pool that asks for something today, told to one browser and to no mailbox."""
    pool = await api.new_pool()
    await api.test(pool, free_chlorine="0", ph="7.5")
    await let_office(api, endpoint, browser)
    await choose(api, "due")
    assert await queue_due(api.database, api.now) == 1
    return pool


async def test_what_is_due_comes_to_a_browser_that_nobody_else_can_read(api: Api) -> None:
    browser = Browser()
    with listening(time.time()) as service:
        await with_a_push(api, f"{service.origin}/one", browser)
        push = web_push(SETTINGS)
        assert await send_pushes(api.database, push, api.now) == 1
        assert await send_pushes(api.database, push, api.now) == 0
        ((address, body),) = service.taken
    assert address == "/one"
    assert b"Test pool" not in body
    said = browser.read(body)
    assert said["title"] == "Today: Test pool"
    assert "Swim:" in said["body"]
    assert said["url"] == "/"
    assert [line["state"] for line in await api.get("/outbox")] == ["devices"]


async def test_a_browser_that_let_go_is_forgotten(api: Api) -> None:
    browser = Browser()
    with listening(time.time()) as service:
        service.gone.add("/one")
        await with_a_push(api, f"{service.origin}/one", browser)
        assert await send_pushes(api.database, web_push(SETTINGS), api.now) == 0
    async with api.database.transaction() as tx:
        assert await tx.push.devices(OFFICE_ID) == []
        assert await tx.push.due(api.now, 10) == []


async def test_a_service_that_is_not_there_is_tried_again_and_given_up(api: Api) -> None:
    await with_a_push(api, "http://127.0.0.1:9/one", Browser())
    tries = 0

    async def refuse(_: PushCall, __: str) -> None:
        nonlocal tries
        tries += 1
        raise NotTaken("nobody there")

    for _ in range(400):
        await send_pushes(api.database, refuse, api.now)
        api.pass_time(minutes=10)
    assert tries == len(WAITS_MIN)


@pytest.mark.parametrize(
    ("change", "status"),
    [
        ({"authorization": "vapid t=a.b.c, k=x"}, 401),
        ({"authorization": "Basic x"}, 401),
        ({"content-encoding": "gzip"}, 400),
        ({"ttl": ""}, 400),
    ],
)
def test_the_stand_in_refuses_what_a_push_service_refuses(change: dict[str, str], status: int) -> None:
    service = PushService("http://127.0.0.1:1")
    headers = {"authorization": "", "content-encoding": "aes128gcm", "ttl": "60", **change}
    assert service.take("/one", headers, b"x", now_s=0) == status
    assert service.take("/one", headers, b"x" * 5000, now_s=0) == 413
    assert not service.taken


async def begun(api: Api, pool: str) -> tuple[str, list[dict[str, object]]]:
    """A sheet with its first addition ticked, and its lines."""
    await api.test(
        pool,
        free_chlorine="1",
        ph="8.1",
        total_alkalinity="60",
        calcium_hardness="260",
        cyanuric_acid="40",
    )
    sheet = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    lines: list[dict[str, object]] = sheet["steps"]
    await tick(api, pool, sheet["id"], 0)
    return sheet["id"], lines


async def tick(api: Api, pool: str, sheet: str, number: int) -> None:
    body = {"id": new_id(), "step_number": number, "outcome": "done"}
    await api.post(f"/pools/{pool}/sheets/{sheet}/ticks", body)


async def waiting_step(api: Api) -> tuple[str, str, int]:
    """A pool whose next step stands behind a wait that is over."""
    pool = await api.new_pool()
    await let_office(api, "http://127.0.0.1:9/one", Browser())
    await choose(api, "step")
    sheet, lines = await begun(api, pool)
    kinds = [line["step"]["kind"] for line in lines]  # type: ignore[index]
    number = kinds.index("wait") + 1
    for done in range(1, number - 1):
        await tick(api, pool, sheet, done)
    assert await queue_due(api.database, api.now) == 0  # the wait goes on
    api.pass_time(hours=11)
    return pool, sheet, number


async def heard(api: Api) -> list[PushCall]:
    found: list[PushCall] = []

    async def hear(call: PushCall, _: str) -> None:
        found.append(call)

    await send_pushes(api.database, hear, api.now)
    return found


async def test_a_step_is_told_when_its_wait_is_over(api: Api) -> None:
    pool, _, number = await waiting_step(api)
    assert await queue_due(api.database, api.now) == 1
    assert await queue_due(api.database, api.now) == 0
    (call,) = await heard(api)
    assert call.subject.endswith("due now")
    assert call.once.split(":")[1::2][0] == pool
    assert call.once.split(":")[3] == str(number)
    assert "cautions" in call.text


async def test_a_step_that_was_poured_meanwhile_is_told_to_nobody(api: Api) -> None:
    pool, sheet, number = await waiting_step(api)
    assert await queue_due(api.database, api.now) == 1
    await tick(api, pool, sheet, number)
    assert await heard(api) == []
    api.pass_time(days=1)
    assert await heard(api) == []


async def closed_and_waited_for(api: Api) -> str:
    pool = await api.new_pool()
    await let_office(api, "http://127.0.0.1:9/one", Browser())
    await choose(api, "swim")
    await api.test(pool, free_chlorine="0", ph="7.5")
    await renew_some(api.database, api.now)
    assert await queue_due(api.database, api.now) == 0
    return pool


async def opened(api: Api, pool: str) -> None:
    api.pass_time(hours=3)
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), "clarity": "clear", "level": "normal"})
    await api.test(
        pool,
        free_chlorine="4",
        total_chlorine="4",
        ph="7.5",
        total_alkalinity="90",
        calcium_hardness="260",
        cyanuric_acid="40",
    )
    assert (await api.pools())[0]["swim"]["code"] == "yes"
    await renew_some(api.database, api.now)  # as the background does


async def test_a_pool_that_is_open_again_is_told_once(api: Api) -> None:
    pool = await closed_and_waited_for(api)
    await opened(api, pool)
    assert await queue_due(api.database, api.now) == 1
    assert await queue_due(api.database, api.now) == 0
    (call,) = await heard(api)
    assert call.subject == "Test pool: swimming is open again"
    assert call.once.split(":")[1] == pool


async def test_a_pool_that_closed_meanwhile_is_not_told_open_and_waited_for_anew(api: Api) -> None:
    pool = await closed_and_waited_for(api)
    await opened(api, pool)
    assert await queue_due(api.database, api.now) == 1
    api.pass_time(minutes=1)
    await api.test(pool, free_chlorine="0", ph="7.5")
    assert await heard(api) == []
    await opened(api, pool)
    assert await queue_due(api.database, api.now) == 1
    assert len(await heard(api)) == 1


async def test_a_pool_that_was_never_closed_is_no_news(api: Api) -> None:
    pool = await api.new_pool()
    await let_office(api, "http://127.0.0.1:9/one", Browser())
    await choose(api, "swim")
    await opened(api, pool)
    assert await queue_due(api.database, api.now) == 0


async def test_more_devices_than_a_person_has_are_refused(api: Api) -> None:
    for number in range(MOST_DEVICES):
        await let_office(api, f"https://push.example.com/{number}", Browser())
    await let_office(api, "https://push.example.com/0", Browser())  # known: its keys are new
    with pytest.raises(InvalidInput, match="already"):
        await let_office(api, "https://push.example.com/more", Browser())
    async with api.database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), api.now, person_id=OFFICE_ID)
        first, *_ = await devices_of(scope)
        await end_device(scope, first.id)
        with pytest.raises(NotFound):
            await end_device(scope, first.id)
        assert len(await devices_of(scope)) == MOST_DEVICES - 1


async def test_the_house_has_one_key_whoever_asks_first(api: Api) -> None:
    async def one() -> str:
        async with api.database.transaction() as tx:
            return await tx.push.key(new_id())

    keys = await asyncio.gather(*(one() for _ in range(5)))
    assert len(set(keys)) == 1


@pytest.mark.parametrize(
    "change",
    [{"endpoint": "http://push.example.com/x"}, {"p256dh": "AAAA"}, {"auth": "!"}, {"auth": "AAAA"}],
)
async def test_what_is_no_browser_is_said(api: Api, change: dict[str, str]) -> None:
    given = {
        "name": "x",
        "endpoint": "https://push.example.com/x",
        "p256dh": Browser().p256dh,
        "auth": text_of(AUTH),
        **change,
    }
    async with api.database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), api.now, person_id=OFFICE_ID)
        with pytest.raises(InvalidInput) as refused:
            await let_come(scope, **given)
    assert refused.value.field in change
