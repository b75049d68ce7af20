"""How the doubt of the readings goes through to the doses.

Each reading is moved to both ends of its interval by itself and the whole water is solved again; the
deviations add up as independent ones do. The reading that contributes most is named. Source: method-doubt.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from math import sqrt

from kumpan.core.dosing.solver import MovedSolver
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.targets import TARGETABLE, Aims, aim_for
from kumpan.core.testing.methods import Measured

SOURCE = "method-doubt"

HARD_EDGES = 1.35  # so that two or three even spreads together are held in 95 of 100 cases [D]


@dataclass(frozen=True)
class DoseUncertainty:
    """The range of one product's whole dose in g, and the reading whose doubt moves it most."""

    low_g: float
    high_g: float
    most_from: Measure


def dose_uncertainties(
    readings: Readings,
    measured: Sequence[Measured],
    volume_l: float,
    traits: Traits,
    aims: Aims,
    inventory: Sequence[Product],
) -> dict[str, DoseUncertainty]:
    """Product id -> range of its dose. Products that the readings' ends do not move are left out."""
    fixed = _with_the_same_goals(readings, aims)
    solver = MovedSolver(readings, volume_l, traits=traits, aims=fixed, inventory=inventory)
    centre = solver.centre()
    below: dict[str, dict[Measure, float]] = {}
    above: dict[str, dict[Measure, float]] = {}
    for value in measured:
        middle = readings.value(value.measure)
        if value.measure not in TARGETABLE or middle is None or value.high <= value.low:
            continue
        for end in (value.low, value.high):
            masses = solver.moved(value.measure, max(0.0, middle + end - value.value))
            for product_id, mass in centre.items():
                change = masses.get(product_id, 0.0) - mass
                side = below if change < 0 else above
                row = side.setdefault(product_id, {})
                row[value.measure] = max(row.get(value.measure, 0.0), abs(change))
    return {
        product_id: _combined(mass, below.get(product_id, {}), above.get(product_id, {}))
        for product_id, mass in centre.items()
        if below.get(product_id) or above.get(product_id)
    }


def _with_the_same_goals(readings: Readings, aims: Aims) -> Aims:
    """The goals as they are now, named: a reading whose end lies in range still goes to the same aim."""
    goals = dict(aims.named)
    for measure in TARGETABLE:
        value = readings.value(measure)
        aim = aim_for(measure, aims, value) if value is not None else None
        if aim is not None:
            goals[measure] = aim.value
    return Aims(aims.bands, goals, aims.held)


def _combined(mass: float, below: Mapping[Measure, float], above: Mapping[Measure, float]) -> DoseUncertainty:
    both = {m: max(below.get(m, 0.0), above.get(m, 0.0)) for m in (*below, *above)}
    return DoseUncertainty(
        max(0.0, mass - _together(below)), mass + _together(above), max(both, key=lambda m: both[m])
    )


def _together(by_measure: Mapping[Measure, float]) -> float:
    """The ends are hard edges, not standard deviations: added as independent ones they hold too little."""
    return min(sum(by_measure.values()), HARD_EDGES * sqrt(sum(x * x for x in by_measure.values())))
