"""What people bring along: their own ranges, the choices where practitioners differ, what they measure
with.
"""

from dataclasses import dataclass

from kumpan.core.quantities.units import Units
from kumpan.core.records.containers import Container


@dataclass(frozen=True)
class DisplayOptions:
    """How a plan is told: units, the containers at hand, and the end of the pool where salt goes in."""

    units: Units = Units.US
    containers: tuple[Container, ...] = ()
    salt_end: str = "deep"
