"""What new water does to the readings: each measure is mixed once, whatever else is known."""

import pytest

from kumpan.core.dosing.dilution import MIXES, mixed
from kumpan.core.quantities.readings import Measure, Readings


def test_no_measure_is_diluted_twice() -> None:
    assert len(MIXES) == len(set(MIXES))


@pytest.mark.parametrize(
    "measure", [Measure.COPPER, Measure.IRON, Measure.PHOSPHATE, Measure.TDS, Measure.CALCIUM_HARDNESS]
)
def test_a_third_of_new_water_takes_a_third_of_what_it_has_none_of(measure: Measure) -> None:
    water, fill = (Readings().with_value(measure, value) for value in (0.9, 0.0))
    assert mixed(water, fill, 1 / 3).value(measure) == pytest.approx(0.6)
