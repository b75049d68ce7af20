"""Tables for spreadsheets, and a workspace as one file that comes back as it went."""

import csv
import io
import json
import zipfile
from typing import Any

import pytest
from openpyxl import load_workbook

from kumpan.demo.__main__ import load
from kumpan.services.imports.making import work_off
from kumpan.storage.transaction import Database
from kumpan.tools.mariadb_server import MariaDbServer
from tests.conftest import wipe
from tests.services.sharing.test_bring_in import NOW
from tests.web.conftest import Api, new_id, office_token, running

Json = Any


async def rows_of(api: Api, what: str, query: str = "") -> list[dict[str, str]]:
    reply = await api.client.get(f"/api/v1/exports/{what}.csv?{query}")
    assert reply.status_code == 200, reply.text
    return list(csv.DictReader(io.StringIO(reply.content.decode("utf-8-sig"), newline="")))


async def a_season(api: Api) -> str:
    pool = await api.new_pool()
    shelf = {"id": new_id(), "chemical": "hydrochloric_acid", "strength_percent": 31.45, "package": "1 gal"}
    await api.post("/shelf", shelf)
    await api.post(
        "/shelf/purchases", {"id": new_id(), "product_id": shelf["id"], "packages": "2", "price": "20"}
    )
    await api.test(pool, free_chlorine="3.5", ph="7.8", temperature_c="82")
    await api.post(f"/pools/{pool}/additions", {"id": new_id(), "product_id": shelf["id"], "amount": "1 qt"})
    await api.post(f"/pools/{pool}/water-changes", {"id": new_id(), "kind": "backwash", "volume": "300 gal"})
    return pool


async def test_tests_in_a_table_come_back_as_the_same_tests(api: Api) -> None:
    pool = await a_season(api)
    (row,) = await rows_of(api, "tests")
    assert row["Pool"] == "Test pool"
    assert (row["Day"], row["Time"], row["By"]) == ("2026-06-01", "18:00", "The Office")
    assert (row["Free chlorine (mg/L)"], row["pH"], row["Temperature (°F)"]) == ("3.5", "7.8", "82")
    assert "Salt (mg/L)" not in row
    content = (await api.client.get("/api/v1/exports/tests.csv")).content
    other = await api.new_pool(settings={"name": "Twin", "time_zone": "America/Chicago"})
    view = (
        await api.client.post(
            f"/api/v1/imports?id={new_id()}", content=content.replace(b"Test pool", b"Twin")
        )
    ).json()
    await api.post(f"/imports/{view['file']['id']}/apply", view["manner"], 202)
    await work_off(api.database, api.now)
    mine, twin = [await rows_of(api, "tests", f"pool_id={one}") for one in (pool, other)]
    assert [{**row, "Pool": ""} for row in twin] == [{**row, "Pool": ""} for row in mine]


async def test_additions_care_and_costs(api: Api) -> None:
    await a_season(api)
    (added,) = await rows_of(api, "additions")
    assert (added["Chemical"], added["Volume (mL)"], added["Cost ($)"]) == (
        "hydrochloric_acid",
        "946.353",
        "2.50",
    )
    (water,) = await rows_of(api, "care")
    assert (water["What"], water["Water replaced (L)"]) == ("Backwash", "1135.62")
    costs = await rows_of(api, "costs")
    assert {row["Of"] for row in costs} >= {"product", "pool", "month"}
    book = load_workbook(io.BytesIO((await api.client.get("/api/v1/exports/additions.xlsx")).content))
    assert [cell.value for cell in book["additions"][2]][7] == pytest.approx(1098, rel=0.02)


async def test_a_table_is_of_a_time_and_of_what_one_may_see(api: Api) -> None:
    pool = await a_season(api)
    assert await rows_of(api, "tests", "first=2026-06-02") == []
    assert len(await rows_of(api, "tests", f"last=2026-06-01&pool_id={pool}&metric=true")) == 1
    assert await rows_of(api, "tests", f"technician_id={new_id()}") == []
    for query, status in (
        ("first=2026-06-02&last=2026-06-01", 422),
        (f"pool_id={new_id()}", 404),
        ("first=0001-01-01", 422),
    ):
        assert (await api.client.get(f"/api/v1/exports/tests.csv?{query}")).status_code == status
    assert (await api.client.get("/api/v1/exports/gold.csv")).status_code == 422


