"""The list of pools: pages, search, orders; what one broken pool does to the others: nothing."""

import json
import random
import re
from dataclasses import replace
from datetime import timedelta
from uuid import UUID, uuid4

import pytest

from kumpan.services.assessment.queries import head
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.queries import the_workspace
from kumpan.web.renewal import program, renew_some, tell
from tests.web.conftest import Api, Json, api, new_id

__all__ = ["api"]
FINE = {
    "free_chlorine": "3", "total_chlorine": "3", "ph": "7.5", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "30", "temperature_c": "82F",
}  # fmt: skip


async def named(api: Api, name: str, place: str = "") -> str:
    return await api.new_pool(settings={"name": name, "place": place, "time_zone": "America/Chicago"})


async def names(api: Api, query: str) -> list[str]:
    return [pool["settings"]["name"] for pool in await api.pools(query)]


async def test_pages_follow_each_other_without_a_gap_or_a_double(api: Api) -> None:
    for n in range(7):
        await named(api, f"Pool {n}", ("Weir", "", "Alder")[n % 3])
    for sort in ("attention", "name", "place", "tested"):
        seen: list[str] = []
        cursor: str | None = ""
        while cursor is not None:
            page = await api.get(f"/pools?sort={sort}&limit=3" + (f"&cursor={cursor}" if cursor else ""))
            assert len(page["pools"]) <= 3
            seen += [pool["settings"]["name"] for pool in page["pools"]]
            cursor = page["cursor"]
        assert sorted(seen) == [f"Pool {n}" for n in range(7)], sort


async def test_every_part_of_the_question_may_be_empty(api: Api) -> None:
    """As the contract writes it: `?query=&sort=attention|name|tested&limit=50&cursor=`."""
    await named(api, "Millrace")
    page = await api.get("/pools?query=&sort=attention&limit=50&cursor=")
    assert [pool["settings"]["name"] for pool in page["pools"]] == ["Millrace"]
    assert page["cursor"] is None
    assert page["unreadable"] == []


async def test_a_pool_is_found_by_name_or_place_and_signs_are_no_wildcards(api: Api) -> None:
    await named(api, "Millrace", "Alder Bank")
    await named(api, "Weir 100%", "Mill Road")
    assert await names(api, "query=alder") == ["Millrace"]
    assert set(await names(api, "query=MILL")) == {"Millrace", "Weir 100%"}
    assert await names(api, "query=100%25") == ["Weir 100%"]
    assert await names(api, "query=_") == []


async def test_what_asks_for_something_comes_first_and_who_was_tested_last_comes_last(api: Api) -> None:
    good, green, new = await named(api, "A good"), await named(api, "B green"), await named(api, "C new")
    await api.test(new, **FINE)
    api.pass_time(days=1)
    look = {"id": new_id(), "level": "normal"}
    await api.post(f"/pools/{good}/looks", {**look, "id": new_id(), "clarity": "clear"})
    await api.test(good, **FINE)
    await api.post(f"/pools/{green}/looks", {**look, "clarity": "green"})
    assert (await names(api, "sort=attention"))[0] == "B green"
    assert await names(api, "sort=tested") == ["B green", "C new", "A good"]


async def test_pools_of_one_place_stand_together_and_those_without_one_last(api: Api) -> None:
    for name, place in (("D", ""), ("A", "Weir"), ("C", "Alder Bank"), ("B", "Weir")):
        await named(api, name, place)
    assert await names(api, "sort=place") == ["C", "A", "B", "D"]


@pytest.mark.parametrize("cursor", ["x", "bnVsbA==", "W10=", "%F0%9F%8F%8A", "WyJhIl0="])
async def test_a_wrong_cursor_and_a_wrong_limit_are_said(api: Api, cursor: str) -> None:
    reply = await api.client.get(f"/api/v1/pools?cursor={cursor}")
    assert reply.status_code == 422
    assert reply.json()["error"]["field"] == "cursor"
    for limit in ("0", "201", "many"):
        assert (await api.client.get(f"/api/v1/pools?limit={limit}")).status_code == 422


