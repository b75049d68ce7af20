"""Shock, second opinion and two people on one sheet, over HTTP."""

from typing import Any

import pytest
from icalendar import Calendar

from tests.web.conftest import Api, new_id

WATER = {
    "free_chlorine": "1",
    "total_chlorine": "1.2",
    "ph": "7.5",
    "total_alkalinity": "100",
    "calcium_hardness": "260",
    "cyanuric_acid": "60",
    "temperature_c": "82F",
}


async def test_a_shock_is_offered_started_and_ticked(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    offered = await api.get(f"/pools/{pool}/offer?plan=shock&shock=ratio")
    assert offered["id"] is None
    assert offered["predicted"]["free_chlorine"] == pytest.approx(24)
    codes = {note["code"] for note in offered["notes"]}
    assert "swim_again" in codes
    started = await api.post(
        f"/pools/{pool}/sheets", {"id": new_id(), "asked": {"plan": "shock", "shock": "ratio"}}, 201
    )
    assert [line["step"]["title"] for line in started["steps"]] == [
        line["step"]["title"] for line in offered["steps"]
    ]
    assert (await api.get(f"/pools/{pool}/sheet"))["id"] == started["id"]
    assert (await api.get(f"/pools/{pool}/log"))[0]["kind"] == "sheet"


async def test_the_fixed_way_says_when_ten_is_not_a_shock(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    offered = await api.get(f"/pools/{pool}/offer?plan=shock&shock=fixed")
    assert "weak_shock" in {note["code"] for note in offered["notes"]}
    reply = await api.client.get(f"/api/v1/pools/{pool}/offer?plan=shock&shock=enormous")
    assert reply.status_code == 422


async def test_the_cells_boost_is_put_in_numbers(api: Api) -> None:
    pool = await api.new_pool(equipment={"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"})
    await api.test(pool, **WATER)
    cell = {"id": new_id(), "output_g_per_h": 18.9, "percent": 60, "hours_per_day": 10}
    await api.post(f"/pools/{pool}/cell", cell, 201)
    offered = await api.get(f"/pools/{pool}/offer?plan=shock&shock=fixed")
    boost = next(note for note in offered["notes"] if note["code"] == "cell_boost")
    # 18.9 g/h is a pound a day: 6.0 ppm in 20,000 gal (handbook 06), here in 21 065
    assert boost["fields"]["adds"] == pytest.approx(6.0 * 20_000 / 21_065, abs=0.05)


async def test_advice_is_compared_and_nothing_is_kept(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    before = len(await api.get(f"/pools/{pool}/log"))
    found = await api.post(f"/pools/{pool}/second-opinion", {"text": "salt 20 kg, magic 1 lb, buffer 1 kg"})
    assert [row["text"] for row in found["advice"]] == [
        "44 lb 1.5 oz of Pool salt",
        "2 lb 3.3 oz of Baking soda",
    ]
    assert "magic" in found["unread"][0]["text"]
    rows = {row["measure"]: row for row in found["rows"]}
    assert rows["total_alkalinity"]["theirs"] > rows["total_alkalinity"]["now"]
    assert rows["free_chlorine"]["ours"] > rows["free_chlorine"]["theirs"]
    assert len(await api.get(f"/pools/{pool}/log")) == before


async def test_advice_needs_a_text_and_a_test(api: Api) -> None:
    pool = await api.new_pool()
    untested = await api.post(f"/pools/{pool}/second-opinion", {"text": "salt 20 kg"}, 422)
    assert "Test the water first" in untested["error"]["message"]
    await api.test(pool, **WATER)
    empty = await api.post(f"/pools/{pool}/second-opinion", {"text": "  "}, 422)
    assert "Type what was advised" in empty["error"]["message"]


async def test_two_technicians_on_one_step_the_same_pour_or_another(api: Api) -> None:
    """The second tick is refused with the first one in sight; another pour is told as one of its own."""
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    treatment = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    add = next(line for line in treatment["steps"] if line["step"]["kind"] == "add")
    steps_done = f"/pools/{pool}/sheets/{treatment['id']}/ticks"
    api.pass_time(minutes=5)
    first = {"id": new_id(), "step_number": add["number"], "outcome": "done", "amount": "44 fl oz"}
    await api.post(steps_done, first)
    api.pass_time(minutes=2)
    second = {**first, "id": new_id(), "amount": "40 fl oz"}
    refused = await api.post(steps_done, second, 409)
    assert "already marked done" in refused["error"]["message"]
    await api.post(steps_done, first)  # a resend never asks
    seen = (await api.get(f"/pools/{pool}/sheet"))["steps"][add["number"]]["ticked"]
    assert seen["amount_text"] == "44 fl oz"
    another = {
        "id": second["id"],
        "chemical": add["step"]["chemical"],
        "strength_percent": add["step"]["strength_percent"],
        "amount": "40 fl oz",
    }
    await api.post(f"/pools/{pool}/additions", another, 201)
    poured = [line["detail"] for line in await api.get(f"/pools/{pool}/log") if line["kind"] == "addition"]
    assert poured == ["40 fl oz", "44 fl oz"]


async def test_the_sheet_as_a_calendar_file_with_alarms(api: Api) -> None:
    """Read back by the icalendar library: RFC 5545."""
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    reply = await api.client.get(f"/api/v1/pools/{pool}/sheet.ics?shock=fixed")
    assert reply.headers["content-type"].startswith("text/calendar")
    events: list[Any] = [part for part in Calendar.from_ical(reply.content).walk() if part.name == "VEVENT"]
    titles = [str(event["SUMMARY"]) for event in events]
    assert any("Liquid chlorine 10 %, " in title for title in titles)
    assert all(len(event.subcomponents) == 1 for event in events)
    starts = [event["DTSTART"].dt for event in events]
    assert starts == sorted(starts)
    assert all(start >= api.now.replace(microsecond=0) for start in starts)
    assert "Goggles" in next(
        str(event["DESCRIPTION"]) for event in events if "chlorine 10" in event["SUMMARY"]
    )


async def test_what_is_ticked_is_not_in_the_calendar(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    treatment = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    before = (await api.client.get(f"/api/v1/pools/{pool}/sheet.ics")).text.count("BEGIN:VEVENT")
    record_step = {"id": new_id(), "step_number": 0, "outcome": "done"}
    await api.post(f"/pools/{pool}/sheets/{treatment['id']}/ticks", record_step)
    after = (await api.client.get(f"/api/v1/pools/{pool}/sheet.ics")).text.count("BEGIN:VEVENT")
    assert after == before - 1


async def test_an_accident_in_the_water_is_a_sheet_of_its_own(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    offered = await api.get(f"/pools/{pool}/offer?plan=incident&incident=diarrhoea")
    assert offered["steps"][0]["step"]["title"].startswith("Close the pool")
    assert "no time is given" in offered["unmet"][0]["reason"]
    started = await api.post(
        f"/pools/{pool}/sheets", {"id": new_id(), "asked": {"plan": "incident", "incident": "diarrhoea"}}, 201
    )
    assert len(started["steps"]) == len(offered["steps"])


async def test_a_plan_asks_for_the_test_that_is_too_old(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **{**WATER, "ph": "8.1"})
    api.pass_time(days=12)
    treatment = await api.get(f"/pools/{pool}/sheet")
    assert treatment["steps"] == [] or all(
        line["step"]["chemical"] != "hydrochloric_acid" for line in treatment["steps"]
    )
    reasons = {left["measure"]: left["reason"] for left in treatment["unmet"]}
    assert reasons["ph"] == "pH was last tested 12 days ago: test it first."


async def test_the_rest_is_put_away_and_reckoned_again_with_what_was_poured(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **{**WATER, "cyanuric_acid": "40", "total_alkalinity": "60"})
    treatment = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    soda = next(line for line in treatment["steps"] if line["step"]["chemical"] == "sodium_bicarbonate")
    api.pass_time(minutes=10)
    steps_done = f"/pools/{pool}/sheets/{treatment['id']}/ticks"
    await api.post(steps_done, {"id": new_id(), "step_number": soda["number"], "outcome": "done"})
    away = {"id": new_id()}
    api.pass_time(minutes=1)
    offered = await api.post(f"/pools/{pool}/sheets/{treatment['id']}/put-away", away)
    again = await api.post(f"/pools/{pool}/sheets/{treatment['id']}/put-away", away)
    assert offered["id"] is None
    assert [line["step"]["title"] for line in again["steps"]] == [
        line["step"]["title"] for line in offered["steps"]
    ]
    assert "sodium_bicarbonate" not in {line["step"]["chemical"] for line in offered["steps"]}
    assert "sodium_hypochlorite" in {line["step"]["chemical"] for line in offered["steps"]}
    old = await api.post(f"/pools/{pool}/sheets/{new_id()}/put-away", away, 404)
    assert "no longer here" in old["error"]["message"]


async def test_salt_by_the_units_display_is_shown_and_asked_for_by_hand_before_any_goes_in(api: Api) -> None:
    pool = await api.new_pool(equipment={"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"})
    water = {"free_chlorine": "3", "ph": "7.5", "total_alkalinity": "80", "cyanuric_acid": "70"}
    await api.test(pool, **water, calcium_hardness="260", temperature_c="80F")
    shown = {"id": new_id(), "kit": "unit", "fields": {"salt": "1500"}}
    await api.post(f"/pools/{pool}/tests", shown, 201)
    sheet = await api.get(f"/pools/{pool}/sheet")
    assert not [s for s in sheet["steps"] if s["step"]["chemical"] == "sodium_chloride"]
    assert any("by hand" in one["reason"] for one in sheet["unmet"])
    api.pass_time(hours=1)
    await api.test(pool, salt="1500")
    sheet = await api.get(f"/pools/{pool}/sheet")
    assert [s for s in sheet["steps"] if s["step"]["chemical"] == "sodium_chloride"]
