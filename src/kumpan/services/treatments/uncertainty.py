"""The range of each dose that follows from the readings' doubt, put on the sheet's steps."""

from collections.abc import Mapping
from dataclasses import replace

from kumpan.core.dosing.rounding import round_dose
from kumpan.core.dosing.uncertainty import DoseUncertainty, dose_uncertainties
from kumpan.core.forecast.expected import last_values
from kumpan.core.journal import PoolState
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.quantities.units import Units
from kumpan.core.ranges.profiles import Band
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.step import ADD, Step
from kumpan.core.testing.methods import Measured
from kumpan.services.cache import remembered
from kumpan.services.journal.ledger import Scope
from kumpan.services.pools.expectations import water_now
from kumpan.services.pools.queries import Chosen, PoolParts, plan_products


async def with_uncertainty(
    scope: Scope, state: PoolState, parts: PoolParts, steps: tuple[Step, ...], chosen: Chosen, *, units: Units
) -> tuple[Step, ...]:
    """The steps with the range of each amount and the reading behind most of it."""
    inventory = await plan_products(scope, state, parts, chosen)
    found = _uncertainties_for(
        water_now(state, parts.place, scope.now),
        last_values(state),
        volume_l=parts.basin.volume_l,
        traits=parts.equipment.traits,
        bands=parts.bands,
        inventory=inventory,
    )
    whole: dict[str, float] = {}
    for step in steps:
        if step.kind == ADD and step.product_id is not None:
            whole[step.product_id] = whole.get(step.product_id, 0.0) + (step.mass_g or 0.0)
    products = {product.id: product for product in inventory}
    return tuple(_ranged(step, found, whole=whole, products=products, units=units) for step in steps)


@remembered(most=256)
def _uncertainties_for(
    readings: Readings,
    measured: tuple[Measured, ...],
    volume_l: float,
    traits: Traits,
    bands: Mapping[Measure, Band],
    inventory: tuple[Product, ...],
) -> dict[str, DoseUncertainty]:
    """A pure function that solves the water a dozen times; a sheet is opened more often than water is
    tested.
    """
    return dose_uncertainties(
        readings, measured, volume_l=volume_l, traits=traits, aims=Aims(bands, {}), inventory=inventory
    )


def _ranged(
    step: Step,
    found: dict[str, DoseUncertainty],
    whole: dict[str, float],
    products: dict[str, Product],
    units: Units,
) -> Step:
    uncertainty = found.get(step.product_id or "")
    if step.kind != ADD or uncertainty is None or not step.mass_g:
        return step
    product = products[step.product_id or ""]
    share = step.mass_g / whole[product.id]
    low, high = uncertainty.low_g * share, uncertainty.high_g * share
    if high - low < 0.04 * step.mass_g:
        return step
    low_text = _roughly(product, low, units) if low > 0.005 * high else Message("nothing")
    range_text = Message("{low_text} to {roughly}", low_text=low_text, roughly=_roughly(product, high, units))
    return replace(step, range_text=range_text, range_from=uncertainty.most_from)


def _roughly(product: Product, mass_g: float, units: Units) -> Message:
    """An end of a range in the coarse steps of a scale or cup: it is known no better."""
    return round_dose(replace(product, package_g=None, package_ml=None), mass_g, units).text
