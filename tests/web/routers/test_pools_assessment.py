"""The table of the laws of advice, row by row over the stored routes: findings and next, may they swim.

Unless said: outdoors, household, plaster, drop kit, tested and looked at in the last hour, all else in range.
Rows are common practice, health codes and handbook figures quoted from memory, as the laws have them.
"""

from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any

import pytest

from tests.web.conftest import Api, new_id

CLEAR: dict[str, Any] = {"clarity": "clear", "level": "normal"}
GOOD = {
    "free_chlorine": "2.4",
    "total_chlorine": "2.4",
    "ph": "7.5",
    "total_alkalinity": "100",
    "calcium_hardness": "270",
    "cyanuric_acid": "40",
    "temperature_c": "80F",
}
MORNING = datetime(2026, 7, 14, 14, 0, tzinfo=UTC)  # nine o'clock in Chicago
H, DAY = 1.0, 24.0
LIQUID = {"chemical": "sodium_hypochlorite", "strength_percent": 10}
ACID = {"chemical": "hydrochloric_acid", "strength_percent": 31.45}

Entry = tuple[float, str, dict[str, Any]]  # hours ago, route, body


def a_test(hours: float = 0.5, kit: str = "drops", /, **changed: str | None) -> Entry:
    fields = {name: value for name, value in {**GOOD, **changed}.items() if value is not None}
    return hours, "tests", {"fields": fields, "kit": kit}


def only(hours: float, kit: str = "drops", /, **fields: str) -> Entry:
    return hours, "tests", {"fields": fields, "kit": kit}


def looked(hours: float = 0.5, /, *odd: str, **changed: str) -> Entry:
    return hours, "looks", {**CLEAR, "odd": list(odd), **changed}


def poured(hours: float, amount: str, what: dict[str, Any] = LIQUID) -> Entry:
    return hours, "additions", {**what, "amount": amount}


def noted(hours: float, kind: str) -> Entry:
    return hours, "events", {"kind": kind}


@dataclass(frozen=True, kw_only=True)
class Row:
    """A state and what must be said of it: `next` is (code, kind of remedy); `says` what stands in its text."""

    state: str
    entries: list[Entry]
    next: tuple[str, str]
    swim: str
    finds: tuple[str, ...] = ()
    not_found: tuple[str, ...] = ()
    because: tuple[str, ...] = ()
    says: str = ""
    now: datetime = MORNING
    pool: dict[str, Any] = field(default_factory=dict)


def settings(**changed: Any) -> dict[str, Any]:
    return {"settings": {"name": "Test pool", "time_zone": "America/Chicago", **changed}}


def equipment(**changed: Any) -> dict[str, Any]:
    return {"equipment": {"surface": "plaster", "chlorination": "liquid", "filter": "sand", **changed}}


