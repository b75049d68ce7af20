"""Which product of the shelf serves where something is dosed by its label, and how much that label says."""

from collections.abc import Sequence

from kumpan.core.dosing.rounding import round_dose
from kumpan.core.messages import NOTHING, Message, Verbatim
from kumpan.core.products.product import Product, mass_by_label_g
from kumpan.core.records.display import DisplayOptions

SOURCES_USED = ()


def by_own_label(
    inventory: Sequence[Product], kinds: Sequence[str], volume_l: float
) -> tuple[Product, float] | None:
    """The first of these kinds whose label was told, and its first dose for a pool, g; None without any."""
    for kind in kinds:
        for product in (one for one in inventory if one.chemical == kind):
            mass_g = mass_by_label_g(product, product.label_dose, volume_l)
            if mass_g is not None:
                return product, mass_g
    return None


def label_words(
    inventory: Sequence[Product], kinds: Sequence[str], volume_l: float, display: DisplayOptions
) -> Message:
    """`8 fl oz of Clear water by its label`; nothing where no such label was told."""
    found = by_own_label(inventory, kinds, volume_l)
    if found is None:
        return NOTHING
    product, mass_g = found
    return Message(
        "{amount} of {product} by its label",
        amount=round_dose(
            product, mass_g, units=display.units, uncertainty_share=0.0, containers=display.containers
        ).text,
        product=Verbatim(product.label),
    )
