"""The practice pool over HTTP."""

from typing import Any

from tests.web.conftest import Api

Json = Any


async def play(api: Api, moves: list[Json], **changes: Json) -> Json:
    return await api.post("/practice/play", {"scenario": "party", "seed": 7, "moves": moves, **changes}, 200)


async def test_the_pools_are_told_with_their_shelves(api: Api) -> None:
    seen = await api.get("/practice")
    assert [row["key"] for row in seen] == ["holiday", "creep", "cell", "party", "spring"]
    assert all(row["goals"] and row["story"] and row["shelf"] for row in seen)
    metric = await api.get("/practice?metric=true")
    assert metric[0]["pool"].startswith("60")
    assert "gal" in seen[0]["pool"]


async def test_a_game_is_played_move_by_move_and_shows_no_truth(api: Api) -> None:
    begun = await play(api, [])
    assert (begun["day"], begun["clock"], begun["days_left"], begun["review"]) == (1, "9:00 AM", 8, None)
    moves = [
        {"kind": "full_test"},
        {"kind": "add", "product_id": "liquid", "amount": "1 gal"},
        {"kind": "wait_evening"},
    ]
    seen = await play(api, moves)
    assert seen["clock"] == "8:00 PM"
    assert seen["lines"][1]["text"] == "Added 1 gal of Liquid chlorine 10 %"
    assert {reading["measure"] for reading in seen["lines"][0]["readings"]} >= {
        "free_chlorine",
        "cyanuric_acid",
    }
    assert 5 < seen["cost"] < 6  # 13.50 for 2.5 gal


async def test_finished_it_is_compared_with_the_plan(api: Api) -> None:
    seen = await play(api, [{"kind": "wait_evening"}], finished=True)
    found = seen["review"]
    assert found["learner"]["won_on_day"] is None
    assert found["planner"]["won_on_day"] is not None
    assert found["lessons"]


async def test_an_amount_that_cannot_be_read_is_told(api: Api) -> None:
    body = {
        "scenario": "party",
        "seed": 7,
        "moves": [{"kind": "add", "product_id": "liquid", "amount": "some"}],
    }
    reply = await api.client.post("/api/v1/practice/play", json=body)
    assert reply.status_code == 422
    assert reply.json()["error"]["field"] == "amount"