UNMEASURED: dict[str, Any] = {
    "basin": {"unit": "ft", "parts": [], "fixtures": [], "volume": "", "volume_is_unknown": True}
}
WELL = {"iron": "0.6"}
BAD_NIGHT = datetime(2026, 7, 14, 11, 30, tzinfo=UTC)  # half past six
ROWS = [
    Row(state="everything good", entries=[a_test(), looked()], next=("nothing", "none"), swim="yes"),
    Row(state="FC 3.4", entries=[a_test(free_chlorine="3.4", total_chlorine="3.4"), looked()],
        next=("nothing", "none"), swim="yes", finds=("free_chlorine_high",)),
    Row(state="FC 1.4", entries=[a_test(free_chlorine="1.4", total_chlorine="1.4"), looked()],
        next=("free_chlorine_low", "plan"), swim="yes", because=("free_chlorine_low",)),
    Row(state="FC 0.4", entries=[a_test(free_chlorine="0.4", total_chlorine="0.4"), looked()],
        next=("free_chlorine_low", "plan"), swim="no", because=("free_chlorine_low",)),
    Row(state="FC 8", entries=[a_test(free_chlorine="8", total_chlorine="8"), looked()],
        next=("free_chlorine_high", "plan"), swim="no", says="feeder or cell off"),
    Row(state="FC off scale", entries=[a_test(free_chlorine=">10", total_chlorine=None), looked()],
        next=("free_chlorine_off_scale", "test"), swim="no", says="Dilute the sample",
        not_found=("free_chlorine_low",)),
    Row(state="FC 2, TC 4 by drops", entries=[a_test(free_chlorine="2", total_chlorine="4"), looked()],
        next=("combined_high", "plan"), swim="no", says="Shock"),
    Row(state="FC 2, TC 4, soda ash since, then free chlorine alone", swim="no",
        entries=[a_test(DAY, free_chlorine="2", total_chlorine="4", ph="7.1"),
                 poured(3 * H, "1 lb", {"chemical": "sodium_carbonate", "strength_percent": 100}),
                 only(H, free_chlorine="2.2", ph="7.4"), looked()],
        next=("combined_high", "plan"), because=("combined_high",)),
    Row(state="FC 2, TC 4, chlorine since, then free chlorine alone", swim="unknown",
        entries=[a_test(DAY, free_chlorine="2", total_chlorine="4"), poured(12 * H, "1 gal"),
                 only(H, free_chlorine="2.5", ph="7.5"), looked()],
        next=("combined_high", "test"), because=("combined_high",)),
    Row(state="the same by strips",
        entries=[a_test(0.5, "strips", free_chlorine="2", total_chlorine="4", ph="7.5"), looked()],
        next=("combined_high", "test"), swim="unknown", because=("combined_high",)),
    Row(state="monopersulfate yesterday, FC 2, CC 1",
        entries=[poured(DAY, "2 lb", {"chemical": "potassium_monopersulfate", "strength_percent": 42.8}),
                 a_test(free_chlorine="2", total_chlorine="3"), looked()],
        next=("nothing", "none"), swim="yes", finds=("combined_high",), because=("combined_high",)),
    Row(state="TC 2 alone, CC little within 30 days",
        entries=[a_test(10 * DAY), only(0.5, total_chlorine="2", ph="7.5"), looked()],
        next=("free_chlorine_low", "plan"), swim="yes", because=("free_chlorine_low",)),
    Row(state="TC 2 alone, no history",
        entries=[a_test(free_chlorine=None, total_chlorine="2"), looked()],
        next=("test_missing", "test"), swim="unknown", because=("test_missing",)),
    Row(state="CYA 0, FC 3 at 8 AM, now 2 PM in July", now=datetime(2026, 7, 14, 19, 0, tzinfo=UTC),
        entries=[a_test(6 * H, cyanuric_acid="0", free_chlorine="3", total_chlorine="3"), looked()],
        next=("free_chlorine_low", "test"), swim="unknown", finds=("cyanuric_acid_low",)),
    Row(state="CYA 110, FC 3",
        entries=[a_test(cyanuric_acid="110", free_chlorine="3", total_chlorine="3"), looked()],
        next=("chlorine_bound", "test"), swim="yes", because=("chlorine_bound",), finds=("cyanuric_acid_high",),
        says="diluted sample"),
    Row(state="stabilizer poured yesterday, CYA reads as before",
        entries=[a_test(2 * DAY, cyanuric_acid="20"),
                 poured(DAY, "3 lb", {"chemical": "cyanuric_acid", "strength_percent": 100}),
                 a_test(cyanuric_acid="20"), looked()],
        next=("stabilizer_mixing", "wait"), swim="yes", not_found=("cyanuric_acid_low",)),
    Row(state="pH 8.4 strip, no stabilizer test",
        entries=[a_test(0.5, "strips", ph="8.4", cyanuric_acid=None), looked()],
        next=("ph_high", "plan"), swim="no"),
    Row(state="pH 8.4, TA unknown", entries=[a_test(ph="8.4", total_alkalinity=None), looked()],
        next=("ph_high", "plan"), swim="no"),
    Row(state="acid 20 min ago", entries=[a_test(H, ph="7.9"), poured(20 / 60, "20 fl oz", ACID), looked()],
        next=("poured_since_test", "wait"), swim="not_before", because=("poured_since_test",)),
    Row(state="acid 61 min ago", entries=[a_test(2 * H, ph="7.9"), poured(61 / 60, "20 fl oz", ACID), looked()],
        next=("poured_since_test", "test"), swim="unknown", not_found=("ph_high",)),
    Row(state="TA 350", entries=[a_test(total_alkalinity="350"), looked()],
        next=("total_alkalinity_high", "plan"), swim="yes"),
    Row(state="TA 350, a softer fill", entries=[a_test(total_alkalinity="350"), looked()],
        pool=equipment(fill_water={"total_alkalinity": "60"}),
        next=("total_alkalinity_high", "plan"), swim="yes", says="Replace part of the water"),
    Row(state="TA 25", entries=[a_test(total_alkalinity="25", ph="7.3"), looked()],
        next=("total_alkalinity_low", "plan"), swim="yes"),
    Row(state="algae spots", entries=[a_test(), looked(0.5, "algae spots")],
        next=("algae_spots", "procedure"), swim="yes", because=("algae_spots",), says="brush them today"),
    Row(state="volume unknown", entries=[a_test(), looked()], pool=UNMEASURED,
        next=("nothing", "none"), swim="yes", finds=("volume_unknown",)),
    Row(state="volume unknown, FC 0.4, a gallon poured two hours ago", pool=UNMEASURED,
        entries=[a_test(3 * H, free_chlorine="0.4", total_chlorine="0.4"), poured(2 * H, "1 gal"), looked()],
        next=("poured_since_test", "test"), swim="unknown", finds=("volume_unknown",),
        not_found=("free_chlorine_off_scale", "free_chlorine_high")),
    Row(state="volume unknown, TA 60", entries=[a_test(total_alkalinity="60"), looked()], pool=UNMEASURED,
        next=("total_alkalinity_low", "plan"), swim="yes", finds=("volume_unknown",)),
    Row(state="spa valved apart", entries=[a_test(), looked()], pool=equipment(spa_apart=True),
        next=("nothing", "none"), swim="yes", finds=("spa_untested",)),
    Row(state="floor unlit, after dark", now=datetime(2026, 7, 15, 3, 0, tzinfo=UTC),
        entries=[a_test(), looked(0.5, "unlit")], next=("unlit", "wait"), swim="no", because=("unlit",)),
    Row(state="floor unlit, by day", entries=[a_test(), looked(10 * H, "unlit")],
        next=("nothing", "none"), swim="yes", finds=("unlit",)),
    Row(state="hazy, floor plain", entries=[a_test(), looked(clarity="hazy")],
        next=("hazy", "test"), swim="yes", because=("hazy",), says="look again tomorrow"),
    Row(state="level low", entries=[a_test(), looked(level="low")], next=("level_low", "procedure"), swim="yes",
        says="before the pump runs"),
    Row(state="weak returns", entries=[a_test(), looked(0.5, "weak returns")],
        next=("returns_weak", "procedure"), swim="yes", says="Empty the baskets"),
    Row(state="leak", entries=[a_test(), looked(0.5, "leak")], next=("leak", "procedure"), swim="yes"),
    Row(state="dead animal", entries=[a_test(), looked(0.5, "dead animal")], next=("dead_animal", "plan"),
        swim="no", because=("dead_animal",)),
    Row(state="sharp smell", entries=[a_test(H), looked(0.5, "sharp smell")], next=("smell", "test"),
        swim="unknown", because=("smell",)),
    Row(state="drain cover loose", entries=[a_test(), looked(0.5, "drain_cover")], next=("drain_cover", "trade"),
        swim="no", because=("drain_cover",), says="breaker off"),
    Row(state="tingling", entries=[a_test(), looked(0.5, "electric")], next=("electric", "trade"), swim="no",
        because=("electric",)),
    Row(state="thunder", entries=[a_test(), looked(0.2, "thunder")], next=("thunder", "wait"), swim="no"),
    Row(state="thunder an hour ago", entries=[a_test(), looked(H, "thunder")], next=("nothing", "none"), swim="yes"),
    Row(state="phosphate 500", entries=[a_test(phosphate_ppb="500 ppb"), looked()], next=("phosphate_high", "buy"),
        swim="yes"),
    Row(state="copper 0.6", entries=[a_test(copper="0.6"), looked()], next=("copper_high", "procedure"), swim="yes"),
    Row(state="well fill, FC 0, iron 0.6",
        entries=[a_test(iron="0.6", free_chlorine="0", total_chlorine="0"), looked()],
        next=("iron_high", "buy"), swim="no", finds=("free_chlorine_low",), says="Sequestrant"),
    Row(state="salt over the window", entries=[a_test(salt="3900", total_alkalinity="70", cyanuric_acid="70",
        free_chlorine="3.6", total_chlorine="3.6"), looked()], pool=equipment(chlorination="salt_cell"),
        next=("salt_high", "plan"), swim="yes", says="Replace"),
    Row(state="algae comes back with chlorine",
        entries=[looked(20 * DAY, "algae spots"), looked(10 * DAY), a_test(), looked(0.5, "algae spots")],
        next=("algae_spots", "test"), swim="yes", because=("algae_spots",), says="dusk"),
    Row(state="drain logged, no test since",
        entries=[a_test(3 * H), looked(), (H, "water-changes", {"kind": "drain", "volume": "6000"})],
        next=("water_changed_since_test", "test"), swim="unknown"),
    Row(state="dusk FC 10, morning FC 3.4", now=BAD_NIGHT,
        entries=[a_test(9.5 * H, free_chlorine="10", total_chlorine="10"),
                 only(0.2, free_chlorine="3.4", total_chlorine="3.6", ph="7.5"), looked(0.2)],
        next=("demand_unexplained", "test"), swim="yes", says="dusk"),
    Row(state="three mornings at zero",
        entries=[entry for n in (3, 2, 1) for entry in (
            poured(n * DAY - 10, "2 gal"), only(n * DAY - 24, free_chlorine="0", total_chlorine="0.2", ph="7.5"))]
        + [a_test(4 * DAY), looked()],
        next=("demand_unexplained", "test"), swim="no"),
    Row(state="autumn CYA 50, spring 0, CC 2",
        entries=[a_test(200 * DAY, cyanuric_acid="50"), a_test(cyanuric_acid="0", free_chlorine="1",
                 total_chlorine="3"), looked()],
        next=("demand_unexplained", "procedure"), swim="no", says="ammonia"),
    Row(state="power cut", entries=[a_test(3 * H), noted(H, "power_cut"), looked()], next=("power_cut", "test"),
        swim="unknown", because=("power_cut",)),
    Row(state="cell off for a day", pool=equipment(chlorination="salt_cell"),
        entries=[a_test(30 * H, salt="3200", total_alkalinity="70", cyanuric_acid="70", free_chlorine="3.6",
                        total_chlorine="3.6"),
                 (25 * H, "cell", {"output_g_per_h": 20, "percent": 0, "hours_per_day": 8}), looked()],
        next=("power_cut", "test"), swim="unknown", because=("power_cut",)),
    Row(state="cover shut, numbers good", entries=[a_test(), looked(), noted(0.1, "cover_on")],
        next=("cover_on", "look"), swim="no", because=("cover_on",)),
    Row(state="cover taken off again", entries=[a_test(), looked(), noted(0.2, "cover_on"), noted(0.1, "cover_off")],
        next=("nothing", "none"), swim="yes"),
    Row(state="water under 50 F", entries=[a_test(temperature_c="48F"), looked()], next=("nothing", "none"),
        swim="yes", finds=("water_cold",), because=("water_cold",)),
    Row(state="new plaster day 12, pH 8.2", entries=[noted(12 * DAY, "plastered"), a_test(ph="8.2"), looked()],
        next=("ph_high", "plan"), swim="no", finds=("new_plaster",)),
    Row(state="fresh fill, FC 0, TC 2",
        entries=[noted(5 * H, "filled"), only(0.5, free_chlorine="0", total_chlorine="2", ph="7.6"), looked()],
        next=("fresh_fill", "test"), swim="no", finds=("combined_high", "free_chlorine_low")),
    Row(state="flood", entries=[a_test(), looked(), noted(0.1, "flood")], next=("flood", "trade"), swim="no",
        because=("flood",), says="Do not drain"),
    Row(state="indoor, CC 1.0", pool=equipment(indoor=True),
        entries=[a_test(cyanuric_acid="0", free_chlorine="2", total_chlorine="3"), looked()],
        next=("combined_high", "plan"), swim="no", says="windows"),
    Row(state="public, tested yesterday", pool=settings(public=True, school="public_code"),
        entries=[a_test(20 * H, free_chlorine="3", total_chlorine="3"), looked()],
        next=("test_old", "test"), swim="unknown", because=("test_old",)),
    Row(state="heat wave, 33 C", entries=[a_test(temperature_c="91.4F"), looked()], next=("nothing", "none"),
        swim="yes", finds=("water_warm",)),
    Row(state="borate pool, untested for a year",
        entries=[only(380 * DAY, borate="40"), a_test(), looked()], next=("test_old", "test"), swim="yes",
        says="borate"),
    Row(state="dichlor for a dead animal's water is no remedy; look again clears it",
        entries=[looked(2 * H, "dead animal"), a_test(), looked()], next=("nothing", "none"), swim="yes"),
]  # fmt: skip


