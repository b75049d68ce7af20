"""Care over HTTP: from the due list through a procedure to the journal; benches, feed, what is refused."""

from dataclasses import replace
from datetime import UTC, date, datetime, timedelta
from uuid import UUID
from zoneinfo import ZoneInfo

import pytest
import vobject
from icalendar import Calendar

from kumpan.core.quantities.units import L_PER_US_GAL
from kumpan.services.journal.ledger import Scope
from kumpan.services.people.links import LinkKind, end_link, new_link
from kumpan.services.people.queries import the_workspace
from tests.web.conftest import START, Api, Json, new_id, pool_body

FULL = {
    "free_chlorine": "2.5", "total_chlorine": "2.5", "ph": "7.5", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "40", "temperature_c": "82F",
}  # fmt: skip
SALT = {"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"}


async def tested(api: Api, **changes: Json) -> str:
    pool = await api.new_pool(**changes)
    await api.test(pool, **FULL)
    return pool


async def item(api: Api, pool: str, task: str) -> Json:
    found = {one["task"]: one for one in (await api.get(f"/pools/{pool}/care"))["items"]}
    return found.get(task)


async def test_a_backwash_from_start_to_journal(api: Api) -> None:
    """Pressure in, water out: the date moves, the clean pressure renews, the water is reckoned as diluted."""
    pool = await tested(api)
    plant = {"id": new_id(), "pump_flow": "60 gpm", "clean_pressure": "10 psi", "windows": [[480, 960]]}
    await api.post(f"/pools/{pool}/plant", plant, 201)
    await api.post(f"/pools/{pool}/pressures", {"id": new_id(), "pressure": "19 psi"}, 201)
    api.pass_time(minutes=1)
    due = (await api.get(f"/pools/{pool}/today"))["items"]
    assert due[0]["task"] == "pressure"
    assert due[0]["procedure"] == "backwash"
    procedure = await api.get(f"/pools/{pool}/procedures/backwash")
    handle = next(step for step in procedure["steps"] if "BACKWASH" in step["text"])
    assert any("Never move the handle with the pump on" in caution for caution in handle["cautions"])
    assert procedure["asks_at_end"] == []
    done = {
        "id": new_id(),
        "values": {
            "pressure_before_kpa": "19",
            "wash_s": "120",
            "rinse_s": "30 s",
            "pressure_after_kpa": "11 psi",
        },
    }
    found = await api.post(f"/pools/{pool}/procedures/backwash/finish", done, 201)
    assert "150 gal went to waste" in found["water_text"]
    assert found["next_dates"] == ["Backwash the sand filter: next June 29"]
    again = await api.post(f"/pools/{pool}/procedures/backwash/finish", done, 201)
    assert again["entry_id"] == found["entry_id"]
    lines = await api.get(f"/pools/{pool}/log")
    assert [line["kind"] for line in lines[:2]] in (["water", "care"], ["care", "water"])
    assert sum(line["kind"] == "water" for line in lines) == 1
    api.pass_time(minutes=5)
    assert "pressure" not in {one["task"] for one in (await api.get(f"/pools/{pool}/today"))["items"]}
    filter_ = (await api.get(f"/pools/{pool}/benches"))["filter"]
    assert filter_["clean_kpa"] == pytest.approx(11 * 6.894757, rel=1e-5)


async def test_without_a_known_flow_the_procedure_asks_for_it(api: Api) -> None:
    pool = await tested(api)
    procedure = await api.get(f"/pools/{pool}/procedures/backwash?metric=true")
    assert procedure["asks_at_end"][0]["unit"] == "L/min"
    done = {"id": new_id(), "values": {"wash_s": "60", "flow_l_min": "200"}}
    found = await api.post(f"/pools/{pool}/procedures/backwash/finish?metric=true", done, 201)
    assert found["water_text"].startswith("200 L went to waste")


async def test_a_backwash_in_a_rescue_counts_as_care_and_takes_its_water(api: Api) -> None:
    pool = await tested(api)
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), "clarity": "green", "level": "normal"}, 201)
    await api.post(f"/pools/{pool}/rescue", {"id": new_id(), "severity": "green"})
    sheet = await api.post(f"/pools/{pool}/sheets", {"id": new_id(), "asked": {"plan": "rescue"}}, 201)
    (step,) = [line for line in sheet["steps"] if line["step"]["title"].startswith("Backwash until")]
    tick = {"id": new_id(), "step_number": step["number"], "outcome": "done"}
    before = (await item(api, pool, "backwash"))["due_on"]
    api.pass_time(days=1)
    await api.post(f"/pools/{pool}/sheets/{sheet['id']}/ticks", tick)
    again = await api.post(f"/pools/{pool}/sheets/{sheet['id']}/ticks", tick)
    assert again["id"] == sheet["id"]
    assert (await item(api, pool, "backwash"))["due_on"] > before
    assert [line["kind"] for line in await api.get(f"/pools/{pool}/log")].count("water") == 1


