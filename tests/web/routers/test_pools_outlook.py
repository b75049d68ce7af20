"""The outlook, the history, and telling the journal of water, cell and swimmers, over HTTP."""

import pytest

from tests.web.conftest import Api, new_id

WATER = {
    "free_chlorine": "3",
    "ph": "7.5",
    "total_alkalinity": "100",
    "calcium_hardness": "260",
    "cyanuric_acid": "40",
    "temperature_c": "82F",
}


async def test_before_a_test_the_outlook_is_empty(api: Api) -> None:
    pool = await api.new_pool()
    assert await api.get(f"/pools/{pool}/outlook") == {
        "sentences": [],
        "days": [],
        "runs_low_at": None,
        "loss_mg_l_day": None,
        "volume_hint_l": None,
    }
    history = await api.get(f"/pools/{pool}/history/ph")
    assert (history["points"], history["ahead"]) == ([], [])


async def test_a_week_ahead_and_when_it_runs_low(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    found = await api.get(f"/pools/{pool}/outlook")
    assert len(found["days"]) == 7
    assert all(day["low"] <= day["likely"] <= day["high"] for day in found["days"])
    assert found["days"][-1]["under_range"]
    assert found["runs_low_at"] is not None
    assert {said["code"] for said in found["sentences"]} >= {"runs_low", "next_visit", "loss"}


async def test_weeks_after_the_last_test_nothing_is_foretold(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    api.pass_time(days=22)
    assert (await api.get(f"/pools/{pool}/outlook"))["sentences"] == []
    assert (await api.get(f"/pools/{pool}/history/free_chlorine"))["ahead"] == []
    api.pass_time(days=400)
    assert (await api.get(f"/pools/{pool}/outlook"))["days"] == []


async def test_a_new_entry_is_seen_at_once(api: Api) -> None:
    """The outlook is kept for some minutes; not past an entry."""
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    before = await api.get(f"/pools/{pool}/outlook")
    api.pass_time(minutes=1)
    bleach = {"id": new_id(), "chemical": "sodium_hypochlorite", "strength_percent": 10, "amount": "1 gal"}
    await api.post(f"/pools/{pool}/additions", bleach, 201)
    after = await api.get(f"/pools/{pool}/outlook")
    assert after["days"][0]["likely"] > before["days"][0]["likely"] + 1


async def test_a_plan_made_days_after_the_test_reckons_with_what_is_gone(api: Api) -> None:
    """Free chlorine 3.4 was enough two days ago; by now it is not, and the dose makes up for it."""
    pool = await api.new_pool()
    await api.test(pool, **{**WATER, "free_chlorine": "3.4"})
    api.pass_time(hours=1)
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), "clarity": "clear", "level": "normal"})
    assert (await api.get(f"/pools/{pool}"))["next"]["text"] == "Nothing to add"
    api.pass_time(days=2)
    treatment = await api.get(f"/pools/{pool}/sheet")
    chlorine = next(
        line["step"] for line in treatment["steps"] if line["step"]["chemical"] == "sodium_hypochlorite"
    )
    assert "to 2.5" in chlorine["why"]
    first = float(chlorine["why"].split(" from ")[1].split(" ")[0])
    assert first < 2.0
    assert first == pytest.approx((await api.get(f"/pools/{pool}/outlook"))["days"][0]["likely"], abs=0.8)


