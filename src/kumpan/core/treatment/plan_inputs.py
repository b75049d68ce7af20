"""What a plan is made from: the water and its doubt, the pool, what is aimed at, what is at hand.

Source: method-doubt.
"""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass

from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.targets import Aims
from kumpan.core.records.display import DisplayOptions
from kumpan.core.testing.methods import Measured
from kumpan.core.treatment.not_now import NotNow
from kumpan.core.treatment.plan import AS_SOLD

SOURCE = "method-doubt"

M = Measure
# What stabilizer and alkalinity may be where nobody tested them, mg/L. Origin: laws of advice D.4.
PRIORS: Mapping[Measure, tuple[float, float]] = {
    M.CYANURIC_ACID: (0.0, 100.0),
    M.TOTAL_ALKALINITY: (60.0, 180.0),
}


@dataclass(frozen=True, kw_only=True)
class PlanInputs:
    """The water, its doubt, the pool, what is aimed at and what is at hand.

    `measured` are the readings with their doubt; `least_mg_l` the free chlorine that swimming needs;
    `poured` what went in lately, as (minutes ago, chemical); `bleached` a zero of chlorine that may be a
    bleached test; `raise_ph_by` the owner's choice; `waiting` what may not go in now;
    `untested` what something moved since its test; `stabilizer_prior`
    what stabilizer may be where it is not known (mg/L).
    """

    readings: Readings
    volume_l: float
    traits: Traits
    aims: Aims
    inventory: Sequence[Product]
    measured: tuple[Measured, ...] = ()
    display: DisplayOptions = AS_SOLD
    fill: Readings | None = None
    least_mg_l: float = 1.0
    poured: tuple[tuple[int, str], ...] = ()
    bleached: bool = False
    raise_ph_by: str = "sum"
    waiting: tuple[NotNow, ...] = ()
    untested: frozenset[Measure] = frozenset()
    stabilizer_prior: tuple[float, float] = PRIORS[M.CYANURIC_ACID]
