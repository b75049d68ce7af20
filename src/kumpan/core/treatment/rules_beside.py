"""The rule beside the sum: what people pour by habit, what it would do here, and what this water needs.

Source: rules-of-thumb.
"""

from kumpan.core.dosing.rules_of_thumb import RuleOutcome, rule_outcome, rules_for
from kumpan.core.findings import Finding
from kumpan.core.messages import NOTHING, Message, joined
from kumpan.core.products.product import Product, density
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantity import Liquid, Mass, Number

SOURCE = "rules-of-thumb"

RULE_BESIDE = "rule_beside"  # the code of what is said

LEAST_SIDE_EFFECT_MG_L = 1.0
SHOWN_SIDE_EFFECTS = (Measure.CYANURIC_ACID, Measure.CALCIUM_HARDNESS)


def rule_beside(product: Product, needed_mg_l: float, volume_l: float, *, weekly: bool) -> Finding | None:
    """The rule for a chlorine product, followed here; None where the trade has none for it.

    `weekly`: the rule of a week's chlorine, else that of a shock.
    """
    rule = next((rule for rule in rules_for(product.chemical) if rule.per_week == weekly), None)
    if rule is None:
        return None
    found = rule_outcome(rule, volume_l)
    adds = found.brings[Measure.FREE_CHLORINE]
    text = Message(
        "The rule says {says}: here {amount}, which adds {adds} ppm{besides}. This water needs {needed} ppm.",
        says=rule.says,
        amount=_amount(found),
        adds=Number(adds, digits=1),
        besides=_besides(found),
        needed=Number(needed_mg_l, digits=1),
    )
    return Finding(RULE_BESIDE, text, Measure.FREE_CHLORINE, {"rule": adds, "needed": needed_mg_l})


def _amount(found: RuleOutcome) -> Message:
    product = found.rule.product
    if product.row.is_liquid:
        return Message("{amount}", amount=Liquid(found.mass_g / density(product)))
    return Message("{amount}", amount=Mass(found.mass_g))


def _besides(found: RuleOutcome) -> Message:
    side = [
        Message("{measure} {change}", measure=name_in_sentence(measure), change=Number(change, digits=1))
        for measure, change in found.brings.items()
        if measure in SHOWN_SIDE_EFFECTS and change >= LEAST_SIDE_EFFECT_MG_L
    ]
    return Message(" (and {others})", others=joined(side)) if side else NOTHING
