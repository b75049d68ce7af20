"""Where products stand, what a count finds, and what the pouring cost."""

import pytest

from tests.web.conftest import Api, Json, new_id
from tests.web.routers.test_workspace_products import WATER, line_of, product


async def place(api: Api, product_id: str, place: str, status: int = 201, **more: object) -> Json:
    body = {"id": new_id(), "product_id": product_id, "place": place, **more}
    return await api.post("/shelf/places", body, status)


async def poured_at(api: Api, pool: str) -> set[str]:
    sheet = await api.get(f"/pools/{pool}/sheet")
    return {step["step"]["product_id"] for step in sheet["steps"] if step["step"]["product_id"]}


async def test_a_pools_plan_looks_at_what_stands_there_and_not_in_the_store_or_elsewhere(api: Api) -> None:
    one, other = await api.new_pool(), await api.new_pool()
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal", 4, 20)
    dichlor = await product(api, "sodium_dichlor", 56, "5 lb", 1, 25)
    for pool in (one, other):
        await api.test(pool, **WATER)
    assert liquid in await poured_at(api, one)
    await place(api, liquid, "pool", pool_id=other)
    assert liquid in await poured_at(api, other)
    assert dichlor in await poured_at(api, one)
    assert liquid not in await poured_at(api, one)
    await place(api, dichlor, "store")
    assert dichlor not in await poured_at(api, one)
    await place(api, dichlor, "gone")
    assert (await line_of(api, dichlor))["place"] == "gone"
    assert dichlor not in await poured_at(api, one)


async def test_a_shock_is_offered_with_what_stands_at_the_pool_and_says_what_may_not_go_in(api: Api) -> None:
    one, other = (
        await api.new_pool(),
        await api.new_pool(equipment={"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"}),
    )

    async def offered(pool: str) -> dict[str, bool]:
        found = await api.get(f"/pools/{pool}/shock-products")
        return {choice["id"]: choice["why_not"] is None for choice in found}

    assert await offered(one) == {}  # nothing is noted on the shelf yet
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal")
    granules = await product(api, "calcium_hypochlorite", 65, "5 lb")
    await product(api, "trichlor", 90, "5 lb")
    assert await offered(one) == {liquid: True, granules: True}
    assert await offered(other) == {liquid: True, granules: False}
    await place(api, liquid, "pool", pool_id=other)
    await place(api, granules, "store")
    assert await offered(one) == {}
    assert await offered(other) == {liquid: True}
    await api.test(one, **WATER)
    await place(api, granules, "here")
    sheet = await api.get(f"/pools/{one}/offer?plan=shock&use={liquid}")
    assert "choice_not_at_hand" in [note["code"] for note in sheet["notes"]]


async def test_what_rides_on_a_truck_serves_the_pools_on_its_drivers_rounds(api: Api) -> None:
    one, other = await api.new_pool(), await api.new_pool()
    driver = (await api.post("/people", {"name": "Tomas Lind"}, 201))["id"]
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal")
    await product(api, "sodium_dichlor", 56, "5 lb")
    await place(api, liquid, "truck", 422)
    await place(api, liquid, "truck", 422, technician_id=new_id())
    await place(api, liquid, "truck", technician_id=driver)
    assert (await line_of(api, liquid))["place_technician_id"] == driver
    for pool in (one, other):
        await api.test(pool, **WATER)
    assert liquid not in await poured_at(api, one)
    await api.post("/rounds", {"id": new_id(), "person_id": driver, "weekday": 2, "stops": [one]}, 201)
    assert liquid in await poured_at(api, one)
    assert liquid not in await poured_at(api, other)


async def test_a_place_that_says_too_little_or_too_much_is_refused(api: Api) -> None:
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal")
    refused = await place(api, liquid, "pool", 422)
    assert refused["error"]["field"] == "pool_id"
    await place(api, liquid, "store", 422, pool_id=await api.new_pool())
    await place(api, liquid, "pool", 404, pool_id=new_id())
    await place(api, new_id(), "store", 404)


