"""The report to the owner over HTTP: found, added and why, done, what is next, when to swim; and as plain
words.
"""

from typing import Any

from tests.web.conftest import Api, new_id

Json = Any


async def visited(api: Api) -> str:
    """A low, high-pH pool that was tested, dosed by the sheet and left with a note."""
    pool = await api.new_pool()
    product = {
        "id": new_id(),
        "chemical": "sodium_hypochlorite",
        "strength_percent": 10,
        "package": "2.5 gal",
    }
    await api.post("/shelf", product, 201)
    bought = {"id": new_id(), "product_id": product["id"], "packages": 2, "price": "27"}
    await api.post("/shelf/purchases", bought, 201)
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), "clarity": "hazy", "level": "low"}, 201)
    await api.test(
        pool,
        free_chlorine="0.6",
        total_chlorine="0.8",
        ph="7.5",
        total_alkalinity="90",
        calcium_hardness="280",
        cyanuric_acid="40",
        temperature_c="80",
    )
    treatment = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    api.pass_time(minutes=10)
    step = next(line for line in treatment["steps"] if line["step"]["kind"] == "add")
    record_step = {"id": new_id(), "step_number": step["number"], "outcome": "done"}
    await api.post(f"/pools/{pool}/sheets/{treatment['id']}/ticks", record_step)
    visit = {"id": new_id(), "note": "gate left open", "needs_return": True, "trade": "electrician"}
    await api.post(f"/pools/{pool}/visits", visit, 201)
    return pool


async def test_a_visit_becomes_a_report(api: Api) -> None:
    pool = await visited(api)
    found = await api.get(f"/pools/{pool}/report")
    assert found["pool"] == "Test pool"
    values = {one["measure"]: one for one in found["found"]}
    assert values["free_chlorine"]["value"] == 0.6
    assert values["free_chlorine"]["verdict"]["code"] == "low"
    [added, *_] = found["poured"]
    assert "Liquid chlorine" in added["title"] or "hypochlorite" in added["title"].lower()
    assert "0.6" in added["detail"], "the sheet's reason"
    assert (found["notes"], found["trades"], found["comes_back"]) == (
        ["gate left open"],
        ["electrician"],
        True,
    )
    assert found["cost"] > 0
    assert found["swim"].startswith("Not before 7:10 PM: after "), (
        "an hour after the pour, on the pool's clock"
    )
    assert found["swim"] in found["text"]
    assert found["next"]["text"]
    assert found["ahead"] == sorted(found["ahead"], key=lambda one: one["day"])


async def test_the_words_hold_all_of_it(api: Api) -> None:
    pool = await visited(api)
    text = (await api.get(f"/pools/{pool}/report"))["text"]
    for words in (
        "Test pool, Mon, Jun 1",
        "Seen: hazy",
        "free chlorine 0.6 (low",
        "Added:",
        "gate left open",
        "electrician",
        "May they swim now?",
        "Next:",
        "$",
    ):
        assert words in text, words
    metric = (await api.get(f"/pools/{pool}/report?metric=true"))["text"]
    assert " °C" in metric
    assert " °F" in text


async def test_a_day_of_its_own_and_a_day_without_anything(api: Api) -> None:
    pool = await visited(api)
    first = await api.get(f"/pools/{pool}/report")
    api.pass_time(days=3)
    await api.test(pool, ph="7.6")
    later = await api.get(f"/pools/{pool}/report")
    assert later["days"] == [later["day"], first["day"]]
    assert [one["measure"] for one in later["found"]] == ["ph"]
    again = await api.get(f"/pools/{pool}/report?day={first['day']}")
    assert again["found"] == first["found"]
    nothing = await api.get(f"/pools/{pool}/report?day=2026-06-02")
    assert nothing["empty"]
    assert "Nothing was entered on this day." in nothing["text"]


async def test_a_pool_that_nobody_looked_at_has_an_empty_report(api: Api) -> None:
    pool = await api.new_pool()
    found = await api.get(f"/pools/{pool}/report")
    assert (found["empty"], found["days"], found["cost"]) == (True, [], None)


async def test_what_is_no_day_is_refused(api: Api) -> None:
    pool = await api.new_pool()
    reply = await api.client.get(f"/api/v1/pools/{pool}/report?day=soon")
    assert reply.status_code == 422
    assert reply.json()["error"]["message"]
