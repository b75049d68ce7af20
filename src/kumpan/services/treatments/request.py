"""Which plan is meant: what the test asks for, or one of those that a person asks for."""

from collections.abc import Mapping
from dataclasses import dataclass, field
from enum import StrEnum

from kumpan.core.dosing.product_choice import Strategy
from kumpan.core.quantities.readings import Measure
from kumpan.core.treatment.special.incident import Incident
from kumpan.core.treatment.special.shock import ShockReason, ShockStrategy


class PlanKind(StrEnum):
    """The plans that can be asked for."""

    BALANCE = "balance"
    SHOCK = "shock"
    INCIDENT = "incident"
    DRAIN = "drain"
    LOWER_CHLORINE = "lower_chlorine"
    BORATE = "borate"
    MINERAL = "mineral"
    ADVICE = "advice"
    RESCUE = "rescue"
    DRAIN_DAY = "drain_day"
    LABEL_DOSE = "label_dose"


class BorateBy(StrEnum):
    """What borate is brought with."""

    BORIC_ACID = "boric_acid"
    BORAX = "borax"


@dataclass(frozen=True, kw_only=True)
class PlanRequest:
    """The kind of plan, and what each kind asks besides.

    `way` which products for a balance, `use` one of the shelf in place of its like,
    or the product that is dosed by its label, its first dose or `upkeep`; `shock` None means the
    pool's own habit; `measure`, `wanted` (mg/L) what new water shall lower, None means what is furthest
    over; `today` with the chlorine reducer; `advice` as typed; `targets` what the user aims at, in place of
    the rules' aims.
    """

    plan: PlanKind = PlanKind.BALANCE
    strategy: Strategy = Strategy.USUAL
    use: str | None = None
    shock: ShockStrategy | None = None
    reason: ShockReason = ShockReason.ROUTINE
    incident: Incident = Incident.FORMED_STOOL
    today: bool = False
    borate: BorateBy = BorateBy.BORIC_ACID
    measure: Measure | None = None
    wanted: float | None = None
    advice: str = ""
    upkeep: bool = False
    targets: Mapping[Measure, float] = field(default_factory=dict)
