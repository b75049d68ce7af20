"""Cautions in short: a pictogram and a word or two for each, where the full words stood before.

A short line never stands alone: it opens to the full cautions, and the first step with a product tells them
in full. Sources: cautions.
"""

from collections.abc import Mapping
from dataclasses import dataclass
from enum import StrEnum
from types import MappingProxyType

from kumpan.core.hazards import Hazard
from kumpan.core.messages import Message

SOURCES_USED = ("cautions",)


class Pictogram(StrEnum):
    """What is drawn; the pictograms are of one family with the screens."""

    GOGGLES = "goggles"
    GLOVES = "gloves"
    UPWIND = "wind"
    NEVER_MIX = "apart"
    NOT_SKIMMER = "skimmer"
    INTO_WATER = "into_water"
    NOBODY_IN = "out"
    DUST = "dust"
    SLOWLY = "slowly"
    PUMP = "pump"
    POWER_OFF = "power"
    LABEL = "label"


@dataclass(frozen=True)
class HazardPictogram:
    """A pictogram with its words."""

    pictogram: Pictogram
    text: Message


_ONE = {
    sign: HazardPictogram(sign, text)
    for sign, text in (
        (Pictogram.GOGGLES, Message("goggles")),
        (Pictogram.GLOVES, Message("gloves")),
        (Pictogram.UPWIND, Message("upwind")),
        (Pictogram.NEVER_MIX, Message("never mix")),
        (Pictogram.NOT_SKIMMER, Message("not in the skimmer")),
        (Pictogram.INTO_WATER, Message("into water, never water onto it")),
        (Pictogram.NOBODY_IN, Message("nobody in")),
        (Pictogram.DUST, Message("no dust in eyes and lungs")),
        (Pictogram.SLOWLY, Message("a little at a time")),
        (Pictogram.PUMP, Message("pump off, gauge at zero")),
        (Pictogram.POWER_OFF, Message("breaker off")),
        (Pictogram.LABEL, Message("label first")),
    )
}
_G, _H = Pictogram.GOGGLES, Pictogram.GLOVES
# Hazard -> what of its cautions is drawn, in the order of its full words.
_PICTOGRAMS: dict[Hazard, tuple[Pictogram, ...]] = {
    Hazard.NONE:              (),
    Hazard.OPEN_WATER:        (),
    Hazard.SOILED_WATER:      (_H, Pictogram.NOBODY_IN),
    Hazard.POWDER:            (Pictogram.DUST, Pictogram.NOT_SKIMMER),
    Hazard.ACID:              (_G, _H, Pictogram.UPWIND, Pictogram.INTO_WATER, Pictogram.NEVER_MIX),
    Hazard.ALKALI:            (_G, _H, Pictogram.INTO_WATER, Pictogram.SLOWLY),
    Hazard.CAUSTIC:           (_G, _H, Pictogram.INTO_WATER, Pictogram.SLOWLY),
    Hazard.BORATE:            (_G, _H, Pictogram.LABEL),
    Hazard.OXIDIZER_LIQUID:   (_G, _H, Pictogram.UPWIND, Pictogram.NEVER_MIX, Pictogram.NOT_SKIMMER),
    Hazard.OXIDIZER_GRANULES: (_G, _H, Pictogram.INTO_WATER, Pictogram.NEVER_MIX, Pictogram.NOT_SKIMMER),
    Hazard.TABLETS:           (_H, Pictogram.PUMP, Pictogram.NEVER_MIX, Pictogram.NOT_SKIMMER),
    Hazard.HEAT_OF_SOLUTION:  (_G, _H, Pictogram.INTO_WATER, Pictogram.SLOWLY),
    Hazard.LABEL:             (Pictogram.LABEL, Pictogram.NEVER_MIX, Pictogram.NOT_SKIMMER),
    Hazard.ELECTRICITY:       (Pictogram.POWER_OFF,),
    Hazard.PRESSURE:          (Pictogram.PUMP,),
    Hazard.VALVE:             (Pictogram.PUMP, Pictogram.POWER_OFF),
    Hazard.CELL:              (Pictogram.POWER_OFF, Pictogram.NOBODY_IN),
    Hazard.CELL_ACID:         (_G, _H, Pictogram.UPWIND, Pictogram.INTO_WATER, Pictogram.NEVER_MIX),
    Hazard.SILICA:            (Pictogram.DUST,),
    Hazard.SUCTION:           (Pictogram.NOBODY_IN,),
    Hazard.SHELL:             (Pictogram.NOBODY_IN,),
    Hazard.SHELL_WASH:        (_G, _H, Pictogram.UPWIND, Pictogram.NEVER_MIX),
}  # fmt: skip
PICTOGRAMS: Mapping[Hazard, tuple[HazardPictogram, ...]] = MappingProxyType(
    {hazard: tuple(_ONE[sign] for sign in signs) for hazard, signs in _PICTOGRAMS.items()}
)


def pictograms_for(hazard: Hazard) -> tuple[HazardPictogram, ...]:
    """The short line of a hazard."""
    return PICTOGRAMS[hazard]
