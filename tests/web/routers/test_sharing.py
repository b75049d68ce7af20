"""A pool that a firm and a household share, links of a pool, the archive, over HTTP with two signed-in people."""

import json
from collections.abc import AsyncIterator
from dataclasses import dataclass
from uuid import UUID, uuid4

import httpx
import pytest_asyncio

from kumpan.web.auth.door import Door
from tests.web.conftest import Api, Json, new_id, running

CODE, WORDS = "terminal", "three words of mine"
FIRM = {"code": CODE, "name": "Mara Vell", "login": "mara", "password": WORDS}
HOME = {"household": "The Oduya household", "name": "Tomi Oduya", "login": "tomi", "password": WORDS}

READINGS = {
    "free_chlorine": "1", "total_chlorine": "1", "ph": "7.9", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "40", "temperature_c": "82F",
}  # fmt: skip


@dataclass
class Two:
    """A firm whose pool it is and a household that takes part, each in a browser of its own."""

    firm: Api
    home: Api
    pool: str


@pytest_asyncio.fixture
async def two(database_url: str) -> AsyncIterator[Two]:
    async with running(database_url, Door(first_code=CODE)) as firm:
        await firm.post("/auth/first", FIRM)
        pool = await firm.new_pool()
        made = await firm.post(f"/pools/{pool}/shares", {})
        transport = firm.client._transport
        async with httpx.AsyncClient(transport=transport, base_url="http://localhost") as client:
            home = Api(client, firm.database)
            secret = made["path"].removeprefix("/share/")
            found = await home.post("/auth/share", {"secret": secret})
            assert found == {"kind": "share", "name": "My pools"}
            await home.post("/auth/household", {"secret": secret, **HOME})
            yield Two(firm, home, pool)


async def status(api: Api, path: str, body: Json = None) -> int:
    if body is None:
        return (await api.client.get(f"/api/v1{path}")).status_code
    return (await api.client.post(f"/api/v1{path}", json=body)).status_code


async def test_both_read_one_journal_and_each_entry_says_whose_it_is(two: Two) -> None:
    await two.firm.test(two.pool, ph="7.4")
    await two.home.test(two.pool, free_chlorine="3")
    for api, others in ((two.firm, "The Oduya household"), (two.home, "My pools")):
        assert [pool["id"] for pool in await api.pools()] == [two.pool]
        log = await api.get(f"/pools/{two.pool}/log")
        tests = [line for line in log if line["kind"] == "test"]
        theirs = [line for line in tests if line["workspace"]]
        assert [line["workspace"] for line in theirs] == [others]
        assert {line["by"] for line in tests} == {"Mara Vell", "Tomi Oduya"}
        assert [line["can_change"] for line in theirs] == [False]
    board = await two.home.get(f"/pools/{two.pool}/board")
    values = {lane["measure"]: lane["reading"] for lane in board["lanes"]}
    assert (values["ph"]["value"], values["free_chlorine"]["value"]) == (7.4, 3.0)


async def test_each_corrects_its_own_and_is_told_whose_the_rest_is(two: Two) -> None:
    entry = await two.firm.test(two.pool, ph="7.4")
    void = {"id": new_id(), "reason": ""}
    refused = await two.home.client.post(f"/api/v1/entries/{entry}/void", json=void)
    assert refused.status_code == 403
    assert "My pools wrote this" in refused.json()["error"]["message"]
    await two.firm.post(f"/entries/{entry}/void", void)


async def test_notes_marked_internal_and_costs_stay_with_the_firm(two: Two) -> None:
    shelf = {"id": new_id(), "chemical": "sodium_hypochlorite", "strength_percent": 10}
    await two.firm.post("/shelf", {**shelf, "package": "1 gal"})
    bought = {"id": new_id(), "product_id": shelf["id"], "packages": 4, "price": "20"}
    await two.firm.post("/shelf/purchases", bought)
    poured = {"id": new_id(), "product_id": shelf["id"], "amount": "1 gal"}
    await two.firm.post(f"/pools/{two.pool}/additions", poured)
    visit = {"id": new_id(), "note": "Filter cleaned.", "internal_note": "Gate sticks; bill extra."}
    await two.firm.post(f"/pools/{two.pool}/visits", visit)
    own = json.dumps(await two.firm.get(f"/pools/{two.pool}/log"))
    assert "Gate sticks" in own
    assert (await two.firm.get(f"/pools/{two.pool}/report"))["cost"] == 5.0
    report = await two.home.get(f"/pools/{two.pool}/report")
    assert report["cost"] is None
    assert report["notes"] == ["Filter cleaned."]
    assert report["by"] == ["Mara Vell"]
    for path in (f"/pools/{two.pool}/log", f"/pools/{two.pool}/report", f"/pools/{two.pool}/today", "/shelf"):
        assert "Gate sticks" not in json.dumps(await two.home.get(path))
    export = (await two.home.client.get(f"/api/v1/pools/{two.pool}/journal.jsonl")).text
    assert "Filter cleaned." in export
    assert "Gate sticks" not in export


