"""What people and programs may send all the same: the smallest, the largest, the wrong. Never a 500."""

import pytest

from tests.web.conftest import Api, Json, api, new_id

__all__ = ["api"]
PAGES = (
    "",
    "/assessment",
    "/board",
    "/today",
    "/care",
    "/calendar",
    "/benches",
    "/sheet",
    "/outlook",
    "/season",
    "/report",
)
SALT_POOL = {"surface": "plaster", "chlorination": "salt_cell", "filter": "sand"}
WATER = {
    "free_chlorine": "1", "total_chlorine": "1", "ph": "7.9", "total_alkalinity": "100",
    "calcium_hardness": "260", "cyanuric_acid": "40", "salt": "2900", "temperature_c": "82F",
}  # fmt: skip


async def all_pages(api: Api, pool: str) -> None:
    for page in PAGES:
        reply = await api.client.get(f"/api/v1/pools/{pool}{page}")
        assert reply.status_code == 200, (page, reply.text)


@pytest.mark.parametrize(("percent", "hours"), [("1", "0.25"), ("0.001", "0.001"), ("100", "24"), ("0", "0")])
async def test_a_cell_that_hardly_runs_wears_out_in_no_year_of_the_calendar(
    api: Api, percent: str, hours: str
) -> None:
    pool = await api.new_pool(equipment=SALT_POOL)
    await api.test(pool, **WATER)
    cell = {
        "id": new_id(),
        "output_g_per_h": "20",
        "output_unit": "g/h",
        "percent": percent,
        "hours_per_day": hours,
    }
    await api.client.post(f"/api/v1/pools/{pool}/cell", json=cell)
    plant = {
        "id": new_id(),
        "cell_since": "2026-05-01T00:00:00Z",
        "cell_rated_h": "10000",
        "windows": [[480, 481]],
    }
    await api.post(f"/pools/{pool}/plant", plant)
    await all_pages(api, pool)


@pytest.mark.parametrize("strength", [1e-300, 1e-9, 0.01])
async def test_a_product_of_vanishing_strength_is_said_to_be_of_no_use(api: Api, strength: float) -> None:
    pool = await api.new_pool()
    await api.test(pool, **WATER)
    for chemical in ("sodium_hypochlorite", "hydrochloric_acid"):
        product = {"id": new_id(), "chemical": chemical, "strength_percent": strength, "package": "1 gal"}
        reply = await api.client.post("/api/v1/shelf", json=product)
        assert reply.status_code in (201, 422), reply.text
    await all_pages(api, pool)
    assert (await api.client.get("/api/v1/shelf")).status_code == 200


HARD: list[tuple[str, Json]] = [
    ("water/after", {"readings": {"ph": 7.5, "total_alkalinity": 90}, "volume_l": 1e-308,
                     "additions": [{"chemical": "hydrochloric_acid", "strength_percent": 31, "mass_g": 1}]}),
    ("water/after", {"readings": {"ph": 7.5, "total_alkalinity": 90}, "volume_l": 1,
                     "additions": [{"chemical": "hydrochloric_acid", "strength_percent": 31, "mass_g": 1e9}]}),
    ("water/after", {"readings": {"ph": 7.5, "total_alkalinity": 90}, "volume_l": 1,
                     "additions": [{"chemical": "sodium_hydroxide", "strength_percent": 100, "mass_g": 1e9}]}),
    ("water/after", {"readings": {"ph": 7.5, "total_alkalinity": 90}, "volume_l": 1,
                     "additions": [{"chemical": "sodium_chloride", "strength_percent": 100, "mass_g": 1e11}]}),
    ("water/after", {"readings": {"ph": 7.5, "total_alkalinity": 90}, "volume_l": 1000,
                     "additions": [{"chemical": "sodium_hypochlorite", "strength_percent": 1e-300, "volume_ml": 5}]}),
    ("water/analysis", {"readings": {"ph": 0, "total_alkalinity": 200_000, "calcium_hardness": 200_000}}),
    ("water/analysis", {"readings": {"ph": 14, "total_alkalinity": 0, "calcium_hardness": 1e-300}}),
    ("treatments/preview", {"pool": {"volume_l": 1e-308, "surface": "plaster", "chlorination": "liquid", "filter": "sand"},
                            "readings": {"ph": 7.9, "total_alkalinity": 90, "cyanuric_acid": 40, "free_chlorine": 1}}),
    ("treatments/preview", {"pool": {"volume_l": 50_000_000, "surface": "vinyl", "chlorination": "tablets", "filter": "de"},
                            "readings": {"ph": 14, "total_alkalinity": 0, "cyanuric_acid": 200_000, "free_chlorine": 200_000}}),
    ("treatments/preview", {"pool": {"volume_l": 75_000, "surface": "plaster", "chlorination": "liquid", "filter": "sand"},
                            "readings": {"ph": 7.9, "total_alkalinity": 90, "cyanuric_acid": 40, "free_chlorine": 1},
                            "shelf": [{"id": "a", "chemical": "sodium_hypochlorite", "strength_percent": 1e-300,
                                       "package_ml": 1e-300}]}),
]  # fmt: skip


@pytest.mark.parametrize(("path", "body"), HARD)
async def test_the_stateless_answers_hold_at_their_ends(api: Api, path: str, body: Json) -> None:
    reply = await api.client.post(f"/api/v1/{path}", json=body)
    assert reply.status_code in (200, 422), reply.text


@pytest.mark.parametrize(
    "path",
    [
        "/api/v1/feeds/\u00e9\u00fc.ics", "/api/v1/feeds/%F0%9F%8F%8A.ics", "/api/v1/pools/%00", "/api/v1/pools/" + "a" * 5000,
        "/%00", "/" + "a" * 5000, "/api/v1/feeds/%ff.ics", "/api/v1/pools/..%2f..%2fetc",
    ],
)  # fmt: skip
async def test_any_address_is_answered(api: Api, path: str) -> None:
    reply = await api.client.get(path)
    assert 400 <= reply.status_code < 500, reply.text


async def test_a_drain_of_fifty_pools_is_questioned(api: Api) -> None:
    pool = await api.new_pool()
    drain = {"id": new_id(), "kind": "drain", "volume": "1,000,000", "volume_unit": "gal", "note": ""}
    reply = await api.client.post(f"/api/v1/pools/{pool}/water-changes", json=drain)
    assert reply.status_code == 422
    error = reply.json()["error"]
    assert error["field"] == "volume"
    assert "times the pool's water" in error["message"]
    await api.post(f"/pools/{pool}/water-changes", {**drain, "volume": "20,000"}, 201)
