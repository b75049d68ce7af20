"""The people of a workspace over HTTP: roles, leaving, tokens, who is named in the log, the audit."""

from collections.abc import AsyncIterator

import pytest_asyncio

from kumpan.web.auth.door import Door
from tests.web.conftest import OFFICE_ID, Api, api, new_id, running

__all__ = ["api"]


async def person(api: Api, name: str = "Ada Holm") -> str:
    made = new_id()
    await api.post("/people", {"id": made, "name": name, "initials": ""})
    return made


async def test_somebody_must_stay_the_office(api: Api) -> None:
    refused = await api.client.post(f"/api/v1/members/{OFFICE_ID}/role", json={"role": "owner"})
    assert refused.status_code == 403, "a token makes no other way in"


async def test_entries_are_of_who_sends_them_and_an_unknown_name_refuses_nothing(api: Api) -> None:
    pool, ada = await api.new_pool(), await person(api)
    for named in (None, ada, new_id()):
        await api.post(
            f"/pools/{pool}/looks",
            {"id": new_id(), "person_id": named, "clarity": "clear", "level": "normal"},
        )
        api.pass_time(minutes=1)
    looks = [line for line in await api.get(f"/pools/{pool}/log") if line["kind"] == "look"]
    assert [line["person_id"] for line in looks] == [str(OFFICE_ID), ada, str(OFFICE_ID)]


@pytest_asyncio.fixture
async def office(api: Api, database_url: str) -> AsyncIterator[Api]:
    """The office with a session, as in the demo."""
    assert api.client.headers["authorization"]
    async with running(database_url, Door(demo=True)) as found:
        reply = await found.client.post("/api/v1/auth/demo", json={"person_id": str(OFFICE_ID)})
        assert reply.status_code == 200
        yield found


async def test_a_token_is_named_limited_shown_once_and_taken_back(office: Api) -> None:
    pool = await office.new_pool()
    made = await office.post("/me/tokens", {"name": "garage", "scope": "read"}, 201)
    listed = await office.get("/me/tokens")
    assert [one["name"] for one in listed] == ["garage", "tests"]
    assert made["secret"] not in str(listed)
    by_token = {"authorization": f"Bearer {made['secret']}"}
    office.client.cookies.clear()
    assert (await office.client.get(f"/api/v1/pools/{pool}", headers=by_token)).status_code == 200
    look = {"id": new_id(), "clarity": "clear", "level": "normal"}
    written = await office.client.post(f"/api/v1/pools/{pool}/looks", json=look, headers=by_token)
    assert written.status_code == 403
    asked = {"kit": "drops", "temperature_unit": "f", "line": "fc 1"}
    read = await office.client.post(f"/api/v1/pools/{pool}/slip/read", json=asked, headers=by_token)
    assert read.status_code == 200, "it reads, although it is posted"
    await office.client.post("/api/v1/auth/demo", json={"person_id": str(OFFICE_ID)})
    await office.post(f"/me/tokens/{made['token']['id']}/revoke", {})
    office.client.cookies.clear()
    assert (await office.client.get(f"/api/v1/pools/{pool}", headers=by_token)).status_code == 401


async def test_somebody_stays_the_office(office: Api) -> None:
    role = {"role": "technician", "pools": []}
    refused = await office.client.post(f"/api/v1/members/{OFFICE_ID}/role", json=role)
    assert refused.status_code == 422
    assert "another person first" in refused.text
    assert (await office.client.post(f"/api/v1/members/{OFFICE_ID}/end", json={})).status_code == 422
    assert (await office.client.post(f"/api/v1/members/{new_id()}/end", json={})).status_code == 404


async def test_who_leaves_has_no_way_in_and_what_they_did_stays(office: Api) -> None:
    ada, pool = await person(office), await office.new_pool()
    await office.post(f"/members/{ada}/role", {"role": "technician", "pools": [pool]})
    desk = office.client.cookies["kumpan"]
    office.client.cookies.clear()
    await office.client.post("/api/v1/auth/demo", json={"person_id": ada})
    token = (await office.post("/me/tokens", {"name": "phone", "scope": "write"}))["secret"]
    look = {"id": new_id(), "clarity": "clear", "level": "normal", "person_id": str(OFFICE_ID)}
    await office.post(f"/pools/{pool}/looks", look)
    phone = office.client.cookies["kumpan"]
    office.client.cookies.clear()
    office.client.cookies.set("kumpan", desk)
    await office.post(f"/members/{ada}/end", {"erase": True})
    log = await office.get(f"/pools/{pool}/log")
    by = next(line for line in log if line["kind"] == "look")
    assert by["person_id"] == ada, "only the office names another"
    member = next(one for one in await office.get("/members") if one["id"] == ada)
    assert (member["name"], member["pools"]) == ("former member", [])
    assert member["ended_at"]
    office.client.cookies.clear()
    office.client.cookies.set("kumpan", phone)
    assert (await office.client.get("/api/v1/me")).status_code == 401
    office.client.cookies.clear()
    headers = {"authorization": f"Bearer {token}"}
    assert (await office.client.get("/api/v1/pools", headers=headers)).status_code == 401
    assert (await office.client.post("/api/v1/auth/demo", json={"person_id": ada})).status_code == 404


async def test_a_technician_sees_the_last_word_of_the_own_rounds(office: Api) -> None:
    ada, first, second = await person(office), await office.new_pool(), await office.new_pool()
    for stops in ([first, second], [second]):
        body = {"id": new_id(), "person_id": ada, "weekday": 2, "stops": stops}
        await office.post("/rounds", body, 201)
        office.pass_time(minutes=1)
    office.client.cookies.clear()
    await office.client.post("/api/v1/auth/demo", json={"person_id": ada})
    assert [head["id"] for head in await office.pools()] == [second]
    taken = {"id": new_id(), "weekday": 3, "stops": [first]}
    refused = await office.client.post("/api/v1/rounds", json=taken)
    assert refused.status_code == 422, "nobody rides to a pool that was not given"


async def test_names_change_and_the_audit_says_who_did_it(office: Api) -> None:
    ada = await person(office)
    await office.post(f"/members/{ada}/name", {"name": " Ada  Holmgren ", "initials": ""})
    assert (await office.client.post(f"/api/v1/members/{ada}/name", json={"name": " "})).status_code == 422
    names = {one["id"]: (one["name"], one["initials"]) for one in await office.get("/members")}
    assert names[ada] == ("Ada Holmgren", "AH")
    lines = await office.get("/audit")
    assert [(line["person"], line["action"]) for line in lines[:2]] == [
        ("The Office", "renamed"),
        ("The Office", "signed_in"),
    ]
    assert lines[0]["address"] == "127.0.0.1"
    text = (await office.client.get("/api/v1/audit.csv")).text
    assert f"person={ada}" in text
    assert "Holmgren" not in text.replace("The Office", ""), "details hold ids, not what people wrote"


async def test_signing_out_everywhere_else_leaves_this_device(office: Api) -> None:
    await office.client.post("/api/v1/auth/demo", json={"person_id": str(OFFICE_ID)})
    kept = office.client.cookies["kumpan"]
    office.client.cookies.clear()
    await office.client.post("/api/v1/auth/demo", json={"person_id": str(OFFICE_ID)})
    assert [one["this"] for one in (await office.get("/me"))["devices"]].count(True) == 1
    assert len((await office.get("/me"))["devices"]) == 2
    await office.post("/me/devices/end", {})
    assert len((await office.get("/me"))["devices"]) == 1
    office.client.cookies.clear()
    office.client.cookies.set("kumpan", kept)
    assert (await office.client.get("/api/v1/me")).status_code == 401
