"""A ladder of readings around the last one."""

from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.reading_steps import READING_STEPS, RUNGS, ladder


def test_it_goes_by_a_drop_of_the_kit() -> None:
    around = ladder(Measure.FREE_CHLORINE, 1.2)
    at = around.index(1.2)
    assert around[at - 1 : at + 3] == (1.0, 1.2, 1.4, 1.6)
    assert around[0] == 0
    assert ladder(Measure.TEMPERATURE, 28.0) == ()


@given(st.sampled_from(sorted(READING_STEPS)), st.floats(0, 9000))
def test_the_reading_itself_is_on_it_and_it_only_rises(measure: Measure, value: float) -> None:
    around = ladder(measure, value)
    assert value in around
    assert list(around) == sorted(set(around))
    assert around[0] >= 0
    assert RUNGS < len(around) <= 2 * RUNGS + 2