async def test_a_note_that_is_a_formula_runs_nowhere(api: Api) -> None:
    pool = await api.new_pool()
    body = {"id": new_id(), "fields": {"ph": "7.5"}, "kit": "drops", "note": "=HYPERLINK(1)"}
    await api.post(f"/pools/{pool}/tests", body)
    assert (await rows_of(api, "tests"))[0]["Note"] == "'=HYPERLINK(1)"


def unpacked(content: bytes) -> dict[str, Json]:
    """An archive without when it was made, who made it, and who of others is named in a journal."""
    packed = zipfile.ZipFile(io.BytesIO(content))
    found: dict[str, Json] = {
        name: packed.read(name).splitlines()[1:] for name in packed.namelist() if name.endswith("l")
    }
    about = json.loads(packed.read("workspace.json"))
    about.pop("exported_at")
    about["people"] = [one for one in about["people"] if one["name"] != "The Office" and not one["left"]]
    return {**found, "about": about}


@pytest.mark.no_cover
async def test_the_demos_workspace_comes_back_whole(mariadb: MariaDbServer, database_url: str) -> None:
    database = Database(database_url)
    assert await load(database, NOW)
    secret = await office_token(database)
    async with running(database_url) as api:
        api.now = NOW
        api.client.headers["authorization"] = f"Bearer {secret}"
        content = (await api.client.get("/api/v1/workspace/archive.zip")).content
        shelf, driven = await api.get("/shelf"), await api.get("/rounds/weeks?weeks=2")
    await database.close()
    wipe(mariadb)
    other = Database(database_url)
    secret = await office_token(other)
    await other.close()
    async with running(database_url) as api:
        api.now = NOW
        api.client.headers["authorization"] = f"Bearer {secret}"
        await api.post("/workspace/name", {"name": unpacked(content)["about"]["name"]})
        reply = await api.client.post("/api/v1/workspace/archive", content=content)
        assert reply.status_code == 201, reply.text
        assert (reply.json()["pools"], reply.json()["people"]) == (5, 3)
        again = (await api.client.post("/api/v1/workspace/archive", content=content)).json()
        assert (again["entries"], again["people"], again["products"]) == (0, 0, 0)
        back = (await api.client.get("/api/v1/workspace/archive.zip")).content
        assert unpacked(back) == unpacked(content)
        assert await api.get("/shelf") == shelf
        assert (await api.get("/rounds/weeks?weeks=2"))["days"] == driven["days"]


def changed(content: bytes, name: str, text: bytes) -> bytes:
    packed, out = zipfile.ZipFile(io.BytesIO(content)), io.BytesIO()
    with zipfile.ZipFile(out, "w") as new:
        for one in packed.namelist():
            new.writestr(one, text if one == name else packed.read(one))
    return out.getvalue()


async def test_what_is_no_archive_changes_nothing(api: Api) -> None:
    await a_season(api)
    good = (await api.client.get("/api/v1/workspace/archive.zip")).content
    journal = next(
        name for name in zipfile.ZipFile(io.BytesIO(good)).namelist() if name.startswith("journals/")
    )
    bad = [
        b"",
        b"PK\x03\x04rubbish",
        changed(good, "workspace.json", b"[]"),
        changed(
            good,
            "workspace.json",
            b'{"format":"kumpan-workspace","version":9,"people":[],"products":[],"archived":[]}',
        ),
        changed(
            good,
            "workspace.json",
            b'{"format":"kumpan-workspace","version":1,"people":[{}],"products":[],"archived":[]}',
        ),
        changed(
            good,
            "workspace.json",
            b'{"format":"kumpan-workspace","version":1,"people":[],"products":[{"id":1}],"archived":[]}',
        ),
        changed(good, journal, b"{}"),
        good[: len(good) // 2],
    ]
    broken = bytearray(good)
    at = good.index(journal.encode()) + len(journal) + 20
    broken[at : at + 40] = bytes(40)
    bad.append(bytes(broken))
    for content in bad:
        reply = await api.client.post("/api/v1/workspace/archive", content=content)
        assert reply.status_code == 422, reply.text
        assert len(reply.json()["error"]["message"]) > 20
    assert len(await api.pools()) == 1