async def test_a_backwash_that_is_only_ticked_loses_water_by_an_estimate_that_is_said(api: Api) -> None:
    pool = await tested(api)
    await api.post(f"/pools/{pool}/care/done", {"id": new_id(), "task": "backwash"}, 201)
    (water,) = [line for line in await api.get(f"/pools/{pool}/log") if line["kind"] == "water"]
    assert "gal" in water["detail"]
    found = await api.post(f"/pools/{pool}/procedures/backwash/finish", {"id": new_id(), "values": {}}, 201)
    assert "estimated by a usual pump for this pool" in found["water_text"]


async def test_a_backwash_of_an_opening_takes_its_water_by_either_door_and_what_is_sent_again_is_answered(
    api: Api,
) -> None:
    pool, kept = await tested(api), new_id()
    day = str(api.now.date())
    saved = {"id": new_id(), "list_id": kept, "which": "opening", "day": day}
    saved |= {"kind": "in_ground", "cover": "solid", "winter": "frost"}
    await api.post(f"/pools/{pool}/season-lists", saved, 201)
    tick = {"id": new_id(), "list_id": kept, "item": "filter_sand", "outcome": "done"}
    level = {"id": new_id(), "task": f"season/{kept}/level"}
    after = {"id": new_id(), "pool_ids": [pool], "title": "Look at the net", "after": "storm"}
    key = await api.post("/care/tasks", after, 201)
    await api.post(f"/pools/{pool}/events", {"id": new_id(), "kind": "storm"}, 201)
    own = {"id": new_id(), "task": key}
    for _ in range(2):
        await api.post(f"/pools/{pool}/season-lists/ticks", tick, 201)
        for done in (level, own):
            await api.post(f"/pools/{pool}/care/done", done, 201)
    log = await api.get(f"/pools/{pool}/log")
    assert [line["kind"] for line in log].count("water") == 1


@pytest.mark.parametrize("path", ["care/done", "procedures/backwash/finish"])
async def test_a_backwash_taken_back_gives_its_water_back(api: Api, path: str) -> None:
    pool, id_ = await tested(api), new_id()
    body = {"task": "backwash"} if path == "care/done" else {"values": {"wash_s": "120", "flow_l_min": "200"}}
    await api.post(f"/pools/{pool}/{path}", {"id": id_, **body}, 201)
    void = {"id": new_id(), "reason": "it was the neighbor's"}
    for _ in range(2):  # sent again it is answered
        await api.post(f"/entries/{id_}/void", void)
    log = await api.get(f"/pools/{pool}/log")
    (water,) = [line for line in log if line["kind"] == "water"]
    assert water["taken_back"]


async def test_a_backwash_dilutes_the_water_that_is_reckoned_with(api: Api) -> None:
    pool = await tested(api, equipment=SALT)
    await api.test(pool, salt="3200")
    liters = 21_065 * L_PER_US_GAL
    done = {"id": new_id(), "values": {"wash_s": "600", "flow_l_min": f"{0.006 * liters} l/min"}}
    await api.post(f"/pools/{pool}/procedures/backwash/finish", done, 201)
    api.pass_time(minutes=1)
    why = (await item(api, pool, "test_salt_diluted"))["why"]
    assert "About 6 % of the water" in why


@pytest.mark.parametrize(
    ("values", "says"),
    [
        ({"pressure_after_kpa": "twelve"}, "cannot be read"),
        ({"pressure_after_kpa": "9000 psi"}, "more than can be"),
        ({"weather": "1"}, "is not asked for here"),
        ({"wash_s": "2 parsec"}, "not a number"),
    ],
)
async def test_a_bad_value_is_told_with_its_field_and_nothing_is_kept(
    api: Api, values: dict[str, str], says: str
) -> None:
    pool = await tested(api)
    reply = await api.client.post(
        f"/api/v1/pools/{pool}/procedures/backwash/finish", json={"id": new_id(), "values": values}
    )
    assert reply.status_code == 422
    assert says in reply.json()["error"]["message"]
    assert reply.json()["error"]["field"] == next(iter(values))
    assert (await api.get(f"/pools/{pool}/log"))[0]["kind"] == "test"


