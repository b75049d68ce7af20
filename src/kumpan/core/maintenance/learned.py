"""What the log teaches about an interval: offered with its reason, never imposed.

Source: learned-intervals.
"""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from datetime import timedelta
from itertools import pairwise
from statistics import median

from kumpan.core.journal import PoolState, history
from kumpan.core.maintenance.filter_pressure import CLEANINGS
from kumpan.core.messages import Message, Plural
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.ranges.profiles import Band

SOURCE = "learned-intervals"

STEADY_TESTS = 8
CLEAN_CHECKS = 3
STRETCH = 1.5
MOST_DAYS: Mapping[Measure, float] = {Measure.FREE_CHLORINE: 7.0, Measure.PH: 7.0}
CELL_MOST_DAYS = 91.0
WORTH_A_WORD = 0.25  # a change smaller than this share of the interval is not offered


@dataclass(frozen=True)
class Offer:
    """An interval that the log suggests for a task, days, and why."""

    task: str
    days: float
    why: Message


def offers(state: PoolState, bands: Mapping[Measure, Band], usual: Mapping[str, float]) -> tuple[Offer, ...]:
    """Suggestions for the tasks in `usual` (task -> days now)."""
    found = [*_tests(state, bands, usual), *_cell(state, usual), *_filter(state, usual)]
    return tuple(offer for offer in found if abs(offer.days / usual[offer.task] - 1) > WORTH_A_WORD)


def _tests(state: PoolState, bands: Mapping[Measure, Band], usual: Mapping[str, float]) -> Iterator[Offer]:
    """A measure whose last tests all lay in range may be tested less often; never less than weekly."""
    for measure, most in MOST_DAYS.items():
        key, band = f"test_{measure.value}", bands.get(measure)
        last = [reading.value.value for reading in history(state, measure)[-STEADY_TESTS:]]
        steady = (
            len(last) == STEADY_TESTS and band is not None and all(_inside(value, band) for value in last)
        )
        if key in usual and steady:
            why = Message(
                "The last {steady_tests} tests of {measure} were all in range.",
                steady_tests=Number(STEADY_TESTS),
                measure=name_in_sentence(measure),
            )
            yield Offer(key, min(most, usual[key] * STRETCH), why)


def _inside(value: float, band: Band) -> bool:
    return (band.low is None or value >= band.low) and (band.high is None or value <= band.high)


def _cell(state: PoolState, usual: Mapping[str, float]) -> Iterator[Offer]:
    """A cell found clean time after time."""
    visual_checks = [
        value.value
        for entry in state.care
        if entry.body.task == "cell"
        for value in entry.body.values
        if value.name == "scale"
    ]
    if "cell" in usual and len(visual_checks) >= CLEAN_CHECKS and not any(visual_checks[-CLEAN_CHECKS:]):
        why = Message("The last {clean_checks} looks found no scale.", clean_checks=Number(CLEAN_CHECKS))
        yield Offer("cell", min(CELL_MOST_DAYS, usual["cell"] * STRETCH), why)


def _filter(state: PoolState, usual: Mapping[str, float]) -> Iterator[Offer]:
    """As often as the filter really was cleaned."""
    for task in CLEANINGS:
        times = [e.at for e in state.care if e.body.task == task]
        gaps = [(later - earlier) / timedelta(days=1) for earlier, later in pairwise(times[-4:])]
        if task in usual and len(gaps) == 3 and min(gaps) >= 1:
            days = round(median(gaps))
            yield Offer(
                task,
                float(days),
                Message(
                    "The last times it was done about every {days}.", days=Plural("{n} day", "{n} days", days)
                ),
            )
