"""A firm's weeks ahead: the office plans, a technician reads; what is changed is small and can be taken back."""

from datetime import datetime, timedelta

import pytest

from tests.web.conftest import Api, Json, new_id


async def person(api: Api, name: str) -> str:
    id_ = new_id()
    await api.post("/people", {"id": id_, "name": name}, 201)
    return id_


async def a_firm(api: Api) -> tuple[list[str], str, str]:
    """Four pools in a row; Tomas has three on Mondays, Ada one on Tuesdays."""
    pools = [
        await api.new_pool(
            settings={
                "name": f"Pool {n}",
                "time_zone": "America/Chicago",
                "latitude_deg": 41.80 + 0.01 * n,
                "longitude_deg": -88.1,
            }
        )
        for n in range(4)
    ]
    tomas, ada = await person(api, "Tomas Lind"), await person(api, "Ada Holm")
    await set_round(api, tomas, 0, [pools[0], pools[2], pools[1]])
    await set_round(api, ada, 1, [pools[3]])
    return pools, tomas, ada


async def set_round(api: Api, technician: str, weekday: int, stops: list[str]) -> None:
    body = {"id": new_id(), "technician_id": technician, "weekday": weekday, "stops": stops}
    await api.post("/rounds", body, 201)


async def days(api: Api, weeks: int = 1) -> dict[tuple[str, str], list[str]]:
    found = await api.get(f"/rounds/weeks?weeks={weeks}")
    return {(day["day"], day["technician"]): [stop["pool"] for stop in day["stops"]] for day in found["days"]}


def weekday(api: Api, wanted: int) -> str:
    """The first such day from today on, on the pools' clock (it is before midnight there)."""
    today = (api.now - timedelta(hours=5)).date()
    return str(today + timedelta(days=(wanted - today.weekday()) % 7))


async def test_the_office_plans_for_its_technicians(api: Api) -> None:
    pools, tomas, ada = await a_firm(api)
    monday, tuesday = weekday(api, 0), weekday(api, 1)
    assert await days(api) == {(monday, tomas): [pools[0], pools[2], pools[1]], (tuesday, ada): [pools[3]]}
    plan = await api.get("/rounds/weeks?weeks=1")
    assert {one["name"] for one in plan["technicians"]} == {"Tomas Lind", "Ada Holm"}
    assert [one["name"] for one in plan["pools"]] == [f"Pool {n}" for n in range(4)]
    assert not plan["days"][0]["too_long"]


async def test_a_day_that_is_none_is_refused_by_name(api: Api) -> None:
    reply = await api.client.get("/api/v1/rounds/weeks?first=9999-12-31")
    assert reply.status_code == 422
    assert "at most 21" in reply.json()["error"]["message"]


async def test_a_stop_moved_stands_there_once_and_is_taken_back(api: Api) -> None:
    pools, tomas, ada = await a_firm(api)
    monday, tuesday = weekday(api, 0), weekday(api, 1)
    move = {"id": new_id(), "pool_id": pools[2], "from_day": monday, "to_day": tuesday, "technician_id": ada}
    await api.post("/rounds/moves", move, 201)
    assert (await days(api))[tuesday, ada] == [pools[2], pools[3]]
    refused = await api.post("/rounds/moves", {**move, "id": new_id()}, 422)
    assert "reload the plan" in refused["error"]["message"]
    await api.post(f"/entries/{move['id']}/void", {"id": new_id(), "reason": "undone"})
    assert (await days(api))[monday, tomas] == [pools[0], pools[2], pools[1]]


