"""Coming in and going out over HTTP: first start, password, second factor, links, guests, the demo's people."""

from collections.abc import AsyncIterator

import pyotp
import pytest
import pytest_asyncio

from kumpan.core.errors import NotFound
from kumpan.services.people.throttle import PER_ACCOUNT
from kumpan.web.auth.door import Door
from tests.web.conftest import OFFICE_ID, Api, Json, api, new_id, running

__all__ = ["api"]
CODE = "terminal"
GOOD, OTHER = "three words of mine", "quite another sentence"
OFFICE = {"code": CODE, "name": "Mara Vell", "login": "Mara@Example.org", "password": GOOD}


@pytest_asyncio.fixture
async def house(database_url: str) -> AsyncIterator[Api]:
    """An empty installation with a code in its terminal."""
    async with running(database_url, Door(first_code=CODE)) as found:
        yield found


async def auth(api: Api, what: str, body: Json, status: int = 200) -> Json:
    reply = await api.client.post(f"/api/v1/auth/{what}", json=body)
    assert reply.status_code == status, reply.text
    return reply.json()


async def signed_in(api: Api) -> bool:
    return (await api.client.get("/api/v1/auth/state")).json()["me"] is not None


async def begun(house: Api) -> Api:
    await auth(house, "first", OFFICE)
    return house


async def test_the_first_person_comes_in_by_the_code_of_the_terminal_and_is_the_office(house: Api) -> None:
    state = (await house.client.get("/api/v1/auth/state")).json()
    assert state == {"me": None, "first": True, "demo": [], "passkeys": True}
    wrong = await auth(house, "first", {**OFFICE, "code": "guess"}, 422)
    assert wrong["error"]["field"] == "code"
    await begun(house)
    state = (await house.client.get("/api/v1/auth/state")).json()
    assert state["me"]["role"] == "office"
    assert state["first"] is False
    again = await auth(house, "first", OFFICE, 422)
    assert "ask them for an invitation" in again["error"]["message"]


async def test_without_a_code_nobody_is_the_first(database_url: str) -> None:
    async with running(database_url) as found:
        await auth(found, "first", {**OFFICE, "code": ""}, 422)


async def test_a_session_is_a_cookie_that_scripts_do_not_see_and_ends_at_signing_out(house: Api) -> None:
    reply = await house.client.post("/api/v1/auth/first", json=OFFICE)
    cookie = reply.headers["set-cookie"].lower()
    assert cookie.startswith("kumpan=")
    for part in ("httponly", "samesite=strict", "path=/"):
        assert part in cookie
    secret = house.client.cookies["kumpan"]
    assert (await house.client.get("/api/v1/pools")).status_code == 200
    await auth(house, "sign-out", None)
    house.client.cookies.set("kumpan", secret)
    assert (await house.client.get("/api/v1/pools")).status_code == 401


async def test_under_tls_the_cookie_is_bound_to_this_host(house: Api) -> None:
    reply = await house.client.post("https://localhost/api/v1/auth/first", json=OFFICE)
    cookie = reply.headers["set-cookie"]
    assert cookie.startswith("__Host-kumpan=")
    assert "; Secure" in cookie
    assert "Domain" not in cookie


async def test_each_signing_in_makes_a_new_session_and_ends_the_one_before(house: Api) -> None:
    await begun(house)
    first = house.client.cookies["kumpan"]
    await auth(house, "sign-in", {"login": "MARA@example.org ", "password": GOOD})
    assert house.client.cookies["kumpan"] != first
    house.client.cookies.clear()
    house.client.cookies.set("kumpan", first)
    assert not await signed_in(house)


async def test_a_session_ends_by_itself(house: Api) -> None:
    """Seven days of rest, thirty in all."""
    await begun(house)
    house.pass_time(days=6.9)
    assert await signed_in(house)
    house.pass_time(days=7.1)
    assert not await signed_in(house)
    await auth(house, "sign-in", {"login": "mara@example.org", "password": GOOD})
    for _ in range(5):
        house.pass_time(days=5.9)
        assert await signed_in(house)
    house.pass_time(days=0.6)
    assert not await signed_in(house)


async def test_a_wrong_name_and_a_wrong_password_are_answered_alike(house: Api) -> None:
    await begun(house)
    nobody = await auth(house, "sign-in", {"login": "nobody@example.org", "password": GOOD}, 401)
    wrong = await auth(house, "sign-in", {"login": "mara@example.org", "password": OTHER}, 401)
    assert nobody == wrong


