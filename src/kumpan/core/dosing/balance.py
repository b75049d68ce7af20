"""pH and alkalinity together: the amounts of acid, sodas and borax that bring a water to its aims.

A target (pH, alkalinity) fixes the conserved totals, so the products' amounts solve two linear
equations, in alkalinity and in carbon. Carbon leaves only by aeration: a target that needs less carbon
than there is cannot be dosed, and is told so. Sources: phreeqc-dat, mass-balance.
"""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from itertools import combinations

from kumpan.core.chemistry.constants import constants_at
from kumpan.core.chemistry.equilibrium import (
    MG_PER_EQ,
    Known,
    NoCarbonate,
    remaining_alkalinity,
    solve_readings,
)
from kumpan.core.chemistry.speciation import Totals, speciate
from kumpan.core.dosing.mixing import Amounts, added, all_added
from kumpan.core.products.product import Product, moles_per_g

SOURCES_USED = ("phreeqc-dat", "mass-balance")

# In this order the trade reaches for them; borax last, since it leaves borate behind.
BASES = ("sodium_bicarbonate", "sodium_carbonate", "borax")
ACIDS = ("hydrochloric_acid", "sodium_bisulfate")
PH_RAISERS = ("sodium_carbonate", "borax", "sodium_bicarbonate")
LARGEST_MOLES_PER_L = 0.02
FIRST_TRY_MOLES_PER_L = 1e-4
ROUNDS = 40


@dataclass(frozen=True)
class BalanceDose:
    """Grams by product; `reached` is False where the target cannot be dosed with these products."""

    amounts: Amounts
    reached: bool


def first_of(keys: Sequence[str], inventory: Sequence[Product]) -> Product | None:
    """The first product on the shelf whose chemical comes first in `keys`."""
    return next((product for key in keys for product in inventory if product.chemical == key), None)


def for_both(
    base: Totals, ph: float, alkalinity_mg_l: float, volume_l: float, inventory: Sequence[Product]
) -> BalanceDose:
    """Amounts that bring `base` to a pH and a titrated alkalinity at once, exactly, if they can.

    The target's totals depend a little on the ions that the doses bring, so the solution is repeated.
    """
    amounts: Amounts = {}
    for _ in range(ROUNDS):
        water = all_added(base, amounts, volume_l, spent=True)
        wanted = solve_readings(Known(ph, alkalinity_mg_l / MG_PER_EQ, water, sulfate_known=True))
        if isinstance(wanted, NoCarbonate):
            return BalanceDose({}, reached=False)
        need = (wanted.totals.alkalinity - base.alkalinity, wanted.totals.carbon - base.carbon)
        new = _two_equations(need, volume_l, inventory)
        if new is None:
            return BalanceDose({}, reached=False)
        if _same(new, amounts):
            return BalanceDose(new, reached=True)
        amounts = new
    return BalanceDose(amounts, reached=True)


def _same(one: Amounts, other: Amounts) -> bool:
    keys = set(one) | set(other)
    return all(abs(one.get(k, 0.0) - other.get(k, 0.0)) <= 1e-7 * (1 + one.get(k, 0.0)) for k in keys)


def _two_equations(
    need: tuple[float, float], volume_l: float, inventory: Sequence[Product]
) -> Amounts | None:
    """The lightest pair of products, none of it negative, for a change of alkalinity and carbon (mol/L)."""
    products = [p for p in (first_of((key,), inventory) for key in (*BASES, *ACIDS)) if p is not None]
    found: list[Amounts] = []
    for one, other in combinations(products, 2):
        a, b = one.row.effect, other.row.effect
        determinant = a.alkalinity * b.carbon - b.alkalinity * a.carbon
        if abs(determinant) < 1e-12:
            continue
        x = (need[0] * b.carbon - b.alkalinity * need[1]) / determinant
        y = (a.alkalinity * need[1] - need[0] * a.carbon) / determinant
        if min(x, y) >= -1e-8:
            pair = ((one, max(0.0, x)), (other, max(0.0, y)))
            found.append({p: n * volume_l / moles_per_g(p) for p, n in pair if n > 1e-8})
    without_borax = [amounts for amounts in found if all(p.chemical != "borax" for p in amounts)]
    return min(without_borax or found, key=lambda amounts: sum(amounts.values()), default=None)


def for_ph(base: Totals, ph: float, volume_l: float, product: Product) -> float | None:
    """Grams of one product that bring `base` to a pH; None when no sensible amount does.

    At a fixed pH the alkalinity that the bases make, less that of the strong ions, is nearly linear in
    the amount, whatever the product brings (borate and stabilizer too); so a secant finds it in a few steps.
    """
    per_g = moles_per_g(product) / volume_l

    def in_excess(moles: float) -> float:
        water = added(base, product, moles / per_g, volume_l, spent=True)
        species = speciate(ph, water, constants_at(water.temperature_c))
        return float(species.alkalinity - water.alkalinity)

    before, moles = 0.0, FIRST_TRY_MOLES_PER_L
    at_before, at_moles = in_excess(before), in_excess(moles)
    for _ in range(ROUNDS):
        if at_moles == at_before:
            return None
        new = moles - at_moles * (moles - before) / (at_moles - at_before)
        if not 0 <= new <= LARGEST_MOLES_PER_L:
            return None
        if abs(new - moles) <= 1e-9 * new:
            return new / per_g
        before, moles = moles, new
        at_before, at_moles = at_moles, in_excess(new)
    return moles / per_g


def for_alkalinity(base: Totals, alkalinity_mg_l: float, volume_l: float, product: Product) -> float | None:
    """Grams of one product that bring `base` to a titrated alkalinity; None when no sensible amount does."""
    per_mole = product.row.effect.spent_alkalinity

    def next_moles(water: Totals) -> float:
        left = remaining_alkalinity(water, alkalinity_mg_l / MG_PER_EQ)
        return (alkalinity_mg_l / MG_PER_EQ + left - base.alkalinity) / per_mole

    return _repeated(base, volume_l, product, next_moles)


def _repeated(
    base: Totals, volume_l: float, product: Product, next_moles: Callable[[Totals], float]
) -> float | None:
    """Repeat until the amount stands still; None when it is negative, too large or does not settle."""
    per_g = moles_per_g(product) / volume_l
    moles = 0.0
    for _ in range(ROUNDS):
        new = next_moles(added(base, product, moles / per_g, volume_l, spent=True))
        if not 0 <= new <= LARGEST_MOLES_PER_L:
            return None
        if abs(new - moles) <= 1e-9 * new:
            return new / per_g
        moles = new
    return moles / per_g
