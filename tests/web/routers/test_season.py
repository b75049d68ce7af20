"""Opening and closing over HTTP: previewed, kept, changed, ticked, on the due list, the calendar and the
strip.
"""

from datetime import date
from typing import Any
from uuid import uuid4

import pytest

from tests.web.conftest import Api, new_id

Json = Any
SALT_POOL = {"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"}


async def keep(api: Api, pool: str, **changes: Json) -> Json:
    body = {"id": new_id(), "list_id": str(uuid4()), "which": "closing", "day": "2026-06-04", **changes}
    return await api.post(f"/pools/{pool}/season-lists", body, 201)


async def record_step(api: Api, pool: str, list_id: str, item: str, **changes: Json) -> Json:
    body = {"id": new_id(), "list_id": list_id, "item": item, **changes}
    return await api.post(f"/pools/{pool}/season-lists/ticks", body, 201)


def keys(view: Json) -> list[str]:
    return [line["item"]["key"] for line in view["items"]]


async def test_a_closing_for_this_pool_on_a_day(api: Api) -> None:
    pool = await api.new_pool(equipment=SALT_POOL)
    plan = await api.get(f"/pools/{pool}/season-plan?which=closing&day=2026-10-17")
    assert plan["items"][0]["item"]["day"] == "2026-10-12"
    cell = next(line["item"] for line in plan["items"] if line["item"]["key"] == "cell")
    assert any("Never power a cell without flow" in caution for caution in cell["cautions"])
    assert "cell spacer" in [one["name"] for one in plan["materials"]]
    assert plan["is_kept"] is False
    assert await api.get(f"/pools/{pool}/season-lists") == []


@pytest.mark.parametrize(
    ("which", "day", "said"),
    [
        ("opening", "2027-03-01", "Early is cheap"),
        ("opening", "2026-07-20", "expect algae"),
        ("closing", "2026-07-20", "Wait if you can"),
        ("closing", "2026-12-20", ""),
    ],
)
async def test_early_and_late_are_judged_by_the_water_of_that_day(
    api: Api, which: str, day: str, said: str
) -> None:
    """Whatever it is today: an opening next March is early although the water is warm now."""
    pool = await api.new_pool()
    await api.test(pool, free_chlorine="3", total_chlorine="3", ph="7.5", temperature_c="82")
    notes = " ".join((await api.get(f"/pools/{pool}/season-plan?which={which}&day={day}"))["notes"])
    assert said in notes
    assert ("65" in notes) == bool(said)


async def test_a_green_pool_is_handed_over_at_opening(api: Api) -> None:
    pool = await api.new_pool()
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), "clarity": "green", "level": "normal"}, 201)
    plan = await api.get(f"/pools/{pool}/season-plan?which=opening&day=2026-06-02&kind=above_ground")
    rescue = next(line["item"] for line in plan["items"] if line["item"]["key"] == "rescue")
    assert rescue["station"] == "rescue"


async def test_amounts_come_from_the_last_test_against_the_shelf(api: Api) -> None:
    """Salt 1000 to 3200 in 21,000 gal takes nine bags of 40 lb (2200 ppm x 79.7 m3 / 18.1 kg = 9.7, rounded
    down); two stand there.
    """
    pool = await api.new_pool(equipment=SALT_POOL)
    salt, bleach = str(uuid4()), str(uuid4())
    for id_, chemical, strength, package in (
        (salt, "sodium_chloride", 99.5, "40 lb"),
        (bleach, "sodium_hypochlorite", 10.0, "2.5 gal"),
    ):
        await api.post(
            "/shelf", {"id": id_, "chemical": chemical, "strength_percent": strength, "package": package}
        )
    await api.post("/shelf/purchases", {"id": new_id(), "product_id": salt, "packages": 2})
    await api.test(
        pool,
        free_chlorine="1",
        total_chlorine="1",
        ph="7.5",
        total_alkalinity="80",
        calcium_hardness="280",
        cyanuric_acid="70",
        salt="1000",
        temperature_c="68",
    )
    plan = await api.get(f"/pools/{pool}/season-plan?which=opening&day=2026-06-03")
    line = next(one for one in plan["items"] if one["item"]["key"] == "salt")["doses"]["lines"][0]
    assert (line["amount"], line["parts"]) == ("9 bags of 40 lb", 3)
    assert line["short"].endswith("lb")
    shock = next(one for one in plan["items"] if one["item"]["key"] == "first_shock")
    assert shock["doses"]["lines"][0]["product_id"] == bleach


