"""Which product of the shelf moves which measure, by the pool's own kind of chlorination.

Source: order.
"""

from collections.abc import Sequence

from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Chlorination, Traits
from kumpan.core.products.catalogue import STABILIZED
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure
from kumpan.core.quantities.units import G_PER_LB

SOURCE = "order"

STANDARD_INVENTORY: tuple[Product, ...] = (
    Product("standard-liquid-chlorine", "sodium_hypochlorite", 10.0),
    Product("standard-muriatic-acid", "hydrochloric_acid", 31.45),
    Product("standard-baking-soda", "sodium_bicarbonate", 100.0),
    Product("standard-soda-ash", "sodium_carbonate", 100.0),
    Product("standard-calcium-chloride", "calcium_chloride", 77.0),
    Product("standard-stabiliser", "cyanuric_acid", 100.0),
    Product("standard-salt", "sodium_chloride", 100.0, package_g=40 * G_PER_LB),  # the usual bag
)

# The pool's own kind first; a tablet pool is lifted by what acts today, tablets only hold it.
CHLORINE_PREFERENCE: dict[Chlorination, tuple[str, ...]] = {
    Chlorination.LIQUID: ("sodium_hypochlorite", "calcium_hypochlorite", "sodium_dichlor", "trichlor"),
    Chlorination.GRANULES: ("calcium_hypochlorite", "sodium_dichlor", "sodium_hypochlorite", "trichlor"),
    Chlorination.TABLETS: ("sodium_dichlor", "sodium_hypochlorite", "calcium_hypochlorite", "trichlor"),
    Chlorination.SALT_CELL: ("sodium_hypochlorite", "sodium_dichlor", "calcium_hypochlorite", "trichlor"),
    Chlorination.MINERAL: ("sodium_hypochlorite", "sodium_dichlor", "calcium_hypochlorite", "trichlor"),
}
_OTHERS: dict[Measure, tuple[str, ...]] = {
    Measure.TOTAL_ALKALINITY: ("sodium_bicarbonate", "sodium_carbonate"),
    Measure.CALCIUM_HARDNESS: ("calcium_chloride",),
    Measure.CYANURIC_ACID: ("cyanuric_acid",),
    Measure.SALT: ("sodium_chloride",),
    Measure.BORATE: ("boric_acid", "borax"),
}


def unsuited(chemical: str, traits: Traits) -> Message | None:
    """Why a chlorine does harm in such a pool, whoever chose it; None where it does not. Origin: handbook 04
    and 06.
    """
    if chemical == "calcium_hypochlorite" and traits.chlorination is Chlorination.SALT_CELL:
        return Message("Its calcium scales the plates of a salt cell: choose liquid chlorine.")
    if chemical in STABILIZED and traits.indoor:
        return Message("Indoors no stabilizer is wanted: choose liquid chlorine.")
    return None


def raiser(
    measure: Measure, traits: Traits, inventory: Sequence[Product], *, stabilizer_full: bool = False
) -> Product | None:
    """The product that raises a measure here, or None when nothing on the shelf does.

    `stabilizer_full`: stabilizer stands at or over its band, so stabilized chlorine comes last.
    """
    if measure is Measure.FREE_CHLORINE:
        wanted = _chlorine_order(traits, stabilizer_full=stabilizer_full)
    else:
        wanted = _OTHERS.get(measure, ())
    for key in wanted:
        for product in inventory:
            if product.chemical == key:
                return product
    return None


def _chlorine_order(traits: Traits, *, stabilizer_full: bool) -> tuple[str, ...]:
    order = tuple(key for key in CHLORINE_PREFERENCE[traits.chlorination] if unsuited(key, traits) is None)
    if stabilizer_full:
        return tuple(sorted(order, key=lambda key: key in STABILIZED))
    return order
