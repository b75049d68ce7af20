"""What is told about a rescue over HTTP."""

from typing import Annotated

from pydantic import Field

from kumpan.core.journal import DeadAlgaeStrategy, PhStrategy, RescueOutcome, RescueSet, Severity
from kumpan.web.requests.base import AsTyped
from kumpan.web.requests.journal import ProductId
from kumpan.web.requests.pools import StampIn

Limit = Annotated[float, Field(gt=0, le=5000, allow_inf_nan=False), AsTyped]


class RescueIn(StampIn):
    """How bad it is, the schools taken, and over what a hidden pool is better drained (mg/L)."""

    severity: Severity
    by_ratio: bool = True
    dead_way: DeadAlgaeStrategy | None = None
    ph_way: PhStrategy | None = None
    drain_over_stabiliser: Limit = 100.0
    drain_over_calcium: Limit = 600.0
    use: ProductId | None = None

    def to_core(self) -> RescueSet:
        return RescueSet(
            severity=self.severity,
            by_ratio=self.by_ratio,
            dead_algae_strategy=self.dead_way,
            ph_strategy=self.ph_way,
            drain_over_stabilizer=self.drain_over_stabiliser,
            drain_over_calcium=self.drain_over_calcium,
            use=self.use,
        )


class RescueEndIn(StampIn):
    outcome: RescueOutcome
    note: Annotated[str, Field(max_length=2000)] = ""
