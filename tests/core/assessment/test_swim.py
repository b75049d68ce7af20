"""May they swim: never yes without a recent test, never yes when the drain is hidden."""

from datetime import timedelta

import pytest

from kumpan.core.assessment.next_thing import next_thing
from kumpan.core.assessment.swim import SwimAnswer, SwimCode, swim_answer
from kumpan.core.journal import Clarity, Entry, Level, VisualCheck, fold
from kumpan.core.ranges.profiles import Band
from tests.core.journal.test_fold import START, a_test, entry, poured
from tests.words import told

BAND = Band(2, 3, 2.5)
NOW = START + timedelta(minutes=30)


def answer(*entries: Entry, later: timedelta = timedelta()) -> SwimAnswer:
    return swim_answer(fold(entries), NOW + later, BAND, 3.0)


def test_yes_when_tested_today_and_in_range() -> None:
    assert answer(entry("t", 0, a_test(2.5))).code is SwimCode.YES


@pytest.mark.parametrize(
    ("free", "ph", "says"),
    [
        (1.0, 7.5, "under 2"),
        (3.5, 7.5, "swim limit"),
        (2.5, 8.2, "outside 7 to 8"),
        (2.5, 6.9, "outside 7 to 8"),
    ],
)
def test_no_and_why(free: float, ph: float, says: str) -> None:
    found = answer(entry("t", 0, a_test(free, ph)))
    assert found.code is SwimCode.NO
    assert says in told(found.text)


@pytest.mark.parametrize("clarity", [Clarity.DRAIN_HIDDEN, Clarity.GREEN, Clarity.CLOUDY])
def test_never_while_the_drain_cannot_be_seen(clarity: Clarity) -> None:
    """Health codes, quoted from memory: closed when the main drain cannot be seen."""
    visual_check = entry("look", 1, VisualCheck(clarity, Level.NORMAL))
    assert answer(entry("t", 0, a_test(2.5)), visual_check).code is SwimCode.NO


def test_not_known_without_a_test_or_with_an_old_one() -> None:
    assert answer().code is SwimCode.UNKNOWN
    assert answer(entry("t", 0, a_test(2.5)), later=timedelta(days=5)).code is SwimCode.UNKNOWN


def test_after_pouring_not_before_an_hour_and_a_test() -> None:
    entries = (entry("t", 0, a_test(2.5)), entry("p", 20, poured(100)))
    waiting = answer(*entries)
    assert waiting.code is SwimCode.NOT_BEFORE
    assert waiting.not_before == START + timedelta(minutes=80)
    assert answer(*entries, later=timedelta(hours=2)).code is SwimCode.UNKNOWN


def test_the_next_thing_without_a_test_is_to_test() -> None:
    assert next_thing(fold([]), None, NOW).station == "slip"
    old = fold([entry("t", 0, a_test(2.5))])
    assert "5 days old" in told(next_thing(old, None, NOW + timedelta(days=5)).why)
    assert told(next_thing(old, None, NOW).text) == "Nothing to add"
