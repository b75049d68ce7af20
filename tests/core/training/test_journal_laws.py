"""The laws of judging hold for random journals; and each check sees a judge that breaks its law.

The laws are common practice and health guidance, from memory where the handbook gives no origin.
"""

from collections.abc import Callable
from dataclasses import replace
from random import Random

import pytest
from hypothesis import given, seed, settings
from hypothesis import strategies as st

from kumpan.core.assessment.assessment import Assessment, assess
from kumpan.core.assessment.case import Case
from kumpan.core.assessment.swim import SwimAnswer, SwimCode
from kumpan.core.journal import fold
from kumpan.core.messages import Message
from kumpan.core.training.journal_laws import CHECKS, breaches, drawn, journal

CASES = 250


@seed(20261128)
@settings(max_examples=250, deadline=None)
@given(st.integers(0, 10**6))
def test_no_random_journal_is_judged_against_a_law(number: int) -> None:
    assert breaches(drawn(number)) == []


def test_the_journals_lead_to_every_answer() -> None:
    found = {assess(drawn(number)).swim.code for number in range(400)}
    assert found == set(SwimCode)


def always_yes(_: Case, found: Assessment) -> Assessment:
    return replace(found, swim=SwimAnswer(SwimCode.YES, Message("Yes.")))


def blind(_: Case, found: Assessment) -> Assessment:
    nothing = replace(found.next, code="nothing")
    return replace(found, findings=(), next=nothing)


def without_grounds(_: Case, found: Assessment) -> Assessment:
    bare = tuple(replace(reason, law="") for reason in found.swim.because)
    return replace(found, swim=replace(found.swim, because=bare))


def in_any_order(_: Case, found: Assessment) -> Assessment:
    return replace(found, findings=found.findings[::-1])


def stale(_: Case, found: Assessment) -> Assessment:
    return replace(found, holds_until=found.at)


@pytest.mark.parametrize(
    ("law", "judge"),
    [
        ("A.2", in_any_order),
        ("A.3", blind),
        ("A.4", stale),
        ("B", without_grounds),
        ("B.1", always_yes),
        ("B.2", always_yes),
        ("B.3", always_yes),
        ("B.4", always_yes),
        ("B.5", always_yes),
        ("B.8", always_yes),
        ("C", blind),
        ("D.7", blind),
    ],
)
def test_each_check_sees_a_judge_that_breaks_its_law(
    law: str, judge: Callable[[Case, Assessment], Assessment]
) -> None:
    cases = [drawn(number) for number in range(CASES)]
    wrong = [said for case in cases for said in CHECKS[law](case, judge(case, assess(case)))]
    assert wrong


def test_every_check_is_tried() -> None:
    assert len(CHECKS) == 12


@seed(20261128)
@settings(max_examples=60, deadline=None)
@given(st.integers(0, 10**6), st.randoms(use_true_random=False))
def test_the_order_in_which_entries_arrive_changes_nothing(number: int, order: Random) -> None:
    """Law A.4: a phone that was offline sends late; the answer is by when things happened."""
    entries = list(journal(number).entries)
    before = fold(entries)
    order.shuffle(entries)
    assert fold(entries) == before