@pytest.mark.parametrize("row", ROWS, ids=[row.state for row in ROWS])
async def test_a_row_of_the_table(api: Api, row: Row) -> None:
    found = await judged(api, row.entries, row.now, **row.pool)
    codes = [one["code"] for one in found["findings"]]
    said = (found["next"]["code"], found["next"]["remedy"]["kind"], found["swim"]["code"])
    assert said == (*row.next, row.swim), (codes, found["swim"], found["next"])
    assert set(row.finds) <= set(codes)
    assert not set(row.not_found) & set(codes)
    assert set(row.because) <= {one["code"] for one in found["swim"]["reasons"]}
    assert row.says in found["next"]["text"]
    obeys_the_laws(found)


async def judged(api: Api, entries: list[Entry], now: datetime, **pool: Any) -> dict[str, Any]:
    api.now = now
    made = await api.new_pool(**pool)
    for hours, route, body in sorted(entries, key=lambda entry: -entry[0]):
        at = (now - timedelta(hours=hours)).isoformat()
        await api.post(f"/pools/{made}/{route}", {"id": new_id(), "at": at, **body})
    found: dict[str, Any] = await api.get(f"/pools/{made}/assessment")
    return found


def obeys_the_laws(found: dict[str, Any]) -> None:
    """What holds of every answer (laws A.2, A.3, B): one remedy, the next is the first's, swim agrees."""
    asks = [f for f in found["findings"] if f["severity"] not in ("watch", "note")]
    assert all(f["remedy"]["kind"] != "none" and f["remedy"]["text"] for f in asks)
    assert found["next"]["code"] == (asks[0]["code"] if asks else found["next"]["code"])
    if not asks:
        assert found["next"]["code"] in ("care_due", "nothing")
    if found["swim"]["code"] == "yes":
        assert not [f for f in asks if f["severity"] in ("danger", "closes_pool")], asks
    else:
        assert found["swim"]["reasons"]
    assert found["closed"] == (found["swim"]["code"] == "no")
    assert found["holds_until"] > found["at"]


