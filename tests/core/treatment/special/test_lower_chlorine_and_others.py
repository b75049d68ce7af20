"""Plans a person asks for: too much chlorine, borate, new water, minerals; what holds a pool between
visits.
"""

from dataclasses import replace
from datetime import UTC, datetime
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.dosing.dilution import refilled
from kumpan.core.dosing.feeding import cell_note, cell_percent, feeder_ml_a_day, tablets_a_week
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import G_PER_LB, L_PER_US_GAL, ML_PER_FL_OZ
from kumpan.core.ranges.profiles import bands, profile
from kumpan.core.records.step import ADD, TEST, Step
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.special.borate import borate_plan
from kumpan.core.treatment.special.drain import DrainRequest, Hoses, drain_plan, goes
from kumpan.core.treatment.special.lower_chlorine import lower_chlorine_plan
from kumpan.core.treatment.special.mineral import mineral_plan
from kumpan.core.treatment.special.request import SpecialRequest
from kumpan.core.treatment.special.second_opinion import advised_plan
from kumpan.core.treatment.split import ph_step_allowed
from tests.core.samples import GOOD, PLASTER, POOL_L, VINYL_TABLETS
from tests.words import told

NOW = datetime(2026, 7, 4, 18, 0, tzinfo=UTC)
TEN_THOUSAND_GAL = 10_000 * L_PER_US_GAL
MINERAL = Traits(surface=Surface.VINYL, chlorination=Chlorination.MINERAL, filter=Filter.SAND)


def special(readings: Readings = GOOD, traits: Traits = PLASTER, volume_l: float = POOL_L) -> SpecialRequest:
    rows = bands(profile("household"), traits, readings.cyanuric_acid)
    return SpecialRequest(
        readings=readings,
        volume_l=volume_l,
        traits=traits,
        bands=rows,
        inventory=STANDARD_INVENTORY,
        swim_limit_mg_l=3.0,
        now=NOW,
        zone=ZoneInfo("America/Chicago"),
    )


def adds(plan: Plan) -> list[Step]:
    return [step for step in plan.steps if step.kind == ADD]


def test_too_much_chlorine_waits_for_the_sun_first() -> None:
    plan = lower_chlorine_plan(special(replace(GOOD, free_chlorine=9.0)), today=False)
    assert adds(plan) == []
    assert plan.steps[-1].kind == TEST
    titles = [told(step.title) for step in plan.steps]
    assert titles.index("Stop whatever still feeds chlorine") < titles.index("Cover off, pump on")


def test_thiosulfate_only_when_it_must_be_today_and_then_half() -> None:
    """Handbook 04: about 2 g a gram of chlorine in practice; half of the computed dose, then a test."""
    plan = lower_chlorine_plan(special(replace(GOOD, free_chlorine=9.0)), today=True)
    [step] = adds(plan)
    grams_of_chlorine = 6.0 * POOL_L / 1000
    assert step.mass_g == pytest.approx(grams_of_chlorine * 2 / 2)
    assert step.expected[Measure.FREE_CHLORINE] == pytest.approx(6.0)
    assert plan.steps[-1].kind == TEST


def test_nothing_to_lower_is_said() -> None:
    assert lower_chlorine_plan(special(), today=True).unmet[0].code == "in_range"
    missing = lower_chlorine_plan(special(replace(GOOD, free_chlorine=None)), today=True)
    assert missing.unmet[0].code == "not_tested"


def test_borate_by_boric_acid() -> None:
    """Handbook 04 [D]: 50 ppm takes 23.9 lb of boric acid per 10,000 gal, and little else."""
    plan = borate_plan(special(volume_l=TEN_THOUSAND_GAL), "boric_acid")
    boric = sum(step.mass_g or 0 for step in adds(plan) if step.chemical == "boric_acid")
    assert boric / G_PER_LB == pytest.approx(23.9, rel=0.005)
    assert plan.predicted.borate == pytest.approx(50)


def test_borate_by_borax_takes_acid_and_is_staged_by_ph() -> None:
    """Handbook 04 [D]: 36.8 lb of borax and about 296 fl oz of 31.45 % acid per 10,000 gal."""
    plan = borate_plan(special(volume_l=TEN_THOUSAND_GAL), "borax")
    borax = sum(step.mass_g or 0 for step in adds(plan) if step.chemical == "borax")
    acid = sum(step.volume_ml or 0 for step in adds(plan) if step.chemical == "hydrochloric_acid")
    assert borax / G_PER_LB == pytest.approx(36.8, rel=0.005)
    assert acid / ML_PER_FL_OZ == pytest.approx(296, rel=0.08)
    assert len(adds(plan)) > 4, "in stages"
    level = GOOD.ph or 7.5
    for step in adds(plan):
        then = step.expected[Measure.PH]
        assert ph_step_allowed(level, then)
        level = then


