"""The amounts: one solution for the whole water with the products at hand, side effects included.

By mass balance: chlorine first, since its carriers bring calcium or stabiliser; then what is left to
add of each measure. pH needs the equilibrium and is marked `not_yet`. Source: mass-balance.
"""

from collections.abc import Sequence
from dataclasses import dataclass

from kumpan.core.dosing.additions import Product
from kumpan.core.dosing.mass_balance import added_to, change_per_g, changes
from kumpan.core.findings import Finding, not_yet
from kumpan.core.planning.choice import raiser
from kumpan.core.planning.lanes import NAMES
from kumpan.core.planning.targets import Aim, Aims, aim_for
from kumpan.core.pool.equipment import Traits
from kumpan.core.water import Measure, Readings

SOURCE = "mass-balance"

# Chlorine carriers move calcium and stabiliser, calcium chloride moves salt: so in this order.
SOLVE_ORDER: tuple[Measure, ...] = (
    Measure.FREE_CHLORINE,
    Measure.BORATE,
    Measure.TOTAL_ALKALINITY,
    Measure.CALCIUM_HARDNESS,
    Measure.CYANURIC_ACID,
    Measure.SALT,
)


@dataclass(frozen=True)
class Dose:
    """One product's whole amount, the measure it is for and by how much it moves it (mg/L)."""

    product: Product
    mass_g: float
    measure: Measure
    change: float
    why: str
    urgent: bool = False
    doubt_share: float = 0.0


@dataclass(frozen=True)
class Unmet:
    """A measure that this plan leaves where it is, with a stable code and the reason."""

    measure: Measure
    code: str
    reason: str


@dataclass(frozen=True)
class Solution:
    doses: tuple[Dose, ...]
    predicted: Readings
    unmet: tuple[Unmet, ...]
    notes: tuple[Finding, ...]


_LOWERING: dict[Measure, tuple[str, str]] = {
    Measure.FREE_CHLORINE: (
        "wait",
        "Free chlorine is high: stop the feeder or cell, uncover, and let sun and time work.",
    ),
    Measure.TOTAL_ALKALINITY: (
        "not_yet",
        "Lowering alkalinity goes with pH, which this version does not dose yet.",
    ),
    Measure.CALCIUM_HARDNESS: ("dilution", "Calcium comes down only by replacing water."),
    Measure.CYANURIC_ACID: ("dilution", "Stabiliser comes down only by replacing water."),
    Measure.SALT: ("dilution", "Salt comes down only by replacing water."),
    Measure.BORATE: ("dilution", "Borate comes down only by replacing water."),
}


def solve(
    readings: Readings, volume_l: float, traits: Traits, aims: Aims, shelf: Sequence[Product]
) -> Solution:
    """Doses that bring the water to its aims, the water after them, and what stays unmet and why."""
    doses: list[Dose] = []
    unmet: list[Unmet] = _not_measured(readings, aims)
    notes: list[Finding] = []
    water = readings
    for measure in SOLVE_ORDER:
        before = readings.value(measure)
        if before is None:
            continue
        aim = aim_for(measure, aims, before)
        now = water.value(measure) or 0.0
        if aim is None:
            continue
        if aim.value <= now:
            if aim.value < before:
                unmet.append(_cannot_lower(measure))
            continue
        product = raiser(measure, traits, shelf, stabiliser_full=_stabiliser_full(readings, aims))
        if product is None:
            unmet.append(
                Unmet(measure, "no_product", f"Nothing on the shelf raises {NAMES[measure].lower()}.")
            )
            continue
        mass = (aim.value - now) / change_per_g(product, measure, volume_l)
        doses.append(_dose(product, mass, aim, now, before, aims))
        water = added_to(water, changes(product, mass, volume_l))
    if readings.ph is not None and aim_for(Measure.PH, aims, readings.ph) is not None:
        unmet.append(Unmet(Measure.PH, "not_yet", "pH dosing is not computed by this version."))
        notes.append(not_yet("The pH dose", Measure.PH))
    return Solution(tuple(doses), water.with_value(Measure.PH, None), tuple(unmet), tuple(notes))


def _not_measured(readings: Readings, aims: Aims) -> list[Unmet]:
    wanted = [m for m in (*SOLVE_ORDER, Measure.PH) if m in aims.named or m in aims.bands]
    return [
        Unmet(measure, "not_measured", f"{NAMES[measure]} is not measured.")
        for measure in wanted
        if readings.value(measure) is None
    ]


def _cannot_lower(measure: Measure) -> Unmet:
    code, reason = _LOWERING[measure]
    return Unmet(measure, code, reason)


def _stabiliser_full(readings: Readings, aims: Aims) -> bool:
    band = aims.bands.get(Measure.CYANURIC_ACID)
    if band is None or band.high is None or readings.cyanuric_acid is None:
        return False
    return readings.cyanuric_acid >= (band.aim or band.high)


def _dose(product: Product, mass_g: float, aim: Aim, now: float, before: float, aims: Aims) -> Dose:
    band = aims.bands.get(aim.measure)
    below = band is not None and band.low is not None and before < band.low
    name = NAMES[aim.measure]
    goal = "your target" if aim.named else "the school's aim"
    return Dose(
        product,
        mass_g,
        aim.measure,
        aim.value - now,
        f"{name} from {before:.4g} to {aim.value:.4g}, {goal}.",
        urgent=below and aim.measure is Measure.FREE_CHLORINE,
    )