async def test_new_plaster_gets_no_salt_and_no_granules_and_cold_water_no_stabilizer(api: Api) -> None:
    """Law D.7 and the table: the judge says what waits, and the plan does not pour it. Common practice."""
    entries = [
        noted(12 * DAY, "plastered"),
        a_test(cyanuric_acid="10", temperature_c="48F", salt="500"),
        looked(),
    ]
    found = await judged(api, entries, MORNING, **equipment(chlorination="salt_cell"))
    barred = {chemical for one in found["not_to_be_dosed"] for chemical in one["chemicals"]}
    assert {"sodium_chloride", "sodium_dichlor", "calcium_hypochlorite", "cyanuric_acid"} <= barred
    made = (await api.pools())[-1]["id"]
    sheet = await api.get(f"/pools/{made}/sheet")
    poured = {line["step"]["chemical"] for line in sheet["steps"]} - {None}
    assert not poured & barred
    waits = {left["measure"]: left["code"] for left in sheet["unmet"]}
    assert (waits["salt"], waits["cyanuric_acid"]) == ("wait", "wait")


async def test_acid_that_went_in_is_not_offered_again_and_reckoning_anew_ends(api: Api) -> None:
    """Law D.5: the first part is ticked, the rest put away: no more acid before a test of pH."""
    entries = [a_test(ph="8.3", total_alkalinity="110"), looked()]
    await judged(api, entries, MORNING)
    made = (await api.pools())[-1]["id"]
    started = await api.post(f"/pools/{made}/sheets", {"id": new_id()}, 201)
    acid = next(line for line in started["steps"] if line["step"]["chemical"] == "hydrochloric_acid")
    ticks = f"/pools/{made}/sheets/{started['id']}/ticks"
    await api.post(ticks, {"id": new_id(), "step_number": acid["number"], "outcome": "done"})
    api.pass_time(minutes=3)
    anew = await api.post(f"/pools/{made}/sheets/{started['id']}/put-away", {"id": new_id()})
    assert not [line for line in anew["steps"] if line["step"]["kind"] == "add"]
    assert ("ph", "wait") in {(left["measure"], left["code"]) for left in anew["unmet"]}
    api.pass_time(minutes=70)
    await api.test(made, free_chlorine="2.4", total_chlorine="2.4", ph="8.0", total_alkalinity="105")
    after = await api.get(f"/pools/{made}/sheet")
    assert "hydrochloric_acid" in {line["step"]["chemical"] for line in after["steps"]}