def test_borate_steps_carry_their_cautions() -> None:
    words = " ".join(told(note.text) for note in borate_plan(special(), "boric_acid").notes)
    assert "not allowed everywhere" in words
    assert "pets" in words


def drain(readings: Readings, traits: Traits = PLASTER, **more: object) -> DrainRequest:
    rows = bands(profile("household"), traits, readings.cyanuric_acid)
    fill = Readings(ph=7.6, total_alkalinity=90, calcium_hardness=120)
    request = DrainRequest(
        readings=readings, volume_l=POOL_L, traits=traits, bands=rows, fill=fill, hoses=Hoses(7000, 1500, 1.6)
    )
    return replace(request, **more)  # type: ignore[arg-type]


def test_the_share_to_replace() -> None:
    """Handbook 07: fraction = (a - b) / (a - f); stabilizer 80 to 40 with none in the fill is a half."""
    plan = drain_plan(drain(replace(GOOD, cyanuric_acid=80)))
    refill = next(step for step in plan.steps if step.water_l)
    assert refill.water_l == pytest.approx(POOL_L / 2)
    assert plan.predicted.cyanuric_acid == pytest.approx(40)
    assert plan.predicted.calcium_hardness == pytest.approx((260 + 120) / 2)
    hours = (
        sum(
            step.minutes or 0
            for step in plan.steps
            if "filling" in told(step.title) or "draining" in told(step.title)
        )
        / 60
    )
    assert hours == pytest.approx(POOL_L / 2 / 7000 + POOL_L / 2 / 1500, rel=0.01)
    assert f"${POOL_L / 2 / 1000 * 1.6:.0f}" in told(plan.notes[0].text)


@given(st.floats(0.01, 0.98))
def test_several_partial_drains_multiply(share: float) -> None:
    """Handbook 07: several partial drains multiply (1 - fraction)."""
    count, each = goes(share)
    assert each <= 0.5 + 1e-9
    assert (1 - each) ** count == pytest.approx(1 - share)


def test_the_highest_measure_is_lowered_unless_another_is_named() -> None:
    water = replace(GOOD, cyanuric_acid=60, calcium_hardness=900)
    assert drain_plan(drain(water)).notes[0].measure is Measure.CALCIUM_HARDNESS
    assert drain_plan(drain(water, measure=Measure.CYANURIC_ACID)).notes[0].measure is Measure.CYANURIC_ACID


def test_draining_defers_to_the_professional_and_guards_pump_and_shell() -> None:
    plan = drain_plan(drain(replace(GOOD, cyanuric_acid=80), VINYL_TABLETS))
    hazards = [step.hazard for step in plan.steps]
    assert hazards.index(Hazard.ELECTRICITY) < hazards.index(Hazard.SHELL)
    words = " ".join(told(note.text) for note in plan.notes)
    assert "professional" in words
    assert "liner" in words


@pytest.mark.parametrize(("readings", "fill", "code"), [
    (GOOD, Readings(), "in_range"),
    (replace(GOOD, calcium_hardness=900), Readings(), "fill_not_known"),
    (replace(GOOD, calcium_hardness=900), Readings(calcium_hardness=500), "fill_too_high"),
])  # fmt: skip
def test_where_new_water_cannot_help_the_reason_is_told(
    readings: Readings, fill: Readings, code: str
) -> None:
    assert drain_plan(drain(readings, fill=fill)).unmet[0].code == code


def test_refilling_everything_gives_the_fill() -> None:
    fill = Readings(ph=7.8, total_alkalinity=90, calcium_hardness=120, cyanuric_acid=0, temperature_c=26)
    after = refilled(GOOD, fill, 1.0)
    assert after.ph == pytest.approx(7.8, abs=0.01)
    assert after.total_alkalinity == pytest.approx(90, abs=0.1)
    assert after.cyanuric_acid == pytest.approx(0)


def test_minerals_keep_chlorine_all_the_same() -> None:
    plan = mineral_plan(special(traits=MINERAL, volume_l=2 * TEN_THOUSAND_GAL))
    oxidizer = next(step for step in plan.steps if step.hazard is Hazard.OXIDIZER_GRANULES)
    assert "2 lb" in told(oxidizer.title), "handbook 06: about 1 lb per 10,000 gal"
    assert "not a sanitizer" in told(plan.notes[0].text)
    assert mineral_plan(special()).unmet[0].code == "not_mineral"


