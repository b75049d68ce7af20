"""Accidents in the water: the guidance's figures, and no time where it gives none."""

from dataclasses import replace
from datetime import timedelta

import pytest

from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.records.step import ADD, WAIT
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.special.incident import CT_MG_MIN_L, Incident, holding, incident_plan
from kumpan.core.treatment.too_old import CARRIES_FOR, too_old, without, worded
from tests.core.journals import reads, state, when
from tests.core.samples import GOOD
from tests.core.treatment.special.test_shock import request
from tests.words import told

M = Measure


@pytest.mark.parametrize(
    ("incident", "cya", "free", "minutes"),
    [
        (Incident.FORMED_STOOL, 0, 2, 25),
        (Incident.FORMED_STOOL, 40, 2, 50),
        (Incident.DIARRHEA, 0, 20, 12.75 * 60),
        (Incident.DIARRHEA, 15, 20, 28 * 60),
    ],
)
def test_the_guidances_times(incident: Incident, cya: float, free: float, minutes: float) -> None:
    """CDC recommendations, from memory: formed stool 2 ppm 25 min (50 with stabilizer); diarrhea 20 ppm
    12.75 h without stabilizer, 28 h at 1 to 15."""
    row = holding(incident, cya)
    assert row is not None
    assert row.free_chlorine_mg_l == free
    assert row.minutes == pytest.approx(minutes)


def test_the_ct_value_of_diarrhoea() -> None:
    """15 300 mg min/L is 20 ppm for 12.75 h (CDC, from memory)."""
    assert pytest.approx(20 * 12.75 * 60) == CT_MG_MIN_L


@pytest.mark.parametrize(
    ("incident", "cya"),
    [
        (Incident.DIARRHEA, 16),
        (Incident.DIARRHEA, None),
        (Incident.VOMIT, 0),
        (Incident.BLOOD, 0),
        (Incident.FORMED_STOOL, None),
    ],
)
def test_no_time_is_made_up(incident: Incident, cya: float | None) -> None:
    water = Readings(**{**GOOD.__dict__, "cyanuric_acid": cya})
    found = incident_plan(incident, request(water))
    assert holding(incident, cya) is None
    assert [left.code for left in found.unmet] == ["no_guidance"]
    assert [step for step in found.steps if step.kind in (ADD, WAIT)] == []


@pytest.mark.parametrize("incident", list(Incident))
def test_the_pool_is_closed_first_and_tested_last(incident: Incident) -> None:
    found = incident_plan(incident, request())
    assert told(found.steps[0].title).startswith("Close the pool")
    assert found.steps[1].hazard is Hazard.SOILED_WATER
    assert "never the vacuum" in told(found.steps[1].title)
    assert found.steps[-1].kind == "test"
    assert all(step.cautions for step in found.steps if step.kind != WAIT)


def test_what_is_poured_is_mixed_and_tested_before_the_time_counts() -> None:
    water = Readings(**{**GOOD.__dict__, "free_chlorine": 0.5, "cyanuric_acid": 0})
    found = incident_plan(Incident.DIARRHEA, request(water))
    kinds = [step.kind for step in found.steps]
    pour = kinds.index(ADD)
    assert kinds[pour + 1 : pour + 4] == [WAIT, "test", WAIT]
    assert found.steps[pour + 3].minutes == 765
    assert found.steps[pour].expected[M.FREE_CHLORINE] == pytest.approx(20, rel=0.06)


def test_high_ph_and_cold_water_are_told_for_the_times_do_not_hold_there() -> None:
    water = Readings(**{**GOOD.__dict__, "ph": 7.8, "temperature_c": 18})
    codes = {note.code for note in incident_plan(Incident.FORMED_STOOL, request(water)).notes}
    assert codes == {"authority", "ph_first", "too_cold"}
    assert {note.code for note in incident_plan(Incident.FORMED_STOOL, request()).notes} == {"authority"}


def test_old_readings_carry_no_dose() -> None:
    pool = state((0, reads(ph=7.8, cyanuric_acid=40, free_chlorine=1)))
    assert too_old(pool, when(7)) == {}
    assert set(too_old(pool, when(9))) == {M.FREE_CHLORINE, M.PH}
    assert too_old(pool, when(61))[M.CYANURIC_ACID] == 61
    assert without(GOOD, {M.PH: 9}).ph is None
    assert without(GOOD, {}) == GOOD


def test_the_test_is_asked_for_by_name_and_age() -> None:
    left = (
        Unmet(M.PH, "not_tested", Message("pH is not measured.")),
        Unmet(M.SALT, "dilution_needed", Message("Salt …")),
    )
    found = worded(left, {M.PH: 12})
    assert found[0].code == "too_old"
    assert told(found[0].reason) == "pH was last tested 12 days ago: test it first."
    assert found[1] == left[1]


def test_what_moves_fast_holds_for_less() -> None:
    assert CARRIES_FOR[M.FREE_CHLORINE] < CARRIES_FOR[M.TOTAL_ALKALINITY] < CARRIES_FOR[M.CALCIUM_HARDNESS]
    assert min(CARRIES_FOR.values()) > timedelta(days=7)


def test_no_accident_is_shocked_with_stabilized_chlorine() -> None:
    """Law D.13: the guidance's times hold at that stabilizer only, and dichlor would raise it."""
    water = Readings(**{**GOOD.__dict__, "cyanuric_acid": 0.0, "free_chlorine": 1.0})
    dichlor = Product("granules", "sodium_dichlor", 56.0)
    for incident in (Incident.DIARRHEA, Incident.FORMED_STOOL):
        found = incident_plan(incident, replace(request(water), inventory=(dichlor,)))
        assert [step for step in found.steps if step.kind == ADD] == []
        assert "without stabilizer" in told(found.unmet[0].reason)
