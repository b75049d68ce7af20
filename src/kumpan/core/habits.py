"""What people bring along: their own ranges, the choices where practitioners differ, what they measure with."""

from dataclasses import dataclass
from enum import StrEnum

from kumpan.core.water import Measure


@dataclass(frozen=True)
class OwnRange:
    """A range of one's own, in the measure's inner unit; a dose goes to `aim`. None means no such side."""

    measure: Measure
    low: float | None
    high: float | None
    aim: float | None


@dataclass(frozen=True)
class Chosen:
    """The option taken for one question on which practitioners differ, by their keys."""

    question: str
    option: str


class ContainerKind(StrEnum):
    CUP = "cup"
    JUG = "jug"
    SCOOP = "scoop"
    SCALE = "scale"


@dataclass(frozen=True)
class Container:
    """Something to measure with. A cup or jug holds `volume_ml` of any liquid and is read in `parts`.

    A scoop holds `mass_g` of one product, weighed once (a volume of powder weighs what it likes). A scale
    shows steps of `mass_g`.
    """

    kind: ContainerKind
    name: str
    volume_ml: float | None = None
    mass_g: float | None = None
    product_id: str | None = None
    parts: int = 1


@dataclass(frozen=True)
class Telling:
    """How a plan is told: units, the containers at hand, and the end of the pool where salt goes in."""

    metric: bool = False
    containers: tuple[Container, ...] = ()
    salt_end: str = "deep"
