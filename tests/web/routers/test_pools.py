"""Set up a pool, test, read the board, start the sheet, tick it: over HTTP, kept in MariaDB."""

import pytest

from tests.web.conftest import START, Api, new_id, pool_body

CLEAR = {"clarity": "clear", "level": "normal"}
LOW = {
    "free_chlorine": "1",
    "ph": "7.5",
    "total_alkalinity": "100",
    "calcium_hardness": "260",
    "cyanuric_acid": "40",
}


async def test_from_set_up_to_ticked_sheet(api: Api) -> None:
    pool = await api.new_pool()
    head = await api.get(f"/pools/{pool}")
    # 32 x 16 x 5.5 ft: 2816 ft3, 7.480519 gal each
    assert head["basin"]["volume_l"] / 3.785411784 == pytest.approx(2816 * 7.480519, rel=1e-5)
    assert (head["swim"]["code"], head["next"]["station"]) == ("unknown", "slip")

    await api.test(pool, **LOW, total_chlorine="1.2", temperature_c="82F")
    board = await api.get(f"/pools/{pool}/board")
    free = next(gauge for gauge in board["lanes"] if gauge["measure"] == "free_chlorine")
    assert (free["verdict"]["code"], free["planned"]["value"]) == ("low", pytest.approx(2.5))
    assert board["temperature_c"] == pytest.approx(27.78, abs=0.01)
    swim = (await api.get(f"/pools/{pool}"))["swim"]
    assert (swim["code"], "Look first" in swim["text"]) == ("unknown", True)
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), **CLEAR})
    swim = (await api.get(f"/pools/{pool}"))["swim"]
    assert (swim["code"], swim["reasons"][0]) == ("yes", "Free chlorine is under 2: dose today.")

    treatment = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    add = next(line for line in treatment["steps"] if line["step"]["kind"] == "add")
    api.pass_time(minutes=6)
    steps_done = f"/pools/{pool}/sheets/{treatment['id']}/ticks"
    record_step = {"id": new_id(), "step_number": add["number"], "outcome": "done", "amount": "44 fl oz"}
    done_as = await api.post(steps_done, record_step)
    assert done_as["steps"][add["number"]]["ticked"]["amount_text"] == "44 fl oz"

    swim = (await api.get(f"/pools/{pool}"))["swim"]
    assert swim["code"] == "not_before"
    log = await api.get(f"/pools/{pool}/log")
    assert [line["kind"] for line in log[:4]] == ["addition", "sheet", "look", "test"]
    assert log[0]["detail"] == "44 fl oz"


async def test_a_tick_is_undone_and_ticked_again(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **LOW)
    treatment = await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 201)
    steps_done, first = f"/pools/{pool}/sheets/{treatment['id']}/ticks", new_id()
    api.pass_time(minutes=1)
    await api.post(steps_done, {"id": first, "step_number": 0, "outcome": "done"})
    again = await api.post(steps_done, {"id": new_id(), "step_number": 0, "outcome": "done"}, 409)
    assert "already marked done" in again["error"]["message"]
    await api.post(f"/entries/{first}/void", {"id": new_id(), "reason": "undone"})
    treatment = await api.get(f"/pools/{pool}/sheet")
    assert treatment["steps"][0]["ticked"] is None
    await api.post(steps_done, {"id": new_id(), "step_number": 0, "outcome": "skipped"})


async def test_a_resend_with_the_same_id_doubles_nothing(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **LOW)
    treatment_id, tick_id = new_id(), new_id()
    for _ in range(2):
        treatment = await api.post(f"/pools/{pool}/sheets", {"id": treatment_id})
    for _ in range(2):
        await api.post(
            f"/pools/{pool}/sheets/{treatment_id}/ticks", {"id": tick_id, "step_number": 1, "outcome": "done"}
        )
    assert treatment["id"] == treatment_id
    kinds = [line["kind"] for line in await api.get(f"/pools/{pool}/log")]
    assert (kinds.count("sheet"), kinds.count("addition")) == (1, 1)


