"""What stands against a pool, row by row, and that "nothing to add" is never said beside it."""

from typing import Any

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.assessment.assessment import NextThing, next_thing, problems
from kumpan.core.assessment.case import Case
from kumpan.core.assessment.order import FindingSeverity, Problem
from kumpan.core.assessment.seen import SEEN
from kumpan.core.journal import Body, CareDone, Clarity, Level, VisualCheck
from kumpan.core.quantities.readings import Measure
from kumpan.core.ranges.profiles import Band, bands, profile
from kumpan.core.ranges.verdicts import VerdictCode, verdict
from tests.core.assessment.test_assessment import GOOD as IN_RANGE
from tests.core.assessment.test_assessment import planned
from tests.core.journals import bleach, reads, solid, state, when
from tests.core.samples import PLASTER
from tests.words import told

M = Measure
BANDS = {**bands(profile("household"), PLASTER, 40.0), M.SALT: Band(2700, 3400, 3200)}
CLEAR = VisualCheck(Clarity.CLEAR, Level.NORMAL)
GOOD = {**IN_RANGE, "salt": 3000.0}


def judged(*rows: tuple[float, Body], day: float = 0.1, **more: Any) -> Case:
    return Case(**{"state": state(*rows), "now": when(day), "bands": BANDS, **more})


def comes_next(found: Case) -> NextThing:
    return next_thing(found, problems(found))


def after_look(look: VisualCheck) -> Case:
    return judged((0, look), (0.01, reads(**GOOD)), offered=planned())


def first(found: Case) -> Problem:
    return problems(found)[0]


# Law C, and the table of laws: the answer of a look, its finding, and what comes next.
@pytest.mark.parametrize(
    ("look", "code", "says"),
    [
        (VisualCheck(Clarity.CLEAR, Level.LOW), "level_low", "Raise the water"),
        (VisualCheck(Clarity.CLEAR, Level.HIGH), "level_high", "Lower the water"),
        (VisualCheck(Clarity.HAZY, Level.NORMAL), "hazy", "look again tomorrow"),
        (VisualCheck(Clarity.CLOUDY, Level.NORMAL), "cloudy", "Check the filter"),
        (VisualCheck(Clarity.CLEAR, Level.NORMAL, ("weak returns",)), "returns_weak", "Empty the baskets"),
        (VisualCheck(Clarity.CLEAR, Level.NORMAL, ("leak",)), "leak", "Find the leak"),
        (VisualCheck(Clarity.CLEAR, Level.NORMAL, ("dead animal",)), "dead_animal", "accident plan"),
        (VisualCheck(Clarity.CLEAR, Level.NORMAL, ("algae spots",)), "algae_spots", "brush them today"),
        (VisualCheck(Clarity.CLEAR, Level.NORMAL, ("leaves",)), "leaves", "Take the leaves out"),
        (VisualCheck(Clarity.CLEAR, Level.NORMAL, ("foam",)), "foam", "Test chlorine"),
    ],
)
def test_whatever_was_seen_has_a_consequence_until_a_later_look(
    look: VisualCheck, code: str, says: str
) -> None:
    found = after_look(look)
    assert first(found).code == code
    assert says in told(comes_next(found).text)
    later = judged((0, look), (0.01, reads(**GOOD)), (0.05, CLEAR), offered=planned())
    assert (problems(later), told(comes_next(later).text)) == ((), "Nothing to add")


def test_a_sharp_smell_asks_for_both_chlorines_before_anything_is_poured() -> None:
    smell = VisualCheck(Clarity.CLEAR, Level.NORMAL, ("sharp smell",))
    low = planned(free_chlorine=0.5)
    assert comes_next(judged((0, reads(**GOOD)), (0.05, smell), offered=low)).station == "slip"
    tested = judged((0.05, smell), (0.06, reads(**GOOD, total_chlorine=2.5)), offered=planned())
    assert problems(tested) == ()


def test_leaves_are_done_with_when_the_baskets_were_emptied() -> None:
    look = VisualCheck(Clarity.CLEAR, Level.NORMAL, ("leaves",))
    assert problems(judged((0, look), (0.01, reads(**GOOD)), (0.05, CareDone("baskets")))) == ()
    assert first(judged((0, look), (0.01, reads(**GOOD)), (0.05, CareDone("backwash")))).code == "leaves"


