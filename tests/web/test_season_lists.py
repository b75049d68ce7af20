"""Opening and closing over HTTP."""

import pytest

from tests.web.conftest import Api


async def test_a_closing_for_this_pool_on_a_day(api: Api) -> None:
    pool = await api.new_pool(equipment={"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"})
    plan = await api.get(f"/pools/{pool}/season-plan?which=closing&day=2026-10-17")
    assert plan["items"][0]["day"] == "2026-10-15"
    cell = next(item for item in plan["items"] if item["key"] == "cell")
    assert any("Never power a cell without flow" in caution for caution in cell["cautions"])
    assert "cell spacer" in plan["materials"]


async def test_a_green_pool_is_handed_over_at_opening(api: Api) -> None:
    pool = await api.new_pool()
    look = {"id": "00000000-0000-0000-0000-0000000000aa", "clarity": "green", "level": "normal"}
    await api.post(f"/pools/{pool}/looks", look, 201)
    api.pass_time(minutes=1)
    plan = await api.get(f"/pools/{pool}/season-plan?which=opening&day=2026-06-02&kind=above_ground")
    assert "rescue" in {item["key"] for item in plan["items"]}


@pytest.mark.parametrize(
    "query",
    ["which=closing", "which=nap&day=2026-10-17", "which=closing&day=2036-10-17", "which=opening&day=soon"],
)
async def test_what_cannot_be_is_refused(api: Api, query: str) -> None:
    pool = await api.new_pool()
    reply = await api.client.get(f"/api/v1/pools/{pool}/season-plan?{query}")
    assert reply.status_code == 422
    assert reply.json()["error"]["message"]