async def test_a_procedure_of_another_filter_is_not_here(api: Api) -> None:
    pool = await tested(api)
    assert (await api.client.get(f"/api/v1/pools/{pool}/procedures/cartridge_soak")).status_code == 404
    assert (await api.client.get(f"/api/v1/pools/{pool}/procedures/cell")).status_code == 404


async def test_put_off_left_out_own_interval_and_off_the_list(api: Api) -> None:
    pool = await tested(api)
    api.pass_time(days=8)
    assert (await item(api, pool, "vacuum"))["standing"] == "overdue"
    off = {"id": new_id(), "task": "vacuum", "until": "2026-06-12", "reason": "away"}
    await api.post(f"/pools/{pool}/care/put-off", off, 201)
    assert (await item(api, pool, "vacuum"))["standing"] in ("later", "soon")
    assert (await item(api, pool, "vacuum"))["due_on"] == "2026-06-08"
    left = {"id": new_id(), "task": "brush", "reason": "windy"}
    await api.post(f"/pools/{pool}/care/put-off", left, 201)
    assert (await item(api, pool, "brush"))["due_on"] > "2026-06-09"
    mine = {"id": new_id(), "task": "waterline", "days": 12}
    await api.post(f"/pools/{pool}/care/interval", mine, 201)
    assert (await item(api, pool, "waterline"))["days"] == 12
    await api.post(f"/pools/{pool}/care/interval", {"id": new_id(), "task": "skim", "off": True}, 201)
    found = await api.get(f"/pools/{pool}/care")
    assert "skim" not in {one["task"] for one in found["items"]}
    assert found["off"] == [{"key": "skim", "title": "Skim the surface"}]
    await api.post(f"/pools/{pool}/care/interval", {"id": new_id(), "task": "skim"}, 201)
    assert await item(api, pool, "skim")


@pytest.mark.parametrize(
    ("body", "says"),
    [
        ({"task": "vacuum"}, "Say why"),
        ({"task": "vacuum", "until": "2020-01-01"}, "after today"),
        ({"task": "laundry", "until": "2026-06-20"}, "not on this pool"),
    ],
)
async def test_a_put_off_that_cannot_be_is_refused(api: Api, body: Json, says: str) -> None:
    pool = await tested(api)
    reply = await api.client.post(f"/api/v1/pools/{pool}/care/put-off", json={"id": new_id(), **body})
    assert reply.status_code == 422
    assert says in reply.text


async def test_done_by_somebody_else_moves_the_date_and_undo_takes_it_back(api: Api) -> None:
    pool = await tested(api)
    api.pass_time(days=8)
    done = {"id": new_id(), "task": "vacuum", "note": "the neighbor"}
    await api.post(f"/pools/{pool}/care/done", done, 201)
    assert (await item(api, pool, "vacuum"))["standing"] == "later"
    await api.post(f"/entries/{done['id']}/void", {"id": new_id(), "reason": ""})
    assert (await item(api, pool, "vacuum"))["standing"] == "overdue"


async def test_a_storm_asks_for_a_test(api: Api) -> None:
    pool = await tested(api)
    api.pass_time(hours=1)
    await api.post(f"/pools/{pool}/events", {"id": new_id(), "kind": "storm"}, 201)
    assert (await item(api, pool, "test_event"))["station"] == "slip"
    api.pass_time(hours=1)
    await api.test(pool, free_chlorine="2", ph="7.5")
    assert await item(api, pool, "test_event") is None


async def test_the_preset_is_the_pools_own_choice(api: Api) -> None:
    pool = await tested(api)
    assert (await api.get(f"/pools/{pool}/care"))["preset"] == "owner"
    settings = {**pool_body(pool)["settings"], "care_preset": "service"}
    await api.post(f"/pools/{pool}/settings", {"id": new_id(), "settings": settings})
    assert (await api.get(f"/pools/{pool}/care"))["preset"] == "service"
    assert (await item(api, pool, "skim"))["days"] == 7


