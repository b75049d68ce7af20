"""From readings to a run sheet: what to add, in which order, with which waits, tests and cautions.

The amounts come from one solution of the whole water (`solve`), then are split by the limits,
ordered, kept apart and rounded. Nothing here knows the clock: steps carry minutes from the start.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from math import ceil

from kumpan.core.dosing.additions import Product
from kumpan.core.findings import Finding
from kumpan.core.planning.order_and_waits import (
    ADDITION_LIMITS,
    DAYS_BETWEEN_SPLITS,
    FIRST_FILL_SALT_MG_L,
    LONGEST_WAIT_IN_A_DAY_MIN,
    order_of,
    separation,
)
from kumpan.core.planning.solve import Dose, Unmet, solve
from kumpan.core.planning.targets import Aims
from kumpan.core.planning.timeline import Part, lay_out
from kumpan.core.pool.equipment import Traits
from kumpan.core.run_sheet import Step
from kumpan.core.water import Measure, Readings


@dataclass(frozen=True)
class Plan:
    """A run sheet not yet started: steps in order, the water after it, what it cannot do."""

    steps: tuple[Step, ...]
    predicted: Readings
    unmet: tuple[Unmet, ...]
    notes: tuple[Finding, ...]


def plan(
    readings: Readings,
    volume_l: float,
    traits: Traits,
    aims: Aims,
    shelf: Sequence[Product],
    *,
    metric: bool = False,
) -> Plan:
    """The whole plan for one water. `shelf` is what may be poured; amounts are in g and mL."""
    solution = solve(readings, volume_l, traits, aims, shelf)
    parts = spread_over_days(solution.doses, readings)
    steps = lay_out(parts, volume_l, traits, readings, metric=metric)
    return Plan(steps, solution.predicted, solution.unmet, solution.notes)


def spread_over_days(doses: Sequence[Dose], readings: Readings) -> list[Part]:
    """Split what exceeds the limit of one addition, and give what must stay far apart days of its own.

    Urgent chlorine keeps the first day; what it must keep far from gives way.
    """
    placed: list[Part] = []
    for dose in sorted(doses, key=lambda d: (not d.urgent, order_of(d.product.chemical))):
        count = _count(dose, readings)
        day = 1
        for _ in range(count):
            part = Part(dose, dose.mass_g / count, _free_day(dose, placed, day))
            placed.append(part)
            day = part.day + DAYS_BETWEEN_SPLITS.get(dose.measure, 1)
    return sorted(placed, key=lambda part: (part.day, order_of(part.dose.product.chemical)))


def _count(dose: Dose, readings: Readings) -> int:
    limit = ADDITION_LIMITS.get(dose.measure)
    first_fill = dose.measure is Measure.SALT and (readings.salt or 0.0) < FIRST_FILL_SALT_MG_L
    if limit is None or first_fill:
        return 1
    return max(1, ceil(dose.change / limit - 1e-9))


def _free_day(dose: Dose, placed: Sequence[Part], day: int) -> int:
    while any(_too_close(dose, other) for other in placed if other.day == day):
        day += 1
    return day


def _too_close(dose: Dose, other: Part) -> bool:
    minutes = separation(dose.product.chemical, other.dose.product.chemical).minutes
    return minutes > LONGEST_WAIT_IN_A_DAY_MIN
