"""May they swim? Rows of the laws of advice, each with its state; unless said: outdoors, household, drop kit.

The laws are common practice and health codes, quoted from memory where the handbook gives no origin.
"""

from datetime import timedelta

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from kumpan.core.assessment.swim import SwimCode, least_free_mg_l
from kumpan.core.journal import AdditionMade, Body, Clarity, Level, TestTaken, VisualCheck
from kumpan.core.journal.pool_entries import WaterChange, WaterChanged
from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.methods import Method, measured
from tests.core.assessment.questions import may_they_swim
from tests.core.journal.test_fold import START, a_test
from tests.words import told

YES, NO, UNKNOWN, NOT_BEFORE = SwimCode.YES, SwimCode.NO, SwimCode.UNKNOWN, SwimCode.NOT_BEFORE


def measured_by(method: Method = Method.DROPS, /, **values: float) -> TestTaken:
    return TestTaken(tuple(measured(Measure(name), value, method) for name, value in values.items()), "kit")


def went_in(chemical: str, grams: float, percent: float = 100.0) -> AdditionMade:
    return AdditionMade(chemical=chemical, strength_percent=percent, label=chemical, mass_g=grams)


def look(clarity: Clarity = Clarity.CLEAR, *odd: str) -> VisualCheck:
    return VisualCheck(clarity, Level.NORMAL, odd)


GOOD = {"free_chlorine": 2.5, "ph": 7.5, "total_chlorine": 2.6, "cyanuric_acid": 40.0}


@pytest.mark.parametrize(
    ("name", "bodies", "code", "says"),
    [
        ("everything good", [(0, measured_by(**GOOD))], YES, ""),
        ("FC 3.4", [(0, measured_by(**GOOD | {"free_chlorine": 3.4, "total_chlorine": 3.4}))], YES, ""),
        ("FC 1.4", [(0, measured_by(**GOOD | {"free_chlorine": 1.4, "total_chlorine": 1.4}))], YES, "dose today"),
        ("FC 0.4", [(0, measured_by(**GOOD | {"free_chlorine": 0.4, "total_chlorine": 0.4}))], NO, "under 1"),
        ("FC 8", [(0, measured_by(**GOOD | {"free_chlorine": 8.0, "total_chlorine": 8.0}))], NO, "swim limit of 4"),
        ("pH 8.4", [(0, measured_by(**GOOD | {"ph": 8.4}))], NO, "outside 7 to 8"),
        ("pH 6.9", [(0, measured_by(**GOOD | {"ph": 6.9}))], NO, "outside 7 to 8"),
        ("FC 2, TC 4 by drops", [(0, measured_by(**GOOD | {"free_chlorine": 2.0, "total_chlorine": 4.0}))], NO, "combined"),
        ("the same by strips", [(0, measured_by(Method.STRIP, **GOOD | {"free_chlorine": 2.0, "total_chlorine": 4.0}))],
         UNKNOWN, "Test it again"),
        ("monopersulfate yesterday, CC 1", [(-1440, went_in("potassium_monopersulfate", 900)),
         (0, measured_by(**GOOD | {"free_chlorine": 2.0, "total_chlorine": 3.0}))], YES, "cannot be read"),
        ("CYA 110, FC 3", [(0, measured_by(**GOOD | {"free_chlorine": 3.0, "cyanuric_acid": 110.0}))], YES, "binds most"),
        ("CYA 300, FC 2", [(0, measured_by(**GOOD | {"free_chlorine": 2.0, "cyanuric_acid": 300.0}))], NO, "binds nearly all"),
        ("acid 20 min ago", [(0, measured_by(**GOOD)), (10, went_in("hydrochloric_acid", 500, 31.45))], NOT_BEFORE, "test"),
        ("acid 61 min ago", [(-60, measured_by(**GOOD)), (-31, went_in("hydrochloric_acid", 500, 31.45))], UNKNOWN, "test"),
        ("salt 20 min ago", [(0, measured_by(**GOOD)), (10, went_in("sodium_chloride", 9000))], NOT_BEFORE, "is mixed"),
        ("salt 61 min ago", [(-60, measured_by(**GOOD)), (-31, went_in("sodium_chloride", 9000))], YES, ""),
        ("a little chlorine 61 min ago", [(-60, measured_by(**GOOD)), (-31, went_in("sodium_hypochlorite", 300, 10))], YES, ""),
        ("much chlorine 61 min ago", [(-60, measured_by(**GOOD)), (-31, went_in("sodium_hypochlorite", 3000, 10))], UNKNOWN, "test"),
        ("tablets in the feeder", [(0, measured_by(**GOOD)), (10, went_in("trichlor", 400, 90))], YES, ""),
        ("hazy, floor plain", [(0, measured_by(**GOOD)), (0, look(Clarity.HAZY))], YES, "look again tomorrow"),
        ("cloudy", [(0, measured_by(**GOOD)), (0, look(Clarity.CLOUDY))], NO, "cloudy"),
        ("green", [(0, measured_by(**GOOD)), (0, look(Clarity.GREEN))], NO, "drain"),
        ("drain hidden", [(0, measured_by(**GOOD)), (0, look(Clarity.DRAIN_HIDDEN))], NO, "drain"),
        ("dead animal", [(0, measured_by(**GOOD)), (0, look(Clarity.CLEAR, "dead animal"))], NO, "dead animal"),
        ("sharp smell since", [(0, measured_by(**GOOD)), (5, look(Clarity.CLEAR, "sharp smell"))], UNKNOWN, "smell"),
        ("sharp smell, then tested", [(0, look(Clarity.CLEAR, "sharp smell")), (5, measured_by(**GOOD))], YES, ""),
        ("drain logged", [(0, measured_by(**GOOD)), (5, WaterChanged(kind=WaterChange.DRAIN, volume_l=20_000.0))],
         UNKNOWN, "new water"),
        ("an inch of rain", [(0, measured_by(**GOOD)), (5, WaterChanged(kind=WaterChange.RAIN, volume_l=850.0))], YES, ""),
        ("a backwash", [(0, measured_by(**GOOD)), (5, WaterChanged(kind=WaterChange.BACKWASH, volume_l=9000.0))], YES, ""),
        ("nobody tested", [], UNKNOWN, "free chlorine"),
    ],
)  # fmt: skip
def test_a_row_of_the_table(name: str, bodies: list[tuple[int, Body]], code: SwimCode, says: str) -> None:
    found = may_they_swim(*bodies)
    every = " ".join(map(told, found.reasons))
    assert found.code is code, (name, every)
    assert says.lower() in every.lower()