async def test_benches_of_a_salt_pool(api: Api) -> None:
    pool = await tested(api, equipment=SALT)
    empty = await api.get(f"/pools/{pool}/benches")
    assert empty["cell"]["bench"] is None
    cell = {"id": new_id(), "output_g_per_h": 18.9, "percent": 60, "hours_per_day": 10}
    await api.post(f"/pools/{pool}/cell", cell, 201)
    found = await api.get(f"/pools/{pool}/benches")
    assert found["cell"]["bench"]["boost_mg_l"] == pytest.approx(6.0 * 20_000 / 21_065, abs=0.05)
    assert found["cell"]["life"]["rated_h"] == 8000
    assert found["cell"]["index"]
    assert found["circulation"]["wanted_hours"] == 10
    assert (await api.get(f"/pools/{await tested(api)}/benches"))["cell"] is None


async def test_a_plant_that_cannot_be_is_refused_with_its_field(api: Api) -> None:
    pool = await tested(api)
    for body, field in (
        ({"pump_flow": "fast"}, "pump_flow"),
        ({"pump_flow": "90000 gpm"}, "pump_flow"),
        ({"clean_pressure": "900 psi"}, "clean_pressure"),
        ({"media_since": "2024-04-01T00:00:00"}, "media_since"),
    ):
        reply = await api.client.post(f"/api/v1/pools/{pool}/plant", json={"id": new_id(), **body})
        assert reply.status_code == 422
        assert reply.json()["error"]["field"] == field


async def test_a_machine_brings_its_care_and_its_parts_are_noted(api: Api) -> None:
    pool, robot = await tested(api), new_id()
    machine = {"id": new_id(), "machine_id": robot, "kind": "robot", "label": "The blue one"}
    await api.post(f"/pools/{pool}/machines", machine, 201)
    await api.post(f"/pools/{pool}/parts", {"id": new_id(), "part": "Brush", "machine_id": robot}, 201)
    await api.post(f"/pools/{pool}/parts", {"id": new_id(), "part": "Brush", "machine_id": new_id()}, 422)
    (seen,) = (await api.get(f"/pools/{pool}/benches"))["machines"]
    assert (seen["name"], seen["label"]) == ("Robot cleaner", "The blue one")
    assert [part["part"] for part in seen["parts"]] == ["Brush"]
    listed = [
        one for one in (await api.get(f"/pools/{pool}/care"))["items"] if "The blue one" in one["title"]
    ]
    assert len(listed) == 2
    await api.post(f"/pools/{pool}/care/done", {"id": new_id(), "task": listed[0]["task"]}, 201)
    log = await api.get(f"/pools/{pool}/log")
    assert not any(
        "machine_" in str(line) and "title" in line and "machine_" in line["title"] for line in log
    )


async def test_lamps_read_by_hand_stand_on_the_list_until_they_are_dark(api: Api) -> None:
    pool = await api.new_pool(equipment={"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"})

    async def tell(lamps: list[str], status: int = 201) -> None:
        await api.post(f"/pools/{pool}/lamps", {"id": new_id(), "lamps": lamps}, status)

    async def on_the_list() -> list[str]:
        found = await api.get(f"/pools/{pool}/today")
        return [item["why"] for item in found["items"] if item["task"] == "device_lamp"]

    await tell(["disco"], 422)
    await tell(["no_flow", "low_salt"])
    cell = (await api.get(f"/pools/{pool}/benches"))["cell"]
    assert {lamp["key"] for lamp in cell["lamps"] if lamp["lit"]} == {"low_salt", "no_flow"}
    (why,) = await on_the_list()
    assert "low salt, no flow" in why
    assert "hand test before adding salt" in why
    await tell([])
    assert await on_the_list() == []


async def test_an_interview_is_asked_and_kept_at_its_end(api: Api) -> None:
    pool = await tested(api, equipment=SALT)
    first = await api.get("/interview?tree=check_cell")
    assert first["ask"]["key"] == "lamp_salt"
    answers = ["yes", "no", "yes", "yes"]
    at = await api.get("/interview?tree=check_cell" + "".join(f"&answers={one}" for one in answers))
    assert at["end"]["key"] == "clean_cell"
    assert any("chlorine gas" in caution for caution in at["cautions"])
    body = {"id": new_id(), "tree": "check_cell", "answers": answers}
    await api.post(f"/pools/{pool}/interviews", body, 201)
    assert (await api.get(f"/pools/{pool}/log"))[0]["detail"] == "Scale on the plates"
    early = {"id": new_id(), "tree": "check_cell", "answers": ["yes"]}
    assert (await api.client.post(f"/api/v1/pools/{pool}/interviews", json=early)).status_code == 422


