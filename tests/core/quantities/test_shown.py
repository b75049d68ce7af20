"""A reading in a sentence."""

from hypothesis import given
from hypothesis import strategies as st

from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.shown import shown


def test_it_has_the_digits_of_its_measure() -> None:
    assert shown(Measure.TOTAL_ALKALINITY, 59.9297, 80).value == 60
    assert shown(Measure.CYANURIC_ACID, 183.948).value == 184
    assert shown(Measure.PH, 7.234, 7.2).value == 7.23


@given(st.sampled_from(list(Measure)), st.sampled_from([1.0, 7.2, 80.0]), st.floats(0.001, 0.9))
def test_it_never_reads_as_its_edge(measure: Measure, edge: float, under: float) -> None:
    assert shown(measure, edge - under, edge).value < edge
    assert shown(measure, edge + under, edge).value > edge