async def test_a_product_over_its_date_is_said(api: Api) -> None:
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal")
    await place(api, liquid, "here", best_before=str(api.now.date()))
    assert not (await line_of(api, liquid))["past_date"]
    api.pass_time(days=1)
    assert (await line_of(api, liquid))["past_date"]


async def test_a_count_in_one_pass_sets_the_books_right_and_says_what_differs(api: Api) -> None:
    pool = await api.new_pool()
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal", 4, 20)
    salt = await product(api, "sodium_chloride", 99.5, "40 lb", 10, 90)
    soda = await product(api, "sodium_bicarbonate", 100, "10 lb")
    found = await api.post(
        "/shelf/counts", {"id": new_id(), "left": {liquid: "2 1/2 jugs", salt: "10 bags", soda: "0"}}, 201
    )
    said = {line["product_id"]: line["text"] for line in found}
    assert "less than by the books" in said[liquid]
    assert said[salt] == "As by the books."
    assert said[soda] == "Counted for the first time."
    line = await line_of(api, liquid)
    assert line["stock_ml"] == pytest.approx(2.5 * 3785.4, rel=1e-3)
    assert line["counted_at"] is not None
    api.pass_time(hours=1)
    await api.post(
        f"/pools/{pool}/additions",
        {"id": new_id(), "product_id": liquid, "amount": "64 fl oz"},
        201,
    )
    await api.post("/shelf/purchases", {"id": new_id(), "product_id": liquid, "packages": 1}, 201)
    assert (await line_of(api, liquid))["stock_ml"] == pytest.approx(3 * 3785.4, rel=1e-3)


async def test_a_count_that_cannot_be_read_notes_nothing_and_names_the_product(api: Api) -> None:
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal", 4, 20)
    salt = await product(api, "sodium_chloride", 99.5, "40 lb", 10, 90)
    refused = await api.post(
        "/shelf/counts", {"id": new_id(), "left": {liquid: "2 jugs", salt: "a few"}}, 422
    )
    assert refused["error"]["field"] == salt
    assert (await line_of(api, liquid))["counted_at"] is None


async def test_a_package_stays_what_its_label_says_when_the_strength_goes(api: Api) -> None:
    liquid = await product(api, "sodium_hypochlorite", 12.5, "2.5 gal", 4, 60)
    api.pass_time(days=60)
    assert (await line_of(api, liquid))["package_text"] == "2½ gal"


async def test_the_price_of_each_purchase_is_kept(api: Api) -> None:
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal", 4, 20)
    api.pass_time(days=30)
    await api.post(
        "/shelf/purchases", {"id": new_id(), "product_id": liquid, "packages": 2, "price": 13}, 201
    )
    assert [one["price"] for one in (await line_of(api, liquid))["purchases"]] == [6.5, 5.0]


async def test_costs_by_product_pool_month_and_what_has_no_price(api: Api) -> None:
    one, other = await api.new_pool(), await api.new_pool()
    liquid = await product(api, "sodium_hypochlorite", 12.5, "1 gal", 10, 50)
    soda = await product(api, "sodium_bicarbonate", 100, "10 lb")
    for pool, amount in ((one, "2 jugs"), (other, "1 jug")):
        await api.post(
            f"/pools/{pool}/additions", {"id": new_id(), "product_id": liquid, "amount": amount}, 201
        )
    await api.post(f"/pools/{one}/additions", {"id": new_id(), "product_id": soda, "amount": "5 lb"}, 201)
    found = await api.get("/costs?days=30")
    assert found["total"] == pytest.approx(15, rel=1e-3)
    assert [line["cost"] for line in found["products"]] == [pytest.approx(15, rel=1e-3), None]
    assert [line["key"] for line in found["pools"]] == [one, other]
    assert [line["cost"] for line in found["pools"]] == pytest.approx([10, 5], rel=1e-3)
    assert [line["key"] for line in found["months"]] == [api.now.strftime("%Y-%m")]
    assert any("no price" in gap for gap in found["gaps"])
    api.pass_time(days=60)
    assert (await api.get("/costs?days=30"))["total"] == 0
