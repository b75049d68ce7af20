"""One voice: head, board, plan, report, round and assessment of random pools say nothing that contradicts.

Seeded random journals; invented data. `KUMPAN_POOLS=200` tries more of them.
"""

import os
from typing import Any

import numpy as np
import pytest

from tests.web.conftest import Api, Json, new_id
from tests.web.routers.test_pools_assessment import GOOD, MORNING, judged, obeys_the_laws

POOLS = int(os.environ.get("KUMPAN_POOLS", "24"))
CLARITIES = ["clear"] * 6 + ["hazy", "cloudy", "green"]
ODD = [
    "leaves",
    "algae spots",
    "dead animal",
    "foam",
    "sharp smell",
    "weak returns",
    "leak",
    "drain_cover",
    "thunder",
]
POURS = [
    ("sodium_hypochlorite", 10, "1 gal"),
    ("hydrochloric_acid", 31.45, "20 fl oz"),
    ("sodium_bicarbonate", 100, "3 lb"),
    ("cyanuric_acid", 100, "2 lb"),
    ("sodium_chloride", 100, "40 lb"),
    ("potassium_monopersulfate", 42.8, "1 lb"),
]


def water(draw: np.random.Generator) -> dict[str, str]:
    def off(name: str, low: float, high: float) -> str:
        return GOOD[name] if draw.random() < 0.6 else str(round(float(draw.uniform(low, high)), 1))

    free = off("free_chlorine", 0, 9)
    total = str(round(float(free) + float(draw.choice([0.0, 0.0, 0.4, 2.0])), 1))
    found = {
        "free_chlorine": free,
        "total_chlorine": total,
        "ph": off("ph", 6.8, 8.4),
        "total_alkalinity": off("total_alkalinity", 30, 220),
        "calcium_hardness": off("calcium_hardness", 100, 700),
        "cyanuric_acid": off("cyanuric_acid", 0, 130),
        "temperature_c": "80F",
    }
    return {name: value for name, value in found.items() if draw.random() < 0.95}


def random_journal(number: int) -> tuple[list[Any], dict[str, Any]]:
    draw = np.random.default_rng([20261128, number])
    entries: list[Any] = []
    for _ in range(int(draw.integers(0, 4))):
        kit = str(draw.choice(["drops", "drops", "strips", "photometer"]))
        entries.append((float(draw.uniform(0, 200)), "tests", {"fields": water(draw), "kit": kit}))
    for _ in range(int(draw.integers(0, 3))):
        odd = [str(word) for word in ODD if draw.random() < 0.08]
        look = {
            "clarity": str(draw.choice(CLARITIES)),
            "level": str(draw.choice(["normal"] * 5 + ["low", "high"])),
        }
        entries.append((float(draw.uniform(0, 150)), "looks", {**look, "odd": odd}))
    for _ in range(int(draw.integers(0, 3))):
        chemical, percent, amount = POURS[int(draw.integers(len(POURS)))]
        body = {"chemical": chemical, "strength_percent": percent, "amount": amount}
        entries.append((float(draw.choice([draw.uniform(0, 3), draw.uniform(3, 150)])), "additions", body))
    if draw.random() < 0.2:
        kind = str(draw.choice(["storm", "power_cut", "cover_on", "filled", "flood", "plastered"]))
        entries.append((float(draw.uniform(0, 100)), "events", {"kind": kind}))
    chlorination = str(draw.choice(["liquid", "liquid", "tablets", "salt_cell"]))
    surface = str(draw.choice(["plaster", "vinyl"]))
    equipment = {
        "surface": surface,
        "chlorination": chlorination,
        "filter": "sand",
        "indoor": bool(draw.random() < 0.1),
    }
    school = str(draw.choice(["household", "service"]))
    settings = {"name": f"Pool {number}", "time_zone": "America/Chicago", "school": school}
    return entries, {"equipment": equipment, "settings": settings}


def contradictions(said: dict[str, Json]) -> list[str]:
    """What two of the statements say that cannot both be so."""
    judge, head, board, sheet = (said[name] for name in ("assessment", "head", "board", "sheet"))
    found = []
    codes = {f["code"] for f in judge["findings"]}
    about = {measure for f in judge["findings"] for measure in f["measures"]}
    for other in ("head", "report_head", "round_head"):
        if other in said and said[other]["swim"]["code"] != judge["swim"]["code"]:
            found.append(f"{other}: may they swim")
        if other in said and said[other]["next"]["text"] != judge["next"]["text"]:
            found.append(f"{other}: next")
    if head["swim"]["text"] not in said["report"]["swim"] and head["swim"]["not_before"] is None:
        found.append("report: may they swim")
    if said["report"]["next"]["text"] != head["next"]["text"]:
        found.append("report: next")
    doses = [line for line in sheet["steps"] if line["step"]["kind"] == "add"]
    if judge["next"]["code"] in ("nothing", "care_due") and doses:
        found.append("nothing to do, and the sheet pours")
    if judge["next"]["remedy"]["plan"] == "balance" and not doses:
        found.append("follow the sheet, and it is empty")
    spoken = {
        "poured_since_test",
        "water_changed_since_test",
        "fresh_fill",
        "test_old",
        "test_missing",
        "stabilizer_mixing",
    }
    for lane in board["lanes"]:
        outside = lane["verdict"]["code"] in ("low", "high") and lane["measure"] != "saturation_index"
        unsaid = lane["measure"] not in about and not codes & spoken and not lane["old"]
        planned = any(lane["measure"] in line["step"]["measures"] for line in doses)
        left = any(lane["measure"] == left["measure"] for left in sheet["unmet"])
        if outside and unsaid and not planned and not left:
            found.append(f"board: {lane['measure']} {lane['verdict']['code']}, and the judge is silent")
    return found


@pytest.mark.parametrize("number", range(POOLS))
async def test_no_two_statements_about_a_pool_contradict(api: Api, number: int) -> None:
    entries, pool = random_journal(number)
    judge = await judged(api, entries, MORNING, **pool)
    obeys_the_laws(judge)
    made = (await api.pools())[-1]["id"]
    said = {
        "assessment": await api.get(f"/pools/{made}/assessment"),
        "head": await api.get(f"/pools/{made}"),
        "board": await api.get(f"/pools/{made}/board"),
        "sheet": await api.get(f"/pools/{made}/sheet"),
        "report": await api.get(f"/pools/{made}/report"),
    }
    person = new_id()
    await api.post("/people", {"id": person, "name": "A. Tester"})
    stops = {"id": new_id(), "person_id": person, "weekday": MORNING.weekday(), "stops": [made]}
    await api.post("/rounds", stops, 201)
    the_round = await api.get(f"/round?weekday={MORNING.weekday()}&person_id={person}")
    said["round_head"] = the_round["stops"][0]["head"]
    assert contradictions(said) == []