# What was found by use, each beside "Nothing to add" before. Doubt of a photometer: common practice.
@pytest.mark.parametrize(
    ("changed", "code", "severity"),
    [
        ({"free_chlorine": 8.0}, "free_chlorine_high", FindingSeverity.CLOSES_POOL),
        ({"free_chlorine": 2.0, "total_chlorine": 4.0}, "combined_high", FindingSeverity.CLOSES_POOL),
        ({"cyanuric_acid": 110.0, "free_chlorine": 2.5}, "cyanuric_acid_high", FindingSeverity.TREAT_SOON),
        ({"salt": 3900.0}, "salt_high", FindingSeverity.TREAT_SOON),
        ({"copper": 0.6}, "copper_high", FindingSeverity.TREAT_SOON),
        ({"phosphate_ppb": 500.0}, "phosphate_high", FindingSeverity.TREAT_SOON),
        ({"calcium_hardness": 700.0}, "calcium_hardness_high", FindingSeverity.TREAT_SOON),
        ({"free_chlorine": 3.4}, "free_chlorine_high", FindingSeverity.WATCH),
    ],
)
def test_a_measure_outside_its_band_is_a_finding_with_its_remedy(
    changed: dict[str, float], code: str, severity: FindingSeverity
) -> None:
    found = judged((0, CLEAR), (0, reads(**{**GOOD, **changed})), offered=planned(**changed))
    by_code = {problem.code: problem for problem in problems(found)}
    assert by_code[code].severity is severity
    says = told(comes_next(found).text)
    assert (says == "Nothing to add") == (severity is FindingSeverity.WATCH)
    if severity is FindingSeverity.WATCH:
        assert told(comes_next(found).why) == "To watch: Free chlorine 3.4 is over 3."


def test_chlorine_that_has_likely_fallen_by_now_is_tested_again() -> None:
    rows = ((0.0, CLEAR), (0.0, reads(**{**GOOD, "free_chlorine": 5.0})))
    kinds = [first(judged(*rows, expected_mg_l=now)).remedy.kind.value for now in (4.8, 2.6)]
    assert kinds == ["plan", "test"]


def test_after_a_non_chlorine_shock_combined_chlorine_asks_for_nothing_for_a_week() -> None:
    water = reads(**{**GOOD, "total_chlorine": 4.5})
    shocked = ((0.0, solid("potassium_monopersulfate", 500, 42.8)), (1.0, water))
    looked = (1.0, CLEAR)
    early = first(judged(*shocked, looked, day=1.1))
    assert (early.code, early.severity, early.remedy.until) == (
        "combined_high",
        FindingSeverity.WATCH,
        when(7),
    )
    late = {problem.code: problem for problem in problems(judged(*shocked, (7.2, water), looked, day=7.5))}
    assert late["combined_high"].severity is FindingSeverity.CLOSES_POOL


def test_the_most_urgent_comes_first_and_a_dead_animal_before_any_test() -> None:
    look = VisualCheck(Clarity.HAZY, Level.LOW, ("leaves", "dead animal", "foam"))
    found = judged((0, look), (0.01, reads(**GOOD)), offered=planned())
    codes = [problem.code for problem in problems(found)]
    assert codes == ["dead_animal", "level_low", "hazy", "leaves", "foam"]
    assert "accident plan" in told(comes_next(found).text)


values = st.fixed_dictionaries(
    {
        "free_chlorine": st.floats(2, 6),
        "ph": st.floats(7.2, 7.8),
        "cyanuric_acid": st.floats(30, 60),
        "salt": st.floats(2700, 4000),
        "copper": st.floats(0, 0.5),
    }
)
looks = st.builds(
    VisualCheck,
    st.sampled_from(list(Clarity)),
    st.sampled_from(list(Level)),
    st.lists(st.sampled_from([key for key in SEEN if key not in ("low", "high", "hazy", "cloudy")])).map(
        tuple
    ),
)


@given(values=values, look=st.one_of(st.just(CLEAR), looks), poured=st.booleans())
def test_nothing_to_add_never_stands_beside_what_was_seen_or_is_certainly_outside(
    values: dict[str, float], look: VisualCheck, *, poured: bool
) -> None:
    """Law A.3."""
    rows: list[tuple[float, Body]] = [
        (0.0, look),
        (0.01, reads(**values)),
        *([(0.02, bleach(1))] if poured else []),
    ]
    found = judged(*rows, offered=None)
    if told(comes_next(found).text) != "Nothing to add":
        return
    assert (look.odd, look.level, look.clarity) == ((), Level.NORMAL, Clarity.CLEAR)
    for taken in found.state.tests[-1].body.values:
        # Between the band and the swim limit chlorine is said beside it: comfort, and it falls by itself.
        chlorine = taken.measure is M.FREE_CHLORINE
        band = Band(2, found.swim_limit_mg_l, 2.5) if chlorine else found.bands.get(taken.measure)
        sides = {verdict(taken.measure, edge, band).code for edge in (taken.low, taken.high)}
        assert len(sides) > 1 or sides <= {VerdictCode.GOOD, VerdictCode.NOT_MANAGED}


def test_glass_and_a_leak_lead_to_their_steps() -> None:
    for odd in ("glass", "leak"):
        look = VisualCheck(Clarity.CLEAR, Level.NORMAL, (odd,))
        assert comes_next(after_look(look)).station == f"do/{odd}"
