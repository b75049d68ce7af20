"""How large a pool is and where it lies, found out over HTTP; and its measures over time."""

import pytest

from tests.web.conftest import Api

GALLON_L = 3.785411784
HANDBOOK = {"before": "2,400", "added": "100 lb", "after": "3000 ppm"}


async def test_a_bag_of_salt_tells_the_volume_and_how_far_it_may_be_off(api: Api) -> None:
    """Handbook 01: 100 lb and a rise of 600 ppm are 19,970 gal."""
    found = await api.post("/basins/from-salt", HANDBOOK)
    assert found["volume_l"] / GALLON_L == pytest.approx(19_970, rel=1e-3)
    # A meter good to 50 ppm, twice: 71 of 600.
    assert found["uncertainty_share"] == pytest.approx(0.118, abs=0.001)
    assert found["says"] == "Within 12 %, by what the two readings may be off."
    shown = await api.post("/basins/from-salt", {**HANDBOOK, "kit": "unit"})
    assert "Another bag makes it surer" in shown["says"]


@pytest.mark.parametrize(
    ("change", "field"),
    [
        ({"added": "some"}, "added"),
        ({"after": "2,410"}, "after"),
        ({"before": ""}, "before"),
        ({"kit": "tea"}, "kit"),
    ],
)
async def test_what_tells_nothing_is_refused_at_its_field(
    api: Api, change: dict[str, str], field: str
) -> None:
    reply = await api.client.post("/api/v1/basins/from-salt", json={**HANDBOOK, **change})
    assert (reply.status_code, reply.json()["error"]["field"]) == (422, field)


async def test_a_plan_carries_the_doubt_that_the_salt_left(api: Api) -> None:
    """The range of a dose is wider where the volume is surer known by less."""
    wide = {}
    for share in (0.02, 0.4):
        basin = {"unit": "ft", "volume": "20000", "volume_uncertainty": share}
        pool = await api.new_pool(basin=basin)
        assert (await api.get(f"/pools/{pool}"))["basin"]["volume_uncertainty"] == share
        await api.test(
            pool, free_chlorine="1", total_chlorine="1", ph="7.5", total_alkalinity="100", cyanuric_acid="40"
        )
        plan = await api.get(f"/pools/{pool}/sheet")
        step = next(line["step"] for line in plan["steps"] if line["step"]["kind"] == "add")
        wide[share] = step["mass_high_g"] / step["mass_low_g"]
    assert wide[0.4] > 1.5 * wide[0.02]


async def test_a_volume_that_may_be_anything_is_none(api: Api) -> None:
    basin = {"unit": "ft", "volume": "20000", "volume_uncertainty": 0.9}
    reply = await api.client.post("/api/v1/basins/preview", json=basin)
    assert (reply.status_code, reply.json()["error"]["field"]) == (422, "volume_uncertainty")


async def test_a_town_by_its_letters_and_by_the_place(api: Api) -> None:
    found = await api.get("/towns?find=portland&time_zone=America/New_York")
    assert (found[0]["name"], found[0]["region"]) == ("Portland", "ME")
    near = await api.get("/towns/nearest?latitude_deg=43.66&longitude_deg=-70.26")
    assert near == found[0]
    reply = await api.client.get("/api/v1/towns/nearest?latitude_deg=91&longitude_deg=0")
    assert reply.status_code == 422


async def test_every_measure_that_was_tested_is_there_over_time(api: Api) -> None:
    pool = await api.new_pool()
    assert await api.get(f"/pools/{pool}/history") == []
    await api.test(pool, free_chlorine="2", ph="7.5", salt="3100")
    api.pass_time(days=1)
    await api.test(pool, free_chlorine="3")
    found = {one["measure"]: one for one in await api.get(f"/pools/{pool}/history")}
    assert {key: [point["value"] for point in one["points"]] for key, one in found.items()} == {
        "free_chlorine": [2, 3],
        "ph": [7.5],
        "salt": [3100],
    }
    alone = await api.get(f"/pools/{pool}/history/free_chlorine")
    assert alone["points"] == found["free_chlorine"]["points"]
    assert alone["ahead"] == found["free_chlorine"]["ahead"]
