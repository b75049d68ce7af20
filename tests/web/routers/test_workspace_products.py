"""The shelf with prices and aging, the ways side by side, plans on demand, rules of a pool, tags on
answers.
"""

from datetime import UTC, datetime

import pytest

from tests.web.conftest import Api, Json, new_id, pool_body

WATER = {
    "free_chlorine": "1",
    "total_chlorine": "1",
    "ph": "7.5",
    "total_alkalinity": "100",
    "calcium_hardness": "260",
    "cyanuric_acid": "40",
    "temperature_c": "82F",
}


async def product(
    api: Api, chemical: str, strength: float, package: str, packages: float = 0, price: float = 0
) -> str:
    id_ = new_id()
    body = {"id": id_, "chemical": chemical, "strength_percent": strength, "package": package}
    await api.post("/shelf", body, 201)
    if packages:
        await api.post(
            "/shelf/purchases", {"id": new_id(), "product_id": id_, "packages": packages, "price": price}, 201
        )
    return id_


async def line_of(api: Api, id_: str) -> Json:
    return next(line for line in await api.get("/shelf") if line["id"] == id_)


async def test_liquid_chlorine_ages_and_the_dose_allows_for_it(api: Api) -> None:
    pool = await api.new_pool()
    liquid = await product(api, "sodium_hypochlorite", 12.5, "2.5 gal", 4, 60)
    await api.test(pool, **WATER)
    fresh = next(
        s["step"]
        for s in (await api.get(f"/pools/{pool}/sheet"))["steps"]
        if s["step"]["product_id"] == liquid
    )
    api.pass_time(days=109)
    await api.test(pool, **WATER)
    line = await line_of(api, liquid)
    assert line["strength_now_percent"] == pytest.approx(12.5 / 1.5, abs=0.1), "half of its half-life at 75 F"
    aged = next(
        s["step"]
        for s in (await api.get(f"/pools/{pool}/sheet"))["steps"]
        if s["step"]["product_id"] == liquid
    )
    assert aged["volume_ml"] == pytest.approx(fresh["volume_ml"] * 1.5, rel=0.02)
    await api.post("/shelf/strengths", {"id": new_id(), "product_id": liquid, "strength_percent": 11.0}, 201)
    assert (await line_of(api, liquid))["strength_now_percent"] == pytest.approx(11.0)