async def test_the_mixing_helper(api: Api) -> None:
    bath = await api.get("/acid-bath?container=2 qt&ratio=4")
    assert bath["strength_percent"] == pytest.approx(7.1, abs=0.05)
    assert bath["water_ml"] / bath["acid_ml"] == pytest.approx(4)
    weak = await api.client.get("/api/v1/acid-bath?container=2 qt&acid_percent=5")
    assert weak.status_code == 422


async def test_the_feed_by_its_secret_link_read_by_two_libraries(api: Api) -> None:
    """RFC 5545 (quoted from memory): stable UIDs, alarms, the pool's zone; read by icalendar and by
    vobject.
    """
    pool = await tested(api)
    async with api.database.transaction() as tx:
        scope = Scope(tx, await the_workspace(tx), START)
        link, secret = await new_link(scope, UUID(pool), LinkKind.FEED, "")
    path = f"/api/v1/feeds/{secret}.ics"
    text = (await api.client.get(path)).text
    events = list(Calendar.from_ical(text).walk("VEVENT"))
    other = vobject.readOne(text)
    assert len(events) == len(other.vevent_list)
    uids = {str(event["uid"]) for event in events}
    assert len(uids) == len(events)
    first = other.vevent_list[0]
    assert first.valarm.trigger.value == timedelta(0)
    local = first.dtstart.value.astimezone(ZoneInfo("America/Chicago"))
    assert (local.hour, local.minute) == (9, 0)
    in_winter = next(e for e in other.vevent_list if e.dtstart.value.date() > date(2026, 12, 1))
    assert in_winter.dtstart.value.astimezone(UTC).hour == 15  # nine in Chicago's winter
    assert local.astimezone(UTC).hour == 14  # nine in its summer
    api.pass_time(hours=1)
    again = {
        str(event["uid"]) for event in Calendar.from_ical((await api.client.get(path)).text).walk("VEVENT")
    }
    assert again == uids
    async with api.database.transaction() as tx:
        await end_link(replace(scope, tx=tx, cached={}), link)
    assert (await api.client.get(path)).status_code == 404
    assert (await api.client.get("/api/v1/feeds/guess.ics")).status_code == 404
    file = await api.client.get(f"/api/v1/pools/{pool}/care.ics")
    assert file.headers["content-type"].startswith("text/calendar")


async def test_the_calendar_lists_what_falls_on_each_day(api: Api) -> None:
    pool = await tested(api)
    days = await api.get(f"/pools/{pool}/calendar?days=30")
    assert days == sorted(days, key=lambda day: day["day"])
    vacuum = [day["day"] for day in days if "vacuum" in {one["task"] for one in day["items"]}]
    assert vacuum == ["2026-06-08", "2026-06-15", "2026-06-22", "2026-06-29"]


async def test_the_season_shows_care_done_and_due(api: Api) -> None:
    pool = await tested(api)
    await api.post(f"/pools/{pool}/care/done", {"id": new_id(), "task": "backwash"}, 201)
    api.pass_time(minutes=1)
    marks = (await api.get(f"/pools/{pool}/season"))["marks"]
    rows = {mark["row"] for mark in marks}
    assert {"tests", "care", "due"} <= rows
    ahead = [mark for mark in marks if mark["row"] == "due"]
    assert all(datetime.fromisoformat(mark["at"]) >= api.now - timedelta(days=1) for mark in ahead)


async def test_the_key_weighs_answers_and_asks_on(api: Api) -> None:
    questions = await api.get("/identify/questions")
    assert [question["key"] for question in questions] == ["look", "place", "touch", "history"]
    first = await api.get("/identify?answers=look:dust")
    assert first["ask_next"] in ("place", "touch", "history")
    found = await api.get(
        "/identify?answers=look:dust&answers=place:shade&answers=touch:easy&answers=history:returns"
    )
    assert found["candidates"][0]["kind"] == "mustard"
    assert found["confidence"] == "quite sure"
    for wrong in ("look", "look:weird", "smell:bad"):
        assert (await api.client.get(f"/api/v1/identify?answers={wrong}")).status_code == 422


async def test_a_list_that_nothing_was_picked_from_says_so(api: Api) -> None:
    pool = await tested(api)
    body = {"id": new_id(), "machine_id": new_id(), "kind": ""}
    refused = (await api.post(f"/pools/{pool}/machines", body, 422))["error"]
    assert (refused["field"], refused["message"]) == ("kind", "kind: nothing is picked yet; pick one.")
