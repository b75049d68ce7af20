"""Photos over HTTP: told once, seen by who may see the pool, gone from sight when taken back."""

from base64 import b64encode
from hashlib import sha256
from typing import Any
from uuid import UUID

import pytest

from kumpan.services.journal.export import journal_file
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.queries import the_workspace
from kumpan.services.photos import photos
from kumpan.services.sharing import archive
from tests.formats.test_images import picture
from tests.web.conftest import Api, new_id

Json = Any


def photo(**changes: Json) -> dict[str, Json]:
    return {"id": new_id(), "image": b64encode(picture()).decode(), "note": "skimmer side", **changes}


async def test_a_photo_is_stored_once_and_shown(api: Api) -> None:
    pool = await api.new_pool()
    body = photo(shows="look")
    await api.post(f"/pools/{pool}/photos", body, 201)
    await api.post(f"/pools/{pool}/photos", body, 201)
    (seen,) = (await api.get(f"/pools/{pool}/photos"))["photos"]
    assert (seen["note"], seen["shows"], seen["by"], seen["width"]) == (
        "skimmer side",
        "look",
        "The Office",
        400,
    )
    full = await api.client.get(f"/api/v1/pools/{pool}/photos/{seen['sha256']}.jpg")
    assert full.headers["content-type"] == "image/jpeg"
    assert "immutable" in full.headers["cache-control"]
    assert sha256(full.content).hexdigest() == seen["sha256"]
    small = await api.client.get(f"/api/v1/pools/{pool}/photos/{seen['sha256']}.jpg?thumb=true")
    assert len(small.content) < len(full.content)
    assert any(line["title"] == "Photo" for line in await api.get(f"/pools/{pool}/log"))
    await api.post(f"/entries/{seen['entry_id']}/void", {"id": new_id(), "reason": "blurred"})
    assert (await api.get(f"/pools/{pool}/photos"))["photos"] == []


async def test_a_data_url_is_taken_too_and_another_picture_under_the_id_is_refused(api: Api) -> None:
    pool = await api.new_pool()
    body = photo(image=f"data:image/jpeg;base64,{b64encode(picture()).decode()}")
    await api.post(f"/pools/{pool}/photos", body, 201)
    await api.post(f"/pools/{pool}/photos", {**body, "image": b64encode(picture(80, 80)).decode()}, 409)


async def test_before_and_after_of_a_rescue_stand_side_by_side(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, free_chlorine="0", ph="7.5", cyanuric_acid="30")
    await api.post(f"/pools/{pool}/photos", photo(note="long ago"), 201)
    await api.post(f"/pools/{pool}/rescue", {"id": new_id(), "severity": "green"}, 201)
    for note in ("first", "middle", "last"):
        api.pass_time(hours=6)
        await api.post(f"/pools/{pool}/photos", photo(shows="rescue", note=note), 201)
    seen = await api.get(f"/pools/{pool}/photos")
    assert (seen["before"]["note"], seen["after"]["note"]) == ("first", "last")


@pytest.mark.parametrize(
    "image",
    ["", "not base64!", b64encode(b"hello").decode(), b64encode(b"\x00\x00\x00\x18ftypheic").decode()],
)
async def test_what_is_no_photo_is_refused_by_its_field(api: Api, image: str) -> None:
    pool = await api.new_pool()
    refused = await api.post(f"/pools/{pool}/photos", photo(image=image), 422)
    assert refused["error"]["field"] == "image"
    assert (await api.get(f"/pools/{pool}/photos"))["photos"] == []


async def test_limits_are_said(api: Api, monkeypatch: pytest.MonkeyPatch) -> None:
    pool = await api.new_pool()
    monkeypatch.setattr(photos, "MOST_OF_A_POOL", 1)
    await api.post(f"/pools/{pool}/photos", photo(), 201)
    assert "take some back" in (await api.post(f"/pools/{pool}/photos", photo(), 422))["error"]["message"]
    monkeypatch.setattr(photos, "MOST_OF_A_WORKSPACE", 10)
    assert (
        "room" in (await api.post(f"/pools/{await api.new_pool()}/photos", photo(), 422))["error"]["message"]
    )


async def test_a_photo_of_another_pool_is_not_here(api: Api) -> None:
    pool, other = await api.new_pool(), await api.new_pool()
    await api.post(f"/pools/{pool}/photos", photo(), 201)
    (seen,) = (await api.get(f"/pools/{pool}/photos"))["photos"]
    for path in (f"{other}/photos/{seen['sha256']}", f"{pool}/photos/{'0' * 64}"):
        assert (await api.client.get(f"/api/v1/pools/{path}.jpg")).status_code == 404
    assert (await api.client.get(f"/api/v1/pools/{pool}/photos/xyz.jpg")).status_code == 422


async def test_photos_go_with_the_workspace(api: Api) -> None:
    pool = await api.new_pool()
    await api.post(f"/pools/{pool}/photos", photo(), 201)
    content = (await api.client.get("/api/v1/workspace/archive.zip")).content
    (seen,) = (await api.get(f"/pools/{pool}/photos"))["photos"]
    assert f"photos/{seen['sha256']}.jpg".encode() in content
    reply = await api.client.post("/api/v1/workspace/archive", content=content)
    assert reply.json()["entries"] == 0
    full = await api.client.get(f"/api/v1/pools/{pool}/photos/{seen['sha256']}.jpg")
    assert sha256(full.content).hexdigest() == seen["sha256"]


async def test_a_pool_that_is_deleted_takes_its_photos_with_it_but_none_of_another(api: Api) -> None:
    pool, other = await api.new_pool(), await api.new_pool()
    own, both = b64encode(picture(50, 50)).decode(), b64encode(picture(70, 50)).decode()
    for place, image in ((pool, own), (pool, both), (other, both)):
        await api.post(f"/pools/{place}/photos", photo(image=image), 201)
    async with api.database.transaction() as tx:
        workspace = await the_workspace(tx)
        assert len(await tx.photos.hashes(workspace)) == 2
        scope = Scope(tx, workspace, api.now)
        await archive.archive(scope, UUID(pool), back=False)
        await archive.delete(scope, UUID(pool), (await journal_file(scope, UUID(pool))).sha256)
    (left,) = (await api.get(f"/pools/{other}/photos"))["photos"]
    async with api.database.transaction() as tx:
        assert await tx.photos.hashes(workspace) == [left["sha256"]]