async def test_price_season_and_what_to_buy(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    liquid = await product(api, "sodium_hypochlorite", 10, "1 gal", 2, 14)
    body = {"id": new_id(), "product_id": liquid, "amount": "1.9 gal"}
    await api.post(f"/pools/{pool}/additions", body, 201)
    api.pass_time(hours=2)
    await api.test(pool, **WATER)
    line = await line_of(api, liquid)
    assert line["price"] == pytest.approx(7.0)
    assert line["used_cost"] == pytest.approx(1.9 * 7.0)
    [buy] = [row for row in await api.get("/shelf/to-buy") if row["product_id"] == liquid]
    assert (buy["packages_text"], buy["cost"]) == ("1 × 1 gal", 7.0)


async def test_the_ways_and_taking_one(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    await product(api, "sodium_hypochlorite", 10, "2.5 gal", 4, 56)
    granules = await product(api, "calcium_hypochlorite", 65, "1 lb", 10, 10)
    found = await api.get(f"/pools/{pool}/ways")
    cheapest = next(
        strategy for strategy in found["ways"] if strategy["way"] == "cheapest" or strategy["use"] == granules
    )
    assert "Calcium hypochlorite" in cheapest["products"][0]["label"]
    assert cheapest["used_cost"] < found["ways"][0]["used_cost"]
    request = {"plan": "balance", "way": cheapest["way"], "use": cheapest["use"]}
    started = await api.post(f"/pools/{pool}/sheets", {"id": new_id(), "asked": request}, 201)
    assert granules in {line["step"]["product_id"] for line in started["steps"]}


async def test_containers_are_kept_and_used(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    box = {"kind": "cup", "name": "red cup", "holds": "1 cup", "parts": 4}
    saved = await api.post(
        "/habits", {"id": new_id(), "containers": [box], "currency": "€", "storage": "20C"}
    )
    assert saved["containers"][0]["volume_ml"] == pytest.approx(236.6, abs=0.1)
    assert (await api.get("/habits"))["storage_c"] == 20
    texts = [line["step"]["rounded_text"] or "" for line in (await api.get(f"/pools/{pool}/sheet"))["steps"]]
    assert any("red cup" in text for text in texts)


@pytest.mark.parametrize(("box", "says"), [
    ({"kind": "scoop", "name": "tin", "holds": "250 g"}, "which product"),
    ({"kind": "cup", "name": "cup", "holds": "3 lb"}, "does not fit"),
    ({"kind": "cup", "name": "cup", "holds": "0"}, "how much it holds"),
])  # fmt: skip
async def test_a_measure_that_measures_nothing_is_refused(api: Api, box: Json, says: str) -> None:
    reply = await api.client.post("/api/v1/habits", json={"id": new_id(), "containers": [box]})
    assert reply.status_code == 422
    assert says in reply.json()["error"]["message"]


async def test_a_pools_own_rules_change_its_verdicts(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **{**WATER, "free_chlorine": "2.2", "total_chlorine": "2.2", "cyanuric_acid": "56"})
    assert (await gauge(api, pool))["verdict"]["code"] == "good"
    ratio = {"choices": [{"question": "chlorine", "option": "ratio"}], "swim_limit_mg_l": 5}
    await api.post(f"/pools/{pool}/settings", {"id": new_id(), "settings": {**SETTINGS, **ratio}})
    after = await gauge(api, pool)
    assert (after["verdict"]["code"], after["low"]) == ("low", 2.8)
    own = {"own_ranges": [{"measure": "free_chlorine", "low": 1, "aim": 2, "high": 4}]}
    await api.post(f"/pools/{pool}/settings", {"id": new_id(), "settings": {**SETTINGS, **own}})
    assert (await gauge(api, pool))["high"] == 4
    board = await api.get(f"/pools/{pool}/board")
    assert board["school_name"] == "Own, from Household"
    bad = {"choices": [{"question": "chlorine", "option": "magic"}]}
    reply = await api.client.post(
        f"/api/v1/pools/{pool}/settings", json={"id": new_id(), "settings": {**SETTINGS, **bad}}
    )
    assert reply.status_code == 422


SETTINGS = pool_body("00000000-0000-0000-0000-000000000000")["settings"]


async def gauge(api: Api, pool: str) -> Json:
    board = await api.get(f"/pools/{pool}/board")
    return next(gauge for gauge in board["lanes"] if gauge["measure"] == "free_chlorine")


async def test_a_drained_pool_is_a_water_change_in_the_journal(api: Api) -> None:
    equipment = {
        **pool_body(new_id())["equipment"],
        "fill_water": {"ph": 7.6, "total_alkalinity": 80, "calcium_hardness": 100},
    }
    pool = await api.new_pool(equipment=equipment)
    await api.test(pool, **{**WATER, "cyanuric_acid": "80"})
    started = await api.post(f"/pools/{pool}/sheets", {"id": new_id(), "asked": {"plan": "drain"}}, 201)
    refill = next(line for line in started["steps"] if line["step"]["water_l"])
    steps_done = f"/pools/{pool}/sheets/{started['id']}/ticks"
    body = {"id": new_id(), "step_number": refill["number"], "outcome": "done", "amount": "9000 gal"}
    treatment = await api.post(steps_done, body)
    assert "9,000 gal" in treatment["steps"][refill["number"]]["ticked"]["amount_text"]
    assert (await api.get(f"/pools/{pool}/log"))[0]["kind"] == "water"


@pytest.mark.parametrize(
    "plan", ["lower_chlorine", "borate", "mineral", "drain", "shock", "incident", "balance"]
)
async def test_every_plan_answers_before_and_after_the_first_test(api: Api, plan: str) -> None:
    pool = await api.new_pool()
    assert (await api.get(f"/pools/{pool}/offer?plan={plan}"))["id"] is None
    await api.test(pool, **WATER)
    found = await api.get(f"/pools/{pool}/offer?plan={plan}&metric=true")
    assert found["steps"] or found["unmet"]


async def test_advice_can_be_adopted(api: Api) -> None:
    pool = await api.new_pool()
    request = {"plan": "advice", "advice": "salt 20 kg, buffer 400 g"}
    reply = await api.client.get(f"/api/v1/pools/{pool}/offer", params=request)
    assert reply.json()["error"]["field"] == "advice"
    await api.test(pool, **WATER, salt="1000")
    started = await api.post(f"/pools/{pool}/sheets", {"id": new_id(), "asked": request}, 201)
    poured = {
        line["step"]["chemical"]: line["step"]["mass_g"]
        for line in started["steps"]
        if line["step"]["mass_g"]
    }
    assert poured == {"sodium_bicarbonate": pytest.approx(400), "sodium_chloride": pytest.approx(20_000)}


async def test_a_late_tick_moves_the_rest_of_the_sheet(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    started = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    before = at(started["steps"][-1])
    api.pass_time(hours=1)
    steps_done = f"/pools/{pool}/sheets/{started['id']}/ticks"
    later = await api.post(steps_done, {"id": new_id(), "step_number": 0, "outcome": "done"})
    assert (at(later["steps"][-1]) - before).total_seconds() == pytest.approx(3600, abs=2)
    api.pass_time(hours=20)
    overdue = await api.get(f"/pools/{pool}/sheet")
    assert overdue["notes"][0]["code"] == "overdue"


def at(line: Json) -> datetime:
    return datetime.fromisoformat(line["at"]).astimezone(UTC)


async def test_what_has_not_changed_is_not_sent_again(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    first = await api.client.get(f"/api/v1/pools/{pool}/log")
    tag = first.headers["etag"]
    again = await api.client.get(f"/api/v1/pools/{pool}/log", headers={"If-None-Match": tag})
    assert (again.status_code, again.content) == (304, b"")
    await api.test(pool, **WATER)
    changed = await api.client.get(f"/api/v1/pools/{pool}/log", headers={"If-None-Match": tag})
    assert changed.status_code == 200


async def test_a_coarse_reading_is_asked_for_instead_of_dosed(api: Api) -> None:
    pool = await api.new_pool()
    body = {
        "id": new_id(),
        "kit": "strips",
        "temperature_unit": "f",
        "fields": {**WATER, "cyanuric_acid": "20"},
    }
    await api.post(f"/pools/{pool}/tests", body)
    treatment = await api.get(f"/pools/{pool}/sheet")
    assert "cyanuric_acid" not in {line["step"]["chemical"] for line in treatment["steps"]}
    assert "within_doubt" in {left["code"] for left in treatment["unmet"]}


async def test_an_amount_is_typed_in_the_words_of_the_sheet(api: Api) -> None:
    """Jugs by the package of the shelf, cups by their own name; a correction is read the same way."""
    pool = await api.new_pool()
    product = {"id": new_id(), "chemical": "sodium_hypochlorite", "strength_percent": 10, "package": "1 gal"}
    await api.post("/shelf", product, 201)
    box = {"kind": "cup", "name": "blue cup", "holds": "8 fl oz", "parts": 4}
    await api.post("/habits", {"id": new_id(), "containers": [box]})
    pour = {"id": new_id(), "product_id": product["id"], "amount": "1½ jugs"}
    entry = await api.post(f"/pools/{pool}/additions", pour, 201)
    correct = {"id": new_id(), "amount": "3 × blue cup (24 fl oz)", "at": api.now.isoformat()}
    await api.post(f"/entries/{entry}/correct-addition", correct)
    log = await api.get(f"/pools/{pool}/log")
    assert [line["detail"] for line in log if line["kind"] == "addition"] == ["24 fl oz", "1½ gal"]


async def test_a_package_that_nobody_measured_is_asked_about(api: Api) -> None:
    pool = await api.new_pool()
    product = {"id": new_id(), "chemical": "calcium_chloride", "strength_percent": 77}
    await api.post("/shelf", product, 201)
    pour = {"id": new_id(), "product_id": product["id"], "amount": "2 bags"}
    error = (await api.post(f"/pools/{pool}/additions", pour, 422))["error"]
    assert "type an amount" in error["message"]
    assert error["field"] == "amount"


async def test_a_sheets_step_is_ticked_in_bags(api: Api) -> None:
    """Seven bags in place of the eight that the sheet asks for: the journal holds what went in."""
    pool = await api.new_pool(equipment={"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"})
    salt = {"id": new_id(), "chemical": "sodium_chloride", "strength_percent": 99.5, "package": "40 lb"}
    await api.post("/shelf", salt, 201)
    await api.test(
        pool,
        free_chlorine="2",
        ph="7.5",
        total_alkalinity="80",
        calcium_hardness="280",
        cyanuric_acid="70",
        salt="1600",
        temperature_c="80",
    )
    treatment = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    step = next(s for s in treatment["steps"] if s["step"]["product_id"] == salt["id"])
    record_step = {"id": new_id(), "step_number": step["number"], "outcome": "done", "amount": "1 bag"}
    done_as = await api.post(f"/pools/{pool}/sheets/{treatment['id']}/ticks", record_step)
    assert done_as["steps"][step["number"]]["ticked"]["amount_text"] == "40 lb"


async def label_product(api: Api, chemical: str, **label: Json) -> str:
    id_ = new_id()
    body = {"id": id_, "chemical": chemical, "strength_percent": 50, "package": "1 qt", "label_dose": label}
    await api.post("/shelf", body, 201)
    return id_


async def test_a_product_by_its_label_goes_from_the_shelf_into_plan_log_stock_and_due_list(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    id_ = await label_product(
        api, "clarifier", first="6 fl oz", upkeep="3 fl oz", most="8 fl oz", repeat_days=7
    )
    await api.post("/shelf/purchases", {"id": new_id(), "product_id": id_, "packages": 2, "price": 30}, 201)
    line = await line_of(api, id_)
    assert line["by_label"]
    assert line["label_text"] == "6 fl oz first, then 3 fl oz, for each 10,000 gal."
    found = await api.get(f"/pools/{pool}/offer?plan=label_dose&use={id_}")
    (step,) = [line["step"] for line in found["steps"] if line["step"]["kind"] == "add"]
    assert step["reason_code"] == "label"
    gallons = (await api.get(f"/pools/{pool}"))["basin"]["volume_l"] / 3.785411784
    assert step["volume_ml"] / 29.5735 == pytest.approx(6 * gallons / 10_000, rel=1e-3)
    before = (await line_of(api, id_))["stock_ml"]
    await api.post(
        f"/pools/{pool}/additions", {"id": new_id(), "product_id": id_, "amount": "half a pint"}, 201
    )
    assert before - (await line_of(api, id_))["stock_ml"] == pytest.approx(8 * 29.5735, rel=1e-3)
    api.pass_time(days=8)
    due = {item["task"]: item for item in (await api.get(f"/pools/{pool}/care"))["items"]}
    assert due["label_clarifier"]["standing"] in ("due", "overdue")


async def test_more_than_its_label_allows_is_refused_with_the_most_and_bromide_with_the_reason(
    api: Api,
) -> None:
    pool = await api.new_pool()
    id_ = await label_product(api, "clarifier", first="6 fl oz", most="8 fl oz")
    much = {"id": new_id(), "product_id": id_, "amount": "a gallon"}
    refused = await api.post(f"/pools/{pool}/additions", much, 422)
    assert refused["error"]["message"].startswith("Its label allows at most")
    assert refused["error"]["field"] == "amount"
    right = {"id": new_id(), "product_id": id_, "amount": "4 fl oz"}
    entry = await api.post(f"/pools/{pool}/additions", right, 201)
    corrected = {"id": new_id(), "amount": "a gallon"}
    refused = await api.post(f"/entries/{entry}/correct-addition", corrected, 422)
    assert refused["error"]["message"].startswith("Its label allows at most")
    bromide = {"id": new_id(), "chemical": "bromide", "strength_percent": 50}
    assert "bromine pool" in (await api.post("/shelf", bromide, 422))["error"]["message"]
    over = {"id": new_id(), "chemical": "clarifier", "strength_percent": 50}
    over |= {"label_dose": {"first": "9 fl oz", "most": "8 fl oz"}}
    assert (await api.post("/shelf", over, 422))["error"]["field"] == "first"


async def test_what_has_no_equation_is_told_apart_by_the_calculations(api: Api) -> None:
    addition = {"chemical": "clarifier", "strength_percent": 50, "mass_g": 100}
    body = {"readings": {}, "volume_l": 40_000, "additions": [addition]}
    refused = await api.client.post("/api/v1/water/after", json=body)
    assert refused.status_code == 422
    assert "by its label" in refused.json()["error"]["message"]


async def test_metals_and_phosphate_have_a_lane_once_they_were_tested(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    before = {lane["measure"] for lane in (await api.get(f"/pools/{pool}/board"))["lanes"]}
    assert not before & {"copper", "iron", "phosphate_ppb", "tds"}
    await api.test(pool, copper="0.45", phosphate_ppb="250", tds="1800")
    lanes = {lane["measure"]: lane for lane in (await api.get(f"/pools/{pool}/board"))["lanes"]}
    assert {"copper", "phosphate_ppb", "tds"} <= set(lanes)
    assert (lanes["copper"]["high"], lanes["copper"]["verdict"]["code"]) == (0.3, "high")
    assert lanes["tds"]["high"] is None
    assert "iron" not in lanes


async def test_what_copper_an_algaecide_brings_stands_in_the_water_after(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER, copper="0.05")
    id_ = await label_product(api, "algaecide_copper", first="3 fl oz")
    api.pass_time(minutes=5)
    await api.post(f"/pools/{pool}/additions", {"id": new_id(), "product_id": id_, "amount": "3 fl oz"}, 201)
    expected = (await api.get(f"/pools/{pool}/assessment"))["expected"]["copper"]
    volume_l = (await api.get(f"/pools/{pool}"))["basin"]["volume_l"]
    assert expected == pytest.approx(0.05 + 3 * 29.5735 * 0.5 * 1000 / volume_l, rel=0.02)


async def test_a_regime_goes_on_the_schedule_from_the_weekly_page_and_comes_round_by_what_is_poured(
    api: Api,
) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    liquid = await product(api, "sodium_hypochlorite", 10, "1 gal")
    week = await api.get(f"/pools/{pool}/weekly")
    assert 0 < week["low"] < week["likely"] < week["high"]
    mine = next(one for one in week["regimes"] if one["product_id"] == liquid)
    assert (mine["task"], mine["on_schedule"]) == ("pour_sodium_hypochlorite", False)
    body = {"id": new_id(), "task": mine["task"], "days": mine["every_days"], "off": False}
    await api.post(f"/pools/{pool}/care/interval", body, 201)
    items = {item["task"]: item for item in (await api.get(f"/pools/{pool}/care"))["items"]}
    assert items[mine["task"]]["standing"] == "due"
    assert items[mine["task"]]["station"] == "week"
    assert (await api.get(f"/pools/{pool}/weekly"))["regimes"][0]["on_schedule"]
    pour = {"id": new_id(), "product_id": liquid, "amount": "1 qt"}
    await api.post(f"/pools/{pool}/additions", pour, 201)
    items = {item["task"]: item for item in (await api.get(f"/pools/{pool}/care"))["items"]}
    assert items[mine["task"]]["standing"] != "due"
    titles = [line["detail"] for line in await api.get(f"/pools/{pool}/log")]
    assert any("the week's share" in title for title in titles)
    wrong = {"id": new_id(), "task": "pour_bleach", "days": 2, "off": False}
    await api.post(f"/pools/{pool}/care/interval", wrong, 422)


async def test_a_shelf_with_labels_serves_every_page_as_before(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    await product(api, "sodium_hypochlorite", 10, "1 gal", packages=2, price=12)
    await product(api, "sodium_bicarbonate", 100, "4 lb")
    plain = await api.get(f"/pools/{pool}/offer")
    for kind in ("clarifier", "algaecide_quat", "algae_booster", "flocculant", "supply"):
        body = {"id": new_id(), "chemical": kind, "strength_percent": 50, "package": ""}
        await api.post("/shelf", body, 201)
    again = await api.get(f"/pools/{pool}/offer")
    assert [one["step"] for one in again["steps"]] == [one["step"] for one in plain["steps"]]
    for page in ("/ways", "/board", "/today", "/rescue", "/weekly", "/offer?plan=shock", "/report"):
        await api.get(f"/pools/{pool}{page}")
    await api.get("/shelf/to-buy")
    read = await api.post(f"/pools/{pool}/second-opinion", {"text": "clarifier 8 fl oz, baking soda 2 lb"})
    assert len(read["advice"]) == 2
    assert any(note["code"] == "by_label" for note in read["findings"])
    sheet = await api.get(f"/pools/{pool}/offer?plan=advice&advice=clarifier 8 fl oz, baking soda 2 lb")
    assert [one["step"]["chemical"] for one in sheet["steps"] if one["step"]["kind"] == "add"] == [
        "sodium_bicarbonate"
    ]