async def test_an_id_stands_for_one_thing_only(api: Api) -> None:
    pool = await api.new_pool()
    body = {"id": new_id(), "fields": {"ph": "7.5"}, "kit": "drops"}
    await api.post(f"/pools/{pool}/tests", body, 201)
    await api.post(f"/pools/{pool}/tests", body, 201)
    await api.post(f"/pools/{pool}/tests", {**body, "fields": {"ph": "7.6"}}, 409)


async def test_a_test_is_corrected_and_everything_follows(api: Api) -> None:
    pool = await api.new_pool()
    entry = await api.test(pool, **LOW)
    body = {
        "id": new_id(),
        "fields": {**LOW, "free_chlorine": "2.5"},
        "kit": "drops",
        "at": START.isoformat(),
    }
    await api.post(f"/pools/{pool}/looks", {"id": new_id(), **CLEAR})
    await api.post(f"/entries/{entry}/correct-test", body)
    assert (await api.get(f"/pools/{pool}"))["swim"]["code"] == "yes"
    log = await api.get(f"/pools/{pool}/log")
    old = next(line for line in log if line["id"] == entry)
    assert (old["replaced_by"], "free chlorine 1" in old["detail"]) == (body["id"], True)
    second = await api.post(f"/entries/{entry}/correct-test", {**body, "id": new_id()}, 409)
    assert "already corrected" in second["error"]["message"]


async def test_an_amount_is_corrected_by_who_poured_less(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, **LOW)
    api.pass_time(minutes=5)
    poured = {"id": new_id(), "product_id": "standard-liquid-chlorine", "amount": "1 qt"}
    entry = await api.post(f"/pools/{pool}/additions", poured, 201)
    await api.post(
        f"/entries/{entry}/correct-addition",
        {"id": new_id(), "amount": "16 fl oz", "at": api.now.isoformat()},
    )
    log = await api.get(f"/pools/{pool}/log")
    assert [line["detail"] for line in log if line["kind"] == "addition"] == ["16 fl oz", "32 fl oz"]


async def test_a_late_entry_takes_its_true_place(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, ph="7.8")
    api.pass_time(hours=5)
    late = {"id": new_id(), "fields": {"ph": "7.2"}, "kit": "drops", "at": "2026-06-01T22:00:00Z"}
    await api.post(f"/pools/{pool}/tests", late, 201)
    board = await api.get(f"/pools/{pool}/board")
    ph = next(gauge for gauge in board["lanes"] if gauge["measure"] == "ph")
    assert ph["reading"]["value"] == 7.8
    future = {**late, "id": new_id(), "at": "2027-01-01T00:00:00Z"}
    assert "future" in (await api.post(f"/pools/{pool}/tests", future, 422))["error"]["message"]


@pytest.mark.parametrize(
    ("kind", "says"), [("bromine", "out of scope"), ("biguanide", "sludge"), ("spa", "out of scope")]
)
async def test_what_is_out_of_scope_is_refused_with_the_reason(api: Api, kind: str, says: str) -> None:
    body = pool_body(new_id(), equipment={"surface": "vinyl", "chlorination": kind, "filter": "sand"})
    assert says in (await api.post("/pools", body, 422))["error"]["message"]
    assert await api.pools() == []


async def test_a_swim_limit_over_ten_is_refused_at_its_field(api: Api) -> None:
    settings = {"name": "Wide", "time_zone": "America/Chicago", "swim_limit_mg_l": "12"}
    refused = await api.post("/pools", pool_body(new_id(), settings=settings), 422)
    assert refused["error"]["field"] == "swim_limit_mg_l"
    assert "a swim limit of 10 or less" in refused["error"]["message"]


async def test_a_public_pool_defers_to_its_operator(api: Api) -> None:
    settings = {"name": "Lido", "time_zone": "Europe/Warsaw", "public": True, "school": "public_code"}
    pool = await api.new_pool(settings=settings)
    head = await api.get(f"/pools/{pool}")
    assert "certified operator" in head["notices"][0]["text"]


