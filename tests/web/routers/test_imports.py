"""Files of one's own over HTTP: guessed, shown, made as one, taken back as one; hostile ones harm nothing."""

import random
from typing import Any
from urllib.parse import quote
from uuid import UUID, uuid4

import pytest

from kumpan.core.errors import Conflict
from kumpan.core.quantities.units import Units
from kumpan.services.imports.files import take
from kumpan.services.imports.making import work_off
from kumpan.services.journal.ledger import Scope
from tests.web.conftest import Api, new_id

SHEET = """Date,Free Cl,pH,TA,Bleach (gal),Notes
6/1/25,<0.5,7.8,90,1,opened the pool
6/2/25,3,7.6,OK,,
6/3/25,4,74,90,1/2,"rain, leaves"
soon,4,7.5,90,,
,,,,,
6/5/25,5,7.5,95,,
"""
Json = Any


async def taken(api: Api, content: bytes, name: str = "book.csv", status: int = 201) -> Json:
    path = f"/api/v1/imports?id={new_id()}&name={quote(name)}"
    reply = await api.client.post(path, content=content)
    assert reply.status_code == status, reply.text
    return reply.json()


async def applied(api: Api, view: Json, **changes: Json) -> Json:
    path = f"/imports/{view['file']['id']}"
    queued = await api.post(f"{path}/apply", {**view["manner"], **changes}, 202)
    assert queued["state"] == "queued"
    await work_off(api.database, api.now)
    return (await api.get(path))["file"]


async def test_a_notebook_is_guessed_shown_made_and_taken_back_as_one(api: Api) -> None:
    pool = await api.new_pool()
    view = await taken(api, SHEET.encode())
    roles = [column["role"] for column in view["manner"]["columns"]]
    assert (view["manner"]["kind"], view["rows"]) == ("notebook", 6)
    assert roles == ["date", "measure", "measure", "measure", "added", "note"]
    assert view["sample"][0][1] == "<0.5"
    path, manner = f"/imports/{view['file']['id']}", {**view["manner"], "pool_id": pool}
    shown = await api.post(f"{path}/preview", manner)
    assert (shown["made"], shown["questioned"], shown["refused"], shown["rows"]) == (2, 2, 1, 6)
    assert [row["number"] for row in shown["shown"]] == [3, 4, 5, 2, 7]
    assert "left out" in shown["shown"][0]["remarks"][0]["text"]
    assert "Liquid chlorine" in shown["shown"][3]["says"]
    refused = await api.post(f"{path}/preview", {**manner, "verdict": "refused"})
    assert [row["number"] for row in refused["shown"]] == [5]
    before = len(await api.get(f"/pools/{pool}/log"))
    file = await applied(api, view, pool_id=pool)
    assert (file["state"], file["done"], file["total"]) == ("applied", 6, 6)
    log = await api.get(f"/pools/{pool}/log")
    kinds = [line["kind"] for line in log]
    assert (kinds.count("test"), kinds.count("addition")) == (4, 2)
    assert any("rain, leaves" in line["detail"] for line in log)
    assert await api.post(f"{path}/undo", {}) == len(log) - before
    assert await api.post(f"{path}/undo", {}) == 0
    log = await api.get(f"/pools/{pool}/log")
    assert (await api.get(f"/pools/{pool}/assessment"))["next"]["code"] == "test_missing"
    assert all(line["taken_back"] for line in log if line["kind"] in ("test", "addition"))


async def test_the_manner_is_offered_again_and_what_stands_there_is_not_doubled(api: Api) -> None:
    pool = await api.new_pool()
    view = await taken(api, SHEET.encode())
    assert not view["as_before"]
    await applied(api, view, pool_id=pool, kit="strips")
    count = len(await api.get(f"/pools/{pool}/log"))
    again = await taken(api, SHEET.replace("6/5/25", "6/6/25").encode())
    assert (again["as_before"], again["manner"]["kit"], again["manner"]["pool_id"]) == (True, "strips", pool)
    await applied(api, again)
    assert len(await api.get(f"/pools/{pool}/log")) == count + 1