def test_four_days_are_as_long_as_a_test_and_a_look_hold() -> None:
    old = may_they_swim((0, measured_by(**GOOD)), later=timedelta(days=5))
    assert old.code is UNKNOWN
    assert "5 days old" in told(old.text)
    assert "Look first" in told(old.reasons[-1])
    looked_long_ago = may_they_swim((-7 * 1440, look()), (0, measured_by(**GOOD)))
    assert looked_long_ago.code is UNKNOWN
    assert "floor" in told(looked_long_ago.text)


def test_at_a_public_pool_they_hold_for_the_day_only() -> None:
    """The operator's code decides; yesterday's test opens nothing."""
    assert may_they_swim((0, measured_by(**GOOD)), public=True).code is YES
    assert may_they_swim((0, measured_by(**GOOD)), public=True, later=timedelta(days=1)).code is UNKNOWN


def test_indoors_and_at_public_pools_combined_chlorine_closes_at_its_own_limit() -> None:
    bodies = (0, measured_by(**GOOD | {"free_chlorine": 2.0, "total_chlorine": 3.0}))
    assert may_they_swim(bodies).code is YES
    assert may_they_swim(bodies, indoor=True).code is NO


def test_a_limit_that_was_typed_is_never_wider_than_the_hard_one() -> None:
    bodies = (0, measured_by(**GOOD | {"free_chlorine": 15.0, "total_chlorine": 15.0}))
    assert may_they_swim(bodies, swim_limit_mg_l=20.0).code is NO


def test_the_forecast_alone_asks_for_a_test_and_never_closes() -> None:
    bodies = (0, measured_by(**GOOD))
    assert may_they_swim(bodies, expected_mg_l=0.6).code is UNKNOWN
    assert may_they_swim(bodies, expected_mg_l=1.6).code is YES