async def test_one_pool_that_cannot_be_read_is_shown_as_such_and_the_others_go_on(api: Api) -> None:
    """Its set-up was taken back, as an earlier version allowed."""
    broken, whole = await named(api, "Broken"), await named(api, "Whole")
    await api.test(whole, **FINE)
    async with api.database.transaction() as tx:
        rows = (await tx.journal.entries_of_pool(UUID(broken))).rows
        settings = next(row for row in rows if row.kind == "settings")
        taken_back = replace(settings, id=uuid4(), kind="void", supersedes=settings.id, text='{"reason": ""}')
        await tx.journal.add_entry(taken_back)
    page = await api.get("/pools?sort=name")
    assert [pool["settings"]["name"] for pool in page["pools"]] == ["Whole"]
    assert [one["id"] for one in page["unreadable"]] == [broken]
    assert page["unreadable"][0]["why"]
    for path in ("/round", "/shelf/to-buy", f"/pools/{whole}/today"):
        assert (await api.client.get(f"/api/v1{path}")).status_code == 200, path
    assert (await api.client.get(f"/api/v1/pools/{broken}/journal.jsonl")).status_code == 200


async def test_a_set_up_is_changed_and_not_taken_back(api: Api) -> None:
    pool = await named(api, "Millrace")
    for line in await api.get(f"/pools/{pool}/log"):
        assert line["can_change"] is False
        reply = await api.client.post(
            f"/api/v1/entries/{line['id']}/void", json={"id": new_id(), "reason": ""}
        )
        assert reply.status_code == 422, line["kind"]
    assert await names(api, "") == ["Millrace"]


def without_figures(head: Json) -> str:
    return re.sub(r"[\d½¼¾⅓⅔.]+", "#", json.dumps(head, ensure_ascii=False))


@pytest.mark.no_cover
@pytest.mark.parametrize("season", range(4))
async def test_a_summary_is_never_older_than_it_says(api: Api, season: int) -> None:
    """At many moments, with something told between: the list says what the pool's own page says. Figures of
    a forecast move by the minute; all else is the same to the letter.
    """
    chance = random.Random(20_261_128 + season)
    pools = [await named(api, f"Pool {n}") for n in range(4)]
    for _ in range(63):  # of four pools, in four seasons: a thousand answers
        api.now += timedelta(minutes=chance.choice((1, 7, 45, 180, 600, 1500)))
        pool = chance.choice(pools)
        match chance.randrange(4):
            case 0:
                await api.test(
                    pool, free_chlorine=str(chance.choice((0, 1, 3, 12))), ph="7.5", cyanuric_acid="40"
                )
            case 1:
                look = {
                    "id": new_id(),
                    "clarity": chance.choice(("clear", "hazy", "green")),
                    "level": "normal",
                }
                await api.post(f"/pools/{pool}/looks", look)
            case 2:
                await renew_some(api.database, api.now)
        listed = {one["id"]: one for one in await api.pools()}
        for id_ in pools:
            fresh: Json = await api.get(f"/pools/{id_}")
            assert without_figures(listed[id_]) == without_figures(fresh)


async def test_the_background_makes_what_is_missing_and_what_was_made_by_another_program(api: Api) -> None:
    pools = [await named(api, f"Pool {n}") for n in range(5)]
    assert await renew_some(api.database, api.now, most=3) == 3
    assert await renew_some(api.database, api.now) == 2
    assert await renew_some(api.database, api.now) == 0
    await api.test(pools[2], ph="7.5")
    assert await renew_some(api.database, api.now) == 1
    api.pass_time(days=400)
    assert await renew_some(api.database, api.now) == 5
    assert len(program()) == 16


async def test_what_is_stored_is_what_is_told(api: Api) -> None:
    pool = await named(api, "Millrace")
    await api.test(pool, **FINE)
    async with api.database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), api.now)
        told = tell(await head(scope, UUID(pool)))
    for metric in ("false", "true"):
        page = await api.get(f"/pools?metric={metric}")
        assert page["pools"] == [told["metric" if metric == "true" else "us"]]
