"""Papers over HTTP: what stands on each, who may have it, and what is asked for wrongly."""

import io
from base64 import b64encode
from typing import Any

import pytest
from pypdf import PdfReader

from tests.formats.test_images import picture
from tests.web.conftest import Api, new_id

Json = Any


async def paper(api: Api, pool: str, kind: str, query: str = "") -> str:
    reply = await api.client.get(f"/api/v1/pools/{pool}/papers/{kind}.pdf?{query}")
    assert reply.status_code == 200, reply.text
    assert reply.headers["content-type"] == "application/pdf"
    pages = PdfReader(io.BytesIO(reply.content)).pages
    return " ".join(" ".join(page.extract_text() for page in pages).split())


async def a_month(api: Api) -> str:
    pool = await api.new_pool()
    for ph in ("7.4", "7.8", "7.6"):
        await api.test(pool, free_chlorine="1", ph=ph, total_alkalinity="90", cyanuric_acid="40")
        api.pass_time(days=2)
    addition = {"id": new_id(), "chemical": "hydrochloric_acid", "strength_percent": 31.45, "amount": "1 qt"}
    await api.post(f"/pools/{pool}/additions", addition)
    await api.post(
        f"/pools/{pool}/visits", {"id": new_id(), "note": "Gate latch is loose.", "internal_note": "Bill it."}
    )
    return pool


async def test_a_visit_tells_the_owner_and_nothing_internal(api: Api) -> None:
    pool = await a_month(api)
    text = await paper(api, pool, "visit")
    for words in (
        "Test pool",
        "Visit of",
        "May they swim?",
        "Muriatic acid",
        "Gate latch is loose.",
        "What is next",
        "My pools",
    ):
        assert words in text
    assert "Bill it" not in text


async def test_a_season_has_charts_and_sums(api: Api) -> None:
    pool = await a_month(api)
    text = await paper(api, pool, "season")
    assert "pH: 3 tests from 7.4 to 7.8" in text
    assert "Muriatic acid 31.45 % 1" in text
    assert "No measure was tested twice" in await paper(
        api, pool, "season", "first=2025-01-01&last=2025-02-01"
    )


async def test_a_plan_and_a_procedure_carry_the_cautions_at_their_steps(api: Api) -> None:
    pool = await a_month(api)
    assert "1. " in await paper(api, pool, "plan")
    text = await paper(api, pool, "procedure", "key=backwash")
    steps = (await api.get(f"/pools/{pool}/procedures/backwash"))["steps"]
    cautions = {caution for step in steps for caution in step["cautions"]}
    assert cautions
    assert all(caution in text for caution in cautions)


async def test_a_water_log_has_a_row_for_each_test(api: Api) -> None:
    pool = await a_month(api)
    text = await paper(api, pool, "water-log")
    assert text.count("The Office") >= 4
    assert "2026-06-03 18:00" in text


async def test_a_closing_is_recorded_with_who_ticked_it(api: Api) -> None:
    pool = await a_month(api)
    assert (await api.client.get(f"/api/v1/pools/{pool}/papers/record.pdf")).status_code == 404
    plan = await api.get(
        f"/pools/{pool}/season-plan?which=closing&day=2026-10-01&kind=in_ground&cover=solid&winter=frost&skimmer_plate=true"
    )
    saved = {**plan["kept"], "id": new_id(), "list_id": new_id(), "dropped": False}
    await api.post(f"/pools/{pool}/season-lists", saved, 201)
    key = plan["items"][0]["item"]["key"]
    await api.post(
        f"/pools/{pool}/season-lists/ticks",
        {"id": new_id(), "list_id": saved["list_id"], "item": key, "outcome": "done"},
    )
    text = await paper(api, pool, "record", f"list_id={saved['list_id']}")
    assert "Closing record" in text
    assert "done 2026-06-07" in text
    assert "Signed" in text


async def test_a_notice_opens_what_the_pool_says(api: Api) -> None:
    pool = await a_month(api)
    reply = await api.client.post(f"/api/v1/pools/{pool}/papers/notice.pdf")
    assert "No swimming" in PdfReader(io.BytesIO(reply.content)).pages[0].extract_text()
    (link,) = await api.get("/links")
    assert (link["kind"], link["name"]) == ("guest", "Notice at the gate")


async def test_a_notice_never_says_yes(api: Api) -> None:
    pool = await api.new_pool()
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), "clarity": "clear", "level": "normal"})
    await api.test(
        pool, free_chlorine="3", total_chlorine="3", ph="7.5", total_alkalinity="90", cyanuric_acid="40"
    )
    assert (await api.get(f"/pools/{pool}"))["swim"]["code"] == "yes"
    reply = await api.client.post(f"/api/v1/pools/{pool}/papers/notice.pdf")
    said = PdfReader(io.BytesIO(reply.content)).pages[0].extract_text()
    assert "Yes" not in said
    assert "opens after a test" in said


async def test_the_firms_mark_stands_on_its_papers(api: Api) -> None:
    pool = await a_month(api)
    plain = (await api.client.get(f"/api/v1/pools/{pool}/papers/visit.pdf")).content
    await api.post("/workspace/mark", {"image": b64encode(picture(90, 60)).decode()})
    marked = (await api.client.get(f"/api/v1/pools/{pool}/papers/visit.pdf")).content
    assert (
        len(PdfReader(io.BytesIO(marked)).pages[0].images)
        == len(PdfReader(io.BytesIO(plain)).pages[0].images) + 1
    )
    assert (await api.post("/workspace/mark", {"image": "x"}, 422))["error"]["field"] == "image"
    await api.post("/workspace/mark", {"image": None})


@pytest.mark.parametrize(
    ("path", "status"),
    [
        ("gold.pdf", 422),
        ("procedure.pdf?key=nothing", 404),
        ("season.pdf?first=2026-06-02&last=2026-06-01", 422),
        ("season.pdf?first=2000-01-01&last=2026-06-01", 422),
        ("water-log.pdf?first=soon", 422),
    ],
)
async def test_what_is_asked_for_wrongly_is_said(api: Api, path: str, status: int) -> None:
    pool = await api.new_pool()
    reply = await api.client.get(f"/api/v1/pools/{pool}/papers/{path}")
    assert reply.status_code in (status, 422)
    assert len(reply.json()["error"]["message"]) > 15