@pytest.mark.no_cover
async def test_a_thousand_wrong_passwords_are_slowed_and_the_right_one_is_served_elsewhere(
    house: Api,
) -> None:
    """From one address: ten are looked at, the rest refused; from another the right one comes in."""
    await begun(house)
    house.client.cookies.clear()
    codes = []
    for n in range(1000):
        body = {"login": "mara@example.org", "password": f"a wrong one, number {n}"}
        codes.append((await house.client.post("/api/v1/auth/sign-in", json=body)).status_code)
    assert codes.count(401) == PER_ACCOUNT.amount
    assert codes.count(429) == 1000 - PER_ACCOUNT.amount
    right = {"login": "mara@example.org", "password": GOOD}
    await auth(house, "sign-in", right, 429)
    elsewhere = house.client._transport
    elsewhere.client = ("203.0.113.7", 5000)  # type: ignore[attr-defined]
    await auth(house, "sign-in", right)
    elsewhere.client = ("127.0.0.1", 123)  # type: ignore[attr-defined]
    house.pass_time(minutes=15, seconds=1)
    await auth(house, "sign-in", right)


@pytest.mark.parametrize(
    ("password", "says"),
    [
        ("too short", "15 characters"),
        ("x" * 129, "at most 128"),
        ("correct horse battery staple", "tried first"),
        ("abcabcabcabcabcabc", "tried first"),
        ("mara kumpan mara", "your own name"),
    ],
)
async def test_a_password_that_is_tried_first_is_refused_with_the_cure(
    house: Api, password: str, says: str
) -> None:
    """NIST SP 800-63B-4, from memory: length, common ones, the context; no mixture is asked for."""
    refused = await auth(house, "first", {**OFFICE, "password": password}, 422)
    assert refused["error"]["field"] == "password"
    assert says in refused["error"]["message"]


async def test_another_password_signs_out_everywhere_else(house: Api) -> None:
    await begun(house)
    phone = house.client.cookies["kumpan"]
    house.client.cookies.clear()
    await auth(house, "sign-in", {"login": "mara@example.org", "password": GOOD})
    wrong = await house.client.post("/api/v1/me/password", json={"old": OTHER, "new": OTHER})
    assert wrong.status_code == 422
    done = await house.client.post("/api/v1/me/password", json={"old": GOOD, "new": OTHER})
    assert done.status_code == 200
    assert await signed_in(house)
    house.client.cookies.set("kumpan", phone)
    assert not await signed_in(house)
    house.client.cookies.clear()
    await auth(house, "sign-in", {"login": "mara@example.org", "password": GOOD}, 401)
    await auth(house, "sign-in", {"login": "mara@example.org", "password": OTHER})


async def test_with_a_second_factor_a_password_alone_opens_nothing_and_a_code_counts_once(house: Api) -> None:
    """RFC 6238 by `pyotp`; the same code again is refused."""
    await begun(house)
    offered = (await house.client.post("/api/v1/me/second-factor/offer")).json()
    assert offered["uri"].startswith("otpauth://totp/Kumpan:")
    assert len(offered["qr"]) == len(offered["qr"][0])
    totp = pyotp.TOTP(offered["secret"])
    wrong = await house.client.post(
        "/api/v1/me/second-factor", json={"secret": offered["secret"], "code": "1"}
    )
    assert wrong.status_code == 422
    body = {"secret": offered["secret"], "code": totp.at(house.now)}
    assert (await house.client.post("/api/v1/me/second-factor", json=body)).status_code == 200
    house.client.cookies.clear()
    sign_in = {"login": "mara@example.org", "password": GOOD}
    assert await auth(house, "sign-in", sign_in) == {"needs_code": True}
    assert not await signed_in(house)
    await auth(house, "sign-in", {**sign_in, "code": totp.at(house.now)}, 401)  # used to turn it on
    house.pass_time(seconds=60)
    code = totp.at(house.now)
    await auth(house, "sign-in", {**sign_in, "password": OTHER, "code": code}, 401)
    assert await auth(house, "sign-in", {**sign_in, "code": code}) == {"needs_code": False}
    assert await signed_in(house)
    house.client.cookies.clear()
    await auth(house, "sign-in", {**sign_in, "code": code}, 401)


async def invited(house: Api, name: str = "Ada Holm") -> tuple[str, str]:
    person = new_id()
    await house.post("/people", {"id": person, "name": name, "initials": ""})
    made = await house.post(f"/members/{person}/invitation", {})
    return person, made["path"].removeprefix("/join/")


