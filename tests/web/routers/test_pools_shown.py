"""A list that shows what asks for something, or what nobody tested for long, with how many there are of each."""

from kumpan.web.renewal import renew_some
from tests.web.conftest import Api

GOOD = {
    "free_chlorine": "4",
    "total_chlorine": "4",
    "ph": "7.5",
    "total_alkalinity": "110",
    "calcium_hardness": "260",
    "cyanuric_acid": "40",
}


async def test_what_asks_for_something_and_what_is_untested_can_be_shown_alone(api: Api) -> None:
    good, bad = await api.new_pool(), await api.new_pool()
    await api.post(f"/pools/{good}/looks", {"id": good, "clarity": "clear", "level": "normal"})
    await api.test(good, **GOOD)
    page = await api.get("/pools")
    marks = {mark["measure"]: mark for one in page["pools"] if one["id"] == good for mark in one["marks"]}
    assert 0 <= marks["ph"]["at"]["position"] <= 1
    assert marks["ph"]["code"] == "good"
    assert marks["salt"]["at"] is None
    assert "saturation_index" not in marks
    await renew_some(api.database, api.now)
    page = await api.get("/pools")
    assert page["counts"]["all"] == 2
    assert page["counts"]["untested"] == 1
    untested = await api.get("/pools?show=untested")
    assert [one["id"] for one in untested["pools"]] == [bad]
    asks = await api.get("/pools?show=asks")
    assert bad in {one["id"] for one in asks["pools"]}
    assert page["counts"]["asks"] == len(asks["pools"])
    api.pass_time(days=8)
    assert (await api.get("/pools?show=untested"))["counts"]["untested"] == 2