async def test_without_a_test_it_says_what_to_test(api: Api) -> None:
    pool = await api.new_pool()
    plan = await api.get(f"/pools/{pool}/season-plan?which=opening&day=2026-06-03")
    shock = next(one for one in plan["items"] if one["item"]["key"] == "first_shock")
    assert shock["doses"]["lines"] == []
    assert "test" in shock["doses"]["left"][0]


async def test_a_list_is_kept_changed_ticked_and_dropped(api: Api) -> None:
    pool, list_id = await api.new_pool(), str(uuid4())
    own = [{"key": "own-1", "day": -1, "title": "Lamp out"}]
    view = (await keep(api, pool, list_id=list_id, left_out=["store"], own=own))[0]
    assert "store" not in keys(view)
    assert "own-1" in keys(view)
    done_as = (await record_step(api, pool, list_id, "own-1", note="bulb in the shed"))[0]
    assert done_as["done"] == 1
    again = {"id": new_id(), "list_id": list_id, "item": "own-1"}
    second = await api.client.post(f"/api/v1/pools/{pool}/season-lists/ticks", json=again)
    assert second.status_code == 409
    undone = next(line["ticked"] for line in done_as["items"] if line["item"]["key"] == "own-1")["entry_id"]
    await api.post(f"/entries/{undone}/void", {"id": new_id()})
    assert (await api.get(f"/pools/{pool}/season-lists"))[0]["done"] == 0
    assert await keep(api, pool, list_id=list_id, dropped=True) == []


async def test_what_is_at_hand_is_ticked_by_itself(api: Api) -> None:
    """A thing bought is ticked like an item, counts for no item, and is taken back like one."""
    pool, list_id = await api.new_pool(), str(uuid4())
    await keep(api, pool, list_id=list_id)
    view = (await record_step(api, pool, list_id, "have/water bags"))[0]
    bags = next(one for one in view["materials"] if one["name"] == "water bags")
    assert (bags["at_hand"], view["done"]) == (True, 0)
    reported = next(line for line in await api.get(f"/pools/{pool}/log") if line["kind"] == "list_tick")
    assert reported["title"] == "At hand: water bags"
    again = {"id": new_id(), "list_id": list_id, "item": "have/water bags"}
    assert (await api.client.post(f"/api/v1/pools/{pool}/season-lists/ticks", json=again)).status_code == 409
    await api.post(f"/entries/{bags['entry_id']}/void", {"id": new_id()})
    view = (await api.get(f"/pools/{pool}/season-lists"))[0]
    assert not any(one["at_hand"] for one in view["materials"])
    moat = {"id": new_id(), "list_id": list_id, "item": "have/a moat"}
    assert (await api.client.post(f"/api/v1/pools/{pool}/season-lists/ticks", json=moat)).status_code == 422


async def test_a_new_list_begins_where_the_last_one_ended(api: Api) -> None:
    pool = await api.new_pool()
    before = (await api.get(f"/pools/{pool}/climate"))["suggested"]
    assert (before["kind"], before["cover"]) == ("in_ground", "solid")
    await keep(api, pool, kind="above_ground", cover="mesh", winter="mild", skimmer_plate=True)
    after = (await api.get(f"/pools/{pool}/climate"))["suggested"]
    assert (after["kind"], after["cover"], after["winter"], after["skimmer_plate"]) == (
        "above_ground",
        "mesh",
        "mild",
        True,
    )
    assert date.fromisoformat(after["opening_day"]) >= date(2026, 6, 1)


async def test_after_a_pour_it_says_until_when_to_circulate(api: Api) -> None:
    pool, list_id = await api.new_pool(), str(uuid4())
    await keep(api, pool, list_id=list_id)
    view = (await record_step(api, pool, list_id, "shock"))[0]
    shock = next(line for line in view["items"] if line["item"]["key"] == "shock")
    assert shock["circulate_until"] > shock["ticked"]["at"]


