"""A pool whose volume nobody knows: amounts for each 1,000 gal, and nothing that needs the whole of it."""

import pytest

from tests.web.conftest import Api, new_id
from tests.web.routers.test_pools_assessment import GOOD, MORNING, UNMEASURED, judged, looked, only

L_PER_1000_GAL = 3785.411784  # by definition, 231 cubic inches each
LOW = {**GOOD, "free_chlorine": "1.2", "total_chlorine": "1.2"}


async def unmeasured(api: Api) -> str:
    await judged(api, [only(0.5, "drops", **LOW), looked()], MORNING, **UNMEASURED)
    made: str = (await api.pools())[-1]["id"]
    return made


async def test_amounts_are_those_of_a_thousand_gallons(api: Api) -> None:
    sheet = await api.get(f"/pools/{await unmeasured(api)}/sheet")
    dose = next(line["step"] for line in sheet["steps"] if line["step"]["kind"] == "add")
    readings = {name: float(value) for name, value in LOW.items() if name != "temperature_c"}
    body = {
        "pool": {
            "volume_l": L_PER_1000_GAL,
            "surface": "plaster",
            "chlorination": "liquid",
            "filter": "sand",
            "indoor": False,
            "covered": False,
        },
        "readings": {**readings, "temperature_c": 26.67},
        "targets": {},
        "school": "household",
        "shelf": [{"id": "x", "chemical": dose["chemical"], "strength_percent": 10.0, "package_g": 4000}],
    }
    preview = await api.post("/treatments/preview", body, 200)
    planned = next(step for step in preview["steps"] if step["kind"] == "add")
    assert dose["mass_g"] == pytest.approx(planned["mass_g"], rel=0.02)


async def test_a_plan_waits_for_the_volume(api: Api) -> None:
    pool = await unmeasured(api)
    refused = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 422)
    assert "Set it first" in str(refused)
    advice = await api.post(f"/pools/{pool}/second-opinion", {"text": "salt 20 kg"}, 422)
    assert "1,000 gal" in str(advice)


async def test_once_it_is_set_all_is_as_ever(api: Api) -> None:
    pool = await unmeasured(api)
    basin = {"unit": "ft", "parts": [], "fixtures": [], "volume": "18000 gal"}
    await api.post(f"/pools/{pool}/basin", {"id": new_id(), "basin": basin})
    found = await api.get(f"/pools/{pool}/assessment")
    assert "volume_unknown" not in [one["code"] for one in found["findings"]]
    await api.post(f"/pools/{pool}/sheets", {"id": new_id()})


async def test_a_liner_of_unknown_volume_is_not_taken_for_a_small_pool(api: Api) -> None:
    """Its rhythm of care is that of any pool, as for one whose volume is typed."""
    vinyl = {"surface": "vinyl", "chlorination": "liquid", "filter": "sand"}
    large = {"unit": "ft", "parts": [], "fixtures": [], "volume": "18000 gal"}
    made = [await api.new_pool(equipment=vinyl, basin=basin) for basin in (UNMEASURED["basin"], large)]
    unknown, known = [await api.get(f"/pools/{pool}/care") for pool in made]
    assert unknown == known