async def test_todays_round_is_that_of_the_plan_and_the_weekly_round_stays(api: Api) -> None:
    """Moved here, moved away, work once at a pool that is on no round: the technician's page has it all."""
    pools, tomas, ada = await a_firm(api)
    today = (api.now - timedelta(hours=5)).date()
    extra = await api.new_pool()
    await set_round(api, tomas, today.weekday(), [pools[0], pools[1]])
    await set_round(api, ada, (today.weekday() + 1) % 7, [pools[3]])
    tomorrow = today + timedelta(days=1)

    async def of_today(who: str) -> Json:
        return await api.get(f"/round?person_id={who}")

    def ids(seen: Json) -> list[str]:
        return [stop["head"]["id"] for stop in seen["stops"]]

    assert ids(await of_today(tomas)) == [pools[0], pools[1]]
    for pool, first, then, who in (
        (pools[3], tomorrow, today, tomas),
        (pools[0], today, tomorrow, ada),
    ):
        move = {
            "id": new_id(),
            "pool_id": pool,
            "from_day": str(first),
            "to_day": str(then),
            "technician_id": who,
        }
        await api.post("/rounds/moves", move, 201)
    once = {"id": new_id(), "pool_id": extra, "day": str(today), "technician_id": tomas, "what": "New pump"}
    await api.post("/rounds/once", once, 201)
    seen = await of_today(tomas)
    assert sorted(ids(seen)) == sorted([pools[1], pools[3], extra])
    assert seen["standing"] == [pools[0], pools[1]]
    assert seen["nearest_next"] == []
    assert ids(await api.get(f"/round?person_id={tomas}&weekday={(today.weekday() + 1) % 7}")) == []


async def test_who_is_away_is_driven_for_and_work_once_finds_its_day(api: Api) -> None:
    pools, tomas, ada = await a_firm(api)
    monday, tuesday = weekday(api, 0), weekday(api, 1)
    away: dict[str, Json] = {"id": new_id(), "technician_id": ada, "first": tuesday, "last": tuesday}
    await api.post("/rounds/absences", {**away, "last": "2020-01-01"}, 422)
    await api.post("/rounds/absences", {**away, "technician_id": new_id()}, 422)
    await api.post("/rounds/absences", away, 201)
    plan = await api.get("/rounds/weeks?weeks=1")
    assert [one["body"]["technician_id"] for one in plan["absences"]] == [ada]
    if monday < tuesday:
        assert pools[3] in (await days(api))[monday, tomas]
    once = {"id": new_id(), "pool_id": pools[0], "day": monday, "minutes": 60, "what": "New pump"}
    await api.post("/rounds/once", once, 201)
    found = await api.get("/rounds/weeks?weeks=1")
    (stop,) = [stop for day in found["days"] for stop in day["stops"] if stop["extra"]]
    assert (stop["pool"], stop["extra"], stop["entry"]) == (pools[0], ["New pump"], once["id"])


async def test_fair_days_are_a_suggestion_until_they_are_taken(api: Api) -> None:
    pools, _, _ = await a_firm(api)
    found = await api.get("/rounds/fair")
    assert found["after"]["longest_min"] < found["before"]["longest_min"]
    assert sorted(len(one["pools"]) for one in found["rounds"]) == [2, 2]
    before = await days(api)
    await api.post("/rounds/fair", {"id": new_id()}, 201)
    after = await days(api)
    assert before != after
    assert sorted(stop for stops in after.values() for stop in stops) == sorted(pools)
    assert set(after) == set(before)


async def test_a_stop_takes_as_long_as_it_took_before(api: Api) -> None:
    """Begun and ended twice: 30 and 40 minutes."""
    pools, _, _ = await a_firm(api)
    for minutes in (30, 40):
        await api.post(f"/pools/{pools[0]}/visit", {"id": new_id(), "kind": "stop"}, 201)
        api.pass_time(minutes=minutes)
        await api.post(f"/pools/{pools[0]}/visits", {"id": new_id()}, 201)
        api.pass_time(days=7)
    await api.pools()  # the list makes the summaries anew
    found = await api.get("/rounds/weeks?weeks=1")
    (stop,) = [stop for day in found["days"] for stop in day["stops"] if stop["pool"] == pools[0]]
    assert stop["minutes"] == pytest.approx(35, abs=0.01)