async def test_a_pool_changes_from_now_on(api: Api) -> None:
    pool = await api.new_pool()
    api.pass_time(days=1)
    basin = {"unit": "ft", "volume": "20000", "volume_unit": "gal"}
    head = await api.post(f"/pools/{pool}/basin", {"id": new_id(), "basin": basin})
    assert head["basin"]["volume_l"] == pytest.approx(75708.2, abs=0.1)
    log = await api.get(f"/pools/{pool}/log")
    assert [line["kind"] for line in log].count("basin") == 2
    assert await api.get(f"/pools/{pool}/plan") is None


async def test_bad_typing_names_the_field_and_the_cure(api: Api) -> None:
    pool = await api.new_pool()
    read = await api.post(
        f"/pools/{pool}/slip/read", {"fields": {"ph": "78", "free_chlorine": "1.5"}, "kit": "drops"}
    )
    assert read["problems"][0]["measure"] == "ph"
    assert [value["measure"] for value in read["values"]] == ["free_chlorine"]
    saved = await api.post(f"/pools/{pool}/tests", {"id": new_id(), "fields": {"ph": "78"}}, 422)
    assert saved["error"]["field"] == "ph"
    nothing = await api.post(f"/pools/{pool}/tests", {"id": new_id(), "fields": {}}, 422)
    assert "Nothing is typed" in nothing["error"]["message"]


async def test_the_slip_is_questioned_against_the_journal(api: Api) -> None:
    pool = await api.new_pool()
    await api.test(pool, cyanuric_acid="40")
    read = await api.post(f"/pools/{pool}/slip/read", {"line": "cya 90 ph 7,5", "kit": "drops"})
    assert read["doubts"][0]["code"] == "unexplained_jump"


async def test_names_in_any_script_and_entries_a_millisecond_apart_survive(api: Api) -> None:
    pool = await api.new_pool(settings={"name": "Łódka 🐟", "time_zone": "Europe/Warsaw"})
    assert (await api.get(f"/pools/{pool}"))["settings"]["name"] == "Łódka 🐟"
    for millisecond, ph in ((1, "7.4"), (2, "7.6")):
        at = START.replace(microsecond=millisecond * 1000).isoformat()
        await api.post(f"/pools/{pool}/tests", {"id": new_id(), "fields": {"ph": ph}, "at": at}, 201)
    tests = [line for line in await api.get(f"/pools/{pool}/log") if line["kind"] == "test"]
    assert [line["detail"] for line in tests] == ["pH 7.6", "pH 7.4"]
    assert tests[0]["at"].endswith("00.002000Z")


async def test_stock_is_bought_minus_poured(api: Api) -> None:
    pool = await api.new_pool()
    product = {"id": new_id(), "chemical": "sodium_hypochlorite", "strength_percent": 10, "package": "1 gal"}
    await api.post("/shelf", product, 201)
    await api.post("/shelf/purchases", {"id": new_id(), "product_id": product["id"], "packages": 2}, 201)
    pour = {"id": new_id(), "product_id": product["id"], "amount": "1/2 gal"}
    entry = await api.post(f"/pools/{pool}/additions", pour, 201)
    assert (await api.get("/shelf"))[0]["stock_text"] == "1½ gal"
    await api.post(f"/entries/{entry}/void", {"id": new_id()})
    assert (await api.get("/shelf?metric=true"))[0]["stock_text"] == "7.57 L"


async def test_people_are_rows_of_the_workspace(api: Api) -> None:
    person = await api.post("/people", {"name": "  Ada  Brook ", "id": new_id()}, 201)
    assert (person["name"], person["initials"]) == ("Ada Brook", "AB")
    await api.post("/people", {"name": "   "}, 422)
    names = [one["name"] for one in await api.get("/people")]
    assert names == ["The Office", "Ada Brook"]


async def test_unknown_things_are_not_found(api: Api) -> None:
    missing = await api.client.get(f"/api/v1/pools/{new_id()}")
    assert (missing.status_code, missing.json()["error"]["code"]) == (404, "not_found")
    await api.post(f"/entries/{new_id()}/void", {"id": new_id()}, 404)
    assert (await api.client.get("/api/v1/nowhere")).status_code == 404
    pool = await api.new_pool()
    await api.post(f"/pools/{pool}/sheets", {"id": new_id()}, 422)
