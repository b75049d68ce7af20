"""When a pool was shocked: an addition of a shock's sheet, or one that raises chlorine as much.

Source: season-marks.
"""

from collections.abc import Iterator
from uuid import UUID

from kumpan.core.dosing.mass_balance import changes
from kumpan.core.forecast.conditions import product_of
from kumpan.core.journal import AdditionMade, Entry, PoolState
from kumpan.core.products.catalogue import CHLORINE_CARRIERS
from kumpan.core.quantities.readings import Measure

SOURCE = "season-marks"

SHOCK_MG_L = 7.0  # about what a pound of granules in 10 000 gal brings
SLOW = "trichlor"
OXIDIZER = "potassium_monopersulfate"


def chlorine_rise(body: AdditionMade, volume_l: float | None) -> float:
    """What an addition raises free chlorine by at once, mg/L; 0 for tablets and for what is no chlorine."""
    if not volume_l or body.chemical not in CHLORINE_CARRIERS or body.chemical == SLOW:
        return 0.0
    return changes(product_of(body), body.mass_g, volume_l).get(Measure.FREE_CHLORINE, 0.0)


def is_shock(body: AdditionMade, volume_l: float | None, shock_treatments: frozenset[UUID]) -> bool:
    """Whether an addition was a shock; a non-chlorine one counts."""
    rise = chlorine_rise(body, volume_l)
    of_a_treatment = body.treatment_id in shock_treatments and (rise > 0 or body.chemical == OXIDIZER)
    return rise >= SHOCK_MG_L or of_a_treatment or body.chemical == OXIDIZER


def shock_treatments(state: PoolState) -> frozenset[UUID]:
    """The ids of the treatments that were shocks; a mineral program's oxidizer is one."""
    return frozenset(
        treatment.id for treatment in state.treatments if treatment.body.plan in ("shock", "mineral")
    )


def shocks(state: PoolState) -> Iterator[Entry[AdditionMade]]:
    """The additions that were shocks, oldest first."""
    volume_l = state.basin.volume_l if state.basin is not None else None
    treatments = shock_treatments(state)
    for entry in state.additions:
        if is_shock(entry.body, volume_l, treatments):
            yield entry