async def test_an_invitation_opens_once_and_the_office_decides_what_is_seen(house: Api) -> None:
    await begun(house)
    pool = await house.new_pool()
    person, secret = await invited(house)
    await house.post(f"/members/{person}/role", {"role": "owner", "pools": [pool]})
    office = house.client.cookies["kumpan"]
    house.client.cookies.clear()
    assert await auth(house, "link", {"secret": secret}) == {"kind": "invite", "name": "Ada Holm"}
    taken = await auth(house, "join", {"secret": secret, "login": "mara@example.org", "password": OTHER}, 409)
    assert taken["error"]["field"] == "login"
    await auth(house, "join", {"secret": secret, "login": "ada", "password": OTHER})
    assert [head["id"] for head in await house.pools()] == [pool]
    await auth(house, "join", {"secret": secret, "login": "eve", "password": OTHER}, 404)
    house.client.cookies.clear()
    house.client.cookies.set("kumpan", office)
    await house.post(f"/members/{person}/role", {"role": "owner", "pools": []})
    house.client.cookies.clear()
    await auth(house, "sign-in", {"login": "ada", "password": OTHER})
    assert await house.pools() == []


async def test_a_reset_keeps_the_login_and_an_old_link_opens_nothing(house: Api) -> None:
    await begun(house)
    person, secret = await invited(house)
    house.pass_time(days=7, seconds=1)
    await auth(house, "sign-in", {"login": "mara@example.org", "password": GOOD})
    await auth(house, "join", {"secret": secret, "login": "ada", "password": OTHER}, 404)
    again = (await house.post(f"/members/{person}/invitation", {}))["path"].removeprefix("/join/")
    await auth(house, "join", {"secret": again, "login": "ada", "password": OTHER})
    await auth(house, "sign-in", {"login": "mara@example.org", "password": GOOD})
    reset = (await house.post(f"/members/{person}/invitation", {"reset": True}))["path"]
    body = {"secret": reset.removeprefix("/join/"), "password": "yet another sentence"}
    await auth(house, "join", body)
    await auth(house, "sign-in", {"login": "ada", "password": OTHER}, 401)
    await auth(house, "sign-in", {"login": "ada", "password": "yet another sentence"})


async def test_a_guest_reads_one_pool_until_the_link_is_taken_back(house: Api) -> None:
    await begun(house)
    pool, other = await house.new_pool(), await house.new_pool()
    made = await house.post(f"/pools/{pool}/links", {"kind": "guest", "name": "the gate"})
    secret, office = made["path"].removeprefix("/guest/"), house.client.cookies["kumpan"]
    house.client.cookies.clear()
    assert (await auth(house, "guest", {"secret": secret}))["pool_id"] == pool
    guest = house.client.cookies["kumpan-guest"]
    for path in ("", "/board", "/plan", "/sheet", "/report", "/assessment"):
        assert (await house.client.get(f"/api/v1/pools/{pool}{path}")).status_code == 200, path
    assert (await house.client.get(f"/api/v1/pools/{other}")).status_code == 404
    assert (await house.client.get(f"/api/v1/pools/{pool}/log")).status_code == 403
    look = {"id": new_id(), "clarity": "clear", "level": "normal"}
    assert (await house.client.post(f"/api/v1/pools/{pool}/looks", json=look)).status_code == 403
    house.client.cookies.clear()
    house.client.cookies.set("kumpan", office)
    await house.post(f"/links/{made['id']}/end", {})
    house.client.cookies.clear()
    house.client.cookies.set("kumpan-guest", guest)
    assert (await house.client.get(f"/api/v1/pools/{pool}")).status_code == 401
    await auth(house, "guest", {"secret": secret}, 404)


async def test_the_demo_shows_its_people_and_nothing_else_does(api: Api, database_url: str) -> None:
    person = {"person_id": str(OFFICE_ID)}
    await auth(api, "demo", person, 404)
    async with running(database_url, Door(demo=True)) as demo:
        state = (await demo.client.get("/api/v1/auth/state")).json()
        assert [(one["name"], one["role"]) for one in state["demo"]] == [("The Office", "office")]
        assert state["first"] is False
        await auth(demo, "demo", person)
        assert (await demo.client.get("/api/v1/pools")).status_code == 200


def test_a_dead_link_says_what_to_do() -> None:
    from kumpan.services.people.accounts import DEAD_LINK

    assert "Ask for a new one" in str(NotFound(DEAD_LINK))
