"""The mixing helper for a cell's acid bath: water and acid for a container, true to the strength.

Four or five parts of water to one of 31.45 % acid make 7.1 or 5.9 % by weight; acid of another strength is
reckoned to that, not mixed by the ratio. Source: cell-care.
"""

from dataclasses import dataclass

from kumpan.core.errors import InvalidInput
from kumpan.core.messages import Message
from kumpan.core.products.catalogue import CATALOGUE, density_g_per_ml
from kumpan.core.quantity import Number

SOURCE = "cell-care"

USUAL_ACID_PERCENT = 31.45
WATER_G_PER_ML = 0.998
RATIOS = (4, 5)
GENTLER = 5


@dataclass(frozen=True)
class AcidBath:
    """What goes into the container, mL: the water first; and the strength that results, percent by weight."""

    water_ml: float
    acid_ml: float
    strength_percent: float


def target_percent(ratio: int) -> float:
    """Strength by weight of so many parts of water to one of the usual acid, by volume."""
    density = density_g_per_ml(CATALOGUE["hydrochloric_acid"], USUAL_ACID_PERCENT)
    return USUAL_ACID_PERCENT * density / (density + ratio * WATER_G_PER_ML)


def acid_bath(
    container_ml: float, acid_percent: float = USUAL_ACID_PERCENT, ratio: int = GENTLER
) -> AcidBath:
    """Water and acid that fill the container. Raises InvalidInput for acid too weak, or an unknown ratio."""
    if ratio not in RATIOS:
        raise InvalidInput(
            Message("The ratio is 4 or 5 parts of water to one; the cell's manual decides."), "ratio"
        )
    if container_ml <= 0:
        raise InvalidInput(Message("Say how much the container holds."), "container")
    wanted = target_percent(ratio)
    if not wanted <= acid_percent <= 40:
        raise InvalidInput(
            Message(
                "Acid of {acid_percent} % cannot make {wanted} %; use muriatic acid of 14.5 to 31.45 %.",
                acid_percent=Number(acid_percent, figures=4),
                wanted=Number(wanted, digits=1),
            ),
            "acid_percent",
        )
    density = density_g_per_ml(CATALOGUE["hydrochloric_acid"], acid_percent)
    # Shares by weight, then by volume: volumes are taken to add up, within a percent at these strengths.
    acid_g = wanted / acid_percent
    acid_ml, water_ml = acid_g / density, (1 - acid_g) / WATER_G_PER_ML
    scale = container_ml / (acid_ml + water_ml)
    return AcidBath(water_ml * scale, acid_ml * scale, wanted)
