"""A visit over HTTP: begun, ticked by group, skipped with a reason, seen by others, ended."""

from tests.web.conftest import Api, Json, new_id

WATER = {"free_chlorine": "3", "ph": "7.5", "total_alkalinity": "100", "calcium_hardness": "260",
         "cyanuric_acid": "40", "temperature_c": "82F"}  # fmt: skip


async def begin(api: Api, pool: str, kind: str = "hour") -> str:
    id_ = new_id()
    await api.post(f"/pools/{pool}/visit", {"id": id_, "kind": kind}, 201)
    return id_


def marks(visit: Json) -> dict[str, str]:
    return {line["key"]: line["mark"] for line in visit["lines"]}


async def test_from_begin_to_end(api: Api) -> None:
    pool = await api.new_pool()
    before = await api.get(f"/pools/{pool}/visit")
    assert before["entry_id"] is None
    assert before["kind"] == "hour"
    visit_id = await begin(api, pool)
    visit = await api.get(f"/pools/{pool}/visit")
    assert visit["entry_id"] == visit_id
    usual = [line["key"] for line in visit["lines"] if line["usual"]]
    assert "look" in usual
    noted = await api.post(f"/pools/{pool}/visit/usual", {"id": new_id(), "keys": usual}, 201)
    assert len(noted) == len(usual)
    done = marks(await api.get(f"/pools/{pool}/visit"))
    assert {done[key] for key in usual} == {"done"}
    assert done["test"] == "open"
    api.pass_time(hours=0.1)
    await api.test(pool, **WATER)
    visit = await api.get(f"/pools/{pool}/visit")
    assert visit["tested"]
    assert marks(visit)["test"] == "done"
    await api.post(f"/pools/{pool}/visits", {"id": new_id(), "note": "All fine."}, 201)
    assert (await api.get(f"/pools/{pool}/visit"))["entry_id"] is None
    report = await api.get(f"/pools/{pool}/report")
    assert report


async def test_ticks_are_care_in_the_log_and_can_be_taken_back(api: Api) -> None:
    pool = await api.new_pool()
    await begin(api, pool, "storm")
    tick = {"id": new_id(), "keys": ["baskets", "skim"]}
    noted = await api.post(f"/pools/{pool}/visit/usual", tick, 201)
    assert await api.post(f"/pools/{pool}/visit/usual", tick, 201) == noted, "sent again it is the same"
    assert marks(await api.get(f"/pools/{pool}/visit"))["baskets"] == "done"
    await api.post(f"/entries/{noted[0]}/void", {"id": new_id(), "reason": "not done"})
    assert marks(await api.get(f"/pools/{pool}/visit"))["baskets"] == "open"


async def test_one_visit_goes_on_at_a_time_and_the_same_begin_is_answered(api: Api) -> None:
    pool = await api.new_pool()
    first = await begin(api, pool)
    await api.post(f"/pools/{pool}/visit", {"id": first, "kind": "hour"}, 201)
    refused = await api.post(f"/pools/{pool}/visit", {"id": new_id(), "kind": "stop"}, 409)
    assert "goes on here already" in refused["error"]["message"]


async def test_what_has_to_be_opened_is_no_tick_and_nothing_is_noted(api: Api) -> None:
    pool = await api.new_pool()
    early = await api.post(f"/pools/{pool}/visit/usual", {"id": new_id(), "keys": ["look"]}, 422)
    assert "begin one first" in early["error"]["message"]
    await begin(api, pool, "stop")
    for keys in (["look", "test"], ["look", "paint"]):
        await api.post(f"/pools/{pool}/visit/usual", {"id": new_id(), "keys": keys}, 422)
    assert marks(await api.get(f"/pools/{pool}/visit"))["look"] == "open"


async def test_a_line_is_left_out_with_its_reason(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    api.pass_time(days=9)
    await begin(api, pool)
    due = [line["key"] for line in (await api.get(f"/pools/{pool}/visit"))["lines"]]
    assert "vacuum" in due
    skipped = {"id": new_id(), "task": "vacuum", "until": None, "reason": "bare floor"}
    await api.post(f"/pools/{pool}/care/put-off", skipped, 201)
    assert marks(await api.get(f"/pools/{pool}/visit"))["vacuum"] == "skipped"
