"""Two at once: what two people or two devices send in the same moment is done once, or refused once."""

import asyncio
from collections.abc import Mapping
from datetime import timedelta

import pytest

from tests.web.conftest import Api, Json, api, new_id, pool_body

__all__ = ["api"]
WATER = {
    "free_chlorine": "1", "total_chlorine": "1", "ph": "7.9", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "40", "temperature_c": "82F",
}  # fmt: skip
LOOK = {"clarity": "clear", "level": "normal"}


async def both(api: Api, path: str, *bodies: Mapping[str, Json]) -> list[int]:
    """The statuses of requests that are sent in one moment."""
    sent = [api.client.post(f"/api/v1{path}", json=body) for body in bodies]
    return sorted(reply.status_code for reply in await asyncio.gather(*sent))


async def kinds(api: Api, pool: str) -> list[str]:
    return [line["kind"] for line in await api.get(f"/pools/{pool}/log")]


@pytest.mark.parametrize("_", range(5))
async def test_one_step_ticked_by_many_is_poured_once(api: Api, _: int) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    sheet = await api.post(f"/pools/{pool}/sheets", {"id": new_id()})
    step = next(line["number"] for line in sheet["steps"] if line["step"]["kind"] == "add")
    ticks = [{"id": new_id(), "step_number": step, "outcome": "done"} for _ in range(4)]
    found = await both(api, f"/pools/{pool}/sheets/{sheet['id']}/ticks", *ticks)
    assert found == [200, 409, 409, 409]
    assert (await kinds(api, pool)).count("addition") == 1


async def test_a_plan_begun_by_two_is_begun_once(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    assert await both(api, f"/pools/{pool}/sheets", {"id": new_id()}, {"id": new_id()}) == [201, 409]
    assert (await kinds(api, pool)).count("sheet") == 1


async def test_the_same_sent_twice_in_one_moment_is_answered_twice_and_done_once(api: Api) -> None:
    """A resend whose first answer is still on its way: new pools, people, products, entries."""
    new = pool_body(new_id())
    assert await both(api, "/pools", new, new) == [201, 201]
    assert len(await api.pools()) == 1
    pool, person = str(new["id"]), {"id": new_id(), "name": "Ada Holm"}
    assert len({*await both(api, "/people", person, person)}) == 1
    assert [one["name"] for one in await api.get("/people")].count("Ada Holm") == 1
    product = {"id": new_id(), "chemical": "sodium_chloride", "strength_percent": 100, "package": "40 lb"}
    assert await both(api, "/shelf", product, product) == [201, 201]
    assert len(await api.get("/shelf")) == 1
    look = {"id": new_id(), **LOOK}
    assert await both(api, f"/pools/{pool}/looks", look, look) == [201, 201]
    assert (await kinds(api, pool)).count("look") == 1


async def test_one_entry_corrected_by_two_is_corrected_once(api: Api) -> None:
    pool = await api.new_pool()
    entry = await api.test(pool, ph="7.4")
    voids = [{"id": new_id(), "reason": "mine"}, {"id": new_id(), "reason": "theirs"}]
    assert await both(api, f"/entries/{entry}/void", *voids) == [200, 409]


async def test_two_pools_are_written_side_by_side(api: Api) -> None:
    """Nobody waits for the writer of another pool: sixteen at once are all taken."""
    pools = [await api.new_pool() for _ in range(4)]
    sent = [
        api.client.post(f"/api/v1/pools/{pool}/looks", json={"id": new_id(), **LOOK})
        for pool in pools
        for _ in range(4)
    ]
    assert {reply.status_code for reply in await asyncio.gather(*sent)} == {201}


async def test_an_id_stands_for_one_content_at_one_time(api: Api) -> None:
    """A resend is answered, also with the device's own time a few minutes off; anything else is a conflict."""
    pool = await api.new_pool()
    look = {"id": new_id(), **LOOK}
    await api.post(f"/pools/{pool}/looks", look, 201)
    for minutes, status in ((0, 201), (-3, 201), (3, 201), (-30, 409), (-60 * 24, 409)):
        at = (api.now + timedelta(minutes=minutes)).isoformat()
        await api.post(f"/pools/{pool}/looks", {**look, "at": at}, status)
    await api.post(f"/pools/{pool}/looks", {**look, "clarity": "hazy"}, 409)
    other = await api.new_pool()
    await api.post(f"/pools/{other}/looks", look, 409)
    assert (await kinds(api, pool)).count("look") == 1


async def test_whose_clock_is_behind_sees_what_was_written_before(api: Api) -> None:
    """A tick that waited for another one, or comes through another machine, may bear the earlier time."""
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    sheet = await api.post(f"/pools/{pool}/sheets", {"id": new_id()})
    step = next(line["number"] for line in sheet["steps"] if line["step"]["kind"] == "add")
    path = f"/pools/{pool}/sheets/{sheet['id']}/ticks"
    api.pass_time(minutes=1)
    await api.post(path, {"id": new_id(), "step_number": step, "outcome": "done"})
    api.pass_time(seconds=-2)
    await api.post(path, {"id": new_id(), "step_number": step, "outcome": "done"}, 409)
    api.pass_time(seconds=2)
    assert (await kinds(api, pool)).count("addition") == 1
