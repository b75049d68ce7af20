"""The round over HTTP: stops in order, what they need, the truck, finished visits."""

from datetime import timedelta
from uuid import UUID

import pytest

from tests.web.conftest import Api, Json, new_id, pool_body

LOW = {
    "free_chlorine": "1", "total_chlorine": "1.2", "ph": "7.9", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "40", "temperature_c": "82F",
}  # fmt: skip
MONDAY = 0  # the clock of the tests starts on Monday, 1 June 2026


async def somebody(api: Api, name: str = "Tomas Lind") -> str:
    person = await api.post("/people", {"id": new_id(), "name": name, "initials": ""}, 201)
    return str(person["id"])


async def pool_at(api: Api, name: str, latitude: float) -> str:
    pool_id = new_id()
    settings = {
        "name": name,
        "time_zone": "America/Chicago",
        "latitude_deg": latitude,
        "longitude_deg": -95.0,
    }
    await api.post("/pools", pool_body(pool_id, settings=settings))
    return pool_id


async def set_round(api: Api, person: str, *stops: str, weekday: int = MONDAY) -> None:
    body = {"id": new_id(), "person_id": person, "weekday": weekday, "stops": list(stops)}
    await api.post("/rounds", body, 201)


async def the_round(api: Api, person: str, **query: Json) -> Json:
    more = "".join(f"&{key}={value}" for key, value in query.items())
    return await api.get(f"/round?person_id={person}{more}")


def names(found: Json, key: str = "stops") -> list[str]:
    return [stop["head"]["settings"]["name"] for stop in found[key]]


async def test_a_round_keeps_its_order_and_suggests_a_shorter_one(api: Api) -> None:
    person = await somebody(api)
    near, far, middle = [
        await pool_at(api, n, at) for n, at in (("Near", 29.0), ("Far", 29.4), ("Middle", 29.2))
    ]
    await set_round(api, person, near, far, middle)
    found = await the_round(api, person)
    assert names(found) == ["Near", "Far", "Middle"]
    assert found["is_today"]
    assert found["nearest_next"] == [near, middle, far]
    assert found["nearest_km"] < found["length_km"]
    await set_round(api, person, *found["nearest_next"])
    found = await the_round(api, person)
    assert names(found) == ["Near", "Middle", "Far"]
    assert found["nearest_next"] == []
    assert found["days"] == [MONDAY]
    assert (await the_round(api, person, weekday=3))["stops"] == []


async def test_rounds_of_two_technicians_do_not_mix(api: Api) -> None:
    one, other = await somebody(api), await somebody(api, "Oda Reyes")
    pool = await pool_at(api, "Hers", 29.0)
    await set_round(api, other, pool)
    assert names(await the_round(api, one)) == []
    assert names(await the_round(api, one), "others")[-1] == "Hers"


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"person_id": None}, "Say who you are"),
        ({"weekday": 9}, "weekday"),
        ({"stops": [str(UUID(int=5))]}, "not here"),
    ],
)
async def test_a_round_that_cannot_be_is_refused(api: Api, change: Json, says: str) -> None:
    body = {"id": new_id(), "person_id": await somebody(api), "weekday": 0, "stops": [], **change}
    reply = await api.client.post("/api/v1/rounds", json=body)
    assert reply.status_code in (400, 422)
    assert says in reply.text


async def test_a_stop_says_what_it_needs_and_what_will_not_hold(api: Api) -> None:
    person, pool = await somebody(api), await pool_at(api, "Low", 29.0)
    await api.test(pool, **LOW)
    await set_round(api, person, pool)
    stop = (await the_round(api, person))["stops"][0]
    assert [need["measure"] for need in stop["tests"]] == ["free_chlorine", "total_chlorine", "ph"]
    assert any("Liquid chlorine" in dose for dose in stop["doses"])
    codes = [one["code"] for one in stop["next_visit"]]
    assert codes[0] == "at_next_visit"
    assert stop["holds"] is False
    assert "will_not_hold" in codes
    api.pass_time(days=35)
    stop = (await the_round(api, person))["stops"][0]
    assert "total_alkalinity" in {need["measure"] for need in stop["tests"]}


async def test_the_load_list_counts_the_truck_and_what_was_poured(api: Api) -> None:
    person, pool = await somebody(api), await pool_at(api, "Low", 29.0)
    acid = new_id()
    product = {"id": acid, "chemical": "hydrochloric_acid", "strength_percent": 31.45, "package": "1 gal"}
    await api.post("/shelf", product, 201)
    await api.test(pool, **LOW)
    await set_round(api, person, pool)
    tray = (await the_round(api, person))["load"][0]
    assert tray["title"] == "Acid tray"
    assert tray["lines"][0]["on_truck_text"] == "not counted"
    count = {"id": new_id(), "person_id": person, "product_id": acid, "amount": "1 gal"}
    await api.post("/truck", count, 201)
    await api.post("/truck", count, 201)  # a resend changes nothing
    line = (await the_round(api, person))["load"][0]["lines"][0]
    assert line["on_truck_text"] == "1 gal"
    assert line["short_text"] == ""
    poured = {"id": new_id(), "person_id": person, "product_id": acid, "amount": "120 fl oz"}
    await api.post(f"/pools/{pool}/additions", poured, 201)
    api.pass_time(days=1)
    await api.test(pool, **LOW)
    line = (await the_round(api, person, weekday=MONDAY))["load"][0]["lines"][0]
    assert line["on_truck_text"] == "8 fl oz"
    assert line["short_text"] != ""


async def test_a_finished_visit_stands_in_the_log_and_makes_an_exception(api: Api) -> None:
    person, pool = await somebody(api), await pool_at(api, "Done", 29.0)
    await set_round(api, person, pool)
    visit = {
        "id": new_id(),
        "person_id": person,
        "note": "gate latch sticks",
        "needs_return": True,
        "trade": "pump hums: electrician",
    }
    await api.post(f"/pools/{pool}/visits", visit, 201)
    stop = (await the_round(api, person))["stops"][0]
    assert stop["done"]["needs_return"]
    line = (await api.get(f"/pools/{pool}/log"))[0]
    assert line["title"] == "Visit done"
    assert "electrician" in line["detail"]
    api.pass_time(days=timedelta(days=7).days)
    stop = (await the_round(api, person))["stops"][0]
    assert stop["done"] is None
    assert stop["last_visit"]["trade"] == "pump hums: electrician"
