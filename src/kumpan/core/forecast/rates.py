"""What eats chlorine, and how fast: the figures before a pool's own tests correct them.

Each row of the trade with its origin: photolysis, dark-demand, bathers, bloom-demand, cell-rates,
tablet-release.
"""

from functools import lru_cache

import numpy as np

from kumpan.core.chemistry import molar
from kumpan.core.chemistry.constants import constants_at
from kumpan.core.chemistry.equilibrium import NoCarbonate, known_from, solve_readings
from kumpan.core.forecast.sun import Array
from kumpan.core.journal import Clarity
from kumpan.core.quantities.readings import Readings

SOURCES_USED = (
    "photolysis", "dark-demand", "bathers", "bloom-demand", "cell-rates", "tablet-release",
)  # fmt: skip

# Photolysis at the surface under a high sun, per hour: half-lives of 60 min (HOCl) and 12 min (OCl-).
HOCL_PER_HOUR, OCL_PER_HOUR = 0.69, 3.47
# Chlorine bound to stabilizer is nearly blind to the sun.
BOUND_PER_HOUR = 0.10
# Depth, walls, shade and average cloud leave this share of the surface's strength.
DEPTH_AND_SKY_SHARE = 0.5
COVER_LETS_THROUGH = 0.1

# Dark loss: what swims and settles in the water, mg/L a day at 25 C, and a slow loss of the chlorine itself.
ORGANICS_MG_L_DAY = 0.5
DARK_PER_DAY = 0.05
Q10 = 2.0
REFERENCE_C = 25.0
INDOOR_SHARE_OF_ORGANICS = 0.6

BATHER_G_PER_HOUR = 4.0
BLOOM_MG_L_DAY = {
    Clarity.CLEAR: 0.0,
    Clarity.HAZY: 1.0,
    Clarity.CLOUDY: 4.0,
    Clarity.DRAIN_HIDDEN: 8.0,
    Clarity.GREEN: 10.0,
}

CELL_OFF_BELOW_C = 16.0
TABLET_DAYS = 7.0


def warmth(temperature_c: Array) -> Array:
    """How much faster dark loss runs than at 25 C: doubled by every 10 C."""
    return np.asarray(Q10 ** ((temperature_c - REFERENCE_C) / 10.0), dtype=np.float64)


@lru_cache(maxsize=4096)
def sun_loss_per_hour(free_chlorine: float, cyanuric_acid: float, ph: float) -> float:
    """First-order loss (1/h) of free chlorine under an overhead sun, by what stabilizer leaves unbound.

    The shares come from the equilibrium at 25 C and alkalinity 100; call it with rounded values.
    """
    readings = Readings(
        free_chlorine=max(free_chlorine, 0.1),
        ph=ph,
        total_alkalinity=100.0 + cyanuric_acid / 3,
        cyanuric_acid=cyanuric_acid,
    )
    known = known_from(readings)
    assert known is not None
    state = solve_readings(known)
    assert not isinstance(state, NoCarbonate)
    total = (readings.free_chlorine or 0.1) / (molar.CHLORINE * 1000)
    hocl = float(state.species.hocl) / total
    ocl = hocl * float(constants_at(25.0).k_hocl) * 10**ph
    bound = max(0.0, 1.0 - hocl - ocl)
    return DEPTH_AND_SKY_SHARE * (HOCL_PER_HOUR * hocl + OCL_PER_HOUR * ocl + BOUND_PER_HOUR * bound)
