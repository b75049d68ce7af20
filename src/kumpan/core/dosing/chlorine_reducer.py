"""Thiosulfate, when chlorine must come down today. Sources: mass-balance, chlorine-reducer."""

from dataclasses import dataclass

from kumpan.core.dosing.mass_balance import mass_for_change_g
from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure

SOURCES_USED = ("mass-balance", "chlorine-reducer")

# In practice the reaction stops half way at poolside pH and it takes more: 2 g a gram of chlorine.
PRACTICE_G_PER_G_CHLORINE = 2.0
FIRST_SHARE = 0.5  # the rest only after a test: what is too much eats the next chlorine


@dataclass(frozen=True)
class ReducerDose:
    """Grams of product: by the full reaction, as practice finds, and what to pour before the retest."""

    theory_g: float
    practice_g: float
    first_g: float


def reducer_dose(
    free_chlorine_mg_l: float, wanted_mg_l: float, volume_l: float, product: Product
) -> ReducerDose:
    """Chlorine reducer that brings free chlorine down. Raises InvalidInput for another chemical."""
    if product.chemical != "sodium_thiosulfate":
        raise InvalidInput(Message("Only sodium thiosulfate is computed as a chlorine reducer."), "chemical")
    drop = max(0.0, free_chlorine_mg_l - wanted_mg_l)
    theory = mass_for_change_g(product, Measure.FREE_CHLORINE, -drop, volume_l)
    pure = drop * volume_l / 1000.0 * PRACTICE_G_PER_G_CHLORINE
    practice = pure / (product.strength_percent / 100.0)
    return ReducerDose(theory, practice, FIRST_SHARE * practice)
