"""The one next thing, the swim answer and the expected water, from small journals."""

import pytest

from kumpan.core.assessment.assessment import NextThing, next_thing, problems
from kumpan.core.assessment.case import Case
from kumpan.core.chemistry.equilibrium import solve_totals
from kumpan.core.dosing.mixing import added
from kumpan.core.dosing.raisers import STANDARD_INVENTORY
from kumpan.core.forecast.expected import expected_now, expected_ph, measured_readings
from kumpan.core.journal import (
    Body,
    Clarity,
    Level,
    Outcome,
    StepDone,
    TreatmentStarted,
    VisualCheck,
)
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import Band, profile
from kumpan.core.ranges.targets import aims
from kumpan.core.testing.rhythm import TEST_EVERY
from kumpan.core.treatment.plan import Plan, plan
from tests.core.journals import LITRES, bleach, reads, solid, state, when
from tests.core.samples import PLASTER, engine_state
from tests.words import told

M = Measure
GOOD = {
    "free_chlorine": 2.5,
    "ph": 7.5,
    "total_alkalinity": 100.0,
    "calcium_hardness": 260.0,
    "cyanuric_acid": 40.0,
}
CHLORINE = Band(2.0, 3.0, 2.5)


def planned(**changed: float) -> Plan:
    water = Readings(**{**GOOD, **changed})
    return plan(water, LITRES, PLASTER, aims(profile("household"), PLASTER, water, {}), STANDARD_INVENTORY)


BANDS = {M.FREE_CHLORINE: CHLORINE, M.PH: Band(7.2, 7.8, 7.5)}


def after(*rows: tuple[float, Body], day: float, offered: Plan | None = None) -> NextThing:
    looked = (day, VisualCheck(Clarity.CLEAR, Level.NORMAL))
    case = Case(state=state(*rows, looked), now=when(day), bands=BANDS, offered=offered, volume_l=LITRES)
    return next_thing(case, problems(case))


def test_without_a_test_the_next_thing_is_to_test() -> None:
    found = after(day=1)
    assert (told(found.text), found.station) == ("Test the water", "slip")


def test_what_closes_the_pool_names_the_swim_minimum_and_what_does_not_its_band() -> None:
    for free, edge in ((0.2, 1), (1.5, 2)):
        rows = (
            (0, reads(**{**GOOD, "free_chlorine": free})),
            (0.1, VisualCheck(Clarity.CLEAR, Level.NORMAL)),
        )
        case = Case(state=state(*rows), now=when(0.1), bands=BANDS, volume_l=LITRES)
        said = {found.code: told(found.reason) for found in problems(case)}
        assert said["free_chlorine_low"] == f"Free chlorine {free} is under {edge}."


def test_what_the_sheet_raises_is_named_chlorine_first_and_ph_keeps_its_letters() -> None:
    found = after(
        (0, reads(**{**GOOD, "free_chlorine": 0.5, "ph": 6.9, "total_alkalinity": 90})),
        day=0.1,
        offered=planned(free_chlorine=0.5, ph=6.9, total_alkalinity=90),
    )
    assert told(found.text).startswith("Raise free chlorine")
    assert " pH" in told(found.text)
    assert " ph" not in told(found.text)
    assert found.station == "sheet"
    assert told(found.why).startswith("The plan begins with ")


def test_acid_lowers_and_the_sentence_says_so() -> None:
    both, alone = {"free_chlorine": 0.5, "ph": 8.1}, {"ph": 8.1}
    found = after((0, reads(**{**GOOD, **both})), day=0.1, offered=planned(**both))
    assert told(found.text) == "Raise free chlorine, lower pH"
    found = after((0, reads(**{**GOOD, **alone})), day=0.1, offered=planned(**alone))
    assert told(found.text) == "Lower pH"


def test_nothing_to_add_says_when_to_test_again() -> None:
    found = after((0, reads(**GOOD)), day=0.1, offered=planned())
    assert told(found.text) == "Nothing to add"
    assert found.due == when(0) + TEST_EVERY


def test_an_old_test_and_a_pour_ask_for_a_test() -> None:
    assert "6 days old" in told(after((0, reads(**GOOD)), day=6, offered=planned()).why)
    found = after((0, reads(**GOOD)), (0.5, bleach(2)), day=0.6, offered=planned())
    assert told(found.why) == "Since the last test this went in: liquid chlorine."


def test_tablets_in_the_feeder_ask_for_no_test() -> None:
    found = after((0, reads(**GOOD)), (0.5, solid("trichlor", 200, 90)), day=0.6, offered=planned())
    assert told(found.text) == "Nothing to add"


def test_an_open_sheet_goes_on_with_its_next_step() -> None:
    steps = planned(free_chlorine=0.5).steps
    treatment = TreatmentStarted(steps=steps, profile="household", before=Readings(), predicted=Readings())
    begun = after((0, reads(**GOOD)), (0.1, treatment), day=0.2)
    assert (
        told(begun.text)
        == f"Go on with the plan: {told(steps[0].title)[0].lower()}{told(steps[0].title)[1:]}"
    )
    pool = state((0, reads(**GOOD)), (0.1, treatment))
    done_as = StepDone(pool.treatments[0].id, 0, Outcome.DONE)
    found = after((0, reads(**GOOD)), (0.1, treatment), (0.2, done_as), day=0.3)
    assert told(found.text).endswith(told(steps[1].title)[1:])


def test_the_last_value_of_each_measure_counts_whenever_it_was_tested() -> None:
    pool = state((0, reads(**GOOD)), (3, reads(ph=7.7)), (5, reads(free_chlorine=1.0)))
    found = measured_readings(pool)
    assert (found.ph, found.free_chlorine, found.total_alkalinity) == (7.7, 1.0, 100.0)


def test_an_addition_moves_only_what_was_tested_before_it() -> None:
    pool = state((0, reads(**GOOD)), (1, solid("sodium_dichlor", 100, 56)), (2, reads(free_chlorine=2.0)))
    found = expected_now(pool)
    assert found.free_chlorine == 2.0
    # 100 g of 56 % dichlor: 0.933 mg/L of chlorine and 0.910 of that in stabilizer (handbook 04)
    assert found.cyanuric_acid == pytest.approx(40 + 0.9333 * 0.910, abs=0.01)


def test_acid_since_the_last_test_lowers_the_expected_ph_as_the_engine_has_it() -> None:
    pool = state((0, reads(**{**GOOD, "ph": 7.9})), (1, solid("hydrochloric_acid", 500, 31.45)))
    start = engine_state(**{**GOOD, "ph": 7.9}).totals
    acid = Product("", "hydrochloric_acid", 31.45)
    by_engine = float(solve_totals(added(start, acid, 500, LITRES, spent=True)).species.ph)
    assert expected_ph(pool) == pytest.approx(by_engine, abs=1e-6)
    assert by_engine < 7.9


def test_without_alkalinity_acid_since_leaves_ph_unknown_and_chlorine_does_not() -> None:
    """No new acid on a pH that acid has moved since."""
    assert expected_ph(state((0, reads(ph=7.9)), (1, solid("hydrochloric_acid", 500, 31.45)))) is None
    assert expected_ph(state((0, reads(ph=7.9)), (1, bleach(2)))) == 7.9
    assert expected_ph(state((0, reads(free_chlorine=2)))) is None
    assert expected_ph(state((0, reads(**GOOD)))) == 7.5