async def test_a_plan_that_the_firm_began_is_ticked_by_the_household(two: Two) -> None:
    await two.firm.test(two.pool, **READINGS)
    shelf = {"id": new_id(), "chemical": "hydrochloric_acid", "strength_percent": 31.45}
    await two.firm.post("/shelf", {**shelf, "package": "1 gal"})
    sheet = new_id()
    await two.firm.post(f"/pools/{two.pool}/sheets", {"id": sheet})
    seen = await two.home.get(f"/pools/{two.pool}/sheet")
    first = next(step for step in seen["steps"] if step["step"]["kind"] == "add")
    assert first["step"]["product_id"] == shelf["id"]  # the firm's bottle, which is not on their shelf
    tick = {"id": new_id(), "step_number": first["number"], "outcome": "done"}
    await two.home.post(f"/pools/{two.pool}/sheets/{sheet}/ticks", tick)
    log = await two.firm.get(f"/pools/{two.pool}/log")
    added = next(line for line in log if line["kind"] == "addition")
    assert added["workspace"] == "The Oduya household"


async def test_what_ends_leaves_the_home_the_pool_and_the_other_a_copy(two: Two) -> None:
    await two.home.test(two.pool, ph="7.5")
    await two.firm.post(
        f"/pools/{two.pool}/visits", {"id": new_id(), "note": "Done.", "internal_note": "Bill."}
    )
    guest = await two.home.post(f"/pools/{two.pool}/links", {"kind": "feed"})
    sharing = await two.firm.get(f"/pools/{two.pool}/shares")
    assert (sharing["own"], [one["workspace"] for one in sharing["shares"]]) == (
        True,
        ["The Oduya household"],
    )
    share = sharing["shares"][0]["id"]
    assert (await two.home.client.get(guest["path"])).status_code == 200
    await two.home.post(f"/pools/{two.pool}/shares/{share}/end", {})
    await two.firm.test(two.pool, ph="7.8")
    assert await two.home.pools() == []
    for path in ("", "/log", "/board", "/journal.jsonl", "/shares"):
        assert await status(two.home, f"/pools/{two.pool}{path}") == 404, path
    assert (await two.home.client.get(guest["path"])).status_code == 404
    kept = await two.home.get("/journal-copies")
    assert [one["name"] for one in kept] == ["Test pool"]
    text = (await two.home.client.get(f"/api/v1/journal-copies/{kept[0]['id']}.jsonl")).text
    lines = [json.loads(line) for line in text.splitlines()]
    assert (lines[0]["format"], lines[0]["version"], lines[0]["entries"]) == (
        "kumpan-journal",
        1,
        len(lines) - 1,
    )
    tests = [line for line in lines[1:] if line["kind"] == "test"]
    assert [(line["by"], line["workspace"]) for line in tests] == [("Tomi Oduya", "The Oduya household")]
    assert "Done." in text
    assert "Bill." not in text
    assert await status(two.firm, f"/journal-copies/{kept[0]['id']}.jsonl") == 404
    assert any(line["by"] == "Tomi Oduya" for line in await two.firm.get(f"/pools/{two.pool}/log"))


async def test_only_the_home_decides_about_the_pool_and_a_link_opens_once(two: Two) -> None:
    assert await status(two.home, f"/pools/{two.pool}/archive", {"back": False}) == 403
    assert await status(two.home, f"/pools/{two.pool}/shares", {}) == 403
    made = await two.firm.post(f"/pools/{two.pool}/shares", {})
    secret = {"secret": made["path"].removeprefix("/share/")}
    assert await status(two.firm, "/shares", secret) == 422
    assert await status(two.home, "/shares", secret) == 409
    offers = (await two.firm.get(f"/pools/{two.pool}/shares"))["offers"]
    assert (await two.home.get(f"/pools/{two.pool}/shares"))["offers"] == []
    await two.firm.post(f"/pools/{two.pool}/offers/{offers[0]['id']}/end", {})
    assert await status(two.home, "/auth/share", secret) == 404


async def test_an_office_with_a_workspace_accepts_with_it(two: Two) -> None:
    other = await two.firm.new_pool()
    made = await two.firm.post(f"/pools/{other}/shares", {})
    secret = {"secret": made["path"].removeprefix("/share/")}
    assert await status(two.home, f"/pools/{other}") == 404
    assert await two.home.post("/shares", secret) == other
    assert {pool["id"] for pool in await two.home.pools()} == {two.pool, other}
    assert await status(two.home, "/shares", secret) == 404


