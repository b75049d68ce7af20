"""A reading as it is said: as many digits as its measure is known to, and never rounded onto its edge."""

from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number

# How many digits behind the point common methods tell apart; common practice.
SHOWN_DIGITS: dict[Measure, int] = {
    Measure.FREE_CHLORINE:     1,
    Measure.TOTAL_CHLORINE:    1,
    Measure.COMBINED_CHLORINE: 1,
    Measure.PH:                2,
    Measure.COPPER:            2,
    Measure.IRON:              2,
    Measure.SATURATION_INDEX:  2,
}  # fmt: skip
MOST_DIGITS = 4


def shown(measure: Measure, value: float, edge: float | None = None) -> Number:
    """A reading for a sentence. With the `edge` that it is over or under, one digit more where they would
    read the same: nothing is "1 is under 1".
    """
    digits = SHOWN_DIGITS.get(measure, 0)
    while edge is not None and digits < MOST_DIGITS and _other_side(round(value, digits), value, edge):
        digits += 1
    return Number(round(value, digits))


def _other_side(said: float, value: float, edge: float) -> bool:
    return (said > edge, said < edge) != (value > edge, value < edge)
