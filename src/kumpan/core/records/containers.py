"""What people measure with: cups, jugs, scoops and scales."""

from dataclasses import dataclass
from enum import StrEnum


class ContainerKind(StrEnum):
    """What an amount is measured with."""

    CUP = "cup"
    JUG = "jug"
    SCOOP = "scoop"
    SCALE = "scale"


@dataclass(frozen=True, kw_only=True)
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
