"""Numbers of forms travel as text and are read at the door; a lost digit here once made a salt range of
2.7.
"""

from datetime import timedelta
from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st
from pydantic import ValidationError

from kumpan.core.pool.shapes import volume_l
from kumpan.web.requests.journal import CellIn, SwimmersIn
from kumpan.web.requests.maintenance import PlantIn
from kumpan.web.requests.pools import BasinTyped, OwnRangeIn
from tests.web.conftest import Api, api, new_id, pool_body

__all__ = ["api"]

TYPED = [("2,700", 2700.0), ("2700", 2700.0), ("10,000", 10000.0), ("7,8", 7.8), ("1 1/2", 1.5), (3.5, 3.5)]


@pytest.mark.parametrize(("typed", "value"), TYPED)
def test_a_typed_number_is_read_as_people_write_it(typed: Any, value: float) -> None:
    assert OwnRangeIn(measure="salt", low=typed).low == value
    assert PlantIn(id=new_id(), cell_rated_h=typed).cell_rated_h == value


@pytest.mark.parametrize("typed", ["", "  ", None])
def test_nothing_typed_is_nothing(typed: Any) -> None:
    assert PlantIn(id=new_id(), pump_kw=typed).pump_kw is None


@pytest.mark.parametrize("typed", [True, "nan", "inf", "-3", "ten", "2.7.1", [2]])
def test_what_is_no_number_is_refused(typed: Any) -> None:
    with pytest.raises(ValidationError):
        PlantIn(id=new_id(), cell_rated_h=typed)


async def test_the_salt_range_of_ones_own_and_the_cells_hours_keep_their_thousands(api: Api) -> None:
    body = pool_body(new_id())
    body["settings"]["own_ranges"] = [{"measure": "salt", "low": "2,700", "aim": "3,200", "high": "3,400"}]
    body["equipment"]["chlorination"] = "salt_cell"
    await api.post("/pools", body)
    pool = body["id"]
    own = (await api.get(f"/pools/{pool}"))["settings"]["own_ranges"]
    assert [(row["low"], row["aim"], row["high"]) for row in own] == [(2700.0, 3200.0, 3400.0)]
    await api.post(f"/pools/{pool}/plant", {"id": new_id(), "cell_rated_h": "10,000", "pump_kw": ""})
    plant = (await api.get(f"/pools/{pool}/care"))["plant"]
    assert (plant["cell_rated_h"], plant["pump_kw"]) == (10000.0, None)


async def test_the_answer_names_the_field_and_quotes_what_was_typed(api: Api) -> None:
    pool = await api.new_pool()
    for path, body, field in (
        ("plant", {"pump_kw": "a lot"}, "pump_kw"),
        ("cell", {"output_g_per_h": "x", "percent": "50", "hours_per_day": "8"}, "output_g_per_h"),
        ("swimmers", {"swimmers": "four", "hours": "2"}, "swimmers"),
        ("swimmers", {"swimmers": "4", "hours": ""}, "hours"),
    ):
        reply = await api.client.post(f"/api/v1/pools/{pool}/{path}", json={"id": new_id(), **body})
        error = reply.json()["error"]
        assert (reply.status_code, error["field"]) == (422, field)
        assert str(body[field]) in error["message"] or body[field] == ""


def test_a_cells_pounds_a_day_and_swimmers_by_hours_are_reckoned_here() -> None:
    """1.4 lb a day is 26.46 g an hour (exact pound); 4 swimmers for 2.5 hours are 10 bather hours."""
    cell = CellIn.model_validate(
        {
            "id": new_id(),
            "output_g_per_h": "1.4",
            "output_unit": "lb/day",
            "percent": "60",
            "hours_per_day": "8",
        }
    )
    assert cell.to_core().output_g_per_h == pytest.approx(26.46, abs=0.01)
    assert SwimmersIn.model_validate(
        {"id": new_id(), "swimmers": "4", "hours": "2,5"}
    ).to_core().bather_hours == pytest.approx(10.0)


