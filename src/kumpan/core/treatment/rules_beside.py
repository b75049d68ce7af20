"""The rule beside the sum: what people pour by habit, what it would do here, and what this water needs.

Source: rules-of-thumb.
"""

from kumpan.core.dosing.rounding import mass_text, volume_text
from kumpan.core.dosing.rules_of_thumb import RuleOutcome, rule_outcome, rules_for
from kumpan.core.findings import Finding
from kumpan.core.products.product import Product, density
from kumpan.core.quantities.names import name_in_sentence
from kumpan.core.quantities.readings import Measure

SOURCE = "rules-of-thumb"

LEAST_SIDE_EFFECT_MG_L = 1.0
SHOWN_SIDE_EFFECTS = (Measure.CYANURIC_ACID, Measure.CALCIUM_HARDNESS)


def rule_beside(
    product: Product, needed_mg_l: float, volume_l: float, *, metric: bool, weekly: bool
) -> Finding | None:
    """The rule for a chlorine product, followed here; None where the trade has none for it.

    `weekly`: the rule of a week's chlorine, else that of a shock.
    """
    rule = next((rule for rule in rules_for(product.chemical) if rule.per_week == weekly), None)
    if rule is None:
        return None
    found = rule_outcome(rule, volume_l)
    adds = found.brings[Measure.FREE_CHLORINE]
    text = (
        f"The rule says {rule.says}: here {_amount(found, metric)}, which adds {adds:.1f}{_besides(found)}. "
        f"This water needs {needed_mg_l:.1f}."
    )
    return Finding("rule_beside", text, Measure.FREE_CHLORINE, {"rule": adds, "needed": needed_mg_l})


def _amount(found: RuleOutcome, metric: bool) -> str:
    product = found.rule.product
    if product.row.is_liquid:
        return volume_text(found.mass_g / density(product), metric)
    return mass_text(found.mass_g, metric)


def _besides(found: RuleOutcome) -> str:
    side = [
        f"{name_in_sentence(measure)} {change:.1f}"
        for measure, change in found.brings.items()
        if measure in SHOWN_SIDE_EFFECTS and change >= LEAST_SIDE_EFFECT_MG_L
    ]
    return f" (and {', '.join(side)})" if side else ""
