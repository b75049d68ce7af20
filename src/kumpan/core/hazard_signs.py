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


class Sign(StrEnum):
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
class HazardSign:
    """A pictogram with its words."""

    sign: Sign
    text: Message


_ONE = {
    sign: HazardSign(sign, text)
    for sign, text in (
        (Sign.GOGGLES, Message("goggles")),
        (Sign.GLOVES, Message("gloves")),
        (Sign.UPWIND, Message("upwind")),
        (Sign.NEVER_MIX, Message("never mix")),
        (Sign.NOT_SKIMMER, Message("not in the skimmer")),
        (Sign.INTO_WATER, Message("into water, never water onto it")),
        (Sign.NOBODY_IN, Message("nobody in")),
        (Sign.DUST, Message("no dust in eyes and lungs")),
        (Sign.SLOWLY, Message("a little at a time")),
        (Sign.PUMP, Message("pump off, gauge at zero")),
        (Sign.POWER_OFF, Message("breaker off")),
        (Sign.LABEL, Message("label first")),
    )
}
_G, _H = Sign.GOGGLES, Sign.GLOVES
# Hazard -> what of its cautions is drawn, in the order of its full words.
_SIGNS: dict[Hazard, tuple[Sign, ...]] = {
    Hazard.NONE:              (),
    Hazard.OPEN_WATER:        (),
    Hazard.SOILED_WATER:      (_H, Sign.NOBODY_IN),
    Hazard.POWDER:            (Sign.DUST, Sign.NOT_SKIMMER),
    Hazard.ACID:              (_G, _H, Sign.UPWIND, Sign.INTO_WATER, Sign.NEVER_MIX),
    Hazard.ALKALI:            (_G, _H, Sign.INTO_WATER, Sign.SLOWLY),
    Hazard.CAUSTIC:           (_G, _H, Sign.INTO_WATER, Sign.SLOWLY),
    Hazard.BORATE:            (_G, _H, Sign.LABEL),
    Hazard.OXIDIZER_LIQUID:   (_G, _H, Sign.UPWIND, Sign.NEVER_MIX, Sign.NOT_SKIMMER),
    Hazard.OXIDIZER_GRANULES: (_G, _H, Sign.INTO_WATER, Sign.NEVER_MIX, Sign.NOT_SKIMMER),
    Hazard.TABLETS:           (_H, Sign.PUMP, Sign.NEVER_MIX, Sign.NOT_SKIMMER),
    Hazard.HEAT_OF_SOLUTION:  (_G, _H, Sign.INTO_WATER, Sign.SLOWLY),
    Hazard.LABEL:             (Sign.LABEL, Sign.NEVER_MIX, Sign.NOT_SKIMMER),
    Hazard.ELECTRICITY:       (Sign.POWER_OFF,),
    Hazard.PRESSURE:          (Sign.PUMP,),
    Hazard.VALVE:             (Sign.PUMP, Sign.POWER_OFF),
    Hazard.CELL:              (Sign.POWER_OFF, Sign.NOBODY_IN),
    Hazard.CELL_ACID:         (_G, _H, Sign.UPWIND, Sign.INTO_WATER, Sign.NEVER_MIX),
    Hazard.SILICA:            (Sign.DUST,),
    Hazard.SUCTION:           (Sign.NOBODY_IN,),
    Hazard.SHELL:             (Sign.NOBODY_IN,),
    Hazard.SHELL_WASH:        (_G, _H, Sign.UPWIND, Sign.NEVER_MIX),
}  # fmt: skip
SIGNS: Mapping[Hazard, tuple[HazardSign, ...]] = MappingProxyType(
    {hazard: tuple(_ONE[sign] for sign in signs) for hazard, signs in _SIGNS.items()}
)


def signs_for(hazard: Hazard) -> tuple[HazardSign, ...]:
    """The short line of a hazard."""
    return SIGNS[hazard]
