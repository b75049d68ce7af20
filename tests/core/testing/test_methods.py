"""The doubt of each method as an interval around what was read."""

import pytest
from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.quantities.readings import Measure
from kumpan.core.testing.methods import Method, measured, nearest_block

M = Measure


@given(
    st.sampled_from(list(Method)),
    st.sampled_from([M.FREE_CHLORINE, M.PH, M.CYANURIC_ACID, M.SALT]),
    st.floats(0, 14),
)
def test_the_value_lies_within_its_own_doubt(method: Method, measure: Measure, value: float) -> None:
    found = measured(measure, value, method)
    assert 0 <= found.low <= found.value <= found.high


def test_a_value_between_two_blocks_is_somewhere_between_them() -> None:
    found = measured(M.TOTAL_ALKALINITY, 100, Method.STRIP)
    assert (found.low, found.high) == (80, 120)


def test_the_last_block_reaches_up_as_far_as_down() -> None:
    found = measured(M.FREE_CHLORINE, 10, Method.STRIP)
    assert (found.low, found.high) == pytest.approx((7.5, 12.5))


def test_nearest_block() -> None:
    assert nearest_block(M.PH, 7.6) == 7.8
    assert nearest_block(M.SALT, 3000) is None
