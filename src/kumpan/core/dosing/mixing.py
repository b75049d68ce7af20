"""What additions and dilutions do to a water's conserved totals. Source: mass-balance."""

from collections.abc import Mapping

from kumpan.core.chemistry.speciation import Totals
from kumpan.core.products.product import Product, moles_per_g

SOURCE = "mass-balance"

Amounts = Mapping[Product, float]


def added(totals: Totals, product: Product, mass_g: float, volume_l: float, *, spent: bool = False) -> Totals:
    """The totals with a mass of product mixed in.

    `spent`: once the product's own chlorine or oxidizer is used up (its chlorine is chloride then).
    """
    moles = mass_g * moles_per_g(product) / volume_l
    effect = product.row.effect
    chlorine = 0.0 if spent else effect.chlorine
    oxidised = effect.peroxymonosulfate if spent else 0.0
    return totals._replace(
        alkalinity=totals.alkalinity + moles * (effect.spent_alkalinity if spent else effect.alkalinity),
        carbon=totals.carbon + moles * effect.carbon,
        calcium=totals.calcium + moles * effect.calcium,
        cyanurate=totals.cyanurate + moles * effect.cyanurate,
        borate=totals.borate + moles * effect.borate,
        chlorine=max(0.0, totals.chlorine + moles * chlorine),
        chloride=totals.chloride + moles * (effect.chloride + (effect.chlorine if spent else 0.0)),
        sulfate=totals.sulfate + moles * (effect.sulfate + oxidised),
        potassium=totals.potassium + moles * (effect.potassium + oxidised),
    )


def all_added(totals: Totals, amounts: Amounts, volume_l: float, *, spent: bool) -> Totals:
    """The water's totals after several products (g each); `spent`: with their chlorine used up."""
    for product, mass_g in amounts.items():
        totals = added(totals, product, mass_g, volume_l, spent=spent)
    return totals


def diluted(totals: Totals, fill: Totals, fraction: float) -> Totals:
    """That fraction drained, then replaced by the fill; every total mixes, and so does the temperature."""
    return Totals(*(old + (new - old) * fraction for old, new in zip(totals, fill, strict=True)))
