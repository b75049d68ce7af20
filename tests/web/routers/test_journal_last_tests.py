"""The slip's memory: ghosts of the last values, and the order of one's own kit."""

import pytest

from tests.web.conftest import Api, new_id, pool_body


async def test_ghosts_are_what_would_be_typed_again(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, free_chlorine="15x0.2", ph="7,6", temperature_c="82F")
    api.pass_time(days=1)
    await api.test(pool, ph="7.4", total_chlorine="3.5")
    last = await api.get(f"/pools/{pool}/slip/last")
    assert {measure: one["text"] for measure, one in last.items()} == {
        "free_chlorine": "3",
        "total_chlorine": "3.5",
        "ph": "7.4",
        "temperature_c": "82",
    }
    celsius = await api.get(f"/pools/{pool}/slip/last?temperature_unit=c")
    assert celsius["temperature_c"]["text"] == "28"
    assert last["free_chlorine"]["at"] < last["ph"]["at"]


async def test_a_corrected_test_changes_its_ghost(api: Api) -> None:
    pool = await api.new_pool()
    entry = await api.test(pool, ph="7.9")
    await api.post(f"/entries/{entry}/correct-test", {"id": new_id(), "fields": {"ph": "7.5"}})
    assert (await api.get(f"/pools/{pool}/slip/last"))["ph"]["text"] == "7.5"


async def in_order(api: Api, pool: str, *order: str) -> int:
    settings = {**pool_body(pool)["settings"], "kit_order": list(order)}
    reply = await api.client.post(
        f"/api/v1/pools/{pool}/settings", json={"id": new_id(), "settings": settings}
    )
    return reply.status_code


async def test_bare_numbers_follow_the_own_kit(api: Api) -> None:
    pool = await api.new_pool()
    line = {"line": "7.6 2.5 300", "kit": "drops"}
    usual = await api.post(f"/pools/{pool}/slip/read", line)
    assert [one["measure"] for one in usual["values"]][:2] == ["free_chlorine", "total_chlorine"]
    assert await in_order(api, pool, "ph", "free_chlorine", "calcium_hardness") == 200
    own = await api.post(f"/pools/{pool}/slip/read", line)
    assert [(one["measure"], one["value"]) for one in own["values"]] == [
        ("ph", 7.6),
        ("free_chlorine", 2.5),
        ("calcium_hardness", 300),
    ]
    more = await api.post(f"/pools/{pool}/slip/read", {"line": "7.6 2.5 300 80", "kit": "drops"})
    assert more["problems"][0]["text"] == "There are only 3 fields in this kit."


async def test_an_order_with_a_measure_twice_is_refused(api: Api) -> None:
    pool = await api.new_pool()
    assert await in_order(api, pool, "ph", "ph") == 422


@pytest.mark.parametrize(
    ("line", "suggestion"), [("stabb 40", "stab"), ("alkk 90", "alk"), ("saltt 3200", "salt"), ("qq 4", None)]
)
async def test_a_typo_carries_its_place_and_its_mending(api: Api, line: str, suggestion: str | None) -> None:
    pool = await api.new_pool()
    read = await api.post(f"/pools/{pool}/slip/read", {"line": f"ph 7.5 {line}", "kit": "drops"})
    problem = read["problems"][0]
    assert problem["suggestion"] == suggestion
    piece = problem["piece"]
    assert f"ph 7.5 {line}"[problem["position"] :].startswith(piece)
    assert [one["measure"] for one in read["values"]] == ["ph"]
