"""Which products of the shelf serve a plan: a small mixed-integer program over the water's own equations.

Chlorine, calcium, stabilizer, salt and borate are linear in the amounts; so is pH at a fixed pH, for the
alkalinity that the bases make less that of the strong ions is linear in what is added. Only the choice is
taken from here: the amounts are then solved exactly with the chosen products. Sources: order, mass-balance.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from enum import StrEnum
from typing import TYPE_CHECKING

import numpy as np

from kumpan.core.chemistry.constants import constants_at
from kumpan.core.chemistry.equilibrium import State
from kumpan.core.chemistry.speciation import Totals, speciate
from kumpan.core.dosing.mass_balance import change_per_g
from kumpan.core.dosing.mixing import added
from kumpan.core.dosing.raisers import CHLORINE_PREFERENCE, unsuited
from kumpan.core.dosing.solution import Solution
from kumpan.core.dosing.solver import LINEAR_ORDER, solve
from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.products.product import Product
from kumpan.core.products.stock import Stocked
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.targets import Aims, aim_for

if TYPE_CHECKING:
    from scipy.optimize import LinearConstraint

SOURCES_USED = ("order", "mass-balance")


class Strategy(StrEnum):
    """What the choice looks to first."""

    USUAL = "usual"
    CHEAPEST = "cheapest"
    FEWEST = "fewest"
    CLEANEST = "cleanest"


@dataclass(frozen=True, kw_only=True)
class _Weights:
    """Cost of one more product, of one rank further from the pool's habit, of one unit of money, of one ppm
    left behind, of having to buy.
    """

    product: float
    rank: float
    money: float
    left_behind: float
    buying: float


_WEIGHTS: Mapping[Strategy, _Weights] = {
    Strategy.USUAL: _Weights(product=1.0, rank=3.0, money=0.01, left_behind=0.02, buying=4.0),
    Strategy.CHEAPEST: _Weights(product=0.05, rank=0.02, money=1.0, left_behind=0.002, buying=0.0),
    Strategy.FEWEST: _Weights(product=20.0, rank=0.2, money=0.01, left_behind=0.01, buying=0.5),
    Strategy.CLEANEST: _Weights(product=0.1, rank=0.02, money=0.005, left_behind=1.0, buying=0.1),
}
# How much one ppm that stays in the water counts; stabilizer leaves only with water.
LEFT_BEHIND: Mapping[Measure, float] = {
    Measure.CYANURIC_ACID: 1.0,
    Measure.CALCIUM_HARDNESS: 0.4,
    Measure.BORATE: 0.5,
    Measure.SULFATE: 0.1,
    Measure.SALT: 0.02,
}
OVER_ITS_BAND = 20.0  # cost of one ppm that a product brings over the band
NEVER = ("sodium_hydroxide", "sodium_thiosulfate", "potassium_monopersulfate")
BORAX_RANK = 2.0
SLOW = "trichlor"
ENOUGH_TIMES = 4.0  # an amount is at most so many times what one need asks


@dataclass(frozen=True, kw_only=True)
class ChoiceRequest:
    """The water, its aims and the shelf to choose products from."""

    readings: Readings
    volume_l: float
    traits: Traits
    aims: Aims
    inventory: Sequence[Stocked]


# Products of one role stand in for each other.
ROLES: tuple[tuple[str, ...], ...] = (
    CHLORINE_CARRIERS,
    ("hydrochloric_acid", "sodium_bisulfate"),
    ("sodium_carbonate", "borax", "sodium_bicarbonate"),
)


def using(request: ChoiceRequest, product_id: str) -> ChoiceRequest:
    """The same question with one product in place of those that share its role; baking soda always stays."""
    chosen = next((item.product for item in request.inventory if item.product.id == product_id), None)
    role = next((role for role in ROLES if chosen is not None and chosen.chemical in role), ())
    stays = ("sodium_bicarbonate",)
    inventory = [
        item
        for item in request.inventory
        if item.product.id == product_id
        or item.product.chemical not in role
        or item.product.chemical in stays
    ]
    return replace(request, inventory=tuple(inventory))


def choose(request: ChoiceRequest, strategy: Strategy) -> tuple[Product, ...]:
    """The products to plan with, in the shelf's order; the whole shelf where no choice meets the aims."""
    everything = tuple(item.product for item in request.inventory)
    reference = solve(
        request.readings, request.volume_l, traits=request.traits, aims=request.aims, inventory=everything
    )
    if not reference.doses:
        return everything
    chosen = _Programme(request, strategy, reference).solved()
    if chosen is None:
        return everything
    picked = tuple(product for product in everything if product in chosen)
    return picked if _as_good(request, picked, reference) else everything


