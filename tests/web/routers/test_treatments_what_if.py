"""What if I aim here: by value, by place on the lane, adopted as a sheet; what cannot be aimed is refused."""

import pytest

from tests.web.conftest import Api, Json, new_id

WATER = {
    "free_chlorine": "2.5", "total_chlorine": "2.5", "ph": "7.8", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "40", "temperature_c": "82F",
}  # fmt: skip


async def aimed(api: Api, pool: str, **body: Json) -> Json:
    return await api.post(f"/pools/{pool}/what-if", {"values": {}, "places": {}, **body})


async def tested(api: Api) -> str:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    return pool


async def test_an_aim_by_value_moves_its_lane_and_the_side_effects_the_others(api: Api) -> None:
    pool = await tested(api)
    found = await aimed(api, pool, values={"ph": 7.4})
    assert found["aims"] == {"ph": 7.4}
    assert found["planned"]["ph"]["value"] == pytest.approx(7.4, abs=1e-6)
    assert found["planned"]["total_alkalinity"]["value"] < 100  # acid takes alkalinity with it
    assert found["planned"]["saturation_index"]["value"] < 0.3
    assert "hydrochloric_acid" in {line["step"]["chemical"] for line in found["sheet"]["steps"]}
    assert (await api.get(f"/pools/{pool}/sheet"))["id"] is None  # nothing was kept


async def test_an_aim_by_place_is_read_on_the_lane_of_this_pools_school(api: Api) -> None:
    pool = await tested(api)
    low = await aimed(api, pool, places={"ph": 0.0})  # the left rope
    high = await aimed(api, pool, places={"ph": 1.0})  # the right one
    assert low["aims"]["ph"] == pytest.approx(7.2)
    assert high["aims"]["ph"] == pytest.approx(7.8)
    assert low["planned"]["ph"]["at"]["position"] == pytest.approx(0.0, abs=1e-3)


async def test_two_aims_are_met_together(api: Api) -> None:
    pool = await tested(api)
    found = await aimed(api, pool, values={"ph": 7.4, "total_alkalinity": 110, "calcium_hardness": 300})
    planned = {measure: place["value"] for measure, place in found["planned"].items()}
    assert planned["ph"] == pytest.approx(7.4, abs=1e-6)
    assert planned["total_alkalinity"] == pytest.approx(110, abs=1e-6)
    assert planned["calcium_hardness"] == pytest.approx(300, abs=1e-6)


async def test_an_aim_that_a_dose_cannot_reach_says_why(api: Api) -> None:
    pool = await tested(api)
    found = await aimed(api, pool, values={"cyanuric_acid": 20})
    assert found["planned"]["cyanuric_acid"]["value"] == 40
    assert any("water" in left["reason"] for left in found["sheet"]["unmet"])


async def test_aiming_at_what_the_reading_says_pours_nothing(api: Api) -> None:
    pool = await tested(api)
    found = await aimed(api, pool, values={"ph": 7.8, "total_alkalinity": 100})
    assert found["sheet"]["steps"] == []
    assert found["planned"]["ph"]["value"] == pytest.approx(7.8)


async def test_an_aim_is_adopted_as_a_sheet(api: Api) -> None:
    pool = await tested(api)
    body = {"id": new_id(), "asked": {"plan": "balance", "targets": {"ph": 7.4}}}
    started = await api.post(f"/pools/{pool}/sheets", body, 201)
    assert started["predicted"]["ph"] == pytest.approx(7.4, abs=1e-6)
    assert (await api.get(f"/pools/{pool}/sheet"))["id"] == body["id"]


async def test_an_open_sheet_does_not_hide_the_answer(api: Api) -> None:
    pool = await tested(api)
    body = {"id": new_id(), "asked": {"plan": "balance", "targets": {"ph": 7.4}}}
    await api.post(f"/pools/{pool}/sheets", body, 201)
    found = await aimed(api, pool, values={"ph": 7.5})
    assert found["sheet"]["id"] is None
    assert found["planned"]["ph"]["value"] == pytest.approx(7.5, abs=1e-6)


@pytest.mark.parametrize(
    "body",
    [
        {"values": {"combined_chlorine": 0.1}},
        {"places": {"salt": 0.5}},  # no cell, no band
        {"values": {"ph": -1}},
        {"places": {"ph": 99}},
        {"values": {"moonlight": 1}},
        {"aims": {}},
    ],
)
async def test_what_cannot_be_aimed_is_refused(api: Api, body: Json) -> None:
    pool = await tested(api)
    reply = await api.client.post(f"/api/v1/pools/{pool}/what-if", json=body)
    assert 400 <= reply.status_code < 500
    assert reply.json()["error"]["message"]


async def test_before_the_first_test_there_is_nothing_to_move(api: Api) -> None:
    pool = await api.new_pool()
    found = await aimed(api, pool, values={"ph": 7.4})
    assert found["sheet"]["steps"] == []
    assert found["planned"] == {}
