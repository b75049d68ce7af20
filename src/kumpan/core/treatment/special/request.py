"""What every special plan is asked with."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, tzinfo

from kumpan.core.messages import Message
from kumpan.core.pool.equipment import Traits
from kumpan.core.products.product import Product
from kumpan.core.quantities.readings import Measure, Readings
from kumpan.core.ranges.profiles import Band
from kumpan.core.records.display import DisplayOptions
from kumpan.core.records.unmet import Unmet
from kumpan.core.treatment.plan import AS_SOLD, Plan


@dataclass(frozen=True, kw_only=True)
class SpecialRequest:
    """The pool, its water, and what may be poured; `swim_limit_mg_l` is what too much chlorine means, and
    `poured` what went in lately, as (minutes ago, chemical).
    """

    readings: Readings
    volume_l: float
    traits: Traits
    bands: dict[Measure, Band]
    inventory: Sequence[Product]
    swim_limit_mg_l: float
    now: datetime
    zone: tzinfo
    display: DisplayOptions = AS_SOLD
    poured: tuple[tuple[int, str], ...] = ()


def nothing_to_do(request: SpecialRequest, code: str, reason: Message) -> Plan:
    """A plan without steps, and why."""
    return Plan((), request.readings, (Unmet(Measure.FREE_CHLORINE, code, reason),), ())
