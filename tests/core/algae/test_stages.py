"""The sheets of a rescue, stage by stage: handbook 07, common practice, and 05 for what keeps apart."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.algae.criteria import StageKey, finished, stage_now
from kumpan.core.algae.preparing import CLEAN_FILTER
from kumpan.core.algae.severity import SEVERITIES, SPOTS
from kumpan.core.algae.stages import PUMP_OFF, REFILL, VACUUM, stage_plan
from kumpan.core.hazards import HAZARDS, Hazard
from kumpan.core.journal import Clarity, DeadAlgaeStrategy, PhStrategy, RescueSet, Severity
from kumpan.core.pool.equipment import Chlorination, Filter, Surface, Traits
from kumpan.core.records.step import ADD, TEST
from kumpan.core.treatment.plan import Plan
from tests.core.algae.cases import (
    ACID,
    ASH,
    DICHLOR,
    HYPO,
    LIQUID,
    PLASTER,
    TABLETS,
    VINYL,
    Case,
    M,
    nearly_over,
)
from tests.words import told


def titles(plan: Plan) -> list[str]:
    return [told(step.title) for step in plan.steps]


def pours(plan: Plan) -> list[tuple[str | None, float]]:
    """Chemical, and free chlorine expected after it."""
    return [(s.chemical, s.expected.get(M.FREE_CHLORINE, 0.0)) for s in plan.steps if s.kind == ADD]


def test_nothing_goes_in_before_a_test() -> None:
    case = Case()
    assert stage_now(case.request()) is StageKey.TEST
    treatment = stage_plan(case.request())
    assert pours(treatment) == []
    assert {M.FREE_CHLORINE, M.PH, M.CYANURIC_ACID, M.CALCIUM_HARDNESS} <= set(treatment.steps[-1].measures)


def test_first_comes_preparing_with_the_pool_closed() -> None:
    """Handbook 07, steps 0 to 2: no swimmers, debris out, level, filter clean, pump day and night."""
    treatment = stage_plan(Case().begin().request())
    reported = " | ".join(titles(treatment)).lower()
    for words in ("nobody in", "debris out", "middle of the skimmer", "pump day and night", "backwash"):
        assert words in reported
    assert "nobody in" in titles(treatment)[0]


@pytest.mark.parametrize(
    ("case", "said"),
    [
        (Case(traits=Traits(surface=Surface.PLASTER, chlorination=Chlorination.SALT_CELL, filter=Filter.SAND)).begin(), "cell to 0"),
        (Case(traits=Traits(surface=Surface.VINYL, chlorination=Chlorination.TABLETS, filter=Filter.SAND)).begin(), "tablets dry"),
        (Case(traits=Traits(surface=Surface.VINYL, chlorination=Chlorination.LIQUID, filter=Filter.SAND, covered=True)).begin(), "solar blanket off"),
        (Case().begin(copper=0.4), "Sequestrant"),
        (Case(setting=RescueSet(severity=Severity.MUSTARD)).begin(), "toys, suits, hoses"),
    ],
)  # fmt: skip
def test_preparing_fits_the_pool(case: Case, said: str) -> None:
    assert any(said.lower() in title.lower() for title in titles(stage_plan(case.request())))
    assert not any(said.lower() in title.lower() for title in titles(stage_plan(Case().begin().request())))


def test_ph_goes_down_first_and_up_first_where_the_shock_is_acid() -> None:
    """Both schools of handbook 07: 7.2 to 7.4 by default, 7.8 before a product that drives pH down."""
    high = Case().begin(ph=8.0).prepared()
    assert stage_now(high.request()) is StageKey.BALANCE
    poured = [s for s in stage_plan(high.request()).steps if s.kind == ADD]
    assert [s.chemical for s in poured] == ["hydrochloric_acid", "sodium_hypochlorite"]
    # Law E.1: never a day without chlorine in a green pool; the rest of the acid follows from the next test.
    assert {s.day for s in poured} == {1}
    assert poured[1].offset_min - poured[0].offset_min >= 60
    low = Case(inventory=(DICHLOR, ACID, ASH)).begin(ph=7.3, cyanuric_acid=5.0).prepared()
    assert low.request().ph_strategy is PhStrategy.RAISED
    raised = [s.chemical for s in stage_plan(low.request()).steps if s.kind == ADD]
    assert raised[0] == "sodium_carbonate"


def test_a_missing_night_is_asked_for_and_is_no_reason_to_shock_again() -> None:
    """Law E.2: clear after a round and nothing combined, but nobody tested at dusk and at dawn."""
    case = Case().begin().prepared().pour(15.0).later(hours=40)
    case.visual_check(Clarity.CLEAR).test(free_chlorine=4.0, total_chlorine=4.2, ph=7.4)
    assert stage_now(case.request()) is StageKey.CLEAR
    assert not [s for s in stage_plan(case.request()).steps if s.kind == ADD]


def test_no_acid_goes_in_by_a_bleached_test() -> None:
    """Over 10 of free chlorine the pH test reads wrong."""
    case = Case().begin(ph=7.4).prepared().pour(15.0).later(hours=1).test(free_chlorine=14.0, ph=8.2)
    assert stage_now(case.request()) is StageKey.ROUND
    assert any(note.code == "ph_reads_wrong" for note in stage_plan(case.request()).notes)


def test_a_round_brushes_reads_the_gauge_pours_and_tests_twice() -> None:
    """40 % of stabilizer 40 is 16."""
    treatment = stage_plan(Case().begin().prepared().request())
    kinds = [step.kind for step in treatment.steps]
    assert titles(treatment)[0].startswith("Brush")
    assert titles(treatment)[1].startswith("Read the filter's gauge")
    assert kinds.index(ADD) < kinds.index(TEST)
    assert kinds.count(TEST) == 2
    [(chemical, reached)] = pours(treatment)
    assert chemical == "sodium_hypochlorite"
    assert reached == pytest.approx(16.0, abs=1.0)


def test_the_fixed_school_says_that_ten_is_no_shock_here() -> None:
    """10 is 3 to 7 times too weak at stabilizer 50 to 100 (handbook 07)."""
    case = (
        Case(setting=RescueSet(severity=Severity.OPAQUE, by_ratio=False)).begin(cyanuric_acid=80.0).prepared()
    )
    treatment = stage_plan(case.request())
    assert pours(treatment)[0][1] == pytest.approx(10.0, abs=0.8)
    assert any(note.code == "weak_shock" for note in treatment.notes)


def test_mustard_goes_to_sixty_percent_of_stabilizer() -> None:
    treatment = stage_plan(Case(setting=RescueSet(severity=Severity.MUSTARD)).begin().prepared().request())
    assert treatment.steps[2].expected[M.FREE_CHLORINE] == pytest.approx(20.6, abs=4)
    assert Case(setting=RescueSet(severity=Severity.MUSTARD)).begin().request().wanted_mg_l == pytest.approx(
        24.0
    )


def test_a_full_filter_is_cleaned_before_the_round() -> None:
    """8 psi (55 kPa) over clean."""
    full = Case().begin().prepared().gauge(70.0 + 56.0)
    assert told(CLEAN_FILTER[Filter.SAND][0]) in titles(stage_plan(full.request()))
    assert told(CLEAN_FILTER[Filter.SAND][0]) not in titles(
        stage_plan(full.later(minutes=5).cleaned(71.0).request())
    )


def test_calcium_gives_way_to_liquid_near_its_limit_and_tablets_never_shock() -> None:
    case = Case(inventory=(HYPO, TABLETS)).begin(calcium_hardness=250.0).prepared()
    assert pours(stage_plan(case.request()))[0][0] == "calcium_hypochlorite"
    hard = Case(inventory=(HYPO, TABLETS)).begin(calcium_hardness=395.0).prepared()
    refused = stage_plan(hard.request())
    assert refused.steps == ()
    assert refused.unmet[0].code == "nothing_suitable_at_hand"
    both = Case(inventory=(HYPO, LIQUID)).begin(calcium_hardness=395.0).prepared()
    assert pours(stage_plan(both.request()))[0][0] == "sodium_hypochlorite"


def test_dichlor_gives_way_when_stabilizer_has_no_room() -> None:
    room = Case(inventory=(DICHLOR,)).begin(cyanuric_acid=10.0, ph=7.8).prepared()
    assert pours(stage_plan(room.request()))[0][0] == "sodium_dichlor"
    full = Case(inventory=(DICHLOR,)).begin(cyanuric_acid=48.0, ph=7.8).prepared()
    assert stage_plan(full.request()).unmet[0].code == "nothing_suitable_at_hand"


def test_the_product_that_the_person_chose_is_obeyed_and_its_harm_is_said() -> None:
    setting = RescueSet(severity=Severity.GREEN, use="hypo")
    hard = Case(setting=setting, inventory=(LIQUID, HYPO)).begin(calcium_hardness=395.0).prepared()
    sheet = stage_plan(hard.request())
    assert pours(sheet)[0][0] == "calcium_hypochlorite"
    assert "leaves_band" in {note.code for note in sheet.notes}
    gone = Case(setting=setting, inventory=(LIQUID,)).begin().prepared()
    without = stage_plan(gone.request())
    assert pours(without)[0][0] == "sodium_hypochlorite"
    assert "choice_not_at_hand" in {note.code for note in without.notes}


def test_a_chosen_product_that_shocks_no_pool_is_refused_with_its_reason() -> None:
    setting = RescueSet(severity=Severity.GREEN, use="tablets")
    case = Case(setting=setting, inventory=(LIQUID, TABLETS)).begin().prepared()
    refused = stage_plan(case.request())
    assert not pours(refused)
    assert "shocks no pool" in told(refused.unmet[0].reason)


def test_a_pour_waits_for_a_test_of_the_last_two_hours() -> None:
    case = Case().begin().prepared().later(hours=3)
    assert stage_now(case.request()) is StageKey.TEST


def test_the_signs_of_the_end() -> None:
    """Clear, combined 0.5 or less, at most 1 lost overnight (handbook 07)."""
    over = nearly_over().visual_check(Clarity.CLEAR).test(free_chlorine=11.2, total_chlorine=11.6)
    assert finished(over.request())
    assert stage_now(over.request()) is StageKey.AFTER
    lost = nearly_over().visual_check(Clarity.CLEAR).test(free_chlorine=10.6, total_chlorine=11.0)
    assert stage_now(lost.request()) is StageKey.ROUND
    smells = nearly_over().visual_check(Clarity.CLEAR).test(free_chlorine=11.2, total_chlorine=12.0)
    assert not finished(smells.request())
    cloudy = nearly_over().visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6)
    assert stage_now(cloudy.request()) is StageKey.CLEAR
    spots = nearly_over().visual_check(Clarity.CLEAR, SPOTS).test(free_chlorine=11.2, total_chlorine=11.6)
    assert not finished(spots.request())


def test_what_died_is_stirred_for_a_cartridge_and_settled_for_sand() -> None:
    stirred = (
        nearly_over(traits=VINYL).visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6)
    )
    assert any("stir up" in title for title in titles(stage_plan(stirred.request())))
    settled = (
        nearly_over(traits=PLASTER).visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6)
    )
    by_day = titles(stage_plan(settled.request()))
    assert told(PUMP_OFF) not in by_day
    settled.later(hours=14.5).visual_check(Clarity.CLOUDY).test(free_chlorine=9.8, total_chlorine=10.2)
    night = titles(stage_plan(settled.request()))
    assert night.index(told(PUMP_OFF)) < night.index(told(VACUUM)) < night.index(told(REFILL))
    other = nearly_over(
        traits=PLASTER, setting=RescueSet(severity=Severity.GREEN, dead_algae_strategy=DeadAlgaeStrategy.STIR)
    )
    other.visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6)
    assert any("stir up" in title for title in titles(stage_plan(other.request())))


@pytest.mark.parametrize(
    ("hour_utc", "rests"),
    [(12, False), (17, False), (1, False), (2, True), (4, True), (6, True), (8, False), (11, False)],
)
@pytest.mark.parametrize("latitude", [32.0, 58.0])
def test_the_pump_rests_only_while_a_night_is_left(hour_utc: int, rests: bool, latitude: float) -> None:
    """From dusk, or half past eight where it hardly gets dark in June, until two at night."""
    case = (
        nearly_over(traits=PLASTER).visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6)
    )
    case.later(hours=(hour_utc - 12) % 24).visual_check(Clarity.CLOUDY).test(
        free_chlorine=11.0, total_chlorine=11.4
    )
    request = case.request(latitude_deg=latitude)
    assert stage_now(request) is StageKey.CLEAR
    assert (told(PUMP_OFF) in titles(stage_plan(request))) is rests


@pytest.mark.parametrize("latitude", [10.0, 32.0, 45.0, 52.0, 58.0, -34.0])
def test_a_night_can_be_studied_wherever_the_pool_lies(latitude: float) -> None:
    """From nine to seven in June: early light is reckoned off, so that a short northern night still ends a
    rescue.
    """
    case = nearly_over().visual_check(Clarity.CLEAR).test(free_chlorine=11.2, total_chlorine=11.6)
    request = case.request(latitude_deg=latitude)
    assert len(request.nights) == 1
    assert finished(request)


def test_a_clarifier_only_under_five() -> None:
    """Handbook 05: clarifier and enzyme only with free chlorine under 5."""
    high = (
        nearly_over(traits=VINYL).visual_check(Clarity.CLOUDY).test(free_chlorine=11.2, total_chlorine=11.6)
    )
    assert "Clarifier only with free chlorine under 5" in told(stage_plan(high.request()).notes[-1].text)


def test_black_spots_hold_a_week() -> None:
    """Free chlorine over 3 for a full week, closed where 3 is the swim limit."""
    case = nearly_over(setting=RescueSet(severity=Severity.BLACK))
    case.visual_check(Clarity.CLEAR).test(free_chlorine=11.2, total_chlorine=11.6)
    assert stage_now(case.request()) is StageKey.WEEK
    closed = stage_plan(case.request(swim_limit_mg_l=3.0))
    assert any("Closed for the week" in told(note.text) for note in closed.notes)
    for _ in range(7):
        case.later(hours=14).test(free_chlorine=6.0, total_chlorine=6.3)
        case.later(hours=10).visual_check(Clarity.CLEAR).test(free_chlorine=5.4, total_chlorine=5.7)
    assert finished(case.request())


def test_a_drop_under_the_level_begins_the_week_again() -> None:
    case = nearly_over(setting=RescueSet(severity=Severity.BLACK)).visual_check(Clarity.CLEAR)
    case.test(free_chlorine=11.2, total_chlorine=11.6).later(days=6).test(
        free_chlorine=2.5, total_chlorine=2.7
    )
    case.later(days=2).visual_check(Clarity.CLEAR).test(free_chlorine=6.0, total_chlorine=6.2)
    assert not finished(case.request())


STATES = st.builds(
    lambda severity, surface, filter_, free, cya, ph, by_ratio, stage: (severity, surface, filter_, free, cya, ph, by_ratio, stage),
    st.sampled_from(list(Severity)), st.sampled_from(list(Surface)), st.sampled_from(list(Filter)),
    st.floats(0, 29), st.floats(0, 140), st.floats(6.9, 8.4), st.booleans(), st.integers(0, 3),
)  # fmt: skip


@given(STATES)
@settings(max_examples=60, deadline=None)
def test_for_any_water_no_sheet_passes_the_cap_mixes_products_or_lets_chlorine_run_out(
    drawn: tuple[Severity, Surface, Filter, float, float, float, bool, int],
) -> None:
    """The laws of every sheet: at most 30 (15 on vinyl), one chlorine product, every step cautioned, a test
    at its end.
    """
    severity, surface, filter_, free, cya, ph, by_ratio, stage = drawn
    traits = Traits(surface=surface, chlorination=Chlorination.LIQUID, filter=filter_)
    case = Case(
        traits=traits,
        setting=RescueSet(severity=severity, by_ratio=by_ratio),
        inventory=(LIQUID, HYPO, DICHLOR, ACID, ASH),
    )
    case.begin(
        free_chlorine=round(free, 1),
        total_chlorine=round(free + 0.4, 1),
        cyanuric_acid=round(cya),
        ph=round(ph, 1),
    )
    if stage:
        case.prepared()
    if stage > 1:
        case.pour(max(0.0, min(10.0, 14.0 - free))).later(hours=1).test(free_chlorine=round(free + 1, 1))
    request = case.request()
    treatment = stage_plan(request)
    cap = 15.0 if surface is Surface.VINYL else 30.0
    chlorine = [
        c
        for c, _ in pours(treatment)
        if c in ("sodium_hypochlorite", "calcium_hypochlorite", "sodium_dichlor")
    ]
    assert len(set(chlorine)) <= 1
    assert all(reached <= max(cap, free + 1) + 1e-6 for _, reached in pours(treatment))
    assert all(
        step.hazard in HAZARDS and (step.cautions or step.hazard is Hazard.NONE) for step in treatment.steps
    )
    if chlorine:
        assert treatment.steps[-1].kind == TEST
        at = [step.offset_min for step in treatment.steps]
        assert at == sorted(at)


def test_every_severity_reads_like_the_handbook() -> None:
    """Handbook 07: light once, green three rounds 12 h apart, mustard about 60 % of stabilizer, black a
    week over 3.
    """
    assert SEVERITIES[Severity.LIGHT].rounds == 1
    assert (SEVERITIES[Severity.GREEN].rounds, SEVERITIES[Severity.GREEN].hours_between) == (3, 12)
    assert SEVERITIES[Severity.MUSTARD].ratio == 0.60
    assert SEVERITIES[Severity.BLACK].week_over_mg_l == 3.0
    assert told(SEVERITIES[Severity.OPAQUE].days) == "10 to 14 days"
    assert "steel only on bare cement" in told(SEVERITIES[Severity.BLACK].brush)
