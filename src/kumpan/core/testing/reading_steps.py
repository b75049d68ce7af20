"""By how much a reading goes up or down at one tap: what one drop or one block of the usual kit tells apart.

Source: common practice; a drop of the ten-milliliter kits is 0.5, of the twenty-five 0.2 ppm of chlorine.
"""

from kumpan.core.quantities.readings import Measure

READING_STEPS: dict[Measure, float] = {
    Measure.FREE_CHLORINE:     0.2,
    Measure.TOTAL_CHLORINE:    0.2,
    Measure.COMBINED_CHLORINE: 0.2,
    Measure.PH:                0.1,
    Measure.TOTAL_ALKALINITY:  10,
    Measure.CALCIUM_HARDNESS:  10,
    Measure.CYANURIC_ACID:     5,
    Measure.SALT:              100,
    Measure.BORATE:            5,
    Measure.SULFATE:           50,
    Measure.PHOSPHATE:         100,
    Measure.COPPER:            0.1,
    Measure.IRON:              0.1,
    Measure.TDS:               100,
}  # fmt: skip
RUNGS = 30


def ladder(measure: Measure, value: float) -> tuple[float, ...]:
    """Readings around one, lowest first, with the one itself; never under 0. Empty without a step."""
    step = READING_STEPS.get(measure)
    if step is None:
        return ()
    at = round(value / step)
    rungs = {round(one * step, 6) for one in range(max(0, at - RUNGS), at + RUNGS + 1)}
    near = {rung for rung in rungs if abs(rung - value) >= step / 2}
    return tuple(sorted({*near, value}))
