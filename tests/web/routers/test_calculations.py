"""The stable calculation interface: what it takes, what it refuses, in which words."""

import json
from typing import Any

import httpx
import pytest

PREVIEW: dict[str, Any] = {
    "pool": {"volume_l": 75708, "surface": "plaster", "chlorination": "liquid", "filter": "sand"},
    "readings": {
        "free_chlorine": 1, "total_chlorine": 1.1, "ph": 7.5, "total_alkalinity": 100,
        "calcium_hardness": 150, "cyanuric_acid": 20, "temperature_c": 27,
    },
    "targets": {},
    "school": "household",
    "shelf": None,
}  # fmt: skip
ANALYSIS = "/api/v1/water/analysis"
AFTER = "/api/v1/water/after"
TREATMENT = "/api/v1/treatments/preview"


def changed(body: dict[str, Any], path: str, value: object) -> dict[str, Any]:
    copy: dict[str, Any] = json.loads(json.dumps(body))
    *parents, last = path.split(".")
    inner = copy
    for name in parents:
        inner = inner[name]
    inner[last] = value
    return copy


async def test_preview_answers_with_steps_and_the_predicted_water(stateless: httpx.AsyncClient) -> None:
    reply = await stateless.post(TREATMENT, json=PREVIEW)
    assert reply.status_code == 200
    body = reply.json()
    assert {"steps", "predicted", "unmet", "notes"} <= set(body)
    chlorine = next(step for step in body["steps"] if step["chemical"] == "sodium_hypochlorite")
    assert chlorine["kind"] == "add"
    assert chlorine["cautions"]
    # 1.5 ppm in 20,000 gal is 1.5 x 2 x 12.8 fl oz of 10 % (handbook 04, derived)
    assert chlorine["volume_ml"] == pytest.approx(1.5 * 2 * 12.8 * 29.5735, rel=0.01)
    assert body["predicted"]["free_chlorine"] == pytest.approx(2.5)
    assert body["predicted"]["cyanuric_acid"] == pytest.approx(40, abs=0.01)


async def test_after_dilution_then_additions(stateless: httpx.AsyncClient) -> None:
    body = {
        "readings": {
            "free_chlorine": 2,
            "total_chlorine": 2.2,
            "calcium_hardness": 400,
            "cyanuric_acid": 80,
            "salt": 3000,
        },
        "volume_l": 37854,
        "additions": [{"chemical": "calcium_hypochlorite", "strength_percent": 65, "mass_g": 453.6}],
        "dilution": {"fraction": 0.25, "fill": {"calcium_hardness": 100, "salt": 100}},
    }
    found = (await stateless.post(AFTER, json=body)).json()["readings"]
    # 1 lb of 65 % per 10,000 gal: +7.8 FC, +5.5 CH (handbook 04, derived); dilution by mixing.
    assert found["free_chlorine"] == pytest.approx(1.5 + 7.8, abs=0.05)
    assert found["calcium_hardness"] == pytest.approx(325 + 5.5, abs=0.1)
    assert found["cyanuric_acid"] == pytest.approx(60)
    assert found["salt"] == pytest.approx(2275)


async def test_what_stays_unknown_in_the_fill_becomes_unknown(stateless: httpx.AsyncClient) -> None:
    body = {
        "readings": {"calcium_hardness": 400},
        "volume_l": 1000,
        "additions": [],
        "dilution": {"fraction": 0.5, "fill": {}},
    }
    assert (await stateless.post(AFTER, json=body)).json()["readings"]["calcium_hardness"] is None


async def test_analysis_names_what_is_missing(stateless: httpx.AsyncClient) -> None:
    found = (
        await stateless.post(ANALYSIS, json={"readings": {"free_chlorine": 2, "total_chlorine": 1.5}})
    ).json()
    assert {"ph", "total_alkalinity", "calcium_hardness", "cyanuric_acid"} <= set(found["missing"])
    assert found["combined_chlorine"] == 0
    assert "total_below_free" in {finding["code"] for finding in found["findings"]}