def test_the_minerals_weekly_oxidizer_is_poured_as_chlorine_with_its_days() -> None:
    """Handbook 06: about 1 lb per 10,000 gal, dissolved first, lasts 2 to 6 days; if dichlor it brings CYA."""
    dichlor = Product("d", "sodium_dichlor", 56.0)
    request = special(traits=MINERAL, volume_l=2 * TEN_THOUSAND_GAL)
    plan = mineral_plan(replace(request, inventory=(*STANDARD_INVENTORY, dichlor)))
    (pour,) = adds(plan)
    assert pour.chemical == "sodium_dichlor"
    assert pour.mass_g == pytest.approx(2 * G_PER_LB)
    # 1 lb at 56 % in 10,000 gal: 454 g x 0.56 / 37,854 L.
    assert plan.predicted.free_chlorine == pytest.approx((GOOD.free_chlorine or 0) + 6.71, abs=0.05)
    assert (plan.predicted.cyanuric_acid or 0) > (GOOD.cyanuric_acid or 0) + 5
    after = [step.offset_min - pour.offset_min for step in plan.steps if step.kind == TEST][1:]
    assert after[0] <= 1440
    assert 2 * 1440 <= after[1] < 3 * 1440
    assert "Nobody swims until it reads under 3" in " ".join(told(step.why) for step in plan.steps)


@pytest.mark.parametrize(
    ("readings", "traits", "chemical"),
    [
        (replace(GOOD, cyanuric_acid=49.0), MINERAL, "calcium_hypochlorite"),
        (replace(GOOD, cyanuric_acid=None), MINERAL, "calcium_hypochlorite"),
        (GOOD, replace(MINERAL, indoor=True), "calcium_hypochlorite"),
        (replace(GOOD, cyanuric_acid=49.0, calcium_hardness=900.0), MINERAL, None),
    ],
)
def test_the_oxidizer_brings_nothing_that_has_no_room(
    readings: Readings, traits: Traits, chemical: str | None
) -> None:
    powders = (Product("d", "sodium_dichlor", 56.0), Product("c", "calcium_hypochlorite", 65.0))
    request = replace(special(readings, traits), inventory=powders)
    assert [step.chemical for step in adds(mineral_plan(request))] == ([chemical] if chemical else [])


def test_tablets_a_week_of_the_handbook() -> None:
    """Handbook 10: 2 ppm a day in 20,000 gal is 5.2 tablets a week; 04: 10.8 ppm from one in 5000 gal."""
    week = tablets_a_week(2.0, 2 * TEN_THOUSAND_GAL)
    assert week.tablets == pytest.approx(5.2, abs=0.05)
    assert week.stabilizer_mg_l == pytest.approx(8.5, abs=0.1)
    assert tablets_a_week(10.8 / 7, TEN_THOUSAND_GAL / 2).tablets == pytest.approx(1.0, rel=0.01)


def test_the_cells_setting_of_the_handbook() -> None:
    """Handbook 06 [D]: 3 ppm a day, 20,000 gal, 1 lb a day, 12 h is 100 %."""
    a_pound_a_day = G_PER_LB / 24
    assert cell_percent(3.0, 2 * TEN_THOUSAND_GAL, a_pound_a_day, 12) == pytest.approx(100, rel=0.005)
    assert "cannot hold" in told(cell_note(5.0, 2 * TEN_THOUSAND_GAL, a_pound_a_day, 12).text)
    assert "around the clock" in told(cell_note(9.0, 2 * TEN_THOUSAND_GAL, a_pound_a_day, 12).text)


def test_a_feeder_makes_good_the_loss() -> None:
    """Handbook 04: 12.8 fl oz of 10 % per 10,000 gal for each ppm."""
    liquid = Product("l", "sodium_hypochlorite", 10.0)
    assert feeder_ml_a_day(2.0, TEN_THOUSAND_GAL, liquid) / ML_PER_FL_OZ == pytest.approx(25.6, rel=0.01)


def test_advice_becomes_a_safe_sheet_of_its_own() -> None:
    """Acid and chlorine are kept an hour apart, and 40 lb of baking soda does not go in at once."""
    plan = advised_plan("acid 1 qt, liquid chlorine 1 gal", GOOD, POOL_L, PLASTER)
    acid, chlorine = adds(plan)
    assert chlorine.offset_min - acid.offset_min >= 60 or chlorine.day > acid.day
    much = advised_plan("baking soda 40 lb", GOOD, POOL_L, PLASTER)
    assert len(adds(much)) >= 4
    assert max(step.mass_g or 0 for step in adds(much)) < 12 * G_PER_LB
    assert advised_plan("magic 3 lb", GOOD, POOL_L, PLASTER).notes[0].code == "unread"


@pytest.mark.parametrize("plan", [
    lower_chlorine_plan(special(replace(GOOD, free_chlorine=9.0)), today=True),
    borate_plan(special(), "borax"),
    borate_plan(special(), "boric_acid"),
    mineral_plan(special(traits=MINERAL)),
    drain_plan(drain(replace(GOOD, cyanuric_acid=80))),
    advised_plan("acid 1 qt, liquid chlorine 1 gal, calcium 4 lb", GOOD, POOL_L, PLASTER),
], ids=["reducer", "borax", "boric acid", "minerals", "drain", "advice"])  # fmt: skip
def test_every_hazardous_step_of_every_plan_carries_its_cautions(plan: Plan) -> None:
    assert plan.steps
    for step in plan.steps:
        if HAZARDS[step.hazard].hazardous:
            assert step.cautions == HAZARDS[step.hazard].cautions
