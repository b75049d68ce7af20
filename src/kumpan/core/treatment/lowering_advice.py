"""What it takes to bring down what no product lowers: liters of fill water, or a reducer for chlorine.

Sources: mass-balance, chlorine-reducer, water-change.
"""

from collections.abc import Sequence
from dataclasses import dataclass, replace

from kumpan.core.dosing.chlorine_reducer import reducer_dose
from kumpan.core.dosing.rounding import round_dose
from kumpan.core.dosing.water_change import LARGEST_PARTIAL_SHARE, water_change
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import NAMES, name_in_sentence
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import Units
from kumpan.core.quantity import Number, PoolWater
from kumpan.core.ranges.targets import Aims, aim_for
from kumpan.core.records.unmet import Unmet

SOURCES_USED = ("mass-balance", "chlorine-reducer", "water-change")

NONE_IN_FILL = (Measure.CYANURIC_ACID, Measure.BORATE)
REDUCE_FROM_OVER_MG_L = 3.0  # less than this over its aim is gone in a sunny day or two
DRAIN_CAUTION = Message(
    "More than half at once is a drain: it can lift or crack a shell and shrink a liner. Ask a "
    "professional first, or do it in parts."
)


@dataclass(frozen=True)
class Means:
    """The pool's liters, what its fill water holds, and the shelf."""

    volume_l: float
    fill: Readings
    inventory: Sequence[Product]
    units: Units


def with_amounts(unmet: Sequence[Unmet], readings: Readings, aims: Aims, means: Means) -> tuple[Unmet, ...]:
    """The unmet measures, those that only water or time lowers with how much of it they take."""
    return tuple(_worded(left, readings, aims, means) for left in unmet)


def _worded(left: Unmet, readings: Readings, aims: Aims, means: Means) -> Unmet:
    now = readings.value(left.measure)
    aim = aim_for(left.measure, aims, now) if now is not None else None
    if now is None or aim is None:
        return left
    more = NOTHING
    if left.code == "dilution_needed":
        more = _water(left.measure, now, aim.value, means)
    elif left.code == "wait" and now - aim.value > REDUCE_FROM_OVER_MG_L:
        more = _reducer(now, aim.value, means)
    return replace(left, reason=Message("{reason} {more}", reason=left.reason, more=more)) if more else left


def _water(measure: Measure, now: float, wanted: float, means: Means) -> Message:
    in_fill = means.fill.value(measure)
    if in_fill is None:
        if measure not in NONE_IN_FILL:
            return Message(
                "Test the fill water's {measure} to know how much.", measure=name_in_sentence(measure)
            )
        in_fill = 0.0
    change = water_change(now, wanted, in_fill, means.volume_l)
    if change is None:
        return Message(
            "The fill water holds {in_fill} itself, so it does not get to {wanted}.",
            in_fill=Number(in_fill, digits=0),
            wanted=Number(wanted, digits=0),
        )
    drained = Message("{amount}", amount=PoolWater(change.drained_first_l))
    through = Message("{amount}", amount=PoolWater(change.overflowing_l))
    text = Message(
        "{names} at {wanted} takes {share} % new water: {drained} drained and refilled, or "
        "{through} run through.",
        names=NAMES[measure],
        wanted=Number(wanted, digits=0),
        share=Number(100 * change.share, digits=0),
        drained=drained,
        through=through,
    )
    return (
        Message("{text} {drain_caution}", text=text, drain_caution=DRAIN_CAUTION)
        if change.share > LARGEST_PARTIAL_SHARE
        else text
    )


def _reducer(now: float, wanted: float, means: Means) -> Message:
    product = next((p for p in means.inventory if p.chemical == "sodium_thiosulfate"), None)
    if product is None:
        return NOTHING
    first = round_dose(product, reducer_dose(now, wanted, means.volume_l, product).first_g, means.units)
    return Message(
        "Only if it must be today: {text} of {label}, half of what is computed, then test. Too "
        "much eats the next chlorine.",
        text=first.text,
        label=Verbatim(product.label),
    )