async def test_a_late_start_moves_the_day_and_a_day_driven_tells_what_it_used(api: Api) -> None:
    pools, tomas, _ = await a_firm(api)
    await set_round(api, tomas, (api.now - timedelta(hours=5)).weekday(), [pools[0], pools[1]])
    product = {"id": new_id(), "chemical": "sodium_hypochlorite", "strength_percent": 10, "package": "1 gal"}
    await api.post("/shelf", product, 201)
    bought = {"id": new_id(), "product_id": product["id"], "packages": 10, "price": 50}
    await api.post("/shelf/purchases", bought, 201)

    async def about() -> list[datetime | None]:
        stops = (await api.get(f"/round?person_id={tomas}"))["stops"]
        return [datetime.fromisoformat(one["about_at"]) if one["about_at"] else None for one in stops]

    first, second = await about()
    assert first is not None
    assert second is not None
    # 0.01 degrees of latitude are 1.11 km, 1.45 by road, 2.2 minutes; the stop takes 20, parking 3.
    assert (second - first).total_seconds() / 60 == pytest.approx(25.2, abs=0.1)
    api.pass_time(minutes=30)
    late = (await about())[1]
    assert late is not None
    assert late - second >= timedelta(minutes=30)
    pour = {"id": new_id(), "person_id": tomas, "product_id": product["id"], "amount": "1 gal"}
    pour |= {"chemical": "sodium_hypochlorite", "strength_percent": 10}
    await api.post(f"/pools/{pools[0]}/additions", pour, 201)
    await api.post(f"/pools/{pools[0]}/visits", {"id": new_id(), "person_id": tomas}, 201)
    assert (await about())[0] is None
    closed = await api.get(f"/round/closed?person_id={tomas}")
    assert [(one["label"], one["amount"]) for one in closed["used"]] == [("Liquid chlorine 10 %", "1 gal")]
    (row,) = closed["pools"]
    assert (row["pool_id"], row["ended"]) == (pools[0], True)
    assert row["cost"] == pytest.approx(5.0)


async def test_an_own_task_for_many_pools_stands_on_each_ones_list_and_in_the_visit(api: Api) -> None:
    pools, _, _ = await a_firm(api)
    body: dict[str, Json] = {"id": new_id(), "pool_ids": pools[:2], "title": "Oil the gate's hinge"}
    refused = await api.post("/care/tasks", body, 422)
    assert "every so many days" in refused["error"]["message"]
    key = await api.post("/care/tasks", {**body, "days": 30, "note": "both sides"}, 201)

    async def standing(pool: str) -> list[str]:
        found = await api.get(f"/pools/{pool}/care")
        return [item["standing"] for item in found["items"] if item["task"] == key]

    assert [await standing(pool) for pool in pools[:3]] == [["due"], ["due"], []]
    await api.post(f"/pools/{pools[0]}/visit", {"id": new_id(), "kind": "stop"}, 201)
    lines = (await api.get(f"/pools/{pools[0]}/visit"))["lines"]
    assert "Oil the gate's hinge" in [line["title"] for line in lines]
    await api.post(f"/pools/{pools[0]}/visit/usual", {"id": new_id(), "keys": [key]}, 201)
    assert await standing(pools[0]) == ["later"]
    log = await api.get(f"/pools/{pools[0]}/log")
    assert any("oil the gate" in str(line).casefold() for line in log)
    await api.post(f"/pools/{pools[1]}/care/interval", {"id": new_id(), "task": key, "off": True}, 201)
    assert await standing(pools[1]) == []