async def test_twice_queued_is_made_once_and_another_manner_is_refused(api: Api) -> None:
    pool = await api.new_pool()
    view = await taken(api, SHEET.encode())
    path, manner = f"/imports/{view['file']['id']}/apply", {**view["manner"], "pool_id": pool}
    await api.post(path, manner, 202)
    await api.post(path, manner, 202)
    await work_off(api.database, api.now)
    await work_off(api.database, api.now)
    count = len(await api.get(f"/pools/{pool}/log"))
    await api.post(path, manner, 202)
    await work_off(api.database, api.now)
    assert len(await api.get(f"/pools/{pool}/log")) == count
    assert "already" in (await api.post(path, {**manner, "kit": "strips"}, 409))["error"]["message"]


async def test_rows_name_their_pool_and_who_it_was(api: Api) -> None:
    pool = await api.new_pool()
    book = "Day;Pool;pH;Tech\n3.6.25;test POOL ;7,4;Ann Onym\n14.6.25;Nowhere;7,5;\n"
    view = await taken(api, book.encode())
    assert view["manner"]["columns"][2]["decimal_comma"]
    shown = await api.post(f"/imports/{view['file']['id']}/preview", view["manner"])
    assert (shown["made"], shown["refused"]) == (1, 1)
    assert "Nowhere" in shown["shown"][0]["remarks"][0]["text"]
    await applied(api, view)
    (test,) = [line for line in await api.get(f"/pools/{pool}/log") if line["kind"] == "test"]
    assert (test["by"], test["at"]) == ("Ann Onym", "2025-06-03T17:00:00Z")


async def test_pools_stock_and_stops(api: Api) -> None:
    pools = await taken(api, b"Name,Gallons,Surface,Filter\nMill,15000,vinyl,sand\nWeir,20000,,\n")
    assert pools["manner"]["kind"] == "pools"
    await applied(api, pools)
    assert {pool["settings"]["name"] for pool in await api.pools()} == {"Mill", "Weir"}
    stock = await taken(api, b"Product,Strength %,Package,Count,Price\nMuriatic acid,31.45,1 gal,4,40\n")
    await applied(api, stock)
    assert [one["label"] for one in await api.get("/shelf")] == ["Muriatic acid"]
    stops = await taken(api, b"Pool,Weekday,Technician\nMill,Monday,The Office\nWeir,Monday,The Office\n")
    assert (await applied(api, stops))["state"] == "applied"
    days = await api.get("/rounds/weeks?weeks=2")
    driven = {stop["pool"] for day in days["days"] for stop in day["stops"]}
    assert driven == {pool["id"] for pool in await api.pools()}
    again = await taken(api, b"Name,Gallons,Surface,Filter\nMill,15000,vinyl,sand\n")
    shown = await api.post(f"/imports/{again['file']['id']}/preview", again["manner"])
    assert shown["refused"] == 1
    await api.post(f"/imports/{pools['file']['id']}/undo", {})
    assert await api.pools() == []


@pytest.mark.parametrize(
    ("changes", "field"),
    [
        ({"pool_id": None}, "pool_id"),
        ({"columns": []}, "columns"),
        ({"tab": 7}, "tab"),
        ({"header_row": 99}, "header_row"),
        ({"kit": "tea leaves"}, "kit"),
        ({"columns": [{"role": "measure"}]}, "columns"),
        ({"columns": [{"role": "added", "chemical": "gold"}]}, "columns"),
        ({"columns": [{"role": "date", "unit": "furlong"}]}, "columns"),
        ({"columns": [{"role": "date"}] * 40}, "columns"),
    ],
    ids=lambda value: str(value)[:30],
)  # fmt: skip
async def test_a_manner_that_does_not_fit_is_refused_by_its_field(
    api: Api, changes: Json, field: str
) -> None:
    pool = await api.new_pool()
    view = await taken(api, SHEET.encode())
    body = {**view["manner"], "pool_id": pool, **changes}
    for act in ("preview", "apply"):
        refused = await api.post(f"/imports/{view['file']['id']}/{act}", body, 422)
        assert refused["error"]["field"] == field


