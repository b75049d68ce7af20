"""What a chlorine product brings along: another one, or less of it, where that would be too much.

Source: mass-balance.
"""

from dataclasses import replace

from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.dosing.solution import nothing_at_hand
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.products.product import Product
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Number
from kumpan.core.ranges.targets import Aims
from kumpan.core.treatment.plan import Plan, plan
from kumpan.core.treatment.plan_inputs import PlanInputs

SOURCE = "mass-balance"

M = Measure
HARDLY_MG_L = 0.05
# A chlorine product brings these, and leaves them.
BROUGHT_ALONG = (M.CYANURIC_ACID, M.CALCIUM_HARDNESS)


# Chlorine that would bring too much of something else.
def chlorine_within(inputs: PlanInputs) -> Plan:
    """Another product where one at hand brings less along; else the dose is cut to what keeps the band, but
    never under the swim minimum.
    """
    found = _planned(inputs)
    inventory = tuple(inputs.inventory)
    while (brought := _brings_too_much(found, inputs)) is not None:
        product, _ = brought
        left = tuple(other for other in inventory if other is not product)
        if not any(other.chemical in CHLORINE_CARRIERS for other in left):
            break
        attempt = _planned(replace(inputs, inventory=left))
        if any(u.measure is M.FREE_CHLORINE and u.code == "nothing_suitable_at_hand" for u in attempt.unmet):
            break
        found, inventory = attempt, left
    brought = _brings_too_much(found, replace(inputs, inventory=inventory))
    if brought is None:
        return found
    return _cut(replace(inputs, inventory=inventory), *brought)


def _planned(inputs: PlanInputs) -> Plan:
    return plan(
        inputs.readings,
        inputs.volume_l,
        traits=inputs.traits,
        aims=inputs.aims,
        inventory=inputs.inventory,
        display=inputs.display,
        fill=inputs.fill,
        poured=inputs.poured,
    )


def _brings_too_much(found: Plan, inputs: PlanInputs) -> tuple[Product, Measure] | None:
    """The chlorine product of a plan that takes stabilizer or calcium over its band, and which."""
    products = {product.id: product for product in inputs.inventory}
    for step in found.steps:
        product = products.get(step.product_id or "")
        if product is None or product.chemical not in CHLORINE_CARRIERS:
            continue
        for measure in BROUGHT_ALONG:
            per_g = change_per_g(product, measure, inputs.volume_l)
            then, top = found.predicted.value(measure), _top(inputs, measure)
            before = inputs.readings.value(measure) or 0.0
            if (
                per_g > 0
                and then is not None
                and top is not None
                and then > top + 0.05
                and then > before + 0.05
            ):
                return product, measure
    return None


def _top(inputs: PlanInputs, measure: Measure) -> float | None:
    band = inputs.aims.bands.get(measure)
    if band is None or band.high is None:
        return None
    return max(band.high, inputs.aims.named.get(measure, 0.0))


def _cut(inputs: PlanInputs, product: Product, measure: Measure) -> Plan:
    free, before, top = inputs.readings.free_chlorine, inputs.readings.value(measure), _top(inputs, measure)
    assert free is not None
    assert before is not None
    assert top is not None
    ratio = change_per_g(product, measure, inputs.volume_l) / change_per_g(
        product, M.FREE_CHLORINE, inputs.volume_l
    )
    room = max(0.0, top - before) / ratio
    needed = max(0.0, inputs.least_mg_l - free)
    rise = max(room, needed)
    found = _planned(replace(inputs, aims=_aiming_lower(inputs.aims, free + rise)))
    reason = Message(
        "{product} would take {measure} over {top}: get liquid chlorine for the rest.",
        product=Message(product.row.name),
        measure=name_in_sentence(measure),
        top=Number(top, digits=0),
    )
    others = tuple(u for u in found.unmet if u.measure is not M.FREE_CHLORINE)
    return replace(found, unmet=(*others, nothing_at_hand(M.FREE_CHLORINE, reason)))


def _aiming_lower(aims: Aims, free_mg_l: float) -> Aims:
    """The same aims with free chlorine at most there."""
    band = aims.bands[M.FREE_CHLORINE]
    bands = {**aims.bands, M.FREE_CHLORINE: replace(band, aim=min(band.aim or free_mg_l, free_mg_l))}
    named = {**aims.named}
    if M.FREE_CHLORINE in named:
        named[M.FREE_CHLORINE] = free_mg_l
    return Aims(bands, named, aims.held)
