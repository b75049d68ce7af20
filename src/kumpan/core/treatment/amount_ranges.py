"""The range of every addition that holds the true dose: by the readings' doubt, the volume's, and what is not
known. Rounded outward where it is told. Sources: method-doubt, pool-shapes.
"""

from collections.abc import Mapping
from dataclasses import dataclass, replace

from kumpan.core.dosing.rounding import outward
from kumpan.core.dosing.solver import masses_by_product
from kumpan.core.dosing.uncertainty import DoseUncertainty, dose_uncertainties
from kumpan.core.journal import BasinMeasured
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import Units
from kumpan.core.records.step import ADD, Step
from kumpan.core.treatment.careful import possible_waters
from kumpan.core.treatment.plan import Plan
from kumpan.core.treatment.plan_inputs import PlanInputs

SOURCES_USED = ("method-doubt", "pool-shapes")

# How far a volume may be off, as a share of it. Origin: handbook 01.
FROM_A_PROFILE, FROM_A_SHAPE, TYPED = 0.05, 0.10, 0.15
PROFILE_POINTS = 3  # two are an even slope, more are measured
WORTH_TELLING = 0.04  # of the amount; a narrower range is no range to a scoop


@dataclass(frozen=True, kw_only=True)
class _Share:
    """A product's range as shares of its planned amount, and the reading behind most of it."""

    low: float
    high: float
    most_from: Measure | None


def volume_share(basin: BasinMeasured) -> float:
    """How far a basin's volume may be off, as a share: by how it was found; amounts for each 1,000 gal are
    exact in it.
    """
    if basin.volume_is_unknown:
        return 0.0
    if basin.volume_uncertainty is not None:
        return basin.volume_uncertainty
    if basin.volume_is_typed:
        return TYPED
    profiled = all(len(part.depth) >= PROFILE_POINTS for part in basin.parts)
    return FROM_A_PROFILE if profiled else FROM_A_SHAPE


def with_ranges(found: Plan, inputs: PlanInputs, volume: float) -> Plan:
    """The plan with the range of each addition; `volume` is how far that may be off, as a share."""
    used = {step.product_id for step in found.steps if step.kind == ADD}
    products = {product.id: product for product in inputs.inventory if product.id in used}
    shares = _shares(inputs, products)
    steps = tuple(
        _ranged(step, products, shares, volume=volume, units=inputs.display.units) for step in found.steps
    )
    return replace(found, steps=steps)


def _shares(inputs: PlanInputs, products: Mapping[str, Product]) -> dict[str, _Share]:
    waters, aims = possible_waters(inputs)
    inventory = tuple(products.values())
    found: dict[str, list[DoseUncertainty]] = {}
    centers: dict[str, list[float]] = {}
    for water in waters:
        centre = masses_by_product(
            water, inputs.volume_l, traits=inputs.traits, aims=aims, inventory=inventory
        )
        ends = dose_uncertainties(
            water, inputs.measured, inputs.volume_l, traits=inputs.traits, aims=aims, inventory=inventory
        )
        for key in products:
            mass = centre.get(key, 0.0)
            centers.setdefault(key, []).append(mass)
            if key in ends:
                found.setdefault(key, []).append(ends[key])
    return {key: _of_product(centers[key], found.get(key, [])) for key in products}


def _of_product(centers: list[float], ends: list[DoseUncertainty]) -> _Share:
    """Of the smallest, which is what a plan of unknowns pours first; of the only one elsewhere."""
    planned = min((mass for mass in centers if mass > 0), default=0.0)
    if planned <= 0:
        return _Share(low=1.0, high=1.0, most_from=None)
    low = min([*centers, *(one.low_g for one in ends)])
    high = max([*centers, *(one.high_g for one in ends)])
    widest = max(ends, key=lambda one: one.high_g - one.low_g, default=None)
    return _Share(low=low / planned, high=high / planned, most_from=widest.most_from if widest else None)


def _ranged(
    step: Step, products: Mapping[str, Product], shares: Mapping[str, _Share], *, volume: float, units: Units
) -> Step:
    product, share = products.get(step.product_id or ""), shares.get(step.product_id or "")
    if step.kind != ADD or step.mass_g is None or product is None or share is None:
        return step
    low = step.mass_g * share.low * (1 - volume)
    high = step.mass_g * share.high * (1 + volume)
    told = replace(step, mass_low_g=low, mass_high_g=high, range_from=share.most_from)
    by_readings = step.mass_g * (share.high - share.low)
    if by_readings < WORTH_TELLING * step.mass_g:
        return told
    least = outward(product, low, units, up=False)
    most = outward(product, high, units, up=True)
    if least == most:
        return told
    text = (
        Message("{low} to {high}", low=least, high=most)
        if low > 0.005 * high
        else Message("{low} to {high}", low=Message("nothing"), high=most)
    )
    return replace(told, range_text=text)
