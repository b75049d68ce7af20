"""What it takes to bring down what no product lowers: litres of fill water, or a reducer for chlorine.

Sources: mass-balance, chlorine-reducer, water-change.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from kumpan.core.dosing.chlorine_reducer import reducer_dose
from kumpan.core.dosing.rounding import round_dose
from kumpan.core.dosing.solver import Unmet
from kumpan.core.dosing.water_change import LARGEST_PARTIAL_SHARE, water_change
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import water_text
from kumpan.core.ranges.targets import Aims, aim_for

SOURCES_USED = ("mass-balance", "chlorine-reducer", "water-change")

NONE_IN_FILL = (Measure.CYANURIC_ACID, Measure.BORATE)
REDUCE_FROM_OVER_MG_L = 3.0  # less than this over its aim is gone in a sunny day or two
DRAIN_CAUTION = (
    "More than half at once is a drain: it can lift or crack a shell and shrink a liner. "
    "Ask a professional first, or do it in parts."
)


@dataclass(frozen=True)
class Means:
    """The pool's litres, what its fill water holds, and the shelf."""

    volume_l: float
    fill: Readings
    inventory: Sequence[Product]
    metric: bool


def with_amounts(unmet: Sequence[Unmet], readings: Readings, aims: Aims, means: Means) -> tuple[Unmet, ...]:
    """The unmet measures, those that only water or time lowers with how much of it they take."""
    return tuple(_worded(left, readings, aims, means) for left in unmet)


def _worded(left: Unmet, readings: Readings, aims: Aims, means: Means) -> Unmet:
    now = readings.value(left.measure)
    aim = aim_for(left.measure, aims, now) if now is not None else None
    if now is None or aim is None:
        return left
    more = ""
    if left.code == "dilution":
        more = _water(left.measure, now, aim.value, means)
    elif left.code == "wait" and now - aim.value > REDUCE_FROM_OVER_MG_L:
        more = _reducer(now, aim.value, means)
    return replace(left, reason=f"{left.reason} {more}") if more else left


def _water(measure: Measure, now: float, wanted: float, means: Means) -> str:
    in_fill = means.fill.value(measure)
    if in_fill is None:
        if measure not in NONE_IN_FILL:
            return f"Test the fill water's {name_in_sentence(measure)} to know how much."
        in_fill = 0.0
    change = water_change(now, wanted, in_fill, means.volume_l)
    if change is None:
        return f"The fill water holds {in_fill:.0f} itself, so it does not get to {wanted:.0f}."
    drained = water_text(change.drained_first_l, means.metric)
    through = water_text(change.overflowing_l, means.metric)
    text = (
        f"{NAMES[measure]} at {wanted:.0f} takes {100 * change.share:.0f} % new water: "
        f"{drained} drained and refilled, or {through} run through."
    )
    return f"{text} {DRAIN_CAUTION}" if change.share > LARGEST_PARTIAL_SHARE else text


def _reducer(now: float, wanted: float, means: Means) -> str:
    product = next((p for p in means.inventory if p.chemical == "sodium_thiosulfate"), None)
    if product is None:
        return ""
    first = round_dose(product, reducer_dose(now, wanted, means.volume_l, product).first_g, means.metric)
    return (
        f"Only if it must be today: {first.text} of {product.label}, half of what is reckoned, then test. "
        "Too much eats the next chlorine."
    )
