"""A rescue read out of the journal: where it begins, what belongs to it, how often it was shocked, when it
is over.
"""

from datetime import timedelta

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.algae.criteria import StageKey, stage_now
from kumpan.core.algae.episode import (
    PREPARE,
    RESCUE,
    Episode,
    chlorine_rises,
    episode_of,
    rounds_done,
)
from kumpan.core.algae.request import story_of
from kumpan.core.journal import (
    AdditionMade,
    Clarity,
    Outcome,
    PhStrategy,
    RescueEnded,
    RescueOutcome,
    RescueSet,
    Severity,
    StepDone,
    TreatmentStarted,
    fold,
)
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Readings
from tests.core.algae.cases import ACID, DICHLOR, LIQUID, TABLETS, VOLUME_L, Case

GREEN = RescueSet(severity=Severity.GREEN)


def episode(case: Case) -> Episode:
    found = episode_of(fold(case.entries))
    assert found is not None
    return found


def test_a_pool_that_was_never_green_has_none() -> None:
    assert episode_of(fold(Case().test(ph=7.4).entries)) is None


def test_what_came_before_it_belongs_to_no_rescue() -> None:
    """The look and the test that led to it stand before its beginning."""
    case = Case().begin().later(hours=1).visual_check(Clarity.GREEN).test(free_chlorine=3.0)
    found = episode(case)
    assert (len(found.visual_checks), len(found.tests)) == (1, 1)
    assert found.open


def test_set_anew_it_goes_on_and_the_last_setting_counts() -> None:
    case = (
        Case().begin().later(hours=5).tell(RescueSet(severity=Severity.OPAQUE, ph_strategy=PhStrategy.RAISED))
    )
    found = episode(case)
    assert found.began_at < case.now
    assert (found.set.severity, found.set.ph_strategy) == (Severity.OPAQUE, PhStrategy.RAISED)


@pytest.mark.parametrize("outcome", list(RescueOutcome))
def test_ended_it_is_no_longer_open_whatever_came_of_it(outcome: RescueOutcome) -> None:
    case = Case().begin().later(days=3).tell(RescueEnded(outcome))
    found = episode(case)
    assert not found.open
    assert found.ended is not None
    assert case.request().episode is None


def test_a_second_rescue_begins_anew() -> None:
    """Nothing of the first counts for the second: no round, no test, not its preparing."""
    case = Case().begin().prepared().pour(10.0).later(days=2).tell(RescueEnded(RescueOutcome.CLEAR))
    case.later(days=20).tell(GREEN)
    found = episode(case)
    assert (found.open, found.prepared, len(found.additions), len(found.tests)) == (True, False, 0, 0)
    assert rounds_done(found, VOLUME_L) == 0


def test_what_is_told_after_its_end_belongs_to_it_no_more() -> None:
    case = Case().begin().later(hours=2).pour(5.0).later(hours=2).tell(RescueEnded(RescueOutcome.STOPPED))
    case.later(hours=2).pour(5.0).test(free_chlorine=4.0)
    found = episode(case)
    assert (len(found.additions), len(found.tests)) == (1, 0)


def test_prepared_is_who_ticked_something_of_the_preparing_sheet() -> None:
    started = (
        Case()
        .begin()
        .tell(
            TreatmentStarted(
                steps=(), profile="household", before=Readings(), predicted=Readings(), plan=PREPARE
            )
        )
    )
    assert not episode(started).prepared
    other = (
        Case()
        .begin()
        .tell(
            TreatmentStarted(
                steps=(), profile="household", before=Readings(), predicted=Readings(), plan=f"{RESCUE}/round"
            )
        )
    )
    other.tell(StepDone(other.entries[-1].id, 0, Outcome.DONE))
    assert not episode(other).prepared
    assert episode(Case().begin().prepared()).prepared
    skipped = (
        Case()
        .begin()
        .tell(
            TreatmentStarted(
                steps=(), profile="household", before=Readings(), predicted=Readings(), plan=PREPARE
            )
        )
    )
    skipped.tell(StepDone(skipped.entries[-1].id, 0, Outcome.SKIPPED))
    assert episode(skipped).prepared, "left out is a decision too"


@pytest.mark.parametrize(
    ("pours", "rounds"),
    [
        ([], 0),
        ([(0.0, 10.0)], 1),
        ([(0.0, 1.5)], 0),  # a top-up
        ([(0.0, 6.0), (1.0, 6.0)], 1),  # one round in two pours
        ([(0.0, 6.0), (3.9, 6.0)], 1),
        ([(0.0, 6.0), (4.1, 6.0)], 2),
        ([(0.0, 10.0), (12.0, 10.0), (24.0, 10.0)], 3),
        ([(0.0, 10.0), (6.0, 1.0), (12.0, 10.0)], 2),
    ],
)
def test_rounds_are_counted_as_people_count_them(pours: list[tuple[float, float]], rounds: int) -> None:
    case = Case().begin()
    start = case.now + timedelta(minutes=5)
    for hours, rise in pours:
        case.now = start + timedelta(hours=hours)
        case.pour(rise)
    assert rounds_done(episode(case), VOLUME_L) == rounds


