"""How often each measure is tested, by who looks after the pool. Source: test-interval.

A row reads like the handbook's: owner, weekly service visit, salt pool. None means only at the season's
start, or when something asks for it.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime, timedelta
from enum import StrEnum

from kumpan.core.journal import PoolState, last_reading
from kumpan.core.messages import Cased, Message, Value
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.testing.methods import Method

SOURCE = "test-interval"


class Rhythm(StrEnum):
    """Who tests: an owner, or a service on its round."""

    OWNER = "owner"
    SERVICE = "service"


@dataclass(frozen=True)
class TestInterval:
    """Days between two tests of a measure; `salt_pool` goes before the others where a cell runs."""

    __test__ = False

    measure: Measure
    owner: float | None
    service: float | None
    salt_pool: float | None


WEEK, MONTH, QUARTER = 7.0, 30.0, 91.0
TWICE_A_WEEK = 3.5
STRIP_ALKALINITY = WEEK  # weekly with strips, else monthly

TEST_INTERVALS: tuple[TestInterval, ...] = (
    TestInterval(Measure.FREE_CHLORINE, TWICE_A_WEEK, WEEK, WEEK),
    TestInterval(Measure.PH, TWICE_A_WEEK, WEEK, WEEK),
    TestInterval(Measure.TOTAL_CHLORINE, None, WEEK, None),
    TestInterval(Measure.TOTAL_ALKALINITY, MONTH, MONTH, MONTH),
    TestInterval(Measure.CALCIUM_HARDNESS, MONTH, QUARTER, MONTH),
    TestInterval(Measure.CYANURIC_ACID, MONTH, None, MONTH),
    TestInterval(Measure.SALT, None, None, MONTH),
)
SLACK = timedelta(hours=12)  # a visit a few hours early is the same visit


@dataclass(frozen=True)
class DueTest:
    """A measure to test, why, and since when."""

    measure: Measure
    why: Message
    due_at: datetime
    last_at: datetime | None


def interval_days(measure: Measure, rhythm: Rhythm, traits: Traits, *, strips: bool = False) -> float | None:
    """Days between two tests of a measure at this pool; None where nothing asks for it by the calendar."""
    row = next((row for row in TEST_INTERVALS if row.measure is measure), None)
    if row is None or (measure is Measure.CYANURIC_ACID and traits.indoor):
        return None
    usual = row.owner if rhythm is Rhythm.OWNER else row.service
    if strips and measure is Measure.TOTAL_ALKALINITY and rhythm is Rhythm.OWNER:
        usual = STRIP_ALKALINITY
    if traits.chlorination is not Chlorination.SALT_CELL:
        return usual
    if rhythm is Rhythm.SERVICE and usual is not None and usual <= WEEK:
        return usual
    return row.salt_pool if row.salt_pool is not None else usual


def due_tests(
    state: PoolState,
    traits: Traits,
    rhythm: Rhythm,
    now: datetime,
    learned: Mapping[Measure, float] | None = None,
) -> tuple[DueTest, ...]:
    """The measures whose time has come, longest overdue first. `learned` days go before the table's."""
    found = []
    for row in TEST_INTERVALS:
        days = (learned or {}).get(row.measure) or interval_days(
            row.measure, rhythm, traits, strips=uses_strips(state)
        )
        last = last_reading(state, row.measure)
        if days is None and (last is not None or row.measure is not Measure.CYANURIC_ACID or traits.indoor):
            continue
        if last is None:
            found.append(
                DueTest(
                    row.measure, Message("{name} was never tested here.", name=_name(row.measure)), now, None
                )
            )
        elif days is not None and last.at + timedelta(days=days) - SLACK <= now:
            ago = max(1, round((now - last.at).total_seconds() / 86_400))
            why = (
                Message("{name}: last tested {ago} day ago.", name=_name(row.measure), ago=Number(ago))
                if ago == 1
                else Message("{name}: last tested {ago} days ago.", name=_name(row.measure), ago=Number(ago))
            )
            found.append(DueTest(row.measure, why, last.at + timedelta(days=days), last.at))
    return tuple(sorted(found, key=lambda due: due.due_at))


def uses_strips(state: PoolState) -> bool:
    """Whether the last test was read off strips."""
    last = state.last_test
    return last is not None and any(value.method is Method.STRIP for value in last.body.values)


def _name(measure: Measure) -> Value:
    name = name_in_sentence(measure)
    return name if measure is Measure.PH else Cased(name, upper=True)