async def test_what_it_asks_for_is_due_and_the_duties_come_round(api: Api) -> None:
    """Winter duties go to the schedule, the calendar and the strip; a tick on the due list counts on the
    list.
    """
    pool, list_id = await api.new_pool(), str(uuid4())
    await keep(api, pool, list_id=list_id)
    due = (await api.get(f"/pools/{pool}/care"))["items"]
    duty = next(item for item in due if item["task"].endswith("/duty_water"))
    assert date.fromisoformat(duty["due_on"]) == date(2026, 6, 25)
    api.pass_time(days=24)
    await api.post(f"/pools/{pool}/care/done", {"id": new_id(), "task": duty["task"]})
    api.pass_time(minutes=1)
    later = next(i for i in (await api.get(f"/pools/{pool}/care"))["items"] if i["task"] == duty["task"])
    assert date.fromisoformat(later["due_on"]) == date(2026, 7, 16)
    days = await api.get(f"/pools/{pool}/calendar?days=60")
    assert sum(item["task"] == duty["task"] for day in days for item in day["items"]) == 2
    marks = (await api.get(f"/pools/{pool}/season"))["marks"]
    assert any(mark["text"] == "Closing" for mark in marks)


async def test_left_out_with_a_reason_on_the_due_list_is_left_out_on_the_list(api: Api) -> None:
    pool, list_id = await api.new_pool(), str(uuid4())
    await keep(api, pool, list_id=list_id, day="2026-06-02")
    task = f"season/{list_id}/algaecide"
    body = {"id": new_id(), "task": task, "until": None, "reason": "not used here"}
    await api.post(f"/pools/{pool}/care/put-off", body)
    view = (await api.get(f"/pools/{pool}/season-lists"))[0]
    reported = next(line["ticked"] for line in view["items"] if line["item"]["key"] == "algaecide")
    assert (reported["outcome"], reported["note"]) == ("skipped", "not used here")


async def test_ones_own_climate_moves_the_crossing(api: Api) -> None:
    """A month's water as typed, in Fahrenheit or with its unit; the crossing follows by straight lines."""
    pool = await api.new_pool()
    before = await api.get(f"/pools/{pool}/climate")
    assert (before["own"], before["opening"]["source"]) == (False, "table")
    monthly = ["40", "42", "50", "60", "70", "78", "82", "82", "75", "64", "52", "5 C"]
    after = await api.post(f"/pools/{pool}/climate", {"id": new_id(), "monthly": monthly}, 201)
    # 60 F on 15 April, 70 F on 15 May: 64.4 F (18 C) lies 13 days on.
    assert (after["own"], after["opening"]["on"]) == (True, "2027-04-28")
    cold = await api.client.post(
        f"/api/v1/pools/{pool}/climate", json={"id": new_id(), "monthly": ["200"] * 12}
    )
    assert cold.status_code == 422


@pytest.mark.parametrize(
    "query",
    ["which=closing", "which=nap&day=2026-10-17", "which=closing&day=2036-10-17", "which=opening&day=soon"],
)
async def test_what_cannot_be_is_refused(api: Api, query: str) -> None:
    pool = await api.new_pool()
    reply = await api.client.get(f"/api/v1/pools/{pool}/season-plan?{query}")
    assert reply.status_code == 422
    assert reply.json()["error"]["message"]


@pytest.mark.parametrize(
    ("changes", "said"),
    [
        ({"day": "2036-01-01"}, "within a year"),
        ({"own": [{"key": "a", "day": 0, "title": " "}]}, "a few words"),
        ({"own": [{"key": "a", "day": 0, "title": "x"}, {"key": "a", "day": 1, "title": "y"}]}, "keys of their own"),
    ],
)  # fmt: skip
async def test_a_list_that_cannot_be_kept_is_told(api: Api, changes: Json, said: str) -> None:
    pool = await api.new_pool()
    body = {"id": new_id(), "list_id": str(uuid4()), "which": "closing", "day": "2026-06-04", **changes}
    reply = await api.client.post(f"/api/v1/pools/{pool}/season-lists", json=body)
    assert reply.status_code == 422
    assert said in reply.json()["error"]["message"]


async def test_a_tick_on_nothing_is_told(api: Api) -> None:
    pool, list_id = await api.new_pool(), str(uuid4())
    body = {"id": new_id(), "list_id": list_id, "item": "cover"}
    assert (await api.client.post(f"/api/v1/pools/{pool}/season-lists/ticks", json=body)).status_code == 404
    await keep(api, pool, list_id=list_id)
    body = {"id": new_id(), "list_id": list_id, "item": "moat"}
    assert (await api.client.post(f"/api/v1/pools/{pool}/season-lists/ticks", json=body)).status_code == 422