async def test_history_of_a_measure_with_what_was_done(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    api.pass_time(days=1)
    body = {"id": new_id(), "kind": "backwash", "volume": "250", "volume_unit": "gal"}
    await api.post(f"/pools/{pool}/water-changes", body, 201)
    history = await api.get(f"/pools/{pool}/history/cyanuric_acid")
    assert [point["value"] for point in history["points"]] == [40]
    assert [mark["text"] for mark in history["marks"]] == ["Backwash: 250 gal"]
    assert (history["low"], history["high"]) == (30, 50)
    # 40 less the backwash's share of it
    assert history["ahead"][0]["likely"] == pytest.approx(40 * (1 - 250 / 21065), abs=0.5)


async def test_combined_chlorine_is_foretold_along_with_free(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER, total_chlorine="4")
    ahead = (await api.get(f"/pools/{pool}/history/combined_chlorine"))["ahead"]
    assert ahead[0]["likely"] == pytest.approx(1.0, abs=0.05)
    assert ahead[12]["likely"] < 0.5  # two days later, with free chlorine to break it down
    assert all(point["low"] <= point["likely"] <= point["high"] for point in ahead)


@pytest.mark.parametrize("measure", ["free_chlorine", "ph", "total_alkalinity", "salt", "copper"])
async def test_every_measure_has_a_history(api: Api, measure: str) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    history = await api.get(f"/pools/{pool}/history/{measure}")
    tested = measure in WATER
    assert (len(history["points"]) == 1) == tested
    assert (len(history["ahead"]) > 0) == tested


async def test_the_cell_swimmers_and_rain_stand_in_the_log_and_can_be_taken_back(api: Api) -> None:
    pool = await api.new_pool()
    cell = {"id": new_id(), "output_g_per_h": 18.9, "percent": 60, "hours_per_day": 10}
    await api.post(f"/pools/{pool}/cell", cell, 201)
    await api.post(f"/pools/{pool}/swimmers", {"id": new_id(), "bather_hours": 12}, 201)
    rain = {"id": new_id(), "kind": "rain", "volume": "1 m3", "note": "a storm"}
    await api.post(f"/pools/{pool}/water-changes", rain, 201)
    lines = {line["kind"]: line for line in await api.get(f"/pools/{pool}/log")}
    assert lines["cell"]["detail"] == "60 %, 10 h a day, 1.00 lb/day at 100 %"
    assert lines["swimmers"]["detail"] == "12 swimmer-hours"
    assert (lines["water"]["title"], lines["water"]["detail"]) == ("Rain ran over", "264 gal. a storm")
    api.pass_time(minutes=1)
    await api.post(f"/entries/{cell['id']}/void", {"id": new_id(), "reason": ""})
    assert any(line["taken_back"] for line in await api.get(f"/pools/{pool}/log"))


@pytest.mark.parametrize(
    ("path", "body", "word"),
    [
        ("water-changes", {"kind": "backwash", "volume": "much"}, "volume"),
        ("water-changes", {"kind": "backwash", "volume": "0"}, "more than nothing"),
        ("water-changes", {"kind": "flood", "volume": "5"}, "kind"),
        ("cell", {"output_g_per_h": 10, "percent": 140, "hours_per_day": 8}, "percent"),
        ("cell", {"output_g_per_h": 10, "percent": 50, "hours_per_day": 30}, "hours_per_day"),
        ("swimmers", {"bather_hours": 0}, "bather_hours"),
    ],
)
async def test_bad_input_is_one_clear_sentence(
    api: Api, path: str, body: dict[str, object], word: str
) -> None:
    pool = await api.new_pool()
    reply = await api.client.post(f"/api/v1/pools/{pool}/{path}", json={"id": new_id(), **body})
    assert 400 <= reply.status_code < 500
    error = reply.json()["error"]
    assert word in f"{error['message']} {error['field']}"


async def test_a_pools_own_place_goes_before_its_time_zones(api: Api) -> None:
    near = {"name": "North", "time_zone": "America/Chicago", "latitude_deg": 58.0, "longitude_deg": -90.0}
    south = {**near, "latitude_deg": 20.0}
    losses = []
    for settings in (near, south):
        api.pass_time(minutes=1)
        pool = await api.new_pool(settings=settings)
        await api.test(pool, **WATER)
        losses.append((await api.get(f"/pools/{pool}/outlook"))["loss_mg_l_day"])
    assert losses[1] > losses[0]