async def test_what_was_not_made_is_dropped_and_others_see_nothing_of_it(api: Api) -> None:
    view = await taken(api, SHEET.encode())
    path = f"/imports/{view['file']['id']}"
    assert [one["name"] for one in await api.get("/imports")] == ["book.csv"]
    assert "nothing to take back" in (await api.post(f"{path}/undo", {}, 409))["error"]["message"]
    await api.post(f"{path}/drop", {})
    assert await api.get("/imports") == []
    await api.post(f"{path}/preview", view["manner"], 404)
    refused = await taken(api, b"\x89PNG\x00\x00", "photo.png", 422)
    assert refused["error"]["field"] == "file"


async def test_an_archived_pool_is_not_written_by_a_file_either(api: Api) -> None:
    pool = await api.new_pool()
    view = await taken(api, SHEET.encode())
    await api.post(f"/pools/{pool}/archive", {"back": False})
    body = {**view["manner"], "pool_id": pool}
    for act in ("preview", "apply"):
        refused = await api.post(f"/imports/{view['file']['id']}/{act}", body, 409)
        assert "archived" in refused["error"]["message"]


async def test_an_id_that_stands_for_somebody_elses_file_is_a_conflict(api: Api) -> None:
    view = await taken(api, SHEET.encode())
    async with api.database.transaction() as tx:
        other = uuid4()
        await tx.workspace.add_workspace(other, "Others", api.now)
        theirs = Scope(tx, other, api.now)
        with pytest.raises(Conflict):
            await take(theirs, UUID(view["file"]["id"]), b"Date,pH\n6/1/25,7.4\n", "x.csv", units=Units.US)


CELLS = [
    "", "7.4", "7,4", "<0.5", ">10", "OK", "-", "=1+1", "1e999", "9" * 400, "٣", "½", "1/0", "3-5", "\u202e7",
    "NaN", "inf", "0x10", "82F", "-5", "1.2.3.4", "12/31/9999", "0000-00-00", "2025-06-03", "31/12/25", "99999",
    "64 oz bleach; 2 lb bicarb", "'; DROP TABLE entry; --", "<script>", "\ufeff", "a" * 3000, "1,2,3", '"', "\t",
]  # fmt: skip
HEADS = [
    "Date",
    "Time",
    "FC",
    "pH",
    "CYA",
    "Temp",
    "Salt",
    "Bleach gal",
    "Acid",
    "Treatment",
    "Look",
    "Notes",
    "Who",
    "Pool",
    "TA °dH",
    "=x",
    "",
]


@pytest.mark.no_cover
@pytest.mark.parametrize("seed", range(4))
async def test_ten_thousand_hostile_rows_are_read_or_refused(api: Api, seed: int) -> None:
    """Twenty sheets of 500 rows in all: every one is answered, and what is made is all or nothing."""
    pool, chance = await api.new_pool(), random.Random(19 + seed)
    made = 0
    for n in range(5):
        separator = chance.choice([",", ";", "\t"])
        heads = ["Date", *chance.sample(HEADS[1:], 8)]
        lines = [separator.join(heads)]
        for _ in range(500):
            cells = [chance.choice(CELLS) for _ in heads]
            lines.append(separator.join(f'"{cell.replace(chr(34), chr(34) * 2)}"' for cell in cells))
        reply = await api.client.post(
            f"/api/v1/imports?id={new_id()}&name=n{n}", content="\n".join(lines).encode()
        )
        assert reply.status_code == 201, reply.text[:300]
        view = reply.json()
        manner = {**view["manner"], "pool_id": pool}
        if manner["kind"] != "notebook" or not any(column["role"] == "date" for column in manner["columns"]):
            manner["kind"] = "notebook"
            manner["columns"][0] = {**manner["columns"][0], "role": "date", "measure": None}
        path = f"/api/v1/imports/{view['file']['id']}"
        assert (await api.client.post(f"{path}/preview", json=manner)).status_code == 200
        assert (await api.client.post(f"{path}/apply", json=manner)).status_code == 202
        await work_off(api.database, api.now)
        file = (await api.get(f"/imports/{view['file']['id']}"))["file"]
        assert file["state"] == "applied", file
        made += 1
    assert made == 5
    assert (await api.get(f"/pools/{pool}/assessment"))["swim"]["code"]