async def test_a_closing_that_is_done_closes_the_pool_for_the_winter(api: Api) -> None:
    """Row of the table: winter-closed, test 60 days old: winter duties, nobody on the cover, no cover_on."""
    await judged(api, [a_test(60 * DAY), looked(60 * DAY), noted(1.0, "cover_on")], MORNING)
    made, list_id = (await api.pools())[-1]["id"], new_id()
    kept = {"id": new_id(), "list_id": list_id, "which": "closing", "day": "2026-07-10"}
    view = (await api.post(f"/pools/{made}/season-lists", kept, 201))[0]
    once = [line["item"]["key"] for line in view["items"] if not line["item"]["every_days"]]
    for n, key in enumerate(once):
        before = await api.get(f"/pools/{made}/assessment")
        assert before["next"]["code"] != "winter_closed", n
        tick = {"id": new_id(), "list_id": list_id, "item": key}
        await api.post(f"/pools/{made}/season-lists/ticks", tick, 201)
    found = await api.get(f"/pools/{made}/assessment")
    assert (found["next"]["code"], found["next"]["remedy"]["kind"]) == ("winter_closed", "procedure")
    assert (found["swim"]["code"], found["swim"]["reasons"][0]["code"]) == ("no", "winter_closed")
    assert "cover_on" not in {finding["code"] for finding in found["findings"]}
    assert "nobody on the cover" in found["next"]["text"]