BAD = [
    (TREATMENT, changed(PREVIEW, "pool.volume_l", 0), "pool.volume_l"),
    (TREATMENT, changed(PREVIEW, "pool.volume_l", -5), "pool.volume_l"),
    (TREATMENT, changed(PREVIEW, "pool.volume_l", "75708"), "pool.volume_l"),
    (TREATMENT, changed(PREVIEW, "pool.volume_l", value=True), "pool.volume_l"),
    (TREATMENT, changed(PREVIEW, "pool.volume_l", 1e12), "pool.volume_l"),
    (TREATMENT, changed(PREVIEW, "pool.volume_l", 10**400), "pool.volume_l"),
    (TREATMENT, changed(PREVIEW, "pool.colour", "blue"), "pool.colour"),
    (TREATMENT, changed(PREVIEW, "readings.ph", 15), "readings.ph"),
    (TREATMENT, changed(PREVIEW, "readings.ph", None) | {"extra": 1}, "extra"),
    (TREATMENT, changed(PREVIEW, "readings.free_chlorine", -1), "readings.free_chlorine"),
    (TREATMENT, changed(PREVIEW, "readings.temperature_c", 80), "readings.temperature_c"),
    (TREATMENT, changed(PREVIEW, "school", "guesswork"), "school"),
    (TREATMENT, changed(PREVIEW, "targets", {"copper": 1}), "targets.copper"),
    (TREATMENT, changed(PREVIEW, "shelf", [{"id": "a", "chemical": "gold", "strength_percent": 5}]), "chemical"),
    (TREATMENT, changed(PREVIEW, "shelf", [{"id": "a", "chemical": "borax", "strength_percent": 0}]), "strength_percent"),
    (AFTER, {"readings": {}, "volume_l": 1, "additions": [{"chemical": "borax", "strength_percent": 101, "mass_g": 1}]}, "strength_percent"),
    (AFTER, {"readings": {}, "volume_l": 1, "additions": [{"chemical": "borax", "strength_percent": 100}]}, "mass_g"),
    (AFTER, {"readings": {}, "volume_l": 1, "additions": [{"chemical": "borax", "strength_percent": 100, "volume_ml": 5}]}, "volume_ml"),
    (AFTER, {"readings": {}, "volume_l": 1, "dilution": {"fraction": 1.5, "fill": {}}}, "dilution.fraction"),
    (ANALYSIS, {"readings": {"ph": False}}, "readings.ph"),
    (ANALYSIS, {"readings": []}, "readings"),
    (ANALYSIS, [], "body"),
    (ANALYSIS, {}, "readings"),
]  # fmt: skip


@pytest.mark.parametrize(("path", "body", "field"), BAD)
async def test_bad_input_gets_one_sentence_that_names_the_field(
    stateless: httpx.AsyncClient, path: str, body: object, field: str
) -> None:
    reply = await stateless.post(path, json=body)
    assert 400 <= reply.status_code < 500, reply.text
    error = reply.json()["error"]
    assert field in f"{error['field']} {error['message']}"
    assert error["message"].count("\n") == 0


@pytest.mark.parametrize(
    "raw",
    [
        b'{"readings": {"ph": NaN}}',
        b'{"readings": {"ph": Infinity}}',
        b'{"readings": {"ph": 1e999}}',
        b"{",
        b"\xff\xfe",
        b"[" * 100_000,
    ],
)
async def test_what_is_no_finite_number_or_no_json_is_refused(
    stateless: httpx.AsyncClient, raw: bytes
) -> None:
    reply = await stateless.post(ANALYSIS, content=raw, headers={"content-type": "application/json"})
    assert 400 <= reply.status_code < 500, reply.text
    assert reply.json()["error"]["message"]


async def test_a_field_name_with_odd_characters_is_answered(stateless: httpx.AsyncClient) -> None:
    raw = b'{"readings": {"\\ud800": 1}}'
    reply = await stateless.post(ANALYSIS, content=raw, headers={"content-type": "application/json"})
    assert reply.status_code == 422


async def test_a_body_over_one_megabyte_is_refused(stateless: httpx.AsyncClient) -> None:
    reply = await stateless.post(
        ANALYSIS, content=b" " * 1_000_001, headers={"content-type": "application/json"}
    )
    assert reply.status_code == 413


async def test_two_products_with_one_id_are_refused(stateless: httpx.AsyncClient) -> None:
    product = {"id": "a", "chemical": "borax", "strength_percent": 100}
    reply = await stateless.post(TREATMENT, json=changed(PREVIEW, "shelf", [product, product]))
    assert reply.status_code == 422