async def test_a_target_named_for_a_drain_keeps_its_thousands(api: Api) -> None:
    """ "1,200" of calcium read as 1.2 would have drained the pool."""
    body = pool_body(new_id())
    body["equipment"]["fill_water"] = {"ph": "7.6", "total_alkalinity": "80", "calcium_hardness": "50"}
    await api.post("/pools", body)
    await api.test(body["id"], calcium_hardness="1500", ph="7.5", total_alkalinity="90")
    path = f"/pools/{body['id']}/offer?plan=drain&measure=calcium_hardness&wanted="
    typed, plain, other = [(await api.get(path + text))["predicted"] for text in ("1,200", "1200", "1000")]
    assert typed == plain
    assert plain != other
    wrong = await api.client.get(f"/api/v1{path}low")
    assert wrong.status_code == 422
    assert '"low" is not a number' in wrong.json()["error"]["message"]


async def test_an_interval_in_days_is_read_here(api: Api) -> None:
    pool = await api.new_pool()
    body = {"id": new_id(), "task": "brush", "days": "2,5"}
    await api.post(f"/pools/{pool}/care/interval", body)
    items = (await api.get(f"/pools/{pool}/care"))["items"]
    assert next(item["days"] for item in items if item["task"] == "brush") == 2.5


LENGTH = st.floats(1.0, 60.0)
DEPTH = st.floats(0.3, 5.0)


@given(LENGTH, LENGTH, DEPTH, DEPTH, st.floats(0.05, 1.0))
def test_a_length_in_meters_comes_back_as_it_was(
    length: float, width: float, shallow: float, deep: float, share: float
) -> None:
    """What the form sends back for an untouched field: no digit of the stored pool moves."""
    end = length * share
    typed = BasinTyped.model_validate(
        {
            "unit": "ft",
            "parts": [
                {
                    "shape": "rectangle",
                    "length": f"{length!r} m",
                    "width": f"{width!r} m",
                    "depths": [
                        {"distance": "0 m", "depth": f"{shallow!r} m"},
                        {"distance": f"{end!r} m", "depth": f"{deep!r} m"},
                    ],
                    "name": "Lagoon",
                }
            ],
        }
    )
    (part,) = typed.to_core().parts
    assert (part.length_m, part.width_m, part.name) == (length, width, "Lagoon")
    assert [(point.distance_m, point.depth_m) for point in part.depth] == [(0.0, shallow), (end, deep)]
    assert typed.to_core().volume_l == volume_l((part,))


NO_TIMES = [
    1_700_000_000, "1700000000", 1.5, True, "1989-12-31T23:59:59Z", "0001-01-01T00:00:00+14:00",
    "9999-12-31T23:59:59-14:00", "2026-06-01T18:40:00", "2026-06-01", "2026-13-01T00:00:00Z", "now", "",
]  # fmt: skip


@pytest.mark.parametrize("at", NO_TIMES)
async def test_a_time_is_written_out_with_its_zone_and_lies_in_our_days(api: Api, at: Any) -> None:
    """No numbers for times, none without a zone, none before 1990, none after the next minutes."""
    pool = await api.new_pool()
    look = {"id": new_id(), "clarity": "clear", "level": "normal", "at": at}
    reply = await api.client.post(f"/api/v1/pools/{pool}/looks", json=look)
    assert reply.status_code == 422, reply.text
    assert reply.json()["error"]["field"] == "at"
    await api.post(f"/pools/{pool}/looks", {**look, "at": None}, 201)


@pytest.mark.parametrize("day", [20_000, "20000", "1989-12-31", "2101-01-01", "0001-01-01", "2026-02-30"])
async def test_a_day_is_written_out_and_lies_in_our_days(api: Api, day: Any) -> None:
    pool = await api.new_pool()
    off = {"id": new_id(), "task": "vacuum", "until": day}
    assert (await api.client.post(f"/api/v1/pools/{pool}/care/put-off", json=off)).status_code == 422
    assert (await api.client.get(f"/api/v1/pools/{pool}/report", params={"day": day})).status_code == 422


async def test_ten_minutes_ahead_is_a_clock_that_runs_fast_and_eleven_is_a_slip(api: Api) -> None:
    pool = await api.new_pool()
    for minutes, status in ((9, 201), (11, 422)):
        at = (api.now + timedelta(minutes=minutes)).isoformat()
        look = {"id": new_id(), "clarity": "clear", "level": "normal", "at": at}
        await api.post(f"/pools/{pool}/looks", look, status)