def test_by_code_the_minimum_is_two_with_stabilizer() -> None:
    """Residential standard and public code, from memory; 1 elsewhere, never lower."""
    assert least_free_mg_l("public_code", stabilized=True) == 2.0
    assert least_free_mg_l("public_code", stabilized=False) == 1.0
    assert least_free_mg_l("household", stabilized=True) == 1.0


def test_every_reason_is_listed() -> None:
    found = may_they_swim((0, measured_by(free_chlorine=0.2, ph=8.6)), (0, look(Clarity.CLOUDY)))
    said = [told(one) for one in found.reasons]
    assert any("cloudy" in one for one in said)
    assert any("Free chlorine" in one for one in said)
    assert any("pH" in one for one in said)


def test_after_pouring_the_hour_is_named() -> None:
    found = may_they_swim((0, a_test(2.5)), (20, went_in("sodium_bicarbonate", 900)))
    assert found.not_before == START + timedelta(minutes=80)


BODIES = st.one_of(
    st.builds(
        lambda free, ph, total, cya: measured_by(
            free_chlorine=free, ph=ph, total_chlorine=free + total, cyanuric_acid=cya
        ),
        st.floats(0, 20), st.floats(6.5, 8.6), st.floats(0, 4), st.floats(0, 200),
    ),
    st.builds(
        lambda clarity, odd: look(clarity, *odd),
        st.sampled_from(list(Clarity)),
        st.lists(st.sampled_from(["leaves", "dead animal", "sharp smell", "leak"]), max_size=2),
    ),
    st.builds(
        went_in,
        st.sampled_from(["hydrochloric_acid", "sodium_hypochlorite", "sodium_chloride", "trichlor"]),
        st.floats(1, 9000),
        st.floats(5, 90),
    ),
    st.builds(
        lambda kind, liters: WaterChanged(kind=kind, volume_l=liters),
        st.sampled_from(list(WaterChange)), st.floats(1, 40_000),
    ),
)  # fmt: skip


@settings(max_examples=300, deadline=None)
@given(st.lists(st.tuples(st.integers(-9000, 25), BODIES), max_size=8), st.booleans(), st.booleans())
def test_a_yes_stands_on_a_look_and_a_test_that_still_speak(
    bodies: list[tuple[int, Body]], indoor: bool, public: bool
) -> None:
    """Whatever the journal holds: a yes has both, and neither is one that closes."""
    bodies = sorted(bodies, key=lambda one: one[0])
    found = may_they_swim(*bodies, indoor=indoor, public=public)
    if found.code is not YES:
        assert found.reasons
        return
    tests = [(at, body) for at, body in bodies if isinstance(body, TestTaken)]
    looks = [(at, body) for at, body in bodies if isinstance(body, VisualCheck)]
    values = {value.measure: value.value for value in tests[-1][1].values}
    assert tests[-1][0] >= 30 - 4 * 1440
    assert 1 <= values[Measure.FREE_CHLORINE] <= 10
    assert 7.0 <= values[Measure.PH] <= 8.0
    if looks:
        assert looks[-1][1].clarity in (Clarity.CLEAR, Clarity.HAZY)
        assert "dead animal" not in looks[-1][1].odd
    acid = [
        at for at, body in bodies if isinstance(body, AdditionMade) and body.chemical == "hydrochloric_acid"
    ]
    assert all(at <= tests[-1][0] for at in acid)


def test_every_reason_says_what_it_stands_on() -> None:
    """The law, the measures and the entries: one tap away on the screen."""
    found = may_they_swim((0, measured_by(free_chlorine=0.2, ph=8.6)), (0, look(Clarity.CLOUDY)))
    grounds = {reason.code: reason for reason in found.because}
    assert grounds["cloudy"].law == "B.1"
    assert grounds["ph_high"].measures == (Measure.PH,)
    assert grounds["ph_high"].law == "B.3"
    assert grounds["free_chlorine_low"].entries
    assert grounds["cloudy"].entries != grounds["ph_high"].entries