def _as_good(request: ChoiceRequest, picked: Sequence[Product], reference: Solution) -> bool:
    """Whether the exact solution with the chosen products leaves nothing that the whole shelf would meet."""
    found = solve(
        request.readings, request.volume_l, traits=request.traits, aims=request.aims, inventory=picked
    )
    return {u.measure for u in found.unmet} <= {u.measure for u in reference.unmet}


class _Programme:
    """The rows and columns: per product an amount (share of its bound), used or not, bought or not."""

    def __init__(self, request: ChoiceRequest, strategy: Strategy, reference: Solution) -> None:
        self._request, self._weights, self._reference = request, _WEIGHTS[strategy], reference
        self._items = [item for item in request.inventory if _eligible(item.product, request)]
        self._rows: list[tuple[list[float], float, float]] = []  # coefficients per g, lowest, highest
        self._over: list[tuple[list[float], float]] = []  # what a product may bring before its band is full

    def solved(self) -> set[Product] | None:
        from scipy.optimize import Bounds, milp

        self._mass_rows()
        self._balance_rows()
        if not self._items or not self._rows:
            return None
        bounds = self._bounds()
        count, over = len(self._items), len(self._over)
        result = milp(
            self._costs(bounds),
            constraints=self._constraints(bounds),
            integrality=np.concatenate([np.zeros(count), np.ones(2 * count), np.zeros(over)]),
            bounds=Bounds(0, np.concatenate([np.ones(3 * count), np.full(over, np.inf)])),
        )
        if not result.success:
            return None
        return {
            item.product
            for item, used in zip(self._items, result.x[count : 2 * count], strict=True)
            if used > 0.5
        }

    def _per_g(self, measure: Measure, *, spent: bool = False) -> list[float]:
        volume = self._request.volume_l
        return [change_per_g(item.product, measure, volume, spent=spent) for item in self._items]

    def _mass_rows(self) -> None:
        left = {unmet.measure for unmet in self._reference.unmet}
        for measure in LINEAR_ORDER:
            now = self._request.readings.value(measure)
            aim = aim_for(measure, self._request.aims, now) if now is not None else None
            if now is not None and aim is not None and aim.value > now and measure not in left:
                highest = aim.value - now if measure is Measure.FREE_CHLORINE else np.inf
                self._rows.append((self._per_g(measure), aim.value - now, highest))
            band = self._request.aims.bands.get(measure)
            if now is not None and band is not None and band.high is not None:
                room = max(band.high, aim.value if aim else 0.0) - now
                if measure is not Measure.FREE_CHLORINE:
                    self._over.append((self._per_g(measure), max(0.0, room)))

    def _balance_rows(self) -> None:
        start = self._reference.start
        left = {unmet.measure for unmet in self._reference.unmet}
        if start is None or {Measure.PH, Measure.TOTAL_ALKALINITY} & left:
            return
        self._ph_rows(start)
        now = float(start.total_alkalinity_mg_l)
        aim = aim_for(Measure.TOTAL_ALKALINITY, self._request.aims, now)
        if aim is not None:
            change = aim.value - now
            self._rows.append((self._per_g(Measure.TOTAL_ALKALINITY, spent=True), change, change))

    def _ph_rows(self, start: State) -> None:
        """At its aim when pH has one, else inside its band: each is linear at that pH."""
        now = float(start.species.ph)
        aim, band = aim_for(Measure.PH, self._request.aims, now), self._request.aims.bands.get(Measure.PH)
        if aim is not None:
            row, excess = self._at_ph(start, aim.value)
            self._rows.append((row, -excess, -excess))
        elif band is not None and band.low is not None and band.high is not None:
            row, excess = self._at_ph(start, band.low)
            self._rows.append((row, -np.inf, -excess))
            row, excess = self._at_ph(start, band.high)
            self._rows.append((row, -excess, np.inf))

    def _at_ph(self, start: State, ph: float) -> tuple[list[float], float]:
        """Per gram, and now: the bases' alkalinity at this pH less that of the strong ions, mol/L."""
        now = _excess(start.totals, ph)
        volume, small = self._request.volume_l, 1e-3 * self._request.volume_l
        waters = [added(start.totals, item.product, small, volume, spent=True) for item in self._items]
        return [(_excess(water, ph) - now) / small for water in waters], now

    def _bounds(self) -> np.ndarray:
        """For each product the most that any one need could ask of it, g."""
        most = np.full(len(self._items), 1.0)
        for row, low, high in self._rows:
            need = max((abs(side) for side in (low, high) if np.isfinite(side)), default=0.0)
            for i, per_g in enumerate(row):
                if abs(per_g) > 0:
                    most[i] = max(most[i], ENOUGH_TIMES * need / abs(per_g))
        return np.asarray(np.minimum(most, 5.0 * self._request.volume_l))

    def _constraints(self, bounds: np.ndarray) -> "list[LinearConstraint]":
        from scipy.optimize import LinearConstraint

        count, over = len(self._items), len(self._over)
        nothing, no_slack = np.zeros(2 * count), np.zeros(over)
        found = []
        for row, low, high in self._rows:
            scaled = np.array(row) * bounds
            size = np.abs(scaled).max() or 1.0
            line = np.concatenate([scaled / size, nothing, no_slack])
            found.append(LinearConstraint(line, low / size, high / size))
        for n, (row, room) in enumerate(self._over):
            slack = no_slack.copy()
            slack[n] = -1.0
            found.append(
                LinearConstraint(np.concatenate([np.array(row) * bounds, nothing, slack]), -np.inf, room)
            )
        for i, item in enumerate(self._items):
            used = np.zeros(3 * count + over)
            used[i], used[count + i] = 1.0, -1.0
            found.append(LinearConstraint(used, -np.inf, 0.0))
            if item.stock_g is not None:
                bought = np.zeros(3 * count + over)
                bought[i], bought[2 * count + i] = 1.0, -1.0
                found.append(LinearConstraint(bought, -np.inf, max(0.0, item.stock_g) / bounds[i]))
        return found

    def _costs(self, bounds: np.ndarray) -> np.ndarray:
        w = self._weights
        dearest = max((item.price_per_g or 0.0 for item in self._items), default=0.0) or 0.01
        amount = [
            bounds[i]
            * (w.money * (item.price_per_g or dearest) + w.left_behind * self._left_per_g(item.product))
            for i, item in enumerate(self._items)
        ]
        used = [w.product + w.rank * self._rank(item.product) for item in self._items]
        bought = [w.buying] * len(self._items)
        return np.array(amount + used + bought + [OVER_ITS_BAND] * len(self._over))

    def _left_per_g(self, product: Product) -> float:
        volume = self._request.volume_l
        return sum(weight * change_per_g(product, m, volume) for m, weight in LEFT_BEHIND.items())

    def _rank(self, product: Product) -> float:
        if product.chemical in CHLORINE_CARRIERS:
            return float(CHLORINE_PREFERENCE[self._request.traits.chlorination].index(product.chemical))
        return BORAX_RANK if product.chemical == "borax" else 0.0


def _excess(totals: Totals, ph: float) -> float:
    return float(speciate(ph, totals, constants_at(totals.temperature_c)).alkalinity - totals.alkalinity)


def _quick(product: Product, request: ChoiceRequest) -> bool:
    quick = product.chemical in CHLORINE_CARRIERS and product.chemical != SLOW
    return quick and _eligible(product, request)


def why_not(product: Product, request: ChoiceRequest) -> Message | None:
    """Why a plan does not raise or lower anything with it here; None where it may.

    Tablets take days, so they raise no chlorine while something quick is at hand; borate is added on purpose
    only.
    """
    harm = unsuited(product.chemical, request.traits)
    if harm is not None:
        return harm
    if product.chemical in NEVER:
        return Message("It is poured for what it is named for only, by a plan of its own.")
    if product.chemical == SLOW and any(_quick(other.product, request) for other in request.inventory):
        return Message("Tablets dissolve over days: they hold a level, they do not raise it.")
    if product.chemical == "boric_acid" and Measure.BORATE not in request.aims.named:
        return Message("It brings borate, which is added on purpose only.")
    return None


def _eligible(product: Product, request: ChoiceRequest) -> bool:
    return why_not(product, request) is None
