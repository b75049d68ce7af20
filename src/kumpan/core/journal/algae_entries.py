"""A rescue: how bad it was found, the ways chosen, and how it ended."""

from dataclasses import dataclass
from enum import StrEnum


class Severity(StrEnum):
    """How bad, as it is seen; mustard and black by what they are."""

    LIGHT = "light"
    GREEN = "green"
    OPAQUE = "opaque"
    MUSTARD = "mustard"
    BLACK = "black"


class DeadAlgaeStrategy(StrEnum):
    """Two schools for what has died: stirred up for the filter, or settled and vacuumed away."""

    STIR = "stir"
    SETTLE = "settle"


class PhStrategy(StrEnum):
    """Two schools of pH before a shock: lowered so that chlorine is stronger, or raised before an acid
    booster.
    """

    LOWERED = "lowered"
    RAISED = "raised"


class RescueOutcome(StrEnum):
    """How a rescue ended."""

    CLEAR = "clear"
    DRAINED = "drained"
    STOPPED = "stopped"


@dataclass(frozen=True, kw_only=True)
class RescueSet:
    """A rescue as it is set from now on; the first one begins it.

    `by_ratio` shocks to a share of stabilizer instead of to 10. None takes what fits the pool. Over
    `drain_over_stabilizer`, `drain_over_calcium` (mg/L) a pool whose first step cannot be seen is better
    drained. `use`: the id of the product that the person shocks with; None leaves it to the plan.
    """

    severity: Severity
    by_ratio: bool = True
    dead_algae_strategy: DeadAlgaeStrategy | None = None
    ph_strategy: PhStrategy | None = None
    drain_over_stabilizer: float = 100.0
    drain_over_calcium: float = 600.0
    use: str | None = None


@dataclass(frozen=True)
class RescueEnded:
    """A rescue was ended, and how."""

    outcome: RescueOutcome
    note: str = ""