async def test_a_stop_moved_to_a_later_day_is_there_when_that_day_has_come(api: Api) -> None:
    """And so is what is driven in another's place; what was driven yesterday is not asked for again."""
    pools, tomas, ada = await a_firm(api)
    first = (api.now - timedelta(hours=5)).date()
    second, third = first + timedelta(days=1), first + timedelta(days=2)
    await set_round(api, ada, 1, [])
    for day, who, stops in ((first, tomas, pools[:2]), (third, tomas, [pools[2]]), (first, ada, [pools[3]])):
        await set_round(api, who, day.weekday(), stops)
    move = {
        "id": new_id(),
        "pool_id": pools[0],
        "from_day": str(first),
        "to_day": str(third),
        "technician_id": tomas,
    }
    await api.post("/rounds/moves", move, 201)
    away = {"id": new_id(), "technician_id": ada, "first": str(first), "last": str(first)}
    await api.post("/rounds/absences", away, 201)
    before = await days(api)
    assert sorted(before[str(first), tomas]) == sorted([pools[1], pools[3]])
    assert sorted(before[str(third), tomas]) == sorted([pools[0], pools[2]])
    api.pass_time(days=1)
    assert not any(pools[3] in stops for (day, _), stops in (await days(api)).items() if day <= str(third))
    api.pass_time(days=1)
    assert second < third
    assert sorted((await days(api))[str(third), tomas]) == sorted([pools[0], pools[2]])
    stops = (await api.get(f"/round?person_id={tomas}"))["stops"]
    assert sorted(stop["head"]["id"] for stop in stops) == sorted([pools[0], pools[2]])


async def test_what_is_sent_again_is_answered(api: Api) -> None:
    pools, _, ada = await a_firm(api)
    monday, tuesday = weekday(api, 0), weekday(api, 1)
    move = {"id": new_id(), "pool_id": pools[2], "from_day": monday, "to_day": tuesday, "technician_id": ada}
    fair = {"id": new_id()}
    for path, body in (
        ("/rounds/moves", move),
        ("/rounds/moves", move),
        ("/rounds/fair", fair),
        ("/rounds/fair", fair),
    ):
        await api.post(path, body, 201)


async def test_a_round_belongs_to_somebody_who_is_here(api: Api) -> None:
    pools, _, _ = await a_firm(api)
    body = {"id": new_id(), "technician_id": new_id(), "weekday": 2, "stops": pools[:1]}
    refused = await api.post("/rounds", body, 422)
    assert "no such person" in refused["error"]["message"]


async def test_a_day_is_of_whoever_drove_it(api: Api) -> None:
    """A stop ended in another's place, with nothing poured, is in the day of who was there, not of whose round it is."""
    pools, tomas, ada = await a_firm(api)
    await api.post(f"/pools/{pools[3]}/visits", {"id": new_id(), "person_id": tomas}, 201)
    assert [row["pool_id"] for row in (await api.get(f"/round/closed?person_id={tomas}"))["pools"]] == [
        pools[3]
    ]
    assert (await api.get(f"/round/closed?person_id={ada}"))["pools"] == []


async def test_the_minerals_oxidizer_closes_the_pool_as_any_chlorine_over_the_limit(api: Api) -> None:
    pool = await api.new_pool(
        equipment={"surface": "plaster", "chlorination": "mineral", "filter": "cartridge"}
    )
    dichlor = {"id": new_id(), "chemical": "sodium_dichlor", "strength_percent": 56, "package": "5 lb"}
    await api.post("/shelf", dichlor, 201)
    fields = {"free_chlorine": "2", "ph": "7.5", "total_alkalinity": "90", "calcium_hardness": "250"}
    await api.test(pool, **fields, cyanuric_acid="20", temperature_c="82F")
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), "clarity": "clear", "level": "normal"}, 201)
    assert (await api.get(f"/pools/{pool}/assessment"))["swim"]["code"] == "yes"
    sheet = await api.post(f"/pools/{pool}/sheets", {"id": new_id(), "asked": {"plan": "mineral"}}, 201)
    (pour,) = [line for line in sheet["steps"] if line["step"]["kind"] == "add"]
    tick = {"id": new_id(), "step_number": pour["number"], "outcome": "done"}
    await api.post(f"/pools/{pool}/sheets/{sheet['id']}/ticks", tick)
    api.pass_time(hours=2)
    found = await api.get(f"/pools/{pool}/assessment")
    assert found["swim"]["code"] != "yes"
    assert found["expected"]["free_chlorine"] > 5