async def test_an_archived_pool_is_read_and_not_written(two: Two) -> None:
    await two.firm.post(f"/pools/{two.pool}/archive", {"back": False})
    assert await two.firm.pools() == []
    assert [one["name"] for one in await two.firm.get("/archived-pools")] == ["Test pool"]
    assert await status(two.firm, f"/pools/{two.pool}/log") == 200
    test = {"id": new_id(), "fields": {"ph": "7.4"}, "kit": "drops", "temperature_unit": "f"}
    refused = await two.firm.client.post(f"/api/v1/pools/{two.pool}/tests", json=test)
    assert refused.status_code == 409
    assert "archived" in refused.json()["error"]["message"]
    await two.firm.post(f"/pools/{two.pool}/archive", {"back": True})
    assert len(await two.firm.pools()) == 1
    await two.firm.post(f"/pools/{two.pool}/tests", test)


async def test_a_pool_is_deleted_once_all_of_it_was_downloaded(two: Two) -> None:
    shelf = {"id": new_id(), "chemical": "sodium_chloride", "strength_percent": 100}
    await two.firm.post("/shelf", {**shelf, "package": "40 lb"})
    await two.firm.post("/shelf/purchases", {"id": new_id(), "product_id": shelf["id"], "packages": 2})
    poured, wrong = new_id(), new_id()
    for id_, amount in ((poured, "10 lb"), (wrong, "20 lb")):
        body = {"id": id_, "product_id": shelf["id"], "amount": amount}
        await two.firm.post(f"/pools/{two.pool}/additions", body)
    await two.firm.post(f"/entries/{wrong}/void", {"id": new_id(), "reason": "twice"})
    before = (await two.firm.get("/shelf"))[0]["stock_g"]
    delete = f"/pools/{two.pool}/delete"
    assert await status(two.firm, delete, {"sha256": "none"}) == 409  # not archived yet
    old = await two.firm.client.get(f"/api/v1/pools/{two.pool}/journal.jsonl")
    await two.home.test(two.pool, ph="7.4")
    await two.firm.post(f"/pools/{two.pool}/archive", {"back": False})
    assert await status(two.firm, delete, {"sha256": old.headers["x-journal-sha256"]}) == 422
    assert await status(two.firm, delete, {"sha256": ""}) == 422
    file = await two.firm.client.get(f"/api/v1/pools/{two.pool}/journal.jsonl")
    await two.firm.post(delete, {"sha256": file.headers["x-journal-sha256"]})
    assert await two.firm.get("/archived-pools") == []
    assert await status(two.firm, f"/pools/{two.pool}/log") == 404
    assert (await two.firm.get("/shelf"))[0]["stock_g"] == before
    assert len(await two.home.get("/journal-copies")) == 1
    async with two.firm.database.transaction() as tx:
        assert (await tx.journal.entries_of_pool(UUID(two.pool))).rows == ()
    actions = [line["action"] for line in await two.firm.get("/audit")]
    assert actions[:2] == ["pool_deleted", "share_ended"]


async def test_links_of_a_pool_stand_in_one_list_and_each_is_taken_back(two: Two) -> None:
    guest = await two.firm.post(f"/pools/{two.pool}/links", {"kind": "guest", "name": "the gate"})
    feed = await two.firm.post(f"/pools/{two.pool}/links", {"kind": "feed"})
    listed = await two.firm.get("/links")
    assert {(one["kind"], one["expires_at"] is None) for one in listed} == {("guest", False), ("feed", True)}
    assert await two.home.get("/links") == []
    assert await status(two.home, f"/links/{feed['id']}/end", {}) == 404
    assert (await two.home.client.get(feed["path"])).status_code == 200
    await two.firm.post(f"/links/{feed['id']}/end", {})
    assert (await two.home.client.get(feed["path"])).status_code == 404
    assert [one["id"] for one in await two.firm.get("/links")] == [guest["id"]]


async def test_two_households_never_see_each_other(two: Two) -> None:
    own = str(uuid4())
    assert await status(two.home, f"/pools/{own}") == 404
    private = await two.firm.new_pool()
    for path in ("", "/log", "/board", "/sheet", "/journal.jsonl", "/shares"):
        assert await status(two.home, f"/pools/{private}{path}") == 404, path
    people = json.dumps(await two.home.get("/members"))
    assert "Mara" not in people
    assert "Mara" not in json.dumps(await two.home.get("/audit"))
