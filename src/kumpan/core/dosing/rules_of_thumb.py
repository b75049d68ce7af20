"""The rules that people dose by, and what each really brings. Source: rules-of-thumb.

All of them are so much per gallons, so they bring the same ppm to every pool; what differs is what a
pool needs.
"""

from dataclasses import dataclass

from kumpan.core.dosing.mass_balance import changes
from kumpan.core.messages import Message
from kumpan.core.products.product import Product, mass_from_volume_g
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_LB, G_PER_OZ, L_PER_US_GAL

SOURCE = "rules-of-thumb"


@dataclass(frozen=True)
class Rule:
    """An amount of a product per US gallons of pool; `per_week` says that it is meant to last a week."""

    key: str
    says: Message
    product: Product
    amount_g: float
    per_gallons: float
    per_week: bool = False
    times: int = 1


_LIQUID = Product("liquid", "sodium_hypochlorite", 10.0)
_CAL_HYPO = Product("calhypo", "calcium_hypochlorite", 65.0)
_DICHLOR = Product("dichlor", "sodium_dichlor", 56.0)
_TABLET = Product("tablet", "trichlor", 90.0)

RULES: tuple[Rule, ...] = (
    Rule("weekly_granules", Message("2 oz of granules a week for every 5,000 gal"), _DICHLOR, 2 * G_PER_OZ,
    5000, per_week=True),
    Rule(
        "weekly_liquid", Message("half a gallon of liquid chlorine a week for every 5,000 gal"), _LIQUID,
        mass_from_volume_g(_LIQUID, 500 * L_PER_US_GAL), 5000, per_week=True,
    ),
    Rule("weekly_tablet", Message("one 3 in tablet a week for every 5,000 gal"), _TABLET, 8 * G_PER_OZ,
    5000, per_week=True),
    Rule("bag_calcium", Message("a 1 lb bag of calcium shock for every 10,000 gal"), _CAL_HYPO, G_PER_LB,
    10_000),
    Rule("bag_dichlor", Message("a 1 lb bag of dichlor shock for every 10,000 gal"), _DICHLOR, G_PER_LB,
    10_000),
    Rule(
        "bloom", Message("for a bloom two 1 lb bags for every 15,000 gal, three times 12 h apart"), _CAL_HYPO,
        2 * G_PER_LB, 15_000, times=3,
    ),
)  # fmt: skip


@dataclass(frozen=True)
class RuleOutcome:
    """What a rule comes to in one pool: grams in all, and the ppm by measure."""

    rule: Rule
    mass_g: float
    brings: dict[Measure, float]


def rule_outcome(rule: Rule, volume_l: float) -> RuleOutcome:
    """The rule followed to the letter in a pool of this volume."""
    grams = rule.amount_g * rule.times * volume_l / (rule.per_gallons * L_PER_US_GAL)
    return RuleOutcome(rule, grams, changes(rule.product, grams, volume_l))


def rules_for(chemical: str) -> tuple[Rule, ...]:
    """The rules that people go by for one chemical."""
    return tuple(rule for rule in RULES if rule.product.chemical == chemical)
