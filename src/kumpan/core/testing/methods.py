"""How a value was measured, and how far to trust it: the doubt of each method as an interval.

Every method turns what was read into (low, high): the values that the water may really have.
Sources: strip-blocks, drop-factors, method-doubt.
"""

import re
from bisect import bisect_left
from dataclasses import dataclass
from enum import StrEnum

from kumpan.core.messages import Message
from kumpan.core.quantities.readings import Measure

SOURCES_USED = ("strip-blocks", "drop-factors", "method-doubt")


class Method(StrEnum):
    """How a value is measured."""

    STRIP = "strip"
    DROPS = "drops"
    COMPARATOR = "comparator"
    TURBIDITY_TUBE = "turbidity_tube"
    PHOTOMETER = "photometer"
    METER = "meter"
    DISPLAY = "display"
    SHOP = "shop"
    THERMOMETER = "thermometer"


METHOD_NAMES: dict[Method, Message] = {
    Method.STRIP: Message("strip"),
    Method.DROPS: Message("drops"),
    Method.COMPARATOR: Message("comparator"),
    Method.TURBIDITY_TUBE: Message("turbidity tube"),
    Method.PHOTOMETER: Message("photometer"),
    Method.METER: Message("meter"),
    Method.DISPLAY: Message("display"),
    Method.SHOP: Message("shop"),
    Method.THERMOMETER: Message("thermometer"),
}


# Blocks of a common strip's color chart. A block "30-50" of stabilizer stands at its middle.
STRIP_BLOCKS: dict[Measure, tuple[float, ...]] = {
    Measure.FREE_CHLORINE: (0, 0.5, 1, 3, 5, 10),
    Measure.TOTAL_CHLORINE: (0, 0.5, 1, 3, 5, 10),
    Measure.PH: (6.2, 6.8, 7.2, 7.8, 8.4),
    Measure.TOTAL_ALKALINITY: (0, 40, 80, 120, 180, 240),
    Measure.CALCIUM_HARDNESS: (0, 100, 250, 500, 1000),
    Measure.CYANURIC_ACID: (0, 40, 100, 150, 300),
}

# ppm per drop: the finer factor is the larger sample (25 mL), the coarser the small one (10 mL).
DROP_FACTORS: dict[Measure, tuple[float, float]] = {
    Measure.FREE_CHLORINE: (0.2, 0.5),
    Measure.TOTAL_CHLORINE: (0.2, 0.5),
    Measure.COMBINED_CHLORINE: (0.2, 0.5),
    Measure.TOTAL_ALKALINITY: (10, 25),
    Measure.CALCIUM_HARDNESS: (10, 25),
}

COMPARATOR_STEP: dict[Measure, float] = {
    Measure.FREE_CHLORINE: 1.0,
    Measure.TOTAL_CHLORINE: 1.0,
    Measure.PH: 0.2,
}


@dataclass(frozen=True)
class Spread:
    """Half-width of a method's doubt: a share of the value, and at least an absolute amount."""

    share: float
    at_least: float


_SPREADS: dict[Method, Spread] = {
    Method.TURBIDITY_TUBE: Spread(0.15, 5),
    Method.PHOTOMETER: Spread(0.075, 0.05),
    Method.METER: Spread(0.0, 50),
    Method.DISPLAY: Spread(0.0, 200),
    Method.SHOP: Spread(0.05, 0.05),
    Method.THERMOMETER: Spread(0.0, 0.5),
    Method.COMPARATOR: Spread(0.1, 0.05),
    Method.STRIP: Spread(0.25, 0.05),
    Method.DROPS: Spread(0.1, 0.05),
}
_PH_HALF_WIDTH = {Method.PHOTOMETER: 0.1, Method.METER: 0.05, Method.SHOP: 0.05, Method.DROPS: 0.1}


# How it is typed that a sample is darker than the last color of its scale.
OFF_SCALE = re.compile(r">\s*(?P<over>\S.*)|(?P<plus>\S.*?)\s*\+")


@dataclass(frozen=True, kw_only=True)
class Measured:
    """One value of a test with its doubt: `low` to `high`, in the measure's inner unit."""

    measure: Measure
    value: float
    low: float
    high: float
    method: Method
    typed: str = ""

    @property
    def off_scale(self) -> bool:
        """Darker than the last color: more than the value, and nobody knows how much."""
        if OFF_SCALE.fullmatch(self.typed.strip()):
            return True
        return self.method is Method.STRIP and self.value >= STRIP_BLOCKS.get(self.measure, (1e9,))[-1] > 0


def measured(
    measure: Measure, value: float, method: Method, drop_factor: float | None = None, typed: str = ""
) -> Measured:
    """A value with the doubt of its method. `drop_factor` is the ppm one drop stands for."""
    low, high = _interval(measure, value, method, drop_factor)
    return Measured(measure=measure, value=value, low=max(0.0, low), high=high, method=method, typed=typed)


def _interval(
    measure: Measure, value: float, method: Method, drop_factor: float | None
) -> tuple[float, float]:
    if measure is Measure.TEMPERATURE:
        return value - 0.5, value + 0.5
    if method is Method.STRIP and measure in STRIP_BLOCKS:
        return _between_blocks(STRIP_BLOCKS[measure], value)
    if method is Method.DROPS and measure in DROP_FACTORS:
        # The last drop turned the sample: the true value lies within that one drop.
        return value - (drop_factor or DROP_FACTORS[measure][0]), value
    if method is Method.COMPARATOR and measure in COMPARATOR_STEP:
        half = COMPARATOR_STEP[measure] / 2
        return value - half, value + half
    if measure is Measure.PH:
        half = _PH_HALF_WIDTH.get(method, 0.1)
        return value - half, value + half
    spread = _SPREADS[method]
    half = max(spread.at_least, spread.share * value)
    return value - half, value + half


def _between_blocks(blocks: tuple[float, ...], value: float) -> tuple[float, float]:
    """Half way to the neighboring colors; the last block reaches as far up as it does down."""
    index = bisect_left(blocks, value)
    nearest = min(range(len(blocks)), key=lambda i: abs(blocks[i] - value))
    if index < len(blocks) and blocks[index] != value:
        # Read between two colors: somewhere from one to the other.
        return min(value, blocks[max(0, index - 1)]), blocks[index]
    below = blocks[nearest - 1] if nearest > 0 else value
    above = blocks[nearest + 1] if nearest + 1 < len(blocks) else value + (value - below)
    return (value + below) / 2, (value + above) / 2


def nearest_block(measure: Measure, value: float) -> float | None:
    """The color block next to a value, or None where strips have no blocks for the measure."""
    blocks = STRIP_BLOCKS.get(measure)
    if blocks is None:
        return None
    return min(blocks, key=lambda block: abs(block - value))