@given(st.lists(st.floats(0.5, 12.0), max_size=6), st.sampled_from([LIQUID, DICHLOR]))
def test_the_chlorine_used_is_what_was_poured(rises: list[float], product: Product) -> None:
    """By mass, whatever it was poured as."""
    case = Case().begin()
    for rise in rises:
        case.later(hours=6).pour(rise, product)
    reported = [rise for _, rise in chlorine_rises(episode(case), VOLUME_L)]
    assert reported == pytest.approx(rises, rel=1e-6)


def test_acid_is_no_round_and_tablets_are() -> None:
    """Acid brings no chlorine; tablets do, though slowly: both are told to the belief as they are."""
    case = (
        Case()
        .begin()
        .later(hours=1)
        .tell(
            AdditionMade(
                chemical=ACID.chemical, strength_percent=31.45, label="Acid", mass_g=2000.0, product_id="acid"
            )
        )
    )
    assert chlorine_rises(episode(case), VOLUME_L) == []
    case.later(hours=1).pour(6.0, TABLETS)
    assert len(chlorine_rises(episode(case), VOLUME_L)) == 1


def test_the_story_is_told_in_its_order_with_what_each_says() -> None:
    case = Case().begin().later(hours=1).pour(10.0).later(hours=1)
    case.test(free_chlorine=9.0, total_chlorine=9.6).visual_check(Clarity.CLOUDY)
    poured, tested, looked = story_of(episode(case), VOLUME_L)
    assert poured.poured_mg_l == pytest.approx(10.0)
    assert tested.free_mg_l == 9.0
    assert tested.combined_mg_l == pytest.approx(0.6)
    assert looked.visual_check is not None
    assert poured.at_s < tested.at_s < looked.at_s


def test_total_under_free_is_no_negative_combined() -> None:
    """Two tests of one water scatter: less than nothing is combined chlorine of 0."""
    case = Case().begin().later(hours=1).test(free_chlorine=9.0, total_chlorine=8.6)
    [tested] = story_of(episode(case), VOLUME_L)
    assert tested.combined_mg_l == 0.0


def test_a_test_without_chlorine_tells_the_story_nothing() -> None:
    assert story_of(episode(Case().begin().later(hours=1).test(ph=7.5)), VOLUME_L) == ()


# The stage that is due, told as a course: what was done -> what comes next (handbook 07, 0 to 9).
def course(case: Case) -> StageKey:
    return stage_now(case.request())


def test_the_course_from_the_first_look_to_the_end() -> None:
    case = Case()
    assert course(case) is StageKey.TEST, "nothing is known"
    case.begin()
    assert course(case) is StageKey.PREPARE
    case.prepared()
    assert course(case) is StageKey.ROUND, "pH is in its window"
    case.pour(16.0).later(hours=1).test(free_chlorine=12.0, total_chlorine=12.8)
    assert course(case) is StageKey.ROUND, "it still eats"
    case.later(hours=12.5)
    assert course(case) is StageKey.TEST, "the test is old"
    case.test(free_chlorine=9.0, total_chlorine=9.3).later(hours=10).visual_check(Clarity.CLOUDY)
    case.test(free_chlorine=8.5, total_chlorine=8.8)
    assert course(case) is StageKey.CLEAR, "the night held; it is still cloudy"
    case.visual_check(Clarity.CLEAR)
    assert course(case) is StageKey.AFTER


@pytest.mark.parametrize(
    ("ph", "stage"),
    [(6.9, StageKey.BALANCE), (7.0, StageKey.ROUND), (7.6, StageKey.ROUND), (7.7, StageKey.BALANCE)],
)
def test_ph_goes_first_where_it_is_out_of_its_window(ph: float, stage: StageKey) -> None:
    """Handbook 07: 7.2 to 7.4 is aimed at; what lies between 7.0 and 7.6 may be shocked."""
    assert course(Case().begin(ph=ph).prepared()) is stage


def test_after_the_first_round_ph_waits() -> None:
    """High chlorine bleaches the indicator: pH is judged again under 10."""
    case = Case().begin(ph=8.0).prepared().pour(12.0).later(hours=1)
    case.test(free_chlorine=11.0, total_chlorine=11.4, ph=8.2)
    assert course(case) is StageKey.ROUND


def test_a_look_of_yesterday_clears_nothing() -> None:
    case = Case().begin().prepared().pour(16.0).later(hours=14).visual_check(Clarity.CLEAR)
    case.test(free_chlorine=12.0, total_chlorine=12.4).later(hours=10)
    case.test(free_chlorine=11.5, total_chlorine=11.8).later(hours=9).test(
        free_chlorine=9.0, total_chlorine=9.2
    )
    assert course(case) is StageKey.CLEAR
