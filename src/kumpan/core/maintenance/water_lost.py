"""How much water a piece of care sends to waste: by what was noted of it, else by an estimate that is said.

Source: water-lost.
"""

from collections.abc import Mapping
from dataclasses import dataclass

from kumpan.core.journal import PlantSet
from kumpan.core.maintenance.procedures import Asks, Procedure, steps_for
from kumpan.core.messages import NOTHING, Message
from kumpan.core.pool.equipment import Traits

SOURCE = "water-lost"

# What a backwash is laid out for, L/min through a square meter of filter (15 gal/min through a square foot),
# and the pump that is usual where nothing is known: the whole pool in eight hours. Common practice.
BACKWASH_L_MIN_M2 = 611.0
TURNOVER_MIN = 8 * 60.0


@dataclass(frozen=True)
class WaterLost:
    """Liters that went, and what they are reckoned by where that was not noted."""

    volume_l: float
    estimated_by: Message = NOTHING


def water_lost(
    procedure: Procedure,
    traits: Traits,
    plant: PlantSet,
    *,
    pool_l: float | None,
    small: bool,
    values: Mapping[str, float],
) -> WaterLost | None:
    """None for care that loses none, or where nothing tells how much. `values` as they were taken in, inner
    units by name; `pool_l` None where the volume is unknown.
    """
    if not procedure.wastes_water:
        return None
    seconds, usual_time = _seconds(procedure, traits, small=small, values=values)
    flow, by = _flow(plant, pool_l, values)
    if flow is None or seconds <= 0:
        return None
    if usual_time and not by.template:
        by = Message("the usual time")
    return WaterLost(flow * seconds / 60.0, by)


def _seconds(
    procedure: Procedure, traits: Traits, *, small: bool, values: Mapping[str, float]
) -> tuple[float, bool]:
    """As noted; else as the procedure's own timers say, which is then true."""
    noted = values.get(Asks.WASH_S, 0.0) + values.get(Asks.RINSE_S, 0.0)
    if noted > 0 or {Asks.WASH_S, Asks.RINSE_S} & set(values):
        return noted, False
    timers = [
        step.timer_s
        for step in steps_for(procedure, traits, small=small)
        if step.timer_s is not None and {Asks.WASH_S, Asks.RINSE_S} & set(step.asks)
    ]
    return sum((low + high) / 2 for low, high in timers), True


def _flow(plant: PlantSet, pool_l: float | None, values: Mapping[str, float]) -> tuple[float | None, Message]:
    noted = values.get(Asks.FLOW_L_MIN, plant.pump_flow_l_min or 0.0)
    if noted > 0:
        return noted, NOTHING
    if plant.filter_area_m2:
        return BACKWASH_L_MIN_M2 * plant.filter_area_m2, Message("the filter's size")
    if pool_l:
        return pool_l / TURNOVER_MIN, Message("a usual pump for this pool")
    return None, NOTHING
